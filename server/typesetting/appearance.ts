/** The appearance of one mark: a form XObject (ISO 32000-1, 8.10) that can be placed anywhere on a page. */
import {
  beginText,
  concatTransformationMatrix,
  drawObject,
  endText,
  popGraphicsState,
  pushGraphicsState,
  setFillingColor,
  setFontAndSize,
  setTextMatrix,
  showText,
  type PDFDocument,
  type PDFFont,
  type PDFImage,
  type PDFOperator,
  type PDFRef,
  type RGB,
} from '@cantoo/pdf-lib';
import type { Matrix } from '../pdf/space';

/** Operators with the fonts and pictures they name. Lengths are points, y up from the mark's lower left corner. */
export class Appearance {
  private readonly operators: PDFOperator[] = [];
  private readonly fonts = new Map<PDFFont, string>();
  private readonly images = new Map<PDFImage, string>();

  push(...operators: PDFOperator[]): void {
    this.operators.push(...operators);
  }

  text(text: string, at: { x: number; y: number; size: number; font: PDFFont; color: RGB }): void {
    this.push(
      beginText(),
      setFillingColor(at.color),
      setFontAndSize(nameIn(this.fonts, at.font, 'F'), at.size),
      setTextMatrix(1, 0, 0, 1, at.x, at.y),
      showText(at.font.encodeText(text)),
      endText(),
    );
  }

  image(image: PDFImage, box: { x: number; y: number; w: number; h: number }): void {
    this.push(
      pushGraphicsState(),
      concatTransformationMatrix(box.w, 0, 0, box.h, box.x, box.y),
      drawObject(nameIn(this.images, image, 'I')),
      popGraphicsState(),
    );
  }

  /**
   * Registers it as an object of a document. `box` is its visible part, as [x0, y0, x1, y1]; `matrix` turns it with
   * the page.
   */
  register(doc: PDFDocument, box: [number, number, number, number], matrix: Matrix): PDFRef {
    const { context } = doc;
    return context.register(
      context.flateStream(this.operators.map(String).join('\n'), {
        Type: 'XObject',
        Subtype: 'Form',
        BBox: box.map(short),
        Matrix: matrix.map(short),
        Resources: {
          ...(this.fonts.size ? { Font: refsByName(this.fonts) } : {}),
          ...(this.images.size ? { XObject: refsByName(this.images) } : {}),
        },
      }),
    );
  }
}

const refsByName = (of: Map<{ ref: PDFRef }, string>) =>
  Object.fromEntries([...of].map(([{ ref }, name]) => [name, ref]));

/** Rounds a number to digits that are visible. */
export const short = (n: number) => Math.round(n * 1000) / 1000;

function nameIn<T>(names: Map<T, string>, what: T, letter: string): string {
  let name = names.get(what);
  if (!name) names.set(what, (name = `${letter}${names.size}`));
  return name;
}
