/** Message texts on the Firm screen: listing them, and deleting one's own. */
import { useMessageTexts, useTextActs } from '../../api/text-hooks';
import { ActError, Card, IconButton } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function TextsCard() {
  const texts = useMessageTexts();
  const { drop } = useTextActs();
  const items = texts.data?.items ?? [];
  return (
    <Card testID="texts-card">
      <Heading>{TEXT.messageTexts}</Heading>
      {items.length ? null : <Small>{TEXT.noneYetSaveAMessage}</Small>}
      {items.map((t) => (
        <Row key={t.id} gap={8}>
          <Stack grow>
            <Strong>{t.name}</Strong>
            <Small numberOfLines={2}>{t.text}</Small>
            <Small>{t.own ? (t.shared ? TEXT.yoursShared : TEXT.onlyYours) : TEXT.from(t.by)}</Small>
          </Stack>
          {t.own ? <IconButton name="trash" label={TEXT.letGo(t.name)} onPress={() => drop.mutate(t.id)} /> : null}
        </Row>
      ))}
      <ActError of={drop} />
    </Card>
  );
}
