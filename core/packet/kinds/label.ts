import { count } from '../../text/names';
import { LEAST, type Kind } from './kind';

/** The mark "label": fixed text of the sender. */
export const label = {
  word: 'label',
  several: (n) => count(n, 'label'),
  size: { w: 150, h: 16 },
  least: LEAST,
  filled: { by: 'sender' },
  required: false,
  begins: { value: 'Label' },
  printed: false,
  kin: null,
} satisfies Kind;
