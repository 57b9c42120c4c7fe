import { validateListed } from '../values';
import { written } from './kind';

/** The mark "choice from a list". */
export const list = written(
  'list',
  120,
  { check: validateListed, keyboard: 'text', asks: 'list' },
  { begins: { options: ['First', 'Second'] }, printed: false, kin: null },
);
