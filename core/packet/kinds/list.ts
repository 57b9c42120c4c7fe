import { count } from '../../text/names';
import { checkListed } from '../values';
import { LEAST, type Kind } from './kind';

export const list = {
  word: 'list',
  several: (n) => count(n, 'text'),
  size: { w: 120, h: 18 },
  least: LEAST,
  filled: { by: 'writing', check: checkListed, keyboard: 'text', asks: 'list' },
  required: true,
  begins: { options: ['First', 'Second'] },
  printed: false,
  kin: null,
} satisfies Kind;
