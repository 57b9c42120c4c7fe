import { count } from '../../text/names';
import { checkForm } from '../values';
import { LEAST, type Kind } from './kind';

export const title = {
  word: 'title',
  several: (n) => count(n, 'text'),
  size: { w: 120, h: 18 },
  least: LEAST,
  filled: { by: 'writing', check: checkForm, keyboard: 'text', asks: 'form' },
  required: true,
  withSignature: true,
  printed: true,
  kin: 'written',
} satisfies Kind;
