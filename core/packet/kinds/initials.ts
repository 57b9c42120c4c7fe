import { LEAST, type Kind } from './kind';

export const initials = {
  word: 'initials',
  several: (n) => (n === 1 ? '1 set of initials' : `${n} sets of initials`),
  size: { w: 54, h: 22 },
  least: LEAST,
  filled: { by: 'hand', as: 'initials' },
  required: true,
  printed: true,
  kin: 'own',
} satisfies Kind;
