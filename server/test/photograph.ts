/** Makes of a page what a phone makes of it: on a dark table, seen at an angle, in uneven light. */
import { areaOf, type Corners } from '@gatepath/core/scan';
import { itemAt } from '@gatepath/core/sure';
import sharp from 'sharp';

export const HELD: Corners = [
  { x: 0.12, y: 0.09 },
  { x: 0.9, y: 0.06 },
  { x: 0.95, y: 0.93 },
  { x: 0.05, y: 0.96 },
];

/** Returns a photograph of a page in gray, as JPEG. */
export async function photographOf(
  page: { width: number; height: number; data: Uint8Array },
  corners: Corners = HELD,
  size = { width: 1800, height: 2400 },
): Promise<Uint8Array> {
  if (areaOf(corners) <= 0) throw new Error('the corners are in the wrong order');
  const data = new Uint8Array(size.width * size.height);
  for (let y = 0; y < size.height; y++)
    for (let x = 0; x < size.width; x++) {
      const at = onSheet(corners, (x + 0.5) / size.width, (y + 0.5) / size.height);
      const light = 1 - 0.28 * (x / size.width) - 0.1 * (y / size.height);
      const px = at && Math.min(page.width - 1, Math.floor(at.u * page.width));
      const py = at && Math.min(page.height - 1, Math.floor(at.v * page.height));
      const seen = px === null || py === null ? 60 : itemAt(page.data, py * page.width + px);
      data[y * size.width + x] = Math.min(255, 8 + seen * 0.92 * light);
    }
  return new Uint8Array(
    await sharp(data, { raw: { ...size, channels: 1 } })
      .blur(0.7)
      .jpeg({ quality: 82 })
      .toBuffer(),
  );
}

/** Returns where on a sheet a point of the picture lies; null beside it. */
function onSheet(c: Corners, x: number, y: number): { u: number; v: number } | null {
  const [p0, p1, p2, p3] = c;
  const sx = p0.x - p1.x + p2.x - p3.x;
  const sy = p0.y - p1.y + p2.y - p3.y;
  const [dx1, dx2, dy1, dy2] = [p1.x - p2.x, p3.x - p2.x, p1.y - p2.y, p3.y - p2.y];
  const det = dx1 * dy2 - dx2 * dy1;
  const g = (sx * dy2 - dx2 * sy) / det;
  const h = (dx1 * sy - sx * dy1) / det;
  // x (g u + h v + 1) = a u + b v + c, and likewise for y: two equations for u and v.
  const [a1, b1, c1] = [p1.x - p0.x + g * p1.x - x * g, p3.x - p0.x + h * p3.x - x * h, x - p0.x];
  const [a2, b2, c2] = [p1.y - p0.y + g * p1.y - y * g, p3.y - p0.y + h * p3.y - y * h, y - p0.y];
  const d = a1 * b2 - a2 * b1;
  const u = (c1 * b2 - c2 * b1) / d;
  const v = (a1 * c2 - a2 * c1) / d;
  return u >= 0 && u < 1 && v >= 0 && v < 1 ? { u, v } : null;
}
