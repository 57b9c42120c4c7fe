/** What only the web has, and React Native's types leave out: the one place where they are told otherwise. */
import type { CSSProperties } from 'react';
import type { DimensionValue, TextStyle, ViewStyle } from 'react-native';

type Own = Pick<
  CSSProperties,
  'animationDuration' | 'animationName' | 'cursor' | 'pointerEvents' | 'touchAction' | 'userSelect'
> & { position?: ViewStyle['position'] | 'sticky'; inset?: DimensionValue };

/** A style with what browsers know beside: cursors, how a finger scrolls, what is in the pointer's way. */
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

/** Attributes and listeners that elements of the web take. */
export function webProps(props: OwnProps): object {
  return props;
}

/** Whether the keyboard brought the focus here, so that it has to be seen where it is. */
export function isFocusedByKeys(target: unknown): boolean {
  try {
    return target instanceof Element && target.matches(':focus-visible');
  } catch {
    // Browsers of some years ago do not know the word: better seen too often than never.
    return true;
  }
}

/** The element behind a view, for measuring it and for listening to the pointer itself. */
export function elementOf(view: { current: unknown }): HTMLElement | null {
  return view.current instanceof HTMLElement ? view.current : null;
}

/** Fetches a picture ahead. While the result is held, showing the same address needs no connection. */
export function pictureAhead(uri: string): unknown {
  const picture = new globalThis.Image();
  picture.src = uri;
  return picture;
}
