/** What pdf.js hands over, looked at before it is believed. */
import type { M } from './paths';

/** A number; 0 for anything else. */
export const numberIn = (operand: unknown): number => (typeof operand === 'number' ? operand : 0);

/** The items of a list; none for anything else. */
export function listIn(operand: unknown): unknown[] {
  if (Array.isArray(operand)) return operand;
  return operand instanceof Float32Array || operand instanceof Float64Array ? Array.from(operand) : [];
}

/** A matrix, with what is missing as in the one that changes nothing. */
export function matrixIn(operand: unknown): M {
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = listIn(operand).map(numberIn);
  return [a, b, c, d, e, f];
}
