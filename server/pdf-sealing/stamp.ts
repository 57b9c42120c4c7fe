/** What a filled mark looks like: typed hands as text, drawn hands as vector strokes, pictures, words, ticks. */
import {
  concatTransformationMatrix,
  LineCapStyle,
  LineJoinStyle,
  TextRenderingMode,
  appendBezierCurve,
  lineTo,
  moveTo,
  popGraphicsState,
  pushGraphicsState,
  setLineCap,
  setLineJoin,
  setLineWidth,
  setStrokingColor,
  setTextRenderingMode,
  stroke,
  type PDFDocument,
  type PDFImage,
  type RGB,
} from '@cantoo/pdf-lib';
import {
  PEN_WIDTH,
  type PathStep,
  type Redline,
  drawingSteps,
  handOf,
  takesHand,
  fitPicture,
  setParagraph,
  setScript,
  setText,
  tickStrokes,
  withUnder,
} from '@gatepath/core/packet';
import { type Rect, fitLine } from '@gatepath/core/paper';
import { inkOf, REDLINE } from '@gatepath/core/inks';
import type { ShownFill } from '@gatepath/core/packet';
import { Typesetter } from '../typesetting/fonts';
import { Appearance } from '../typesetting/appearance';
import type { Spot, Spots } from './spots';
import { itemAt } from '@gatepath/core/sure';
import { hexColor } from '../typesetting/color';

/** The color of ink on paper. */
export const INK = hexColor('#1E2A32');

/** Returns how far an appearance of a kind may extend beyond its place; script typefaces do, text does not. */
function around(kind: ShownFill['kind'], rect: Rect): number {
  return takesHand(kind) ? Math.ceil(rect.h * 0.6) + 4 : 4;
}

/** Returns the position of a mark, which is the same when it is reserved and when it is filled. */
export function spotOf(mark: Pick<ShownFill, 'markId' | 'page' | 'rect' | 'kind'>): Spot {
  return { id: mark.markId, page: mark.page, rect: mark.rect, around: around(mark.kind, mark.rect) };
}

/** Puts every fill of one document in its place. `names` say what each mark is, by its id. */
export async function stampFills(
  doc: PDFDocument,
  spots: Spots,
  type: Typesetter,
  fills: ShownFill[],
  names: Record<string, string>,
  pictures: Record<string, Uint8Array> = {},
): Promise<void> {
  const embedded = new Map<string, PDFImage>();
  for (const [sha256, bytes] of Object.entries(pictures)) embedded.set(sha256, await doc.embedPng(bytes));
  const looks = new Map<string, Appearance>();
  for (const fill of fills) {
    const key = JSON.stringify([fill.shows, fill.under, fill.kind, fill.lines, fill.ink, fill.rect.w, fill.rect.h]);
    let look = looks.get(key);
    if (!look) looks.set(key, (look = await appearanceOf(type, fill, embedded)));
    const value = fill.shows.form === 'text' ? fill.shows.text : null;
    spots.put(spotOf(fill), key, look, names[fill.markId] ?? fill.kind, value);
  }
}

/** Returns a filled mark drawn in a box of its own size, with the text under it. */
async function appearanceOf(type: Typesetter, fill: ShownFill, pictures: Map<string, PDFImage>): Promise<Appearance> {
  const look = new Appearance();
  const { hand, words } = withUnder({ x: 0, y: 0, w: fill.rect.w, h: fill.rect.h }, fill.under);
  if (words && fill.under) {
    const runs = await type.runs(fill.under, 'document');
    const line = setText(fill.under, words, (_, size) => Typesetter.width(runs, size));
    Typesetter.draw(look, runs, line.x, fill.rect.h - line.baseline, line.size, INK);
    look.push(pushGraphicsState(), concatTransformationMatrix(1, 0, 0, 1, 0, words.h));
    await drawFill(look, type, { ...fill, rect: { ...fill.rect, h: hand.h } }, pictures);
    look.push(popGraphicsState());
    return look;
  }
  await drawFill(look, type, fill, pictures);
  return look;
}

