/** Using a kit on a deal: who fills which slot, what can still be changed, and one act to send it. */
import { router, useLocalSearchParams } from 'expo-router';
import { useState, type ReactNode } from 'react';
import { View } from 'react-native';
import type { KitTrial } from '@gatepath/contract';
import { count, firstName, listWords } from '@gatepath/core/text';
import { useDeal } from '../../api/hooks';
import { useKit, useKitTrial, type KitChanges } from '../../api/shelf-hooks';
import { GatePost } from '../../ui/gate';
import { usePalette, useSettled } from '../../ui/hooks';
import { Icon } from '../../ui/icon';
import { NotReady, isReady } from '../../ui/not-ready';
import { ActError, Button, Card, IconButton, Note, Page } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { Token } from '../../ui/token';
import { InNameOf } from '../desk/in-name-of';
import { canSend } from './can-send';
import { SlotToken } from './slot-path';
import { laterWords, Settings } from './use-kit-settings';
import { UnknownTags } from './unknown-tags';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function UseKit() {
  const { dealId, kitId } = useLocalSearchParams<{ dealId: string; kitId: string }>();
  const [changes, setChanges] = useState<KitChanges>({});
  const [saveValues, setSaveValues] = useState(true);
  const [forId, setFor] = useState('');
  const deal = useDeal(dealId);
  // Typing does not query letter by letter.
  const settled = useSettled(changes, 350);
  const trial = useKitTrial(dealId, kitId, settled);
  const use = useKit(dealId, kitId);
  if (!isReady(deal)) return <NotReady query={deal} what={TEXT.theDeal} />;
  if (!isReady(trial)) return <NotReady query={trial} what={TEXT.theKit} />;
  const t = trial.data;
  const forWhom = (send: boolean) => (send && forId ? { forId } : {});
  const go = (send: boolean) =>
    use.mutate(
      {
        ...changes,
        ...forWhom(send),
        send,
        despiteWarnings: true,
        saveValues: saveValues && !!changes.values,
        uses: t.uses,
      },
      {
        onSuccess: (packet) => router.replace(`/packets/${packet.id}`),
        // The kit may have been used or changed meanwhile: the preview shows it before the member tries again.
        onError: () => void trial.refetch(),
      },
    );
  return (
    <Stack grow>
      <Page max={620}>
        <Head dealId={dealId} address={deal.data.address} name={t.name} />
        <Body>{holds(t)}</Body>
        <Slots trial={t} dealId={dealId} />
        <UnknownTags
          trial={t}
          values={changes.values ?? {}}
          onChange={(values) => setChanges((was) => ({ ...was, values: { ...was.values, ...values } }))}
          keep={saveValues}
          onSave={setSaveValues}
        />
        <Path trial={t} />
        <Settings trial={t} today={deal.data.today} onChange={(c) => setChanges((was) => ({ ...was, ...c }))} />
        <InNameOf value={forId} onChange={setFor} />
        <Findings findings={t.findings} />
        <ActError of={use} />
      </Page>
      <Foot
        trial={t}
        today={deal.data.today}
        busy={use.isPending}
        isStale={trial.isPlaceholderData || settled !== changes}
        onGo={go}
      />
    </Stack>
  );
}

function Findings({ findings }: Pick<KitTrial, 'findings'>) {
  return findings.map((f) => (
    <Note key={f.sentence} tone={f.severity === 'stops' ? 'stop' : 'warn'} title={f.sentence} testID="kit-finding" />
  ));
}

function Head({ dealId, address, name }: { dealId: string; address: string; name: string }) {
  return (
    <Row gap={4}>
      <IconButton name="arrow-left" label={TEXT.backToTheDeal} onPress={() => router.navigate(`/deals/${dealId}`)} />
      <Stack grow>
        <Small>{address}</Small>
        <Title numberOfLines={2}>{name}</Title>
      </Stack>
    </Row>
  );
}

interface FootProps {
  trial: KitTrial;
  today: string;
  busy: boolean;
  /** Whether the preview does not show the member's latest changes yet. */
  isStale: boolean;
  onGo: (send: boolean) => void;
}

/** Stays at the bottom while the rest scrolls. */
function Foot({ trial, today, busy, isStale, onGo }: FootProps) {
  const p = usePalette();
  return (
    <View
      style={{ backgroundColor: p.sheet, borderTopWidth: 1, borderColor: p.rule, padding: 10, alignItems: 'center' }}
    >
      <View style={{ width: '100%', maxWidth: 620 }}>
        <Row gap={8} align="stretch">
          <Button onPress={() => onGo(false)} disabled={busy} testID="kit-to-desk" grow>
            {TEXT.toTheDesk}
          </Button>
          <Button
            kind="main"
            onPress={() => onGo(true)}
            busy={busy}
            disabled={!canSend(trial) || isStale}
            testID="kit-send"
            style={{ flex: 1.4 }}
          >
            {sendWords(trial, today)}
          </Button>
        </Row>
      </View>
    </View>
  );
}

