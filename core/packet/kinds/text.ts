import { count } from '../../text/names';
import { checkForm } from '../values';
import { LEAST, type Kind } from './kind';

export const text = {
  word: 'text',
  several: (n) => count(n, 'text'),
  size: { w: 150, h: 18 },
  least: LEAST,
  filled: { by: 'writing', check: checkForm, keyboard: 'text', asks: 'form' },
  required: true,
  printed: true,
  kin: 'written',
} satisfies Kind;
