import { validateMoney } from '../values';
import { written } from './kind';

/** The mark "amount of money". */
export const money = written('money', 96, { check: validateMoney, keyboard: 'decimal', asks: 'range' });
