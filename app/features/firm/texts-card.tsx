/** Message texts on the Firm screen: what there is, and letting one's own go. */
import { View } from 'react-native';
import { useMessageTexts, useTextActs } from '../../api/text-hooks';
import { Card, IconButton, Trouble } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';

export function TextsCard() {
  const texts = useMessageTexts();
  const { drop } = useTextActs();
  const items = texts.data?.items ?? [];
  return (
    <Card testID="texts-card">
      <Heading>Message texts</Heading>
      {items.length ? null : (
        <Small>None yet. Save a message as a text where you write it, and insert it into the next one.</Small>
      )}
      {items.map((t) => (
        <View key={t.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <View style={{ flex: 1 }}>
            <Strong>{t.name}</Strong>
            <Small numberOfLines={2}>{t.text}</Small>
            <Small>{t.own ? (t.shared ? 'yours, shared' : 'only yours') : `from ${t.by}`}</Small>
          </View>
          {t.own ? <IconButton name="trash" label={`Let “${t.name}” go`} onPress={() => drop.mutate(t.id)} /> : null}
        </View>
      ))}
      {drop.isError ? <Trouble error={drop.error} /> : null}
    </Card>
  );
}
