/** Facts of a deal that its papers depend on; unknown ones that matter are asked first. */
import { useState } from 'react';
import type { DealChanged, DealView } from '@gatepath/contract';
import { FACTS, type FactDef, type FactValue } from '@gatepath/core/deal';
import { listWords } from '@gatepath/core/text';
import { useDealChanges } from '../../api/deal-hooks';
import { Input } from '../../ui/input';
import { ActError, Button, Card, IconButton } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';
import { FactField, factLine, type Written } from '../facts/fact-field';
import { MovedNote } from './mile-posts';
import { TEXT } from './words';
import { Row, Ruled, Stack } from '../../ui/layout';

/** Returns the facts asked for in a deal of this kind: the usual ones, then the firm's own. */
export const factsFor = (deal: Pick<DealView, 'kind' | 'ownFacts'>): FactDef[] =>
  [...FACTS, ...deal.ownFacts].filter((f) => f.kinds.includes(deal.kind));

export function FactsCard({ deal, open }: { deal: DealView; open?: string | null }) {
  const [editing, setEditing] = useState(false);
  const [told, setTold] = useState<DealChanged | null>(null);
  const defs = factsFor(deal);
  const asked = deal.asked.flatMap((a) => {
    const def = defs.find((d) => d.key === a.fact);
    return def ? [{ def, papers: a.papers }] : [];
  });
  const known = defs.filter((d) => deal.facts[d.key] !== undefined);
  if (editing)
    return (
      <FactsForm
        deal={deal}
        defs={defs}
        onDone={(changed) => {
          setTold(changed);
          setEditing(false);
        }}
      />
    );
  return (
    <Card testID="facts">
      <Row>
        <Stack grow>
          <Heading>{TEXT.facts}</Heading>
        </Stack>
        <IconButton
          name="pencil"
          label={TEXT.correctTheFactsOfThis}
          onPress={() => setEditing(true)}
          testID="edit-facts"
        />
      </Row>
      {known.map((d) => (
        <Body key={d.key}>{factLine(d, deal.facts[d.key] as FactValue)}</Body>
      ))}
      {known.length ? null : <Small>{TEXT.noFactsYetTheyDecide}</Small>}
      {asked.length ? (
        <AskedFact
          key={(asked.find((a) => a.def.key === open) ?? asked[0])?.def.key}
          deal={deal}
          asked={asked.find((a) => a.def.key === open) ?? asked[0]}
          more={asked.length - 1}
          onTold={setTold}
        />
      ) : null}
      {told ? <MovedNote changed={told} today={deal.today} /> : null}
    </Card>
  );
}

/** One fact that papers depend on; when it is filled in, the next one follows. */
function AskedFact({
  deal,
  asked,
  more,
  onTold,
}: {
  deal: DealView;
  asked: { def: FactDef; papers: string[] } | undefined;
  more: number;
  onTold: (changed: DealChanged) => void;
}) {
  const { set } = useDealChanges(deal.id);
  const [written, setWritten] = useState<Written>({ value: null });
  if (!asked) return null;
  const { def, papers } = asked;
  const save = (value: FactValue) => set.mutate({ facts: { [def.key]: value } }, { onSuccess: onTold });
  const typed = def.type !== 'flag' && def.type !== 'choice';
  const value = 'value' in written ? written.value : null;
  return (
    <Ruled testID="asked" gap={8}>
      <Small>
        {TEXT.neededFor(listWords(papers.slice(0, 3)))}
        {more ? TEXT.moreToFillIn(more) : ''}
      </Small>
      <FactField
        def={def}
        value={null}
        onChange={(w) => {
          setWritten(w);
          if (!typed && 'value' in w && w.value !== null) save(w.value);
        }}
        onSubmit={() => value !== null && save(value)}
      />
      {typed ? (
        <Button
          onPress={() => value !== null && save(value)}
          disabled={value === null}
          busy={set.isPending}
          fit
          testID="save-asked"
        >
          {TEXT.fillIn}
        </Button>
      ) : null}
      <ActError of={set} />
    </Ruled>
  );
}

function FactsForm({
  deal,
  defs,
  onDone,
}: {
  deal: DealView;
  defs: FactDef[];
  onDone: (changed: DealChanged | null) => void;
}) {
  const { set } = useDealChanges(deal.id);
  const [address, setAddress] = useState(deal.address);
  const [city, setCity] = useState(deal.city);
  const [written, setWritten] = useState<Record<string, Written>>({});
  const wrong = Object.values(written).some((w) => 'wrong' in w);
  const values = Object.fromEntries(
    Object.entries(written).flatMap(([key, w]) =>
      'value' in w && w.value !== (deal.facts[key] ?? null) ? [[key, w.value]] : [],
    ),
  );
  return (
    <Card>
      <Heading>{TEXT.facts}</Heading>
      <Input
        label={TEXT.streetAddress}
        value={address}
        onChangeText={setAddress}
        maxLength={160}
        testID="fact-address"
      />
      <Input label={TEXT.town} value={city} onChangeText={setCity} maxLength={120} />
      {defs.map((def) => (
        <FactField
          key={def.key}
          def={def}
          value={currentOf(written[def.key], deal.facts[def.key])}
          onChange={(w) => setWritten((all) => ({ ...all, [def.key]: w }))}
        />
      ))}
      <ActError of={set} />
      <Row gap={8} align="stretch">
        <Button
          kind="main"
          busy={set.isPending}
          disabled={wrong || !address.trim()}
          onPress={() => set.mutate({ address, city, facts: values }, { onSuccess: onDone })}
          testID="save-facts"
        >
          {TEXT.save}
        </Button>
        <Button onPress={() => onDone(null)}>{TEXT.cancel}</Button>
      </Row>
    </Card>
  );
}

const currentOf = (written: Written | undefined, kept: FactValue | undefined): FactValue | null =>
  written ? ('value' in written ? written.value : null) : (kept ?? null);
