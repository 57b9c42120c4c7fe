/**
 * Text and drawing of pages, from pdf.js's operator lists: every character at its position (ISO 32000-1, 9.4.4) and
 * every straight line, in one pass.
 */
import {
  AnnotationMode,
  getDocument,
  OPS,
  VerbosityLevel,
  type PDFDocumentProxy,
  type PDFPageProxy,
} from 'pdfjs-dist/legacy/build/pdf.mjs';
import { LRUCache } from 'lru-cache';
import type { Rect } from '@gatepath/core/paper';
import type { AcrossLine, PageContent } from '@gatepath/core/reading';
import { readStored } from '../files/stored';
import { fontFacts, PLAIN, type FontFacts } from './font-facts';
import { bounds, isTint, nested, point, squarish, subpaths, times, type M } from './paths';
import { itemAt } from '@gatepath/core/sure';
import { listIn, matrixIn, numberIn } from './operands';

interface Glyph {
  unicode: string;
  width: number;
  originalCharCode: number;
  isSpace: boolean;
}

interface State {
  ctm: M;
  font: FontFacts;
  size: number;
  direction: number;
  charSpacing: number;
  wordSpacing: number;
  hScale: number;
  rise: number;
  leading: number;
  lineWidth: number;
  fill: string;
  stroke: string;
  textMode: number;
}

/** Opens a file for reading its content. Close it with `destroy` of what is returned. */
export async function openContent(
  file: string | Uint8Array,
): Promise<{ doc: PDFDocumentProxy; destroy: () => Promise<void> }> {
  const task = getDocument({
    data: typeof file === 'string' ? await readStored(file) : new Uint8Array(file),
    verbosity: VerbosityLevel.ERRORS,
    disableFontFace: true,
    useSystemFonts: false,
    isEvalSupported: false,
  });
  return { doc: await task.promise, destroy: () => task.destroy() };
}

/**
 * Cached open files: a document is read some pages at a time, and opening it again costs as much as reading all of
 * it.
 */
const open = new LRUCache<string, { doc: PDFDocumentProxy; destroy: () => Promise<void> }>({
  max: 3,
  dispose: (was) => void was.destroy(),
});

/** Opens content like `openContent`, from the cache; callers must not close it. */
export async function cachedContent(file: string): Promise<PDFDocumentProxy> {
  const known = open.get(file);
  if (known) return known.doc;
  const opened = await openContent(file);
  open.set(file, opened);
  return opened.doc;
}

/** Returns the content of one page (from 1), in points as displayed. */
export async function pageContent(doc: PDFDocumentProxy, n: number): Promise<PageContent> {
  const page = await doc.getPage(n);
  const list = await page.getOperatorList({ annotationMode: AnnotationMode.DISABLE });
  const content = new Reader(page).read(list.fnArray, list.argsArray);
  page.cleanup();
  return content;
}

const isWhite = (c: string) => /^#f[c-f]f[c-f]f[c-f]$/i.test(c);
/** Thickness, in points, up to which a filled box is a line. */
const THIN = 2.2;

/** Maximum number of areas that white letters are compared with, and of pictures that places are compared with. */
const MOST_GROUNDS = 400;
/** Size, in points, of a picture that is too small to cover a place: a bullet, a box to check. */
const SMALL = { w: 20, h: 12 };

/** A page is a scan if a picture covers this share of it and hardly anything else is written on it. */
const COVERED = 0.55;
const MOST_WRITTEN = 120;
/** Number of invisible letters over a picture from which it counts as recognized. */
const WORDED = 12;

const isGlyph = (operand: unknown): operand is Glyph =>
  typeof operand === 'object' && operand !== null && 'unicode' in operand && 'width' in operand;

class Reader {
  private readonly out: PageContent;
  private s: State;
  private readonly stack: State[] = [];
  private tm: M = [1, 0, 0, 1, 0, 0];
  private x = 0;
  private y = 0;
  private lineX = 0;
  private lineY = 0;
  private readonly fonts = new Map<string, FontFacts>();
  /** Pieces of lines: dashes, dots, underlined spaces. */
  private readonly bits: AcrossLine[] = [];
  /** Area of the pictures, in square points. */
  private pictured = 0;
  /** Areas on which white letters are visible: dark fills and pictures. Null if all white letters count as visible. */
  private grounds: Rect[] | null = [];
  /** White letters on white: dropped on a printed page, kept on a scan, where they are its recognized words. */
  private readonly lost: PageContent['glyphs'] = [];
  /** Numbers of visible and invisible letters. */
  private seen = 0;
  private unseen = 0;

