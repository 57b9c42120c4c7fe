/** Type, in the few forms the house uses. */
import type { ReactNode } from 'react';
import { Text as NativeText, type StyleProp, type TextStyle } from 'react-native';
import { usePalette } from './hooks';
import { FONT } from './theme';

interface Props {
  children: ReactNode;
  style?: StyleProp<TextStyle>;
  testID?: string;
  numberOfLines?: number;
  /** Makes it a heading of that level for those who listen. */
  level?: number;
}

/** The one heading of a screen. */
export function Title({ children, style, testID, numberOfLines }: Props) {
  const p = usePalette();
  return (
    <NativeText
      role="heading"
      numberOfLines={numberOfLines}
      aria-level={1}
      testID={testID}
      style={[{ fontFamily: FONT.heading, fontSize: 26, lineHeight: 32, color: p.ink }, style]}
    >
      {children}
    </NativeText>
  );
}

export function Heading({ children, style, testID }: Props) {
  const p = usePalette();
  return (
    <NativeText
      role="heading"
      aria-level={2}
      testID={testID}
      style={[{ fontFamily: FONT.heading, fontSize: 18, lineHeight: 24, color: p.ink }, style]}
    >
      {children}
    </NativeText>
  );
}

export function Body({ children, style, testID, numberOfLines, level }: Props) {
  const p = usePalette();
  return (
    <NativeText
      {...(level ? { role: 'heading' as const, 'aria-level': level } : {})}
      numberOfLines={numberOfLines}
      testID={testID}
      style={[{ fontFamily: FONT.text, fontSize: 16, lineHeight: 23, color: p.ink }, style]}
    >
      {children}
    </NativeText>
  );
}

export function Strong({ children, style, testID, numberOfLines, level }: Props) {
  return (
    <Body level={level} numberOfLines={numberOfLines} testID={testID} style={[{ fontFamily: FONT.bold }, style]}>
      {children}
    </Body>
  );
}

/** Secondary text: slate, a little smaller, never for what must be read. */
export function Small({ children, style, testID, numberOfLines, level }: Props) {
  const p = usePalette();
  return (
    <Body
      level={level}
      numberOfLines={numberOfLines}
      testID={testID}
      style={[{ fontSize: 14.5, lineHeight: 20, color: p.slate }, style]}
    >
      {children}
    </Body>
  );
}
