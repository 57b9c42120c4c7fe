import { type RGB, rgb } from '@cantoo/pdf-lib';

/** Returns a color of pdf-lib from "#RRGGBB". */
export function hexColor(hex: string): RGB {
  const n = (i: number) => parseInt(hex.slice(i, i + 2), 16) / 255;
  return rgb(n(1), n(3), n(5));
}
