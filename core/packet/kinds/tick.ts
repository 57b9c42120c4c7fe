import { count } from '../../text/names';
import { LEAST_TO_TICK, type Kind } from './kind';

export const tick = {
  word: 'tick',
  several: (n) => count(n, 'tick'),
  size: { w: 14, h: 14 },
  least: LEAST_TO_TICK,
  filled: { by: 'touch', together: false },
  required: false,
  printed: true,
  kin: null,
} satisfies Kind;
