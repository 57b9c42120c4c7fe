import { count } from '../../text/names';
import { checkNumber } from '../values';
import { LEAST, type Kind } from './kind';

export const number = {
  word: 'number',
  several: (n) => count(n, 'text'),
  size: { w: 72, h: 18 },
  least: LEAST,
  filled: { by: 'writing', check: checkNumber, keyboard: 'decimal', asks: 'range' },
  required: true,
  printed: true,
  kin: 'written',
} satisfies Kind;
