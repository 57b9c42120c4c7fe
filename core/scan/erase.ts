/** A picture without its lines and boxes, which recognition would take for letters. */
import type { DrawnInk } from './lines';
import type { Gray, Mask } from './types';

/** Distance in points beside a line within which its ink is looked for. */
const BESIDE = 0.7;

/**
 * Returns a copy of a picture without the lines and boxes that were found. Where a letter crosses a line, the letter
 * stays.
 *
 * @param scale dots per point
 */
export function withoutLines(gray: Gray, mask: Mask, ink: DrawnInk, scale: number): Gray {
  const { width, height } = gray;
  const data = gray.data.slice();
  const most = Math.max(3, Math.round(3 * scale));
  const beside = Math.max(2, Math.round(BESIDE * scale));
  const white = (x: number, y: number) => {
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) {
        const [xx, yy] = [x + dx, y + dy];
        if (xx >= 0 && yy >= 0 && xx < width && yy < height) data[yy * width + xx] = 255;
      }
  };
  /** Clears the run of ink through a dot in one direction if it is as thin as a line. */
  const clear = (x: number, y: number, dx: number, dy: number) => {
    const inked = (k: number) => {
      const [xx, yy] = [x + k * dx, y + k * dy];
      return xx >= 0 && yy >= 0 && xx < width && yy < height && mask.data[yy * width + xx] === 1;
    };
    let at: number | null = null;
    for (let k = 0; k <= beside && at === null; k++) at = inked(k) ? k : inked(-k) ? -k : null;
    if (at === null) return;
    let a = at;
    let b = at;
    while (inked(a - 1) && b - a <= most) a--;
    while (inked(b + 1) && b - a <= most) b++;
    if (b - a + 1 <= most) for (let k = a; k <= b; k++) white(x + k * dx, y + k * dy);
  };
  for (const l of ink.across)
    for (let x = Math.round(l.x0 * scale) - 1; x <= Math.round(l.x1 * scale) + 1; x++)
      clear(x, Math.round(l.y * scale), 0, 1);
  for (const l of ink.down)
    for (let y = Math.round(l.y0 * scale) - 1; y <= Math.round(l.y1 * scale) + 1; y++)
      clear(Math.round(l.x * scale), y, 1, 0);
  for (const s of ink.squares)
    for (let y = Math.round(s.y * scale) - 2; y <= Math.round((s.y + s.h) * scale) + 2; y++)
      for (let x = Math.round(s.x * scale) - 2; x <= Math.round((s.x + s.w) * scale) + 2; x++) white(x, y);
  return { width, height, data };
}
