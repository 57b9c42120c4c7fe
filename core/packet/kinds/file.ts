import { count } from '../../text/names';
import { LEAST, type Kind } from './kind';

/** The mark "file": a photo or PDF that a client adds. */
export const file = {
  word: 'file asked for',
  several: (n) => count(n, 'file'),
  size: { w: 150, h: 22 },
  least: LEAST,
  filled: { by: 'file' },
  required: true,
  printed: false,
  kin: null,
} satisfies Kind;
