/** Extracting the writing from a photo: the paper background is removed. */
import sharp from 'sharp';
import { isWholePicture, uprightRgb } from './whole-picture';
import { itemAt } from '@gatepath/core/sure';

/** A picture of a hand without its paper, or why there is none. */
export type HandPicture =
  | { ok: true; png: Uint8Array; width: number; height: number }
  | { ok: false; problem: 'no_picture' | 'empty' | 'small' };

/** Longest side while processing, in pixels: enough for print at the size of a signature. */
const MOST = 1200;
/** Smallest size of writing, in pixels of the original, that can be read on paper. */
const LEAST = { width: 60, height: 20 };
/** Side of the neighborhood that determines a pixel's paper, relative to the longer side. */
const PAPER = 0.08;
/**
 * How much darker than its paper (of 1) ink must be: below the first value it vanishes, from the second on it is
 * opaque.
 */
const FAINT = 0.12;
const SURE = 0.35;

/**
 * Extracts the writing from a photo. Each pixel is compared with the paper around it, so that shadows and yellow
 * light do not matter; what is as light as the paper becomes transparent.
 */
export async function handPicture(t: { bytes: Uint8Array }): Promise<HandPicture> {
  let pixels: Uint8Array;
  let w: number;
  let h: number;
  try {
    if (!isWholePicture(t.bytes)) return { ok: false, problem: 'no_picture' };
    const { data, width, height } = await uprightRgb(t.bytes, MOST, 80e6);
    [pixels, w, h] = [data, width, height];
  } catch {
    return { ok: false, problem: 'no_picture' };
  }
  const grey = new Float32Array(w * h);
  for (let i = 0; i < grey.length; i++)
    grey[i] =
      (0.299 * itemAt(pixels, 3 * i) + 0.587 * itemAt(pixels, 3 * i + 1) + 0.114 * itemAt(pixels, 3 * i + 2)) / 255;
  const paper = paperOf(grey, w, h, Math.max(8, Math.round(Math.max(w, h) * PAPER)));
  const alpha = new Uint8Array(w * h);
  for (let i = 0; i < alpha.length; i++) {
    const darker = 1 - itemAt(grey, i) / Math.max(0.05, itemAt(paper, i));
    alpha[i] = Math.round(255 * Math.min(1, Math.max(0, (darker - FAINT) / (SURE - FAINT))));
  }
  const box = inkBox(alpha, w, h);
  if (!box) return { ok: false, problem: 'empty' };
  if (box.w < LEAST.width || box.h < LEAST.height) return { ok: false, problem: 'small' };
  // A photo of a dark table, or of anything but writing, has ink nearly everywhere.
  if (share(alpha, w, box) > 0.6) return { ok: false, problem: 'empty' };
  const out = Buffer.alloc(box.w * box.h * 4);
  for (let y = 0; y < box.h; y++)
    for (let x = 0; x < box.w; x++) {
      const from = (box.y + y) * w + box.x + x;
      const to = 4 * (y * box.w + x);
      const a = itemAt(alpha, from);
      // What shows through at a stroke's edge is paper: taken out of the colour too.
      for (let c = 0; c < 3; c++) {
        const seen = itemAt(pixels, 3 * from + c);
        const light = 255 * itemAt(paper, from);
        out[to + c] = a ? Math.max(0, Math.min(255, Math.round(light + (seen - light) / Math.max(0.35, a / 255)))) : 0;
      }
      out[to + 3] = a;
    }
  const png = await sharp(out, { raw: { width: box.w, height: box.h, channels: 4 } })
    .png({ compressionLevel: 9, palette: true, colours: 64 })
    .toBuffer();
  return { ok: true, png: new Uint8Array(png), width: box.w, height: box.h };
}

/**
 * Returns the lightness of the paper around each pixel: the lightest value of each cell of `r` pixels, blended
 * between cells.
 */
function paperOf(grey: Float32Array, w: number, h: number, r: number): Float32Array {
  const cols = Math.ceil(w / r);
  const rows = Math.ceil(h / r);
  const cells = new Float32Array(cols * rows);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const c = Math.floor(y / r) * cols + Math.floor(x / r);
      const v = itemAt(grey, y * w + x);
      if (v > itemAt(cells, c)) cells[c] = v;
    }
  const out = new Float32Array(w * h);
  const at = (cx: number, cy: number) =>
    itemAt(cells, Math.min(rows - 1, Math.max(0, cy)) * cols + Math.min(cols - 1, Math.max(0, cx)));
  for (let y = 0; y < h; y++) {
    const fy = y / r - 0.5;
    const y0 = Math.floor(fy);
    const ty = fy - y0;
    for (let x = 0; x < w; x++) {
      const fx = x / r - 0.5;
      const x0 = Math.floor(fx);
      const tx = fx - x0;
      const top = at(x0, y0) * (1 - tx) + at(x0 + 1, y0) * tx;
      const low = at(x0, y0 + 1) * (1 - tx) + at(x0 + 1, y0 + 1) * tx;
      out[y * w + x] = top * (1 - ty) + low * ty;
    }
  }
  return out;
}

interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** Returns the box around certain ink, with a margin; single specks do not count. */
function inkBox(alpha: Uint8Array, w: number, h: number): Box | null {
  const rows = new Uint32Array(h);
  const cols = new Uint32Array(w);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++)
      if (itemAt(alpha, y * w + x) > 128) {
        rows[y]!++;
        cols[x]!++;
      }
  const enough = (counts: Uint32Array) => {
    const from = counts.findIndex((n) => n > 1);
    let to = counts.length - 1;
    while (to >= 0 && itemAt(counts, to) <= 1) to--;
    return from < 0 ? null : [from, to];
  };
  const ys = enough(rows);
  const xs = enough(cols);
  if (!ys || !xs) return null;
  const air = Math.round(Math.max(w, h) * 0.008);
  const x = Math.max(0, itemAt(xs, 0) - air);
  const y = Math.max(0, itemAt(ys, 0) - air);
  return { x, y, w: Math.min(w - 1, itemAt(xs, 1) + air) - x + 1, h: Math.min(h - 1, itemAt(ys, 1) + air) - y + 1 };
}

function share(alpha: Uint8Array, w: number, box: Box): number {
  let n = 0;
  for (let y = box.y; y < box.y + box.h; y++)
    for (let x = box.x; x < box.x + box.w; x++) if (itemAt(alpha, y * w + x) > 128) n++;
  return n / (box.w * box.h);
}
