/** From brightness to ink: what of a picture is print or pen, on paper of any tint and in any light. */
import { itemAt } from '../sure';
import type { Gray, Mask } from './types';

/** How much darker than the average around it a pixel must be to count as ink, as a share of that average. */
const DARKER = 0.18;
/**
 * Side of the square around a pixel whose average brightness the pixel is compared with, as a share of the picture's
 * width.
 */
const AROUND = 1 / 14;

/**
 * Returns the ink of a picture, each dot judged by the brightness around it (Bradley and Roth 2007), so that shadows
 * and yellowed paper do not count. Specks of one dot are left out.
 */
export function inkOf(gray: Gray): Mask {
  const { width, height, data } = gray;
  const half = Math.max(4, Math.round((width * AROUND) / 2));
  const stride = width + 1;
  const sums = new Float64Array(stride * (height + 1));
  for (let y = 0; y < height; y++) {
    let run = 0;
    const at = (y + 1) * stride;
    for (let x = 0; x < width; x++) {
      run += itemAt(data, y * width + x);
      sums[at + x + 1] = itemAt(sums, at - stride + x + 1) + run;
    }
  }
  const rough = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const y0 = Math.max(0, y - half);
    const y1 = Math.min(height, y + half + 1);
    for (let x = 0; x < width; x++) {
      const v = itemAt(data, y * width + x);
      if (v > 215) continue;
      const x0 = Math.max(0, x - half);
      const x1 = Math.min(width, x + half + 1);
      const sum =
        itemAt(sums, y1 * stride + x1) -
        itemAt(sums, y0 * stride + x1) -
        itemAt(sums, y1 * stride + x0) +
        itemAt(sums, y0 * stride + x0);
      if (v * (x1 - x0) * (y1 - y0) < sum * (1 - DARKER)) rough[y * width + x] = 1;
    }
  }
  return { width, height, data: withoutSpecks(rough, width, height) };
}

/** Clears dots with fewer than two inked neighbors, which are grain. */
function withoutSpecks(rough: Uint8Array, width: number, height: number): Uint8Array {
  const out = new Uint8Array(rough.length);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      if (!rough[i]) continue;
      const beside =
        itemAt(rough, i - 1) +
        itemAt(rough, i + 1) +
        itemAt(rough, i - width) +
        itemAt(rough, i + width) +
        itemAt(rough, i - width - 1) +
        itemAt(rough, i - width + 1) +
        itemAt(rough, i + width - 1) +
        itemAt(rough, i + width + 1);
      if (beside >= 2) out[i] = 1;
    }
  return out;
}
