/** Choosing a side: the sides that fit the kind of deal, then the rest behind one button. */
import { useState } from 'react';
import { Menu } from 'react-native-paper';
import { SIDES, type Side } from '@gatepath/core/routing';
import { SIDE_WORDS } from '@gatepath/core/text';
import { Button } from '../../ui/pieces';

export function SideField({ value, onChange }: { value: Side; onChange: (side: Side) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <Menu
      visible={open}
      onDismiss={() => setOpen(false)}
      anchor={
        <Button icon="chevron-down" onPress={() => setOpen(true)} label={`Side: ${SIDE_WORDS[value]}. Change`} testID="side">
          {SIDE_WORDS[value]}
        </Button>
      }
    >
      {SIDES.map((side) => (
        <Menu.Item
          key={side}
          title={SIDE_WORDS[side]}
          testID={`side-${side}`}
          onPress={() => {
            onChange(side);
            setOpen(false);
          }}
        />
      ))}
    </Menu>
  );
}
