/** The ledger of a draft, and who initials every page. */
import { useState } from 'react';
import { puts, calledOf, signsDocument, type PacketParty } from '@gatepath/core/packet';
import { listWords } from '@gatepath/core/text';
import { pageRanges } from '@gatepath/core/checks';
import { Icon } from '../../ui/icon';
import { PartyChip } from '../../ui/party-chip';
import { slotToken } from '../../ui/slot-token';
import { Button, Card, Choice, Loading } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { LedgerGrid } from '../ledger/grid';
import { partyInHand, positionOf } from './desk-state';
import { useDesk, useDeskActs } from './use-desk';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

const ANCHORS = [
  { value: '0,1', label: TEXT.footLeft },
  { value: '0.5,1', label: TEXT.footMiddle },
  { value: '1,1', label: TEXT.footRight },
  { value: '0,0', label: TEXT.headLeft },
  { value: '1,0', label: TEXT.headRight },
] as const;

export function LedgerPanel({ onGo }: { onGo?: () => void }) {
  const { goTo, takeParty } = useDeskActs();
  const { view, ready } = useDesk((s) => ({ view: s.view, ready: s.ready }));
  const parties = useDesk((s) => s.draft.parties.filter(puts));
  const here = useDesk((s) => {
    const at = positionOf(s);
    return at ? { ...at, partyId: partyInHand(s) } : null;
  });
  if (!ready) return <Loading what={TEXT.thePages} />;
  const placed = view.ledger.rows.reduce((n, r) => n + r.cells.filter((c) => c.markIds.length > 0).length, 0);
  const wanted = placed + view.ledger.gaps;
  return (
    <Stack gap={12}>
      <Row align="baseline" justify="between">
        <Heading>{TEXT.pageLedger}</Heading>
        <Small testID="ledger-sum">{TEXT.ofPlaced(placed, wanted)}</Small>
      </Row>
      <InitialsCard />
      <LedgerGrid
        rows={view.ledger.rows}
        parties={parties.map((x) => ({ ...x, letters: slotToken(x) }))}
        documents={view.documents}
        height={view.ledger.rows.length > 80 ? 620 : undefined}
        here={here}
        onTouch={(documentId, page, partyId) => {
          goTo(documentId, page);
          takeParty(partyId);
          onGo?.();
        }}
      />
    </Stack>
  );
}

interface ChipProps {
  party: PacketParty;
  words: string;
  /** For screen readers. */
  label: string;
  testID: string;
  on: boolean;
  onPress: () => void;
}

/** A person who initials every page, or does not. */
const InitialsChip = ({ party, on, ...chip }: ChipProps) => (
  <PartyChip name={party.name} letters={slotToken(party)} ink={party.ink} on={on} {...chip}>
    {on ? <Icon name="check" size={18} /> : null}
  </PartyChip>
);

/** Who initials every page of every document; of several documents each can have a rule of its own. */
function InitialsCard() {
  const { initialAll } = useDeskActs();
  const { parties, documents, rules } = useDesk((s) => s.draft);
  const [open, setOpen] = useState(false);
  const [only, ...others] = documents;
  if (!only) return null;
  if (!others.length) return <RuleCard documentId={only.id} />;
  const ruled = (id: string) => rules.filter((r) => r.partyIds.includes(id)).length;
  return (
    <>
      <Card style={{ padding: 12 }} testID="initials-card">
        <Strong>{TEXT.everyPageOfAll(documents.length)}</Strong>
        <Row gap={8} align="stretch" wrap>
          {parties.filter(puts).map((x) => {
            const gets = documents.filter((d) => signsDocument(x, d.id)).length;
            const n = ruled(x.id);
            const all = n > 0 && n >= gets;
            return (
              <InitialsChip
                key={x.id}
                party={x}
                words={n && !all ? TEXT.ofDocuments(calledOf(x), n, gets) : calledOf(x)}
                label={TEXT.initialsEveryPageOfAll(x.name)}
                testID={`rule-all-${calledOf(x)}`}
                on={all}
                onPress={() => initialAll(x.id, !all)}
              />
            );
          })}
        </Row>
        <Button kind="quiet" onPress={() => setOpen((x) => !x)} fit testID="rules-by-document">
          {open ? TEXT.hideThem : TEXT.byDocument}
        </Button>
      </Card>
      {open ? documents.map((d) => <RuleCard key={d.id} documentId={d.id} />) : null}
    </>
  );
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function RuleCard({ documentId }: { documentId: string }) {
  const { setRule } = useDeskActs();
  const parties = useDesk((s) => s.draft.parties.filter(puts));
  const rule = useDesk((s) => s.draft.rules.find((r) => r.documentId === documentId));
  const document = useDesk((s) => s.view.documents.find((d) => d.id === documentId));
  const on = rule?.partyIds ?? [];
  const name = document?.name ?? '';
  const toggle = (id: string) =>
    setRule(documentId, { partyIds: on.includes(id) ? on.filter((x) => x !== id) : [...on, id] });
  const anchor = rule ? ANCHORS.find((a) => a.value === `${rule.anchor.fx},${rule.anchor.fy}`)?.value : '0,1';
  const exceptions = rule?.except ?? [];
  const printed = document?.places.some((x) => x.kind === 'initials');
  return (
    <Card style={{ padding: 12 }} testID="rule-card">
      <Strong>{TEXT.everyPageOfInitialed(name)}</Strong>
      <Row gap={8} align="stretch" wrap>
        {parties.map((x) => (
          <InitialsChip
            key={x.id}
            party={x}
            words={calledOf(x)}
            label={TEXT.initialsEveryPage(x.name, name)}
            testID={`rule-${calledOf(x)}`}
            on={on.includes(x.id)}
            onPress={() => toggle(x.id)}
          />
        ))}
      </Row>
      {on.length ? (
        <>
          <Choice
            wrap
            label={TEXT.whereOnThePage}
            value={anchor ?? ''}
            options={anchor ? [...ANCHORS] : [{ value: '', label: TEXT.asPlaced }, ...ANCHORS]}
            onChange={(v) => {
              const [fx, fy] = v.split(',').map(Number);
              if (v) setRule(documentId, { anchor: { fx: fx!, fy: fy! }, moved: [] });
            }}
          />
          <Small>
            {exceptions.length
              ? TEXT.leftOutList(
                  listWords(
                    parties
                      .filter((x) => exceptions.some((e) => e.partyId === x.id))
                      .map((x) =>
                        TEXT.on(
                          calledOf(x),
                          pageRanges(exceptions.filter((e) => e.partyId === x.id).map((e) => e.page)),
                        ),
                      ),
                  ),
                )
              : printed
                ? TEXT.inTheBlanksPrinted
                : TEXT.clearOfPrintNoPage}
          </Small>
          {exceptions.length ? (
            <Button kind="quiet" onPress={() => setRule(documentId, { except: [] })} fit>
              {TEXT.putThemBack}
            </Button>
          ) : null}
        </>
      ) : null}
    </Card>
  );
}
