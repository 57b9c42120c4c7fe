import { count } from '../../text/names';
import { LEAST_TO_TICK, type Kind } from './kind';

export const choice = {
  word: 'choice',
  several: (n) => count(n, 'tick'),
  size: { w: 14, h: 14 },
  least: LEAST_TO_TICK,
  filled: { by: 'touch', together: true },
  required: true,
  printed: false,
  kin: null,
} satisfies Kind;
