import { validateNumber } from '../values';
import { written } from './kind';

export const number = written('number', 72, { check: validateNumber, keyboard: 'decimal', asks: 'range' });
