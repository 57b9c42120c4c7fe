/** Removing something in two touches: the first asks, the second does it. */
import { useState } from 'react';
import { Button, IconButton } from './pieces';
import { TEXT } from './words';
import { Stack } from './layout';

export function ConfirmRemove({ label, onRemove }: { label: string; onRemove: () => void }) {
  const [asking, setAsking] = useState(false);
  if (!asking) return <IconButton name="trash" label={label} onPress={() => setAsking(true)} />;
  return (
    <Stack gap={4}>
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
    </Stack>
  );
}
