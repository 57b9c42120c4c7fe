/**
 * The eight party inks and the ink of changes, for screen and paper. Color is never the only sign: each ink has a shape, and tokens carry
 * letters. A party's ink is an index; nothing here knows parties.
 */
import { itemAt } from '../sure';

/** One ink: its name, its color as #rrggbb, and its shape. */
export interface Ink {
  name: string;
  color: string;
  shape: 'disc' | 'square' | 'diamond' | 'triangle' | 'hexagon' | 'pentagon' | 'shield' | 'bar';
}

/** The eight inks of parties. Color never stands alone: each has its own shape. */
export const INKS: readonly Ink[] = [
  { name: 'harbour', color: '#1F5F8B', shape: 'disc' },
  { name: 'plum', color: '#7A3E6D', shape: 'square' },
  { name: 'fir', color: '#2E6B57', shape: 'diamond' },
  { name: 'rust', color: '#B2571C', shape: 'triangle' },
  { name: 'indigo', color: '#434A9E', shape: 'hexagon' },
  { name: 'olive', color: '#6F6A1E', shape: 'pentagon' },
  { name: 'rose', color: '#B03A5B', shape: 'shield' },
  { name: 'graphite', color: '#4A4F55', shape: 'bar' },
];

/** The color of the sender's changes and of struck words: neither a party's nor the print's. */
export const REDLINE = '#8E1B2F';

/** Returns the ink of an index; indexes continue past eight. */
export function inkOf(index: number): Ink {
  return itemAt(INKS, ((index % INKS.length) + INKS.length) % INKS.length);
}
