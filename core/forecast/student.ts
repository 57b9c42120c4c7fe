/** Student's t distribution: mean and spread estimated from few observations. */

/** Coefficients of Lanczos' approximation of the gamma function (g = 7, n = 9). */
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
] as const;

/** Returns the natural logarithm of the gamma function, for x > 0. */
function logGamma(x: number): number {
  const [first, ...rest] = LANCZOS;
  const t = x + 6.5;
  const sum = rest.reduce((a, c, i) => a + c / (x + i), first as number);
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum);
}

const STEPS = 200;
const NEAR = 1e-12;
const TINY = 1e-300;

/** Returns the continued fraction of the incomplete beta function, by Lentz's method. */
function fraction(x: number, a: number, b: number): number {
  const off = (v: number) => (Math.abs(v) < TINY ? TINY : v);
  let c = 1;
  let d = 1 / off(1 - ((a + b) * x) / (a + 1));
  let out = d;
  for (let m = 1; m <= STEPS; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / off(1 + even * d);
    c = off(1 + even / c);
    out *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / off(1 + odd * d);
    c = off(1 + odd / c);
    const change = d * c;
    out *= change;
    if (Math.abs(change - 1) < NEAR) break;
  }
  return out;
}

/** Returns the regularized incomplete beta function I_x(a, b), for x from 0 to 1. */
function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x));
  // On the other side of the mean the fraction converges slowly, and the function is its own mirror.
  return x < (a + 1) / (a + b + 2) ? (front * fraction(x, a, b)) / a : 1 - (front * fraction(1 - x, b, a)) / b;
}

/**
 * Returns the probability that Student's t is at most `t`.
 *
 * @example studentCdf(0, 5) // 0.5
 */
export function studentCdf(t: number, freedom: number): number {
  const tail = incompleteBeta(freedom / (freedom + t * t), freedom / 2, 0.5) / 2;
  return t > 0 ? 1 - tail : tail;
}
