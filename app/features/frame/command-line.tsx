/** The command line, opened anywhere with one key: every place and act of the office, and search. */
import { Command } from 'cmdk';
import { router, usePathname } from 'expo-router';
import { useEffect, useState } from 'react';
import { Pressable, View } from 'react-native';
import type { Found } from '@gatepath/contract';
import { useFind } from '../../api/deal-hooks';
import { useSignOut } from '../../api/hooks';
import { usePalette, useSettled, useWide } from '../../ui/hooks';
import { Body, Small } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { TEXT } from './words';

const OPEN = 'gatepath:command-line';
/** Opens the command line. */
export const openCommandLine = () => window.dispatchEvent(new Event(OPEN));

const PLACES = [
  { words: TEXT.today, href: '/today', more: TEXT.startHome },
  { words: TEXT.deals, href: '/deals', more: 'list' },
  { words: TEXT.newDeal, href: '/deals/new', more: TEXT.openBeginListingSaleTenancy },
  { words: TEXT.dealFromContract, href: '/deals/new?from=contract', more: TEXT.contractReadOpenSigned },
  { words: TEXT.shelf, href: '/shelf', more: TEXT.formsKits },
  { words: TEXT.newKit, href: '/shelf/new-kit', more: 'forms' },
  { words: TEXT.notices, href: '/notices', more: TEXT.rentEntryLettersTenantsMany },
  { words: TEXT.newNotice, href: '/notices/new', more: TEXT.rentEntryManyHomes },
  { words: TEXT.people, href: '/people', more: TEXT.addressBookContacts },
  { words: TEXT.reports, href: '/insight', more: TEXT.chartsInsightWeeksTimeAt },
  { words: TEXT.importATable, href: '/import', more: TEXT.csvVcardImportDealsPeople },
  { words: TEXT.rules, href: '/rules', more: TEXT.requirementsPapersNeeded },
  { words: TEXT.newRule, href: '/rules/new', more: '' },
  { words: TEXT.mailroom, href: '/mailroom', more: TEXT.messagesMail },
  { words: TEXT.firm, href: '/firm', more: TEXT.settingsHolidaysMembersCalendar },
  { words: TEXT.verifyASealedCopy, href: '/check', more: TEXT.verifyProof },
] as const;

const placeOf = (f: Found) =>
  f.kind === 'person'
    ? `/people/${f.id}`
    : f.kind === 'packet'
      ? `/packets/${f.id}`
      : f.kind === 'deal'
        ? `/deals/${f.id}`
        : `/deals/${f.dealId ?? ''}`;

const GROUPS = [
  ['deals', TEXT.deals],
  ['people', TEXT.people],
  ['packets', TEXT.packets],
  ['papers', TEXT.papers],
] as const;

/** Returns whether somebody is typing: then the key is a letter. */
const isWriting = (e: Event) =>
  e.target instanceof HTMLElement &&
  (e.target.isContentEditable || /^(?:input|textarea|select)$/i.test(e.target.tagName));

