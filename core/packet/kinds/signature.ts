import { count } from '../../text/names';
import { LEAST, type Kind } from './kind';

export const signature = {
  word: 'signature',
  several: (n) => count(n, 'signature'),
  size: { w: 168, h: 30 },
  least: LEAST,
  filled: { by: 'hand', as: 'signature' },
  required: true,
  printed: true,
  kin: 'own',
} satisfies Kind;
