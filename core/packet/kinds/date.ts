import { checkDay } from '../values';
import { written } from './kind';

export const date = written('date', 96, { check: checkDay, keyboard: 'numeric', asks: 'days' });
