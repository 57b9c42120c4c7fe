/** Layout primitives: rows, stacks and columns. Distances come in four sizes, so that screens look alike. */
import type { ReactNode } from 'react';
import { View, type StyleProp, type ViewProps, type ViewStyle } from 'react-native';
import { usePalette } from './hooks';

/** Distance between two things, in pixels. */
export type Gap = 4 | 8 | 12 | 16;

type Align = 'start' | 'center' | 'end' | 'stretch' | 'baseline';

interface LayoutProps extends Omit<ViewProps, 'style'> {
  gap?: Gap;
  align?: Align;
  /** Takes the remaining width. */
  grow?: boolean;
  style?: StyleProp<ViewStyle>;
}

const ALIGN = {
  start: 'flex-start',
  center: 'center',
  end: 'flex-end',
  stretch: 'stretch',
  baseline: 'baseline',
} as const;
const JUSTIFY = { start: 'flex-start', center: 'center', end: 'flex-end', between: 'space-between' } as const;

/** Children below each other, each as wide as the stack unless `align` says otherwise. */
export function Stack({ gap, align, grow, style, ...rest }: LayoutProps) {
  return <View style={[{ gap, alignItems: align && ALIGN[align] }, grow ? { flex: 1 } : undefined, style]} {...rest} />;
}

/** Children beside each other, centered on one line; with `wrap` on several lines if one is too short. */
export function Row({
  gap,
  align = 'center',
  justify,
  wrap,
  grow,
  style,
  ...rest
}: LayoutProps & { justify?: keyof typeof JUSTIFY; wrap?: boolean }) {
  const base: ViewStyle = {
    flexDirection: 'row',
    gap,
    alignItems: ALIGN[align],
    justifyContent: justify && JUSTIFY[justify],
    flexWrap: wrap ? 'wrap' : undefined,
  };
  return <View style={[base, grow ? { flex: 1 } : undefined, style]} {...rest} />;
}

/** The buttons at the end of a card or form, beside each other or on several lines. */
export function Actions({ children, style, ...rest }: Omit<ViewProps, 'style'> & { style?: StyleProp<ViewStyle> }) {
  return (
    <Row gap={8} wrap align="stretch" style={style} {...rest}>
      {children}
    </Row>
  );
}

/** Columns beside each other on a wide screen, below each other on a phone. */
export function Columns({ wide, children }: { wide: boolean; children: ReactNode }) {
  return wide ? (
    <Row gap={16} align="start">
      {children}
    </Row>
  ) : (
    <Stack gap={16}>{children}</Stack>
  );
}

/** A part of a card below a dividing line. */
export function Ruled({ style, ...rest }: LayoutProps) {
  const p = usePalette();
  return <Stack style={[{ borderTopWidth: 1, borderColor: p.rule, paddingTop: 8 }, style]} {...rest} />;
}
