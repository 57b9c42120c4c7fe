/** Making filled marks part of their pages: typed hands as text, drawn hands as vector strokes. */
import {
  LineCapStyle,
  LineJoinStyle,
  TextRenderingMode,
  appendBezierCurve,
  concatTransformationMatrix,
  lineTo,
  moveTo,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  setLineCap,
  setLineJoin,
  setLineWidth,
  setStrokingColor,
  setTextRenderingMode,
  stroke,
  type PDFDocument,
  type PDFPage,
  type RGB,
} from '@cantoo/pdf-lib';
import { drawingSteps, fitLine, PEN_WIDTH, setScript, setText, type Rect } from '@gatepath/core/marks';
import { inkOf } from '@gatepath/core/inks';
import type { ShownFill } from '@gatepath/contract';
import { Typesetter } from './fonts';
import { spaceOfPage, type PageSpace } from './space';

/** Draws every fill of one document onto its pages. */
export async function stampFills(doc: PDFDocument, type: Typesetter, fills: ShownFill[]): Promise<void> {
  const pages = doc.getPages();
  for (const fill of fills) {
    const page = pages[fill.page - 1];
    if (!page) throw new Error(`mark ${fill.markId} is on page ${fill.page} of ${pages.length}`);
    await stampFill(page, type, fill);
  }
}

async function stampFill(page: PDFPage, type: Typesetter, fill: ShownFill): Promise<void> {
  const space = spaceOfPage(page);
  const color = hexColor(inkOf(fill.ink).color);
  const shows = fill.shows;
  if (shows.form === 'drawn') {
    upright(page, space, () => strokePaths(page, space, fill.rect, shows, color));
    const runs = await type.runs(shows.spoken, 'atkinson');
    // The drawing's words lie under it unseen, so that the page can be searched and read aloud.
    const fit = fitLine(shows.spoken, fill.rect, (_, s) => Typesetter.width(runs, s), 12, 2);
    upright(page, space, () => {
      page.pushOperators(setTextRenderingMode(TextRenderingMode.Invisible));
      Typesetter.draw(page, runs, fill.rect.x, space.height - fill.rect.y - fill.rect.h * 0.7, fit.size, color);
    });
    return;
  }
  const script = shows.form === 'typed';
  const runs = await type.runs(shows.text, shows.form === 'typed' ? shows.face : 'atkinson');
  const measure = (_: string, size: number) => Typesetter.width(runs, size);
  const kind = fill.kind === 'initials' ? 'initials' : 'signature';
  const line = script ? setScript(shows.text, kind, fill.rect, measure) : setText(shows.text, fill.rect, measure);
  upright(page, space, () =>
    Typesetter.draw(page, runs, line.x, space.height - line.baseline, line.size, script ? color : INK),
  );
}

/** Runs `draw` in displayed space with y up, whatever the page's rotation and crop. */
export function upright(page: PDFPage, space: PageSpace, draw: () => void): void {
  page.pushOperators(pushGraphicsState(), concatTransformationMatrix(...space.toUser));
  draw();
  page.pushOperators(popGraphicsState());
}

function strokePaths(
  page: PDFPage,
  space: PageSpace,
  rect: Rect,
  shows: Extract<ShownFill['shows'], { form: 'drawn' }>,
  color: RGB,
): void {
  page.pushOperators(
    setStrokingColor(color),
    setLineWidth(PEN_WIDTH),
    setLineCap(LineCapStyle.Round),
    setLineJoin(LineJoinStyle.Round),
  );
  const up = (y: number) => space.height - y;
  for (const steps of drawingSteps(shows.drawing, rect)) {
    let from = { x: 0, y: 0 };
    for (const s of steps) {
      if (s.to === 'M') page.pushOperators(moveTo(s.x, up(s.y)));
      else if (s.to === 'L') page.pushOperators(lineTo(s.x, up(s.y)));
      else {
        // PDF knows cubic curves only: a quadratic one raised by a degree.
        const third = (end: number, control: number) => end + (2 / 3) * (control - end);
        page.pushOperators(
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
    page.pushOperators(stroke());
  }
}

export const INK = hexColor('#1E2A32');

export function hexColor(hex: string): RGB {
  const n = (i: number) => parseInt(hex.slice(i, i + 2), 16) / 255;
  return rgb(n(1), n(3), n(5));
}
