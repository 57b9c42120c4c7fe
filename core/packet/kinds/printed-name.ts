import { count } from '../../text/names';
import { LEAST, type Kind } from './kind';

export const printedName = {
  word: 'printed name',
  several: (n) => count(n, 'printed name'),
  size: { w: 150, h: 18 },
  least: LEAST,
  filled: { by: 'itself', text: ({ party }) => party.name, known: (party) => party.name },
  required: true,
  withSignature: true,
  printed: true,
  kin: 'own',
} satisfies Kind;
