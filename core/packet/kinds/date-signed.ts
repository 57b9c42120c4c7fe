import { count } from '../../text/names';
import { LEAST, type Kind } from './kind';

export const dateSigned = {
  word: 'date signed',
  several: (n) => count(n, 'date'),
  size: { w: 96, h: 18 },
  least: LEAST,
  filled: { by: 'itself', text: ({ dateText }) => dateText, known: () => null },
  required: true,
  withSignature: true,
  printed: true,
  kin: 'own',
} satisfies Kind;
