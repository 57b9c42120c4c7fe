import { checkForm } from '../values';
import { written } from './kind';

export const text = written('text', 150, { check: checkForm, keyboard: 'text', asks: 'form' });
