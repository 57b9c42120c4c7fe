import { validateForm } from '../values';
import { written } from './kind';

export const text = written('text', 150, { check: validateForm, keyboard: 'text', asks: 'form' });