  constructor(private readonly page: PDFPageProxy) {
    const view = page.getViewport({ scale: 1 });
    this.out = {
      width: view.width,
      height: view.height,
      rotation: view.rotation,
      glyphs: [],
      turned: [],
      across: [],
      down: [],
      frames: [],
      shades: [],
      pictures: [],
    };
    this.s = {
      ctm: matrixIn(view.transform),
      font: PLAIN,
      size: 0,
      direction: 1,
      charSpacing: 0,
      wordSpacing: 0,
      hScale: 1,
      rise: 0,
      leading: 0,
      lineWidth: 1,
      fill: '#000000',
      stroke: '#000000',
      textMode: 0,
    };
  }

  read(fns: number[], args: unknown[]): PageContent {
    for (const [i, fn] of fns.entries()) this.op(fn, listIn(args[i]));
    const { width, height } = this.out;
    this.out.across.push(...linesOfBits(this.bits));
    // A page counts as scanned if pictures cover it and hardly any words are visible.
    if (this.pictured >= COVERED * width * height && this.seen < MOST_WRITTEN) {
      this.out.scan = this.unseen >= WORDED ? 'worded' : 'bare';
      for (const glyph of this.lost) this.out.glyphs.push(glyph);
    }
    return this.out;
  }

  private picture(): void {
    const { width, height } = this.out;
    const { x, y, w, h } = bounds([0, 1].flatMap((u) => [0, 1].map((v) => point(this.s.ctm, u, v))));
    const across = Math.min(width, x + w) - Math.max(0, x);
    const down = Math.min(height, y + h) - Math.max(0, y);
    if (across > 0 && down > 0) this.pictured += across * down;
    // A line that is painted as a picture.
    if (h <= THIN) this.level(x, x + w, y + h / 2);
    this.addGround({ x, y, w, h });
    if (h > SMALL.h && w > SMALL.w && w * h < COVERED * width * height && this.out.pictures.length < MOST_GROUNDS)
      this.out.pictures.push({ x, y, w, h });
  }

  /** Records a filled area or a picture: white letters on it can be seen. */
  private addGround(box: Rect): void {
    if (!this.grounds || box.h < LEAST || box.w < LEAST) return;
    // Beyond this number comparing takes too long: all white letters count as visible then.
    if (this.grounds.length < MOST_GROUNDS) this.grounds.push(box);
    else this.grounds = null;
  }

  /** Returns whether a letter of this color at this point is white on white. */
  private isLost(color: string, x: number, y: number): boolean {
    const on = ({ x: left, y: top, w, h }: Rect) => x >= left && x <= left + w && y >= top && y <= top + h + 2;
    return isWhite(color) && this.grounds !== null && !this.grounds.some(on);
  }

  // eslint-disable-next-line max-lines-per-function -- one case for each operator that says where something is drawn
  private op(fn: number, a: unknown[]): void {
    const s = this.s;
    switch (fn) {
      case OPS.save:
        this.stack.push({ ...s });
        break;
      case OPS.restore:
      case OPS.paintFormXObjectEnd:
        this.s = this.stack.pop() ?? s;
        break;
      case OPS.transform:
        s.ctm = times(s.ctm, matrixIn(a));
        break;
      case OPS.paintFormXObjectBegin:
        this.stack.push({ ...s });
        if (a[0]) this.s.ctm = times(s.ctm, matrixIn(a[0]));
        break;
      case OPS.setLineWidth:
        s.lineWidth = numberIn(a[0]);
        break;
      case OPS.setFillRGBColor:
        s.fill = String(a[0]);
        break;
      case OPS.setStrokeRGBColor:
        s.stroke = String(a[0]);
        break;
      case OPS.setFillColorN:
      case OPS.setFillTransparent:
        s.fill = fn === OPS.setFillTransparent ? '#ffffff' : '#808080';
        break;
      case OPS.setStrokeTransparent:
        s.stroke = '#ffffff';
        break;
      case OPS.beginText:
        this.tm = [1, 0, 0, 1, 0, 0];
        this.x = this.y = this.lineX = this.lineY = 0;
        break;
      case OPS.setCharSpacing:
        s.charSpacing = numberIn(a[0]);
        break;
      case OPS.setWordSpacing:
        s.wordSpacing = numberIn(a[0]);
        break;
      case OPS.setHScale:
        s.hScale = numberIn(a[0]) / 100;
        break;
      case OPS.setLeading:
        s.leading = -numberIn(a[0]);
        break;
      case OPS.setTextRise:
        s.rise = numberIn(a[0]);
        break;
      case OPS.setTextRenderingMode:
        s.textMode = numberIn(a[0]);
        break;
      case OPS.setFont: {
        const size = numberIn(a[1]);
        s.font = this.font(String(a[0]));
        s.size = Math.abs(size);
        s.direction = size < 0 ? -1 : 1;
        break;
      }
      case OPS.moveText:
        this.move(numberIn(a[0]), numberIn(a[1]));
        break;
      case OPS.setLeadingMoveText:
        s.leading = numberIn(a[1]);
        this.move(numberIn(a[0]), numberIn(a[1]));
        break;
      case OPS.nextLine:
        this.move(0, s.leading);
        break;
      case OPS.setTextMatrix:
        this.tm = matrixIn(a.length === 6 ? a : a[0]);
        this.x = this.y = this.lineX = this.lineY = 0;
        break;
      case OPS.showText:
        this.show(listIn(a[0]));
        break;
      case OPS.paintImageXObject:
      case OPS.paintInlineImageXObject:
      case OPS.paintImageMaskXObject:
      case OPS.paintSolidColorImageMask:
        this.picture();
        break;
      case OPS.shadingFill:
        this.grounds = null;
        break;
      case OPS.constructPath:
        this.path(numberIn(a[0]), a[1] ? listIn(listIn(a[1])[0]).map(numberIn) : null);
        break;
    }
  }

