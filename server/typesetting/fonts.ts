/** The shipped fonts, and text set with a chain of them so that every script is covered. */
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import * as fontkit from 'fontkit';
import { LRUCache } from 'lru-cache';
import type { PDFDocument, PDFFont, RGB } from '@cantoo/pdf-lib';
import type { ScriptFace } from '@gatepath/core/packet';
import type { Appearance } from './appearance';
import { itemAt } from '@gatepath/core/sure';

const require = createRequire(import.meta.url);

/** Name of a font. */
export type FaceName = ScriptFace | 'mynerve' | 'document' | 'document-bold';

const FILES: Record<FaceName, [pack: string, file: string]> = {
  caveat: ['caveat', '500Medium/Caveat_500Medium.ttf'],
  'dancing-script': ['dancing-script', '500Medium/DancingScript_500Medium.ttf'],
  'la-belle-aurore': ['la-belle-aurore', '400Regular/LaBelleAurore_400Regular.ttf'],
  'reenie-beanie': ['reenie-beanie', '400Regular/ReenieBeanie_400Regular.ttf'],
  // A handwritten face with Greek, for names the script faces above cannot write.
  mynerve: ['mynerve', 'Mynerve_400Regular.ttf'],
  // The face of papers: print figures, without a stroke through the zero, and every script.
  document: ['noto-sans', '400Regular/NotoSans_400Regular.ttf'],
  'document-bold': ['noto-sans', '700Bold/NotoSans_700Bold.ttf'],
};

/** fontkit reads past an empty glyph at the very end of a font; these bytes are there for it. */
const PADDING = 16;

interface Face {
  bytes: Uint8Array;
  has(codePoint: number): boolean;
}

const faces = new Map<FaceName, Promise<Face>>();
const parsedFonts = new WeakMap<Uint8Array, fontkit.Font | fontkit.FontCollection>();

/** Returns a font for the embedder, parsed once for all documents of this worker. */
function parsed(bytes: Uint8Array): fontkit.Font | fontkit.FontCollection {
  let font = parsedFonts.get(bytes);
  if (!font) parsedFonts.set(bytes, (font = fontkit.create(bytes as Buffer)));
  return font;
}

/** What this module needs of a font as fontkit reads it. */
interface Shaped {
  hasGlyphForCodePoint(codePoint: number): boolean;
  glyphForCodePoint(codePoint: number): unknown;
  layout(text: string, features?: unknown): { glyphs: unknown[] };
}

/** Typefaces for documents; a letter of theirs looks the same beside any other. */
const DOCUMENT_FACES = new Set<FaceName>(['document', 'document-bold']);
/**
 * Latin (Vietnamese too), Greek and Cyrillic letters, figures and signs: one glyph each, none that changes with its
 * neighbours. A shaper would take some of them apart, and their marks would be lost to whoever searches the page.
 */
const PLAIN = /^[\u0020-\u007e\u00a0-\u024f\u0370-\u03ff\u0400-\u04ff\u1e00-\u1fff\u2010-\u2044\u20a0-\u20bf]*$/;
/** Number of texts whose shape is cached per font: the same initials are on every page. */
const KEEP_SHAPES = 2_000;

/**
 * Shapes a text once. In a document typeface plain text needs no shaper: its glyphs are those of its letters, set by
 * their advances without kerning.
 */
function shapeOnce(font: Shaped, plainly: boolean): void {
  const shape = font.layout.bind(font);
  const glyphs = new Map<number, unknown>();
  const shapes = new LRUCache<string, { glyphs: unknown[] }>({ max: KEEP_SHAPES });
  const glyphOf = (codePoint: number) => {
    let glyph = glyphs.get(codePoint);
    if (!glyph) glyphs.set(codePoint, (glyph = font.glyphForCodePoint(codePoint)));
    return glyph;
  };
  font.layout = (text, features) => {
    if (features) return shape(text, features);
    let known = shapes.get(text);
    if (!known) {
      known =
        plainly && PLAIN.test(text) ? { glyphs: Array.from(text, (c) => glyphOf(c.codePointAt(0)!)) } : shape(text);
      shapes.set(text, known);
    }
    return known;
  };
}

