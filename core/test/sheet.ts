/** Pages for the tests of reading, letter by letter. */
import type { PageContent } from '../reading/types';

/** A page set in a face whose every letter is half as wide as its size. */
export class Sheet {
  content: PageContent = {
    width: 612,
    height: 792,
    rotation: 0,
    glyphs: [],
    turned: [],
    across: [],
    down: [],
    frames: [],
    shades: [],
    pictures: [],
  };
  text(x: number, y: number, text: string, size = 10, bold = false): this {
    Array.from(text).forEach((ch, i) =>
      this.content.glyphs.push({ ch, x0: x + i * size * 0.5, x1: x + (i + 1) * size * 0.5, y, size, bold }),
    );
    return this;
  }
  rule(x0: number, x1: number, y: number): this {
    this.content.across.push({ x0, x1, y });
    return this;
  }
  box(x: number, y: number, w: number, h: number): this {
    this.content.frames.push({ x, y, w, h });
    return this;
  }
}
/** Returns lines of clauses that give a page the width of text. */
export const filled = () =>
  new Sheet().text(
    60,
    100,
    'The parties agree that the house is handed over as it stands and that nothing else was said about it.',
  );
