import { validateForm } from '../values';
import { written } from './kind';

/** The mark "text". */
export const text = written('text', 150, { check: validateForm, keyboard: 'text', asks: 'form' });