function loadFace(name: FaceName): Promise<Face> {
  let face = faces.get(name);
  if (!face) {
    face = (async () => {
      const [pack, file] = FILES[name];
      const root = path.dirname(require.resolve(`@expo-google-fonts/${pack}/package.json`));
      const read = await readFile(path.join(root, file));
      const bytes = new Uint8Array(read.length + PADDING);
      bytes.set(read);
      const font = parsed(bytes) as unknown as Shaped;
      shapeOnce(font, DOCUMENT_FACES.has(name));
      return { bytes, has: (c) => font.hasGlyphForCodePoint(c) };
    })();
    faces.set(name, face);
  }
  return face;
}

/** Returns the fonts a text is set with, first choice first. */
export function chainOf(name: FaceName): FaceName[] {
  if (DOCUMENT_FACES.has(name)) return [...new Set<FaceName>([name, 'document'])];
  return [...new Set<FaceName>([name, 'caveat', 'mynerve', 'document'])];
}

/** Returns characters of `text` that a font cannot write: by itself (`alone`), or with its whole chain. */
export async function missingCharacters(text: string, face: FaceName, alone = false): Promise<string[]> {
  const chain = await Promise.all((alone ? [face] : chainOf(face)).map(loadFace));
  return Array.from(text.normalize('NFC')).filter(
    (ch) => !/\s/u.test(ch) && !chain.some((f) => f.has(ch.codePointAt(0)!)),
  );
}

interface Run {
  font: PDFFont;
  text: string;
}

/** Sets text in one document; fonts are embedded as subsets when first needed. */
export class Typesetter {
  private readonly embedded = new Map<FaceName, Promise<PDFFont>>();
  private readonly known = new Map<string, Promise<Run[]>>();

  constructor(private readonly doc: PDFDocument) {
    doc.registerFontkit({ create: parsed } as never);
  }

  private embed(name: FaceName): Promise<PDFFont> {
    let font = this.embedded.get(name);
    if (!font) {
      font = loadFace(name).then((f) => this.doc.embedFont(f.bytes, { subset: true }));
      this.embedded.set(name, font);
    }
    return font;
  }

  /** Splits a line of text into runs of one font each; what no font can write becomes a replacement character. */
  runs(text: string, face: FaceName): Promise<Run[]> {
    // The same initials are on every page: they are shaped once.
    const key = `${face}:${text}`;
    let runs = this.known.get(key);
    if (!runs) {
      runs = this.cut(text, face);
      this.known.set(key, runs);
    }
    return runs;
  }

  private async cut(text: string, face: FaceName): Promise<Run[]> {
    const chain = chainOf(face);
    const loaded = await Promise.all(chain.map(loadFace));
    const runs: { name: FaceName; text: string }[] = [];
    for (const ch of text.normalize('NFC')) {
      const at = loaded.findIndex((f) => f.has(ch.codePointAt(0)!));
      const name = itemAt(chain, at < 0 ? chain.length - 1 : at);
      const shown = at < 0 ? '\ufffd' : ch;
      const last = runs[runs.length - 1];
      if (last && last.name === name) last.text += shown;
      else runs.push({ name, text: shown });
    }
    return Promise.all(runs.map(async (r) => ({ font: await this.embed(r.name), text: r.text })));
  }

  /** Returns the width in points of runs set at `size`. */
  static width(runs: Run[], size: number): number {
    return runs.reduce((w, r) => w + r.font.widthOfTextAtSize(r.text, size), 0);
  }

  /** Draws runs with their baseline starting at x, y (y up). */
  static draw(look: Appearance, runs: Run[], x: number, y: number, size: number, color: RGB): void {
    let at = x;
    for (const r of runs) {
      look.text(r.text, { x: at, y, size, font: r.font, color });
      at += r.font.widthOfTextAtSize(r.text, size);
    }
  }
}
