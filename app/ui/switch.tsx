/** A thing that is on or off, with its words; the whole line can be touched. */
import { Pressable, View } from 'react-native';
import { usePalette } from './hooks';
import { Icon } from './icon';
import { Body } from './text';

interface Props {
  label: string;
  on: boolean;
  onChange: (on: boolean) => void;
  testID?: string;
}

export function Switch({ label, on, onChange, testID }: Props) {
  const p = usePalette();
  return (
    <Pressable
      role="checkbox"
      aria-checked={on}
      aria-label={label}
      testID={testID}
      onPress={() => onChange(!on)}
      style={{ flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: 44 }}
    >
      <View
        style={{
          width: 26,
          height: 26,
          borderRadius: 7,
          borderWidth: 2,
          borderColor: p.ink,
          backgroundColor: on ? p.ink : 'transparent',
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        {on ? <Icon name="check" size={20} color={p.paper} /> : null}
      </View>
      <Body style={{ flex: 1 }}>{label}</Body>
    </Pressable>
  );
}
