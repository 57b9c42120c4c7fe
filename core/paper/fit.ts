/** Fitting text into a mark. Widths come from the caller, so the same code serves screen and paper. */

/** Returns the width of `text` at `size` points. */
export type Measure = (text: string, size: number) => number;

/** Text fitted into a box: its lines and type size. */
export interface FittedText {
  /** Type size in points. */
  size: number;
  /** Whether the text stays within the box at this size. */
  fits: boolean;
}

/**
 * Returns the largest size between `min` and `max` at which one line of text fits a box.
 *
 * @param lineHeight  height of a line as a multiple of the type size
 */
export function fitLine(
  text: string,
  box: { w: number; h: number },
  measure: Measure,
  max: number,
  min: number,
  lineHeight = 1.15,
): FittedText {
  const unit = measure(text, 1);
  const byWidth = unit > 0 ? box.w / unit : Infinity;
  const size = Math.min(max, byWidth, box.h / lineHeight);
  if (size >= min) return { size, fits: true };
  return { size: min, fits: false };
}
