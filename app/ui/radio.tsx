/** Choosing one of several: one stop for the keyboard, the arrow keys go from one to the next. */
import * as Group from '@radix-ui/react-radio-group';
import type { ReactNode } from 'react';
import { type StyleProp, StyleSheet, View, type ViewStyle } from 'react-native';
import { webStyle } from './web';

// The library puts styles of its own beside ours, entry by entry: ours have to be one object.
const TOUCHED = webStyle({ cursor: 'pointer', userSelect: 'none' });

interface GroupProps {
  label: string;
  value: string | null;
  onChange: (value: string) => void;
  style?: StyleProp<ViewStyle>;
  children: ReactNode;
}

export function RadioGroup({ label, value, onChange, style, children }: GroupProps) {
  return (
    <Group.Root asChild value={value ?? ''} onValueChange={onChange} aria-label={label}>
      <View style={StyleSheet.flatten(style)}>{children}</View>
    </Group.Root>
  );
}

interface ItemProps {
  value: string;
  label?: string;
  testID?: string;
  /** Told of every press, also of what is chosen already. */
  onPress?: () => void;
  style?: ViewStyle;
  children: ReactNode;
}

export function Radio({ value, label, testID, onPress, style, children }: ItemProps) {
  return (
    <Group.Item asChild value={value} aria-label={label} onClick={onPress}>
      <View testID={testID} style={StyleSheet.flatten([TOUCHED, style])}>
        {children}
      </View>
    </Group.Item>
  );
}