  private font(name: string): FontFacts {
    let f = this.fonts.get(name);
    if (!f) {
      const objs = this.page.commonObjs as { has(id: string): boolean; get(id: string): unknown };
      f = objs.has(name) ? fontFacts(objs.get(name)) : PLAIN;
      this.fonts.set(name, f);
    }
    return f;
  }

  private move(x: number, y: number): void {
    this.x = this.lineX += x;
    this.y = this.lineY += y;
  }

  private show(glyphs: unknown[]): void {
    const s = this.s;
    const m = times(s.ctm, this.tm);
    const scale = Math.hypot(m[2], m[3]);
    const size = s.size * scale * (s.font.matrix[3] / 0.001 || 1);
    // Text that runs left to right on the page as displayed; all other text is only print.
    const level = Math.abs(m[1]) < 0.02 * Math.abs(m[0]) && m[0] > 0 && !s.font.vertical && s.direction > 0;
    const hidden = s.textMode === 3 || s.textMode === 7;
    let at = 0;
    // Where a word of turned text runs from and to.
    let from: number | null = null;
    let to = 0;
    const flush = () => {
      if (from !== null) this.turned(m, from, to, s);
      from = null;
    };
    for (const g of glyphs) {
      if (typeof g === 'number') {
        at -= (g * s.size) / 1000;
        continue;
      }
      if (!isGlyph(g)) continue;
      const advance = g.width * s.size * s.font.matrix[0];
      const x0 = this.x + at * s.hScale;
      const x1 = this.x + (at + advance) * s.hScale;
      const [px0, py] = point(m, x0, this.y + s.rise);
      const [px1] = point(m, x1, this.y + s.rise);
      const lost = s.textMode === 0 && this.isLost(s.fill, (px0 + px1) / 2, py - size * 0.3);
      if (g.unicode.trim()) this[hidden || lost ? 'unseen' : 'seen']++;
      if (level) {
        const ch = s.font.boxes?.get(g.originalCharCode & 0xff) ?? g.unicode;
        // A ligature is one glyph with several letters.
        const chars = Array.from(ch);
        if (ch.trim() || !(hidden || lost))
          chars.forEach((c, k) =>
            (lost ? this.lost : this.out.glyphs).push({
              ch: c,
              x0: px0 + ((px1 - px0) * k) / chars.length,
              x1: px0 + ((px1 - px0) * (k + 1)) / chars.length,
              y: py,
              size,
              bold: s.font.bold,
            }),
          );
      } else if (g.unicode.trim()) {
        from ??= x0;
        to = x1;
      } else flush();
      at += advance + (s.charSpacing + (g.isSpace ? s.wordSpacing : 0)) * s.direction;
    }
    flush();
    this.x += at * s.hScale;
  }

  private turned(m: M, x0: number, x1: number, s: State): void {
    const corners = [
      point(m, x0, this.y - 0.2 * s.size),
      point(m, x1, this.y - 0.2 * s.size),
      point(m, x0, this.y + 0.74 * s.size),
      point(m, x1, this.y + 0.74 * s.size),
    ];
    this.out.turned.push(bounds(corners));
  }

