import { count } from '../../text/names';
import { checkDay } from '../values';
import { LEAST, type Kind } from './kind';

export const date = {
  word: 'date',
  several: (n) => count(n, 'text'),
  size: { w: 96, h: 18 },
  least: LEAST,
  filled: { by: 'writing', check: checkDay, keyboard: 'numeric', asks: 'days' },
  required: true,
  printed: true,
  kin: 'written',
} satisfies Kind;
