/**
 * Measuring how much a page draws before drawing it: forms that draw forms multiply, and one that draws itself never
 * ends.
 */
import { PDFDict, PDFName, PDFNumber, PDFRawStream, PDFStream, type PDFObject } from '@cantoo/pdf-lib';
import { countContent, type ContentCount } from '../pdf/operators';
import { PAPER_LIMITS, Refused } from './refusal';

const key = (name: string) => PDFName.of(name);
const dictOf = (v: PDFObject | undefined): PDFDict | null =>
  v instanceof PDFStream ? v.dict : v instanceof PDFDict ? v : null;
const within = (resources: PDFDict | null, category: string, name: string): PDFObject | undefined => {
  const map = resources?.lookup(key(category));
  return map instanceof PDFDict ? map.lookup(key(name)) : undefined;
};

/** How much a page draws. */
export interface Weight {
  operators: number;
  pixels: number;
}

/** Measures content of a cleaned file. */
export class Scale {
  private readonly known = new Map<PDFObject, Weight>();
  private readonly counts = new Map<PDFObject, ContentCount>();
  private readonly onTheWay = new Set<PDFObject>();

  /** The page being measured, for refusals. */
  page = 1;

  constructor(private readonly unpack: (stream: PDFStream) => Uint8Array) {}

  /** Returns the measure of content with its resources; nested content without its own borrows them. */
  weigh(count: ContentCount, resources: PDFDict | null, depth = 0): Weight {
    if (depth > PAPER_LIMITS.depth) throw new Refused({ problem: 'too_deep', page: this.page });
    let operators = count.operators;
    let pixels = 0;
    const add = (w: Weight, times: number) => {
      operators += w.operators * times;
      pixels += w.pixels * times;
      if (operators > PAPER_LIMITS.operators)
        throw new Refused({ problem: 'too_many_operators', page: this.page, n: operators });
    };
    for (const [name, times] of count.draws) {
      const x = within(resources, 'XObject', name);
      if (!(x instanceof PDFStream)) continue;
      if (x.dict.lookup(key('Subtype')) === key('Image')) pixels += pixelsOf(x.dict);
      else add(this.drawn(x, resources, depth), times);
    }
    for (const name of count.patterns) {
      const p = within(resources, 'Pattern', name);
      if (p instanceof PDFStream) add(this.drawn(p, resources, depth), 1);
    }
    for (const name of count.states) {
      const mask = dictOf(dictOf(within(resources, 'ExtGState', name))?.lookup(key('SMask')));
      const group = mask?.lookup(key('G'));
      if (group instanceof PDFStream) add(this.drawn(group, resources, depth), 1);
    }
    for (const name of count.fonts) {
      const font = dictOf(within(resources, 'Font', name));
      const glyphs = font?.lookup(key('CharProcs'));
      if (!font || !(glyphs instanceof PDFDict)) continue;
      const own = dictOf(font.lookup(key('Resources'))) ?? resources;
      for (const [, g] of glyphs.entries()) {
        const glyph = font.context.lookup(g);
        if (glyph instanceof PDFStream) add(this.drawn(glyph, own, depth), 1);
      }
    }
    if (operators > PAPER_LIMITS.operators)
      throw new Refused({ problem: 'too_many_operators', page: this.page, n: operators });
    if (pixels > PAPER_LIMITS.pagePixels) throw new Refused({ problem: 'picture_too_large', page: this.page });
    return { operators, pixels };
  }

  private drawn(stream: PDFStream, borrowed: PDFDict | null, depth: number): Weight {
    const known = this.known.get(stream);
    if (known) return known;
    if (this.onTheWay.has(stream)) throw new Refused({ problem: 'draws_itself', page: this.page });
    this.onTheWay.add(stream);
    let count = this.counts.get(stream);
    if (!count) this.counts.set(stream, (count = countContent(this.unpack(stream))));
    const weight = this.weigh(count, dictOf(stream.dict.lookup(key('Resources'))) ?? borrowed, depth + 1);
    this.onTheWay.delete(stream);
    this.known.set(stream, weight);
    return weight;
  }
}

function pixelsOf(image: PDFDict): number {
  const side = (name: string) => {
    const v = image.lookup(key(name));
    return v instanceof PDFNumber ? v.asNumber() : 0;
  };
  const mask = image.lookup(key('SMask'));
  return side('Width') * side('Height') + (mask instanceof PDFRawStream ? pixelsOf(mask.dict) : 0);
}
