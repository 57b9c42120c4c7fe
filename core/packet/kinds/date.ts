import { validateDay } from '../values';
import { written } from './kind';

/** The mark "date". */
export const date = written('date', 96, { check: validateDay, keyboard: 'numeric', asks: 'days' });
