/**
 * How a pill looks. Apart from the pill itself, whose menu brings a library that those who only sign never need.
 */
import type { ViewStyle } from 'react-native';
import { FONT, type Palette } from './theme';

/** Returns the frame of a pill. */
export const pillFrame = (p: Palette, on: boolean): ViewStyle => ({
  minHeight: 44,
  paddingHorizontal: 14,
  borderRadius: 22,
  borderWidth: 1.5,
  borderColor: on ? p.ink : p.rule,
  backgroundColor: on ? p.ink : p.sheet,
  justifyContent: 'center',
});
/** Returns the style of a pill's words. */
export const pillWords = (p: Palette, on: boolean) => ({
  color: on ? p.paper : p.ink,
  fontFamily: on ? FONT.bold : FONT.text,
});
