/** A full hour of a day, chosen from a list. */
import { DropMenu, MenuItem } from './menu';
import { Button } from './pieces';
import { TEXT } from './words';

const HOURS = Array.from({ length: 24 }, (_, hour) => hour);
export const hourWords = (hour: number) => `${hour}:00`;

interface Props {
  value: number;
  onChange: (hour: number) => void;
  testID?: string;
}

export function HourMenu({ value, onChange, testID }: Props) {
  return (
    <DropMenu
      anchor={(show) => (
        <Button onPress={show} testID={testID}>
          {TEXT.at(hourWords(value))}
        </Button>
      )}
    >
      {HOURS.map((h) => (
        <MenuItem key={h} title={hourWords(h)} onPress={() => onChange(h)} />
      ))}
    </DropMenu>
  );
}
