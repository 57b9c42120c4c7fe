import { inertOthers } from 'aria-hidden';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { useWindowDimensions, type View } from 'react-native';
import { useTheme } from 'react-native-paper';
import type { AppTheme, Palette } from './theme';

/** The palette of the theme in force. */
export function usePalette(): Palette {
  return useTheme<AppTheme>().palette;
}

/** From here on there is room for the desk's columns side by side. */
const WIDE = 1000;

export function useWide(): boolean {
  return useWindowDimensions().width >= WIDE;
}

/** What a scrolled part needs so that the arrow keys scroll it: a stop for the keyboard, and a name. */
export const byKeys = (label: string) => ({ tabIndex: 0 as const, role: 'group' as const, 'aria-label': label });

/** A value once it has stayed the same for so many milliseconds: what is typed is not asked letter by letter. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}

/** While it is drawn, the view that gets this ref stands alone: what lies behind it is reached by no key and no screen reader. */
export function useAlone(): RefObject<View | null> {
  const ref = useRef<View>(null);
  useEffect(() => {
    // On the web a view is an element.
    const here = ref.current as unknown as Element | null;
    return here ? inertOthers(here) : undefined;
  }, []);
  return ref;
}
