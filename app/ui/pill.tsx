/** A rounded button for words that can be chosen: filled when chosen. */
import { Pressable } from 'react-native';
import { usePalette } from './hooks';
import { Icon } from './icon';
import { DropMenu, MenuItem } from './menu';
import { pillFrame, pillWords } from './pill-frame';
import { Body } from './text';
import { TEXT } from './words';

interface PillProps {
  label: string;
  on: boolean;
  onPress: () => void;
  /** Whether it opens a menu; otherwise it is on or off. */
  menu?: boolean;
}

export function Pill({ label, on, onPress, menu }: PillProps) {
  const p = usePalette();
  return (
    <Pressable
      role="button"
      aria-pressed={menu ? undefined : on}
      aria-haspopup={menu ? 'menu' : undefined}
      onPress={onPress}
      style={{ ...pillFrame(p, on), flexDirection: 'row', alignItems: 'center', gap: 4 }}
    >
      <Body style={pillWords(p, on)}>{label}</Body>
      {menu ? <Icon name="menu-down" size={18} color={on ? p.paper : p.slate} /> : null}
    </Pressable>
  );
}

/** One of several, chosen from a menu, or none. */
export function PillMenu<T extends string>({
  label,
  value,
  options,
  onChoose,
}: {
  label: string;
  value: T | undefined;
  options: { value: T; label: string }[];
  onChoose: (value: T | undefined) => void;
}) {
  const chosen = options.find((o) => o.value === value);
  return (
    <DropMenu anchor={(open) => <Pill label={chosen?.label ?? label} on={!!chosen} onPress={open} menu />}>
      <MenuItem title={TEXT.any(label)} onPress={() => onChoose(undefined)} />
      {options.map((o) => (
        <MenuItem key={o.value} title={o.label} onPress={() => onChoose(o.value)} />
      ))}
    </DropMenu>
  );
}
