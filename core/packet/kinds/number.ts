import { checkNumber } from '../values';
import { written } from './kind';

export const number = written('number', 72, { check: checkNumber, keyboard: 'decimal', asks: 'range' });
