/** A kit's path, small: gate posts with the outlined tokens of their slots. */
import { View } from 'react-native';
import type { SlotView } from '@gatepath/contract';
import { GatePost } from '../../ui/gate';
import { usePalette } from '../../ui/hooks';
import { Token } from '../../ui/token';
import { Row } from '../../ui/layout';

/** The outline that a person fills; a person who is always the same is filled already. */
export function SlotToken({ slot, size = 26 }: { slot: SlotView; size?: number }) {
  return <Token name={slot.name} ink={slot.ink} size={size} letters={slot.letters || undefined} />;
}

export function SlotPath({ slots, gates }: { slots: SlotView[]; gates: string[][] }) {
  const p = usePalette();
  return (
    <Row wrap style={{ rowGap: 6 }}>
      {gates.map((ids, i) => (
        <Row key={i} gap={4}>
          {i ? <View style={{ width: 18, height: 3, backgroundColor: p.rule, marginHorizontal: 4 }} /> : null}
          <GatePost state="closed" n={i + 1} size={24} />
          {ids.map((id) => {
            const slot = slots.find((s) => s.id === id);
            return slot ? <SlotToken key={id} slot={slot} /> : null;
          })}
        </Row>
      ))}
    </Row>
  );
}
