import { checkForm } from '../values';
import { written } from './kind';

export const title = written(
  'title',
  120,
  { check: checkForm, keyboard: 'text', asks: 'form' },
  { withSignature: true },
);
