/** Taking something away in two touches: the first asks, the second does it. */
import { useState } from 'react';
import { View } from 'react-native';
import { Button, IconButton } from './pieces';
import { TEXT } from './words';

export function ConfirmRemove({ label, onRemove }: { label: string; onRemove: () => void }) {
  const [asking, setAsking] = useState(false);
  if (!asking) return <IconButton name="trash" label={label} onPress={() => setAsking(true)} />;
  return (
    <View style={{ gap: 4 }}>
      <Button
        kind="stop"
        label={TEXT.yes(label)}
        onPress={() => {
          setAsking(false);
          onRemove();
        }}
      >
        {TEXT.remove}
      </Button>
      <Button onPress={() => setAsking(false)}>{TEXT.keep}</Button>
    </View>
  );
}
