/** What only the web has and React Native's types leave out, all in one place. */
import type { CSSProperties } from 'react';
import type { DimensionValue, TextStyle, ViewStyle } from 'react-native';

type Own = Pick<
  CSSProperties,
  'animationDuration' | 'animationName' | 'cursor' | 'pointerEvents' | 'touchAction' | 'userSelect'
> & { position?: ViewStyle['position'] | 'sticky'; inset?: DimensionValue };

/** Returns a style with web properties: cursors, touch behavior, pointer events. */
export function webStyle<S extends ViewStyle & TextStyle>(style: Omit<S, keyof Own> & Own): S {
  return style as S;
}

interface OwnProps {
  onKeyDown?: (e: never) => void;
  onFocus?: (e: never) => void;
  'aria-pressed'?: boolean;
  'aria-expanded'?: boolean;
  dataSet?: Record<string, string>;
}

/** Returns attributes and listeners of web elements as props. */
export function webProps(props: OwnProps): object {
  return props;
}

/** Returns whether the keyboard moved the focus here, so that it has to be visible. */
export function isFocusedByKeys(target: unknown): boolean {
  try {
    return target instanceof Element && target.matches(':focus-visible');
  } catch {
    // Older browsers do not know the selector: better visible too often than never.
    return true;
  }
}

/** Returns the web element of a view, for measuring it and for pointer events. */
export function elementOf(view: { current: unknown }): HTMLElement | null {
  return view.current instanceof HTMLElement ? view.current : null;
}

/** Fetches a picture ahead. While the result is held, showing the same address needs no connection. */
export function pictureAhead(uri: string): unknown {
  const picture = new globalThis.Image();
  picture.src = uri;
  return picture;
}
