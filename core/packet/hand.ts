/** The geometry of hands and text inside a mark, shared by screen and paper so that both show the same. */
import { fitLine, type Measure } from '../paper/fit';
import type { Rect } from '../paper/types';
import { itemAt, lastOf } from '../sure';

/** A pen stroke as flat x, y pairs. */
type Pairs = readonly number[];

/** A step of an outline: move, line, or quadratic curve through a control point. In points. */
export type PathStep =
  | { to: 'M'; x: number; y: number }
  | { to: 'L'; x: number; y: number }
  | { to: 'Q'; cx: number; cy: number; x: number; y: number };

/** Pen width on paper, in points. */
export const PEN_WIDTH = 1.3;

/**
 * Returns the strokes of a drawing scaled into a mark (aspect kept, centered), as smooth curves through the midpoints
 * of the drawn points. Coordinates as displayed: y down.
 */
export function drawingSteps(drawing: { strokes: readonly Pairs[] }, rect: Rect): PathStep[][] {
  const box = strokesBox(drawing.strokes);
  const pad = PEN_WIDTH;
  const scale = Math.min((rect.w - 2 * pad) / Math.max(box.w, 1), (rect.h - 2 * pad) / Math.max(box.h, 1));
  const ox = rect.x + (rect.w - box.w * scale) / 2;
  const oy = rect.y + (rect.h - box.h * scale) / 2;
  const at = (x: number, y: number) => ({ x: ox + (x - box.x) * scale, y: oy + (y - box.y) * scale });
  return drawing.strokes.map((s) => smooth(s, at));
}

function smooth(stroke: Pairs, at: (x: number, y: number) => { x: number; y: number }): PathStep[] {
  const pts = [];
  for (let i = 0; i + 1 < stroke.length; i += 2) pts.push(at(itemAt(stroke, i), itemAt(stroke, i + 1)));
  const first = itemAt(pts, 0);
  const steps: PathStep[] = [{ to: 'M', ...first }];
  // A dot: a line of almost no length, which round pen caps turn into a point.
  if (pts.length === 1) return [...steps, { to: 'L', x: first.x + 0.01, y: first.y }];
  for (let i = 1; i < pts.length - 1; i++) {
    const p = itemAt(pts, i);
    const n = itemAt(pts, i + 1);
    steps.push({ to: 'Q', cx: p.x, cy: p.y, x: (p.x + n.x) / 2, y: (p.y + n.y) / 2 });
  }
  steps.push({ to: 'L', ...lastOf(pts) });
  return steps;
}

/** Returns the box around strokes, in the drawing's own units. */
export function strokesBox(strokes: readonly Pairs[]): Rect {
  let x0 = Infinity;
  let y0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  for (const s of strokes) {
    for (let i = 0; i + 1 < s.length; i += 2) {
      x0 = Math.min(x0, itemAt(s, i));
      x1 = Math.max(x1, itemAt(s, i));
      y0 = Math.min(y0, itemAt(s, i + 1));
      y1 = Math.max(y1, itemAt(s, i + 1));
    }
  }
  return x0 === Infinity ? { x: 0, y: 0, w: 1, h: 1 } : { x: x0, y: y0, w: x1 - x0, h: y1 - y0 };
}

/** Splits a signature's box: the hand above, one small line below. Without such a line the hand has all of it. */
export function withUnder(rect: Rect, under: string | undefined): { hand: Rect; words: Rect | null } {
  if (!under) return { hand: rect, words: null };
  const h = Math.min(9, rect.h * 0.34);
  return { hand: { ...rect, h: rect.h - h }, words: { ...rect, y: rect.y + rect.h - h, h } };
}

/** How a line of text is set in a mark: size and start of its baseline, in points as displayed. */
export interface SetLine {
  size: number;
  x: number;
  baseline: number;
  fits: boolean;
}

/**
 * Sets a typed hand in a mark: as large as it fits, centered for initials, from the left for signatures. Script
 * typefaces reach further up and down than text, hence the line height of 1.3.
 */
export function setScript(text: string, kind: 'signature' | 'initials', rect: Rect, measure: Measure): SetLine {
  const fit = fitLine(text, { w: rect.w - 4, h: rect.h }, measure, 40, 5, 1.3);
  const width = measure(text, fit.size);
  const x = kind === 'initials' ? rect.x + (rect.w - width) / 2 : rect.x + 2;
  return { size: fit.size, x, baseline: rect.y + rect.h / 2 + fit.size * 0.3, fits: fit.fits };
}

/** Sets a line of plain text in a mark, from the left, near the bottom as on a form's line. */
export function setText(text: string, rect: Rect, measure: Measure): SetLine {
  const fit = fitLine(text, { w: rect.w - 4, h: rect.h }, measure, 11, 5, 1.25);
  return { size: fit.size, x: rect.x + 2, baseline: rect.y + rect.h / 2 + fit.size * 0.36, fits: fit.fits };
}

/** A line of a paragraph in a mark. */
export interface ParagraphLine extends SetLine {
  text: string;
}

/**
 * Sets several lines of text in a mark, from the top: as large as they fit, words wrapped, line breaks kept. Type
 * shrinks from 11 points to `least` before it would overflow.
 */
export function setParagraph(text: string, rect: Rect, measure: Measure, least = 5): ParagraphLine[] {
  const width = rect.w - 4;
  for (let size = 11; ; size -= 0.5) {
    const at = Math.max(size, least);
    const lines = wrap(text, width, (t) => measure(t, at));
    const height = lines.length * at * 1.25;
    const fits = height <= rect.h + 0.01 && lines.every((l) => measure(l, at) <= width + 0.01);
    if (!fits && at > least) continue;
    return lines.map((line, i) => ({
      text: line,
      size: at,
      x: rect.x + 2,
      baseline: rect.y + at * 1.25 * i + at,
      fits,
    }));
  }
}

function wrap(text: string, width: number, measure: (t: string) => number): string[] {
  const out: string[] = [];
  for (const part of text.split('\n')) {
    let line = '';
    for (const word of part.split(/\s+/).filter(Boolean)) {
      const next = line ? `${line} ${word}` : word;
      if (line && measure(next) > width) {
        out.push(line);
        line = word;
      } else line = next;
    }
    out.push(line);
  }
  return out;
}

/** Returns the two strokes of a tick inside a box, as x, y pairs. */
export function tickStrokes(rect: Rect): Pairs[] {
  const side = Math.min(rect.w, rect.h);
  const x = rect.x + (rect.w - side) / 2;
  const y = rect.y + (rect.h - side) / 2;
  const at = (fx: number, fy: number) => [x + fx * side, y + fy * side];
  return [
    [...at(0.18, 0.18), ...at(0.82, 0.82)],
    [...at(0.82, 0.18), ...at(0.18, 0.82)],
  ];
}

/** Returns where a picture of writing is in its mark: as large as fits, centered, not stretched. */
export function fitPicture(picture: { width: number; height: number }, rect: Rect): Rect {
  const k = Math.min(rect.w / picture.width, rect.h / picture.height);
  const w = picture.width * k;
  const h = picture.height * k;
  return { x: rect.x + (rect.w - w) / 2, y: rect.y + (rect.h - h) / 2, w, h };
}