/** Returns how much a kit contains, and what it meets. */
const holds = (t: KitTrial) =>
  [`${count(t.papers, 'paper')}, ${count(t.pages, 'page')}.`, meets(t)].filter(Boolean).join(' ');

const meets = (t: KitTrial) => (t.meets.length ? TEXT.meetsOfWhatTheDeal(t.meets.length, listWords(t.meets)) : '');

/** Returns "Send to Wren and Callum": everyone at the first gate. */
function sendWords(t: KitTrial, today: string): string {
  if (t.later) return TEXT.sendIt(laterWords(t.later, today));
  const first = (t.gates[0] ?? []).flatMap((id) => t.people.find((p) => p.id === id) ?? []);
  return first.length ? TEXT.sendTo(listWords(first.map((p) => firstName(p.name)))) : TEXT.send;
}

/** Returns what a person will have to do, in few words. */
function does(p: KitTrial['people'][number]): string {
  const parts = [
    p.signatures ? TEXT.signs(p.signatures) : '',
    p.initials ? TEXT.initials(p.initials) : '',
    p.others ? TEXT.fills(p.others) : '',
  ].filter(Boolean);
  const what = p.act === 'copy' ? 'gets a copy' : p.act === 'approve' ? TEXT.readsAndApproves : parts.join(', ');
  const more = p.beyond ? TEXT.noLineForThemSpace(p.beyond === 1 ? TEXT.aPaperHas : TEXT.papersHave(p.beyond)) : '';
  return `${what || TEXT.hasNothingToPutIn}${more}`;
}

function Slots({ trial: t, dealId }: { trial: KitTrial; dealId: string }) {
  const p = usePalette();
  const shown = new Set(t.slots.flatMap((s) => s.people));
  const beyond = t.people.filter((x) => !shown.has(x.id));
  const arrow = <Icon name="arrow-right" color={p.slate} size={20} />;
  return (
    <Card style={{ gap: 0 }} testID="kit-slots">
      <Heading>{TEXT.whoFillsWhichPlace}</Heading>
      {t.slots.map((s) => (
        <SettingRow key={s.id}>
          <SlotToken slot={s} size={32} />
          {arrow}
          {s.people.length ? (
            <Stack gap={8} grow>
              {s.people
                .flatMap((id) => t.people.find((x) => x.id === id) ?? [])
                .map((x) => (
                  <Person key={x.id} person={x} />
                ))}
            </Stack>
          ) : (
            <Stack grow>
              <Strong>{s.empty === 'fewer' ? TEXT.no(s.name.toLowerCase()) : TEXT.noYet(s.name.toLowerCase())}</Strong>
              <Small>
                {s.empty === 'fewer' ? TEXT.whatIsMeantForThis : TEXT.needOne(count(s.papers, 'paper'), s.papers)}
              </Small>
              {s.empty === 'nobody' ? (
                <Button kind="quiet" onPress={() => router.navigate(`/deals/${dealId}`)} fit>
                  {TEXT.addAPerson}
                </Button>
              ) : null}
            </Stack>
          )}
        </SettingRow>
      ))}
      {beyond.map((x) => (
        <SettingRow key={x.id}>
          <View style={{ width: 32 }} />
          {arrow}
          <Person person={x} />
        </SettingRow>
      ))}
    </Card>
  );
}

function SettingRow({ children }: { children: ReactNode }) {
  const p = usePalette();
  return (
    <Row testID="kit-slot" gap={12} style={{ paddingVertical: 10, borderTopWidth: 1, borderColor: p.rule }}>
      {children}
    </Row>
  );
}

function Person({ person: x }: { person: KitTrial['people'][number] }) {
  return (
    <Row gap={12} grow>
      <Token name={x.name} ink={x.ink} size={32} />
      <Stack grow>
        <Strong>{x.name}</Strong>
        <Small>{does(x)}</Small>
      </Stack>
    </Row>
  );
}

function Path({ trial: t }: { trial: KitTrial }) {
  const p = usePalette();
  const by = t.locks.find((l) => l.lock === 'path')?.by;
  return (
    <Card>
      <Row wrap style={{ rowGap: 6 }}>
        {t.gates.map((ids, i) => (
          <Row key={i} gap={4}>
            {i ? <View style={{ width: 20, height: 3, backgroundColor: p.rule, marginHorizontal: 4 }} /> : null}
            <GatePost state={i === 0 ? 'lit' : 'closed'} n={i + 1} size={28} />
            {ids
              .flatMap((id) => t.people.find((x) => x.id === id) ?? [])
              .map((x) => (
                <Token key={x.id} name={x.name} ink={x.ink} size={26} />
              ))}
          </Row>
        ))}
      </Row>
      {by ? <Small>{TEXT.theOrderWasSet(by)}</Small> : null}
    </Card>
  );
}
