/** What documents state otherwise than their deal: each with its words, accepted or dismissed in one touch. */
import { useState } from 'react';
import type { DealView } from '@gatepath/contract';
import { upperFirst } from '@gatepath/core/text';
import { useActOnStated } from '../../api/incoming-hooks';
import { Actions, Ruled } from '../../ui/layout';
import { ActError, Button, Card } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { Sources } from './sources';
import { TEXT } from './words';

type Stated = DealView['stated'][number];

export function StatedCard({ deal }: { deal: DealView }) {
  const act = useActOnStated(deal.id);
  if (!deal.stated.length) return null;
  return (
    <Card gap={12} testID="stated">
      <Heading>{TEXT.papersSayOtherwise}</Heading>
      {deal.stated.map((s) => (
        <StatedRow
          key={`${s.documentId} ${s.field} ${s.value}`}
          deal={deal}
          stated={s}
          busy={act.isPending}
          onAct={(what) => act.mutate({ documentId: s.documentId, field: s.field, value: s.value, act: what })}
        />
      ))}
      <ActError of={act} />
    </Card>
  );
}

function StatedRow({
  deal,
  stated: s,
  busy,
  onAct,
}: {
  deal: DealView;
  stated: Stated;
  busy: boolean;
  onAct: (what: 'accept' | 'dismiss') => void;
}) {
  const [seen, setSeen] = useState(false);
  const pages = deal.documents.find((d) => d.id === s.documentId)?.pages ?? [];
  return (
    <Ruled gap={4} testID={`stated-${s.field}`}>
      <Strong>{upperFirst(s.words)}</Strong>
      <Small>{TEXT.inDocument(s.name, TEXT.page(s.source.page, s.source.words))}</Small>
      {s.why ? <Small>{s.why}</Small> : null}
      {seen ? <Sources view={{ documentId: s.documentId, pages }} sources={[s.source]} /> : null}
      <Actions>
        <Button onPress={() => onAct('accept')} busy={busy} label={TEXT.acceptOf(s.words)} testID="accept-stated">
          {s.field.startsWith('side.') ? TEXT.addThem : TEXT.changeTheDeal}
        </Button>
        <Button
          kind="quiet"
          onPress={() => setSeen(!seen)}
          label={seen ? TEXT.hideWhere(s.words) : TEXT.seeWhere(s.words)}
        >
          {seen ? TEXT.hideIt : TEXT.seeIt}
        </Button>
        <Button kind="quiet" onPress={() => onAct('dismiss')} disabled={busy} label={TEXT.dismissOf(s.words)}>
          {TEXT.dismiss}
        </Button>
      </Actions>
    </Ruled>
  );
}
