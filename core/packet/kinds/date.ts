import { validateDay } from '../values';
import { written } from './kind';

export const date = written('date', 96, { check: validateDay, keyboard: 'numeric', asks: 'days' });
