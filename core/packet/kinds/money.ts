import { checkMoney } from '../values';
import { written } from './kind';

export const money = written('money', 96, { check: checkMoney, keyboard: 'decimal', asks: 'range' });