/** Draws a fill from its box's lower left corner. */
async function drawFill(
  look: Appearance,
  type: Typesetter,
  fill: ShownFill,
  pictures: Map<string, PDFImage>,
): Promise<void> {
  const { shows } = fill;
  const { w, h } = fill.rect;
  const box: Rect = { x: 0, y: 0, w, h };
  const color = hexColor(inkOf(fill.ink).color);
  if (shows.form === 'drawn' || shows.form === 'picture') {
    if (shows.form === 'drawn') strokeSteps(look, h, drawingSteps(shows.drawing, box), color);
    else {
      const image = pictures.get(shows.picture.sha256);
      if (!image) throw new Error(`the picture of mark ${fill.markId} was not handed in`);
      const fit = fitPicture(shows.picture, box);
      look.image(image, { ...fit, y: h - fit.y - fit.h });
    }
    const runs = await type.runs(shows.spoken, 'document');
    // The words lie invisibly below it, so that the page can be searched and read aloud.
    const fit = fitLine(shows.spoken, box, (_, s) => Typesetter.width(runs, s), 12, 2);
    look.push(pushGraphicsState(), setTextRenderingMode(TextRenderingMode.Invisible));
    Typesetter.draw(look, runs, 0, h * 0.3, fit.size, color);
    look.push(popGraphicsState());
  } else if (shows.form === 'tick') strokeSteps(look, h, tickStrokes(box).map(lineSteps), INK);
  else if (shows.form === 'text') await writeText(look, type, shows.text, box, fill.lines === 'several', INK);
  else {
    const runs = await type.runs(shows.text, shows.face);
    const line = setScript(shows.text, handOf(fill.kind), box, (_, size) => Typesetter.width(runs, size));
    Typesetter.draw(look, runs, line.x, h - line.baseline, line.size, color);
  }
}

/** Draws plain text in a box: one line on the bottom edge, or several from the top. */
async function writeText(
  look: Appearance,
  type: Typesetter,
  text: string,
  box: Rect,
  several: boolean,
  color: RGB,
): Promise<void> {
  if (!several) {
    const runs = await type.runs(text.replace(/\n/g, ' '), 'document');
    const line = setText(text, box, (_, size) => Typesetter.width(runs, size));
    Typesetter.draw(look, runs, line.x, box.h - line.baseline, line.size, color);
    return;
  }
  // Widths of words are summed up; the words of one text share their faces.
  const widths = new Map<string, number>();
  for (const word of new Set(text.split(/\s+/).filter(Boolean)))
    widths.set(word, Typesetter.width(await type.runs(word, 'document'), 1));
  const gap = Typesetter.width(await type.runs(' ', 'document'), 1);
  const measure = (t: string, size: number) => {
    const words = t.split(/\s+/).filter(Boolean);
    return (words.reduce((n, w) => n + (widths.get(w) ?? 0), 0) + Math.max(0, words.length - 1) * gap) * size;
  };
  for (const line of setParagraph(text, box, measure)) {
    if (!line.text) continue;
    const own = await type.runs(line.text, 'document');
    Typesetter.draw(look, own, line.x, box.h - line.baseline, line.size, color);
  }
}

const CHANGES = hexColor(REDLINE);

/** Puts the preparer's changes in their spots: a line through what is struck, the words put in. */
export async function stampRedlines(spots: Spots, type: Typesetter, redlines: Redline[]): Promise<void> {
  for (const r of redlines)
    for (const [i, rect] of r.rects.entries()) {
      const look = new Appearance();
      const box: Rect = { x: 0, y: 0, w: rect.w, h: rect.h };
      if (r.kind === 'insert') await writeText(look, type, r.text, box, true, CHANGES);
      else strokeSteps(look, rect.h, [lineSteps([-1, rect.h * 0.52, rect.w + 1, rect.h * 0.52])], CHANGES);
      const id = `change ${r.id} ${i}`;
      spots.put({ id, page: r.page, rect, around: 4 }, id, look, r.kind === 'strike' ? 'Struck' : 'Put in', r.text);
      // Words put in have one box; a strike has one a line of print.
      if (r.kind === 'insert') break;
    }
}

const lineSteps = (p: readonly number[]): PathStep[] => [
  { to: 'M', x: itemAt(p, 0), y: itemAt(p, 1) },
  { to: 'L', x: itemAt(p, 2), y: itemAt(p, 3) },
];

/** Returns the operators that stroke paths, whose y counts down from the top of a box of height `height`. */
function strokeSteps(look: Appearance, height: number, paths: PathStep[][], color: RGB): void {
  look.push(
    setStrokingColor(color),
    setLineWidth(PEN_WIDTH),
    setLineCap(LineCapStyle.Round),
    setLineJoin(LineJoinStyle.Round),
  );
  const up = (y: number) => height - y;
  for (const steps of paths) {
    let from = { x: 0, y: 0 };
    for (const s of steps) {
      if (s.to === 'M') look.push(moveTo(s.x, up(s.y)));
      else if (s.to === 'L') look.push(lineTo(s.x, up(s.y)));
      else {
        // PDF knows cubic curves only: a quadratic one raised by a degree.
        const third = (end: number, control: number) => end + (2 / 3) * (control - end);
        look.push(
          appendBezierCurve(
            third(from.x, s.cx),
            up(third(from.y, s.cy)),
            third(s.x, s.cx),
            up(third(s.y, s.cy)),
            s.x,
            up(s.y),
          ),
        );
      }
      from = s;
    }
    look.push(stroke());
  }
}
