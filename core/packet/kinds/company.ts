import { count } from '../../text/names';
import { LEAST, type Kind } from './kind';

/** The company or trust a party signs for, as the deal has it. */
export const company = {
  word: 'company',
  several: (n) => count(n, 'company', 'companies'),
  size: { w: 180, h: 18 },
  least: LEAST,
  filled: { by: 'itself', text: ({ party }) => party.company ?? '', known: (party) => party.company ?? '' },
  required: true,
  withSignature: true,
  printed: true,
  kin: 'own',
} satisfies Kind;
