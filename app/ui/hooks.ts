import { inertOthers } from 'aria-hidden';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { useWindowDimensions, type View } from 'react-native';
import { useTheme } from 'react-native-paper';
import type { AppTheme, Palette } from './theme';

/** Returns the palette of the current theme. */
export function usePalette(): Palette {
  return useTheme<AppTheme>().palette;
}

/** Width in pixels from which the desk's columns fit side by side. */
const WIDE = 1000;

export function useWide(): boolean {
  return useWindowDimensions().width >= WIDE;
}

/** Returns what a scrolling area needs so that the arrow keys scroll it: a tab stop and a name. */
export const byKeys = (label: string) => ({ tabIndex: 0 as const, role: 'group' as const, 'aria-label': label });

/**
 * Returns a value once it has not changed for a number of milliseconds, so that typing does not query letter by
 * letter.
 */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}

/** Makes the view with this ref the only one that keys and screen readers reach, while it is rendered. */
export function useAlone(): RefObject<View | null> {
  const ref = useRef<View>(null);
  useEffect(() => {
    // On the web a view is an element.
    const here = ref.current as unknown as Element | null;
    return here ? inertOthers(here) : undefined;
  }, []);
  return ref;
}
