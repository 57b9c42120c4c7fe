/** Choosing a side of the deal. */
import { SIDES, SIDE_WORDS, type Side } from '@gatepath/core/text';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button } from '../../ui/pieces';
import { TEXT } from './words';

export function SideField({ value, onChange }: { value: Side; onChange: (side: Side) => void }) {
  return (
    <DropMenu
      anchor={(open) => (
        <Button icon="chevron-down" onPress={open} label={TEXT.sideChange(SIDE_WORDS[value])} testID="side">
          {SIDE_WORDS[value]}
        </Button>
      )}
    >
      {SIDES.map((side) => (
        <MenuItem key={side} title={SIDE_WORDS[side]} testID={`side-${side}`} onPress={() => onChange(side)} />
      ))}
    </DropMenu>
  );
}
