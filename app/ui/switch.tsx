/** A toggle with its words; the whole line can be touched. */
import { Pressable } from 'react-native';
import { Body, Small } from './text';
import { TickBox } from './tick-box';
import { Stack } from './layout';

interface Props {
  label: string;
  on: boolean;
  onChange: (on: boolean) => void;
  testID?: string;
  /** Larger, for clients. */
  large?: boolean;
  /** A smaller line below the words. */
  hint?: string;
}

export function Switch({ label, on, onChange, testID, large, hint }: Props) {
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
      <TickBox on={on} size={size} />
      <Stack grow>
        <Body style={large ? { fontSize: 18 } : null}>{label}</Body>
        {hint ? <Small>{hint}</Small> : null}
      </Stack>
    </Pressable>
  );
}
