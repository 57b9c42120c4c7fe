/** Values from pdf.js, checked before use. */
import type { M } from './paths';

/** Returns a number; 0 for anything else. */
export const numberIn = (operand: unknown): number => (typeof operand === 'number' ? operand : 0);

/** Returns the items of a list; none for anything else. */
export function listIn(operand: unknown): unknown[] {
  if (Array.isArray(operand)) return operand;
  return operand instanceof Float32Array || operand instanceof Float64Array ? Array.from(operand) : [];
}

/** Returns a matrix; missing values are those of the identity. */
export function matrixIn(operand: unknown): M {
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = listIn(operand).map(numberIn);
  return [a, b, c, d, e, f];
}
