/** The header of a screen without frame: the desk's, the ceremony's. */
import type { ReactNode } from 'react';
import { View, type ViewStyle } from 'react-native';
import { usePalette } from './hooks';

export function Banner({ style, children }: { style: ViewStyle; children: ReactNode }) {
  const p = usePalette();
  return (
    <View role="banner" style={[{ backgroundColor: p.sheet, borderBottomWidth: 1, borderColor: p.rule }, style]}>
      {children}
    </View>
  );
}
