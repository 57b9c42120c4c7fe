import { validateForm } from '../values';
import { written } from './kind';

/** The mark "title". */
export const title = written(
  'title',
  120,
  { check: validateForm, keyboard: 'text', asks: 'form' },
  { withSignature: true },
);