export function CommandLine() {
  const p = usePalette();
  const wide = useWide();
  const path = usePathname();
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const one = (e.key === '/' && !isWriting(e)) || (e.key.toLowerCase() === 'k' && (e.ctrlKey || e.metaKey));
      if (!one) return;
      e.preventDefault();
      setOpen(true);
    };
    const show = () => setOpen(true);
    window.addEventListener('keydown', press);
    window.addEventListener(OPEN, show);
    return () => {
      window.removeEventListener('keydown', press);
      window.removeEventListener(OPEN, show);
    };
  }, []);
  useEffect(() => setOpen(false), [path]);
  return (
    <Command.Dialog
      open={open}
      onOpenChange={setOpen}
      label={TEXT.findOrDoAnything}
      shouldFilter={false}
      overlayClassName="gp-over"
      contentClassName="gp-line"
    >
      <style>{`
        .gp-over{position:fixed;inset:0;background:rgba(20,26,30,.45);z-index:20}
        .gp-line{position:fixed;z-index:21;left:50%;transform:translateX(-50%);top:${wide ? '12vh' : '0'};width:${wide ? '620px' : '100%'};
          max-height:${wide ? '70vh' : '100%'};overflow:hidden;display:flex;flex-direction:column;background:${p.sheet};color:${p.ink};
          border:1px solid ${p.rule};border-radius:${wide ? '16px' : '0'};font-family:${FONT.text}}
        .gp-line>[cmdk-root]{display:flex;flex-direction:column;min-height:0}
        .gp-line [cmdk-input]{border:0;outline:0;border-bottom:1px solid ${p.rule};padding:16px;font:18px ${FONT.text};background:transparent;color:${p.ink}}
        .gp-line [cmdk-list]{overflow:auto;padding:8px;min-height:0}
        .gp-line [cmdk-group-heading]{padding:8px 12px 4px;font-size:14px;color:${p.slate}}
        .gp-line [cmdk-item]{display:flex;align-items:center;justify-content:space-between;gap:12px;padding:8px 12px;min-height:44px;box-sizing:border-box;border-radius:10px;cursor:pointer}
        .gp-line [cmdk-item][data-selected=true]{background:${p.brickWash}}
      `}</style>
      {open ? <Lines onDone={() => setOpen(false)} /> : null}
    </Command.Dialog>
  );
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function Lines({ onDone }: { onDone: () => void }) {
  const [q, setQ] = useState('');
  const settled = useSettled(q, 120);
  const found = useFind(settled);
  const signOut = useSignOut();
  const words = q.trim().toLowerCase();
  const go = (href: string) => {
    onDone();
    router.push(href);
  };
  const places = PLACES.filter((x) => !words || `${x.words} ${x.more}`.toLowerCase().includes(words));
  const results = words && found.data ? found.data : null;
  const nothing = !!words && !places.length && !!results && GROUPS.every(([key]) => !results[key].length);
  return (
    <>
      <Command.Input
        value={q}
        onValueChange={setQ}
        placeholder={TEXT.findOrDoAnything}
        maxLength={200}
        data-testid="command-input"
      />
      <Command.List>
        {results?.alike ? (
          <View style={{ padding: 12 }}>
            <Small>{TEXT.noExactMatchSimilar}</Small>
          </View>
        ) : null}
        {GROUPS.map(([key, title]) =>
          results?.[key].length ? (
            <Command.Group key={key} heading={title}>
              {results[key].map((f) => (
                <Command.Item
                  key={`${f.kind} ${f.id}`}
                  value={`${f.kind} ${f.id}`}
                  onSelect={() => go(placeOf(f))}
                  data-testid={`found-${f.kind}`}
                >
                  <Body numberOfLines={1}>{f.title}</Body>
                  <Small numberOfLines={1}>{f.detail}</Small>
                </Command.Item>
              ))}
            </Command.Group>
          ) : null,
        )}
        {places.length ? (
          <Command.Group heading={TEXT.screensAndActions}>
            {places.map((x) => (
              <Command.Item key={x.href} value={x.href} onSelect={() => go(x.href)} data-testid={`go-${x.href}`}>
                <Body>{x.words}</Body>
              </Command.Item>
            ))}
            {!words || TEXT.signOutLeave.includes(words) ? (
              <Command.Item
                value="sign-out"
                onSelect={() => signOut.mutate(undefined, { onSuccess: () => router.replace('/sign-in') })}
              >
                <Body>{TEXT.signOut}</Body>
              </Command.Item>
            ) : null}
          </Command.Group>
        ) : null}
        {nothing ? (
          <View role="status" style={{ padding: 16 }}>
            <Body>{TEXT.nothingHas(q.trim().slice(0, 40))}</Body>
          </View>
        ) : null}
      </Command.List>
    </>
  );
}

/** Opens the command line by mouse or thumb, and shows its key. */
export function CommandButton() {
  const p = usePalette();
  const wide = useWide();
  return (
    <Pressable
      role="button"
      testID="command-line"
      aria-label={TEXT.findOrDoAnything}
      onPress={openCommandLine}
      style={{
        marginLeft: wide ? 'auto' : 0,
        width: wide ? 250 : '100%',
        minHeight: 44,
        flexDirection: 'row',
        alignItems: 'center',
        justifyContent: 'space-between',
        paddingHorizontal: 14,
        borderWidth: 1,
        borderColor: p.rule,
        borderRadius: 12,
        backgroundColor: p.sheet,
      }}
    >
      <Small>{TEXT.findOrDoAnything}</Small>
      {wide ? <Small style={{ fontFamily: FONT.bold }}>/</Small> : null}
    </Pressable>
  );
}
