import { validateForm } from '../values';
import { written } from './kind';

export const title = written(
  'title',
  120,
  { check: validateForm, keyboard: 'text', asks: 'form' },
  { withSignature: true },
);
