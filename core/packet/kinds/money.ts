import { count } from '../../text/names';
import { checkMoney } from '../values';
import { LEAST, type Kind } from './kind';

export const money = {
  word: 'money',
  several: (n) => count(n, 'text'),
  size: { w: 96, h: 18 },
  least: LEAST,
  filled: { by: 'writing', check: checkMoney, keyboard: 'decimal', asks: 'range' },
  required: true,
  printed: true,
  kin: 'written',
} satisfies Kind;
