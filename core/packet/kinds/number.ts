import { validateNumber } from '../values';
import { written } from './kind';

/** The mark "number". */
export const number = written('number', 72, { check: validateNumber, keyboard: 'decimal', asks: 'range' });
