/** Parts of a screen behind tabs: one tab stop for the keyboard, the arrow keys move between the tabs. */
import * as Tabs from '@radix-ui/react-tabs';
import type { ReactNode } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import { webStyle } from './web';
import { Stack } from './layout';

// The library adds styles beside ours, key by key: ours have to be one object.
const TOUCHED = webStyle({ cursor: 'pointer', userSelect: 'none' });

interface Props {
  value: string;
  onChange: (value: string) => void;
  children: ReactNode;
}

/** The list of tabs and their panels. */
export function TabbedView({ value, onChange, children }: Props) {
  return (
    <Tabs.Root asChild value={value} onValueChange={onChange}>
      <Stack grow>{children}</Stack>
    </Tabs.Root>
  );
}

export function TabList({ label, style, children }: { label: string; style?: ViewStyle; children: ReactNode }) {
  return (
    <Tabs.List asChild aria-label={label}>
      <View style={StyleSheet.flatten(style)}>{children}</View>
    </Tabs.List>
  );
}

export function Tab({
  value,
  testID,
  style,
  children,
}: {
  value: string;
  testID?: string;
  style?: ViewStyle;
  children: ReactNode;
}) {
  return (
    <Tabs.Trigger asChild value={value}>
      <View testID={testID} style={StyleSheet.flatten([TOUCHED, style])}>
        {children}
      </View>
    </Tabs.Trigger>
  );
}

/** The content of a tab; the content of other tabs is not rendered. */
export function TabPanel({ value, style, children }: { value: string; style?: ViewStyle; children: ReactNode }) {
  return (
    <Tabs.Content asChild value={value}>
      <View style={StyleSheet.flatten(style)}>{children}</View>
    </Tabs.Content>
  );
}
