/** Text styles of the screens. */
import type { ReactNode } from 'react';
import { Text as NativeText, type StyleProp, type TextStyle } from 'react-native';
import { usePalette } from './hooks';
import { FONT, type Palette } from './theme';

/** What a color means: `stop` an error, `warn` something to look at, `good` done, `act` can be touched. */
export type TextTone = 'stop' | 'warn' | 'good' | 'act' | 'plain' | 'ink';

const colorOf = (p: Palette, tone: TextTone) =>
  ({ stop: p.wine, warn: p.ochre, good: p.moss, act: p.brick, plain: p.slate, ink: p.ink })[tone];

interface Props {
  children: ReactNode;
  tone?: TextTone;
  /** Takes the remaining width of a row. */
  grow?: boolean;
  center?: boolean;
  style?: StyleProp<TextStyle>;
  testID?: string;
  numberOfLines?: number;
  /** Makes it a heading of that level for screen readers. */
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

export function Body({ children, style, testID, numberOfLines, level, tone = 'ink', grow, center }: Props) {
  const p = usePalette();
  return (
    <NativeText
      {...(level ? { role: 'heading' as const, 'aria-level': level } : {})}
      numberOfLines={numberOfLines}
      testID={testID}
      style={[
        { fontFamily: FONT.text, fontSize: 16, lineHeight: 23, color: colorOf(p, tone) },
        grow ? { flex: 1 } : undefined,
        center ? { textAlign: 'center' } : undefined,
        style,
      ]}
    >
      {children}
    </NativeText>
  );
}

export function Strong({ style, ...rest }: Props) {
  return <Body style={[{ fontFamily: FONT.bold }, style]} {...rest} />;
}

/** Secondary text: slate, a little smaller, never for what must be read. */
export function Small({ style, tone = 'plain', ...rest }: Props) {
  return <Body tone={tone} style={[{ fontSize: 14.5, lineHeight: 20 }, style]} {...rest} />;
}
