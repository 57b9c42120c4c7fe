/** What is known of a deal besides its people: packets can name it in their words. */
import { useState } from 'react';
import { View } from 'react-native';
import type { DealView } from '@gatepath/contract';
import { isoDay, showDay } from '@gatepath/core/packet';
import { useSetDeal } from '../../api/hooks';
import { usePalette } from '../../ui/hooks';
import { Input } from '../../ui/input';
import { Button, Card, IconButton, Trouble } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';

export function FactsCard({ deal }: { deal: DealView }) {
  const [editing, setEditing] = useState(false);
  if (editing) return <FactsForm deal={deal} onDone={() => setEditing(false)} />;
  const lines = [
    ['Price', deal.price],
    ['Hand-over', deal.closingOn ? showDay(deal.closingOn) : ''],
  ].filter(([, value]) => value);
  return (
    <Card>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <View style={{ flex: 1 }}>
          <Heading>Facts</Heading>
        </View>
        <IconButton
          name="pencil"
          label="Correct the facts of this deal"
          onPress={() => setEditing(true)}
          testID="edit-facts"
        />
      </View>
      {lines.length ? (
        lines.map(([label, value]) => <Body key={label}>{`${label}: ${value}`}</Body>)
      ) : (
        <Small>Price and hand-over are not known yet. Packets can name them.</Small>
      )}
    </Card>
  );
}

function FactsForm({ deal, onDone }: { deal: DealView; onDone: () => void }) {
  const p = usePalette();
  const save = useSetDeal(deal.id);
  const [address, setAddress] = useState(deal.address);
  const [city, setCity] = useState(deal.city);
  const [price, setPrice] = useState(deal.price);
  const [closing, setClosing] = useState(deal.closingOn ?? '');
  const day = closing.trim() ? isoDay(closing.trim()) : null;
  const wrong = closing.trim() !== '' && day === null;
  return (
    <Card>
      <Heading>Facts</Heading>
      <Input label="Street address" value={address} onChangeText={setAddress} testID="fact-address" />
      <Input label="City" value={city} onChangeText={setCity} />
      <Input label="Price" value={price} onChangeText={setPrice} testID="fact-price" />
      <Input
        label="Day of the hand-over (month/day/year)"
        value={closing}
        onChangeText={setClosing}
        error={wrong}
        testID="fact-closing"
      />
      {wrong ? <Small style={{ color: p.wine }}>Please write a day, like 12/15/2026.</Small> : null}
      {save.isError ? <Trouble error={save.error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          kind="main"
          busy={save.isPending}
          disabled={wrong || !address.trim()}
          onPress={() => save.mutate({ address, city, price, closingOn: day }, { onSuccess: onDone })}
          testID="save-facts"
        >
          Save
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </View>
    </Card>
  );
}
