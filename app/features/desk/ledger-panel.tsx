/** The ledger of a draft, and the initials rule of each document. */
import { puts, calledOf } from '@gatepath/core/packet';
import { listWords } from '@gatepath/core/text';
import { pageRanges } from '@gatepath/core/checks';
import { Icon } from '../../ui/icon';
import { PartyChip } from '../../ui/party-chip';
import { slotToken } from '../../ui/slot-token';
import { Button, Card, Choice, Loading } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { LedgerGrid } from '../ledger/grid';
import type { Desk } from './use-desk';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

const ANCHORS = [
  { value: '0,1', label: TEXT.footLeft },
  { value: '0.5,1', label: TEXT.footMiddle },
  { value: '1,1', label: TEXT.footRight },
  { value: '0,0', label: TEXT.headLeft },
  { value: '1,0', label: TEXT.headRight },
] as const;

export function LedgerPanel({ desk, onGo }: { desk: Desk; onGo?: () => void }) {
  const { view, draft } = desk;
  const parties = draft.parties.filter(puts);
  if (!desk.ready) return <Loading what={TEXT.thePages} />;
  const placed = view.ledger.rows.reduce((n, r) => n + r.cells.filter((c) => c.markIds.length > 0).length, 0);
  const wanted = placed + view.ledger.gaps;
  return (
    <Stack gap={12}>
      <Row align="baseline" justify="between">
        <Heading>{TEXT.pageLedger}</Heading>
        <Small testID="ledger-sum">{TEXT.ofPlaced(placed, wanted)}</Small>
      </Row>
      {draft.documents.map((d) => (
        <RuleCard key={d.id} desk={desk} documentId={d.id} />
      ))}
      <LedgerGrid
        rows={view.ledger.rows}
        parties={parties.map((x) => ({ ...x, letters: slotToken(x) }))}
        documents={view.documents}
        height={view.ledger.rows.length > 80 ? 620 : undefined}
        here={desk.at ? { ...desk.at, partyId: desk.partyId } : null}
        onTouch={(documentId, page, partyId) => {
          desk.goTo(documentId, page);
          desk.takeParty(partyId);
          onGo?.();
        }}
      />
    </Stack>
  );
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function RuleCard({ desk, documentId }: { desk: Desk; documentId: string }) {
  const parties = desk.draft.parties.filter(puts);
  const rule = desk.draft.rules.find((r) => r.documentId === documentId);
  const on = rule?.partyIds ?? [];
  const name = desk.view.documents.find((d) => d.id === documentId)?.name ?? '';
  const toggle = (id: string) =>
    desk.setRule(documentId, { partyIds: on.includes(id) ? on.filter((x) => x !== id) : [...on, id] });
  const anchor = rule ? ANCHORS.find((a) => a.value === `${rule.anchor.fx},${rule.anchor.fy}`)?.value : '0,1';
  const exceptions = rule?.except ?? [];
  const printed = desk.view.documents.find((d) => d.id === documentId)?.places.some((x) => x.kind === 'initials');
  return (
    <Card style={{ padding: 12 }} testID="rule-card">
      <Strong>{TEXT.everyPageOfInitialed(name)}</Strong>
      <Row gap={8} align="stretch" wrap>
        {parties.map((x) => {
          const ticked = on.includes(x.id);
          return (
            <PartyChip
              key={x.id}
              name={x.name}
              letters={slotToken(x)}
              ink={x.ink}
              words={calledOf(x)}
              label={TEXT.initialsEveryPage(x.name, name)}
              testID={`rule-${calledOf(x)}`}
              on={ticked}
              onPress={() => toggle(x.id)}
            >
              {ticked ? <Icon name="check" size={18} /> : null}
            </PartyChip>
          );
        })}
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
              if (v) desk.setRule(documentId, { anchor: { fx: fx!, fy: fy! }, moved: [] });
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
            <Button kind="quiet" onPress={() => desk.setRule(documentId, { except: [] })} fit>
              {TEXT.putThemBack}
            </Button>
          ) : null}
        </>
      ) : null}
    </Card>
  );
}