  private path(paint: number, data: ArrayLike<number> | null): void {
    const fills = FILLS.has(paint);
    const strokes = STROKES.has(paint);
    if (!data || (!fills && !strokes)) return;
    const s = this.s;
    const inked = { fill: fills && !isWhite(s.fill), stroke: strokes && !isWhite(s.stroke) };
    if (!inked.fill && !inked.stroke) return;
    const subs = subpaths(data, s.ctm);
    if (inked.fill && !isTint(s.fill)) for (const sub of subs) this.addGround(sub.box);
    // A thick stroke is a band.
    const half = (s.lineWidth * Math.hypot(s.ctm[2], s.ctm[3])) / 2;
    if (inked.stroke && half > THIN && !isTint(s.stroke))
      for (const { box: b } of subs)
        this.addGround({ x: b.x - half, y: b.y - half, w: b.w + 2 * half, h: b.h + 2 * half });
    const frame = subs.length === 2 && inked.fill && !inked.stroke && nested(itemAt(subs, 0).box, itemAt(subs, 1).box);
    if (frame) {
      this.frame(itemAt(subs, 0).box.w > itemAt(subs, 1).box.w ? itemAt(subs, 0).box : itemAt(subs, 1).box);
      return;
    }
    for (const sub of subs) {
      const { box } = sub;
      if (inked.fill && !inked.stroke) {
        if (sub.curved && box.w < 20 && box.h < 20) {
          if (box.h <= THIN && box.w <= THIN) this.level(box.x, box.x + box.w, box.y + box.h / 2);
          continue;
        }
        if (box.h <= THIN) this.level(box.x, box.x + box.w, box.y + box.h / 2);
        else if (box.w <= THIN && box.h > 4) this.out.down.push({ y0: box.y, y1: box.y + box.h, x: box.x + box.w / 2 });
        else if (box.h >= 9 && box.h <= 46 && box.w >= 24 && box.w < 0.93 * this.out.width && isTint(s.fill))
          this.out.shades.push(box);
        continue;
      }
      if (!inked.stroke) continue;
      if (
        sub.closed &&
        (sub.curved || sub.sides >= 4) &&
        box.w > 4 &&
        box.h > 4 &&
        (!sub.curved || sub.level >= 2 || squarish(box))
      ) {
        this.frame(box);
        continue;
      }
      for (const e of sub.edges) {
        const dx = Math.abs(e[2] - e[0]);
        const dy = Math.abs(e[3] - e[1]);
        if (dy < 0.8 && dx > 0.3) this.level(Math.min(e[0], e[2]), Math.max(e[0], e[2]), (e[1] + e[3]) / 2);
        else if (dx < 0.8 && dy > 3)
          this.out.down.push({ y0: Math.min(e[1], e[3]), y1: Math.max(e[1], e[3]), x: (e[0] + e[2]) / 2 });
      }
    }
  }

  /** Notes a level line, or a piece of one. */
  private level(x0: number, x1: number, y: number): void {
    if (x1 - x0 > BIT) this.out.across.push({ x0, x1, y });
    else this.bits.push({ x0, x1, y });
  }

  private frame(box: Rect): void {
    // A frame as flat as a line is one.
    if (box.h <= THIN) this.out.across.push({ x0: box.x, x1: box.x + box.w, y: box.y + box.h / 2 });
    else if (box.w <= THIN) this.out.down.push({ y0: box.y, y1: box.y + box.h, x: box.x + box.w / 2 });
    else this.out.frames.push(box);
  }
}

/** Length in points up to which a line is a piece of one, and the least length of a line. */
const BIT = 8;
const LEAST = 4;
/** How far apart pieces of one line may be, in points; longer ones may be farther apart. */
const APART = 3;

/** Returns the lines that pieces make: dashes, dots and underlined spaces, one after another at one height. */
function linesOfBits(bits: readonly AcrossLine[]): AcrossLine[] {
  const out: AcrossLine[] = [];
  const rows = new Map<number, AcrossLine[]>();
  for (const b of bits) {
    const row = Math.round(b.y / 0.6);
    const list = rows.get(row);
    if (list) list.push(b);
    else rows.set(row, [b]);
  }
  for (const row of rows.values()) {
    row.sort((a, b) => a.x0 - b.x0);
    let line: AcrossLine | null = null;
    const ended = () => {
      if (line && line.x1 - line.x0 > LEAST) out.push(line);
    };
    for (const b of row) {
      const gap: number = line ? b.x0 - line.x1 : Infinity;
      if (line && gap <= Math.max(APART, 1.6 * (b.x1 - b.x0))) line.x1 = Math.max(line.x1, b.x1);
      else {
        ended();
        line = { ...b };
      }
    }
    ended();
  }
  return out;
}

const FILLS = new Set<number>([
  OPS.fill,
  OPS.eoFill,
  OPS.fillStroke,
  OPS.eoFillStroke,
  OPS.closeFillStroke,
  OPS.closeEOFillStroke,
]);
const STROKES = new Set<number>([
  OPS.stroke,
  OPS.closeStroke,
  OPS.fillStroke,
  OPS.eoFillStroke,
  OPS.closeFillStroke,
  OPS.closeEOFillStroke,
]);
