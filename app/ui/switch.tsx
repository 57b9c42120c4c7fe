/** A thing that is on or off, with its words; the whole line can be touched. */
import { Pressable, View } from 'react-native';
import { usePalette } from './hooks';
import { Icon } from './icon';
import { Body, Small } from './text';

interface Props {
  label: string;
  on: boolean;
  onChange: (on: boolean) => void;
  testID?: string;
  /** Larger, for clients: any thumb finds it. */
  large?: boolean;
  /** A smaller line under the words. */
  hint?: string;
}

export function Switch({ label, on, onChange, testID, large, hint }: Props) {
  const p = usePalette();
  const size = large ? 30 : 26;
  return (
    <Pressable
      role="checkbox"
      aria-checked={on}
      aria-label={label}
      testID={testID}
      onPress={() => onChange(!on)}
      style={{ flexDirection: 'row', alignItems: 'center', gap: large ? 12 : 10, minHeight: large ? 56 : 44 }}
    >
      <View
        style={{
          width: size,
          height: size,
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
      <View style={{ flex: 1 }}>
        <Body style={large ? { fontSize: 18 } : null}>{label}</Body>
        {hint ? <Small>{hint}</Small> : null}
      </View>
    </Pressable>
  );
}
