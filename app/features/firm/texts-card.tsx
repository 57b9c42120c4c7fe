/** Message texts on the Firm screen: what there is, and letting one's own go. */
import { View } from 'react-native';
import { useMessageTexts, useTextActs } from '../../api/text-hooks';
import { Card, IconButton, Trouble } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { TEXT } from './words';

export function TextsCard() {
  const texts = useMessageTexts();
  const { drop } = useTextActs();
  const items = texts.data?.items ?? [];
  return (
    <Card testID="texts-card">
      <Heading>{TEXT.messageTexts}</Heading>
      {items.length ? null : <Small>{TEXT.noneYetSaveAMessage}</Small>}
      {items.map((t) => (
        <View key={t.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <View style={{ flex: 1 }}>
            <Strong>{t.name}</Strong>
            <Small numberOfLines={2}>{t.text}</Small>
            <Small>{t.own ? (t.shared ? TEXT.yoursShared : TEXT.onlyYours) : TEXT.from(t.by)}</Small>
          </View>
          {t.own ? <IconButton name="trash" label={TEXT.letGo(t.name)} onPress={() => drop.mutate(t.id)} /> : null}
        </View>
      ))}
      {drop.isError ? <Trouble error={drop.error} /> : null}
    </Card>
  );
}
