/** One scanned page in a worker: its lines, and its words by recognition. */
import type { PDFiumDocument } from '@hyzyla/pdfium';
import sharp, { type Sharp } from 'sharp';
import {
  drawnOf,
  inkOf,
  lieOf,
  linesIn,
  withoutLines,
  wordsOfScan,
  type Gray,
  type Lie,
  type PlacedWord,
  type SeenWord,
} from '@gatepath/core/scan';
import type { PageContent } from '@gatepath/core/reading';
import { drawPixels, openFile } from '../pdf/draw';
import { recognise, SCAN_LANGUAGES, type ScanLanguage } from './recognise';

/** Resolution in dots per inch at which pages are read; less for very large sheets, to limit pixels. */
const READ_DPI = 200;
const MOST_DOTS = 9_000_000;

interface Size {
  width: number;
  height: number;
}

/** Returns pixels per point. */
export const scaleOf = ({ width, height }: Size): number =>
  Math.min(READ_DPI / 72, Math.sqrt(MOST_DOTS / (width * height)));

/** Returns a page in gray at reading resolution. */
export const grayOf = (doc: PDFiumDocument, page: number, size: Size): Promise<Gray> =>
  drawPixels(doc, page, size, scaleOf(size) * 72, true);

/** Adds the lines and boxes of a scanned page to what else it draws. */
export async function addDrawn(doc: PDFiumDocument, page: number, content: PageContent): Promise<void> {
  const drawn = drawnOf(linesIn(inkOf(await grayOf(doc, page, content)), scaleOf(content)));
  content.across.push(...drawn.across);
  content.down.push(...drawn.down);
  content.frames.push(...drawn.frames);
}

/** A page to recognize. */
export interface RecogniseTask {
  file: string;
  /** From 1. */
  page: number;
  size: Size;
  /** The language of the page before; the page's own is determined from its words. */
  language: ScanLanguage;
}

/** The words recognized on a page, and how it is turned and tilted. */
export interface Recognised {
  /** How the page is turned and tilted; its words are given as if it were straight. */
  lie: Lie;
  words: PlacedWord[];
  /** Whether the page stands on its head; its words are told as if it were turned. */
  over: boolean;
  language: ScanLanguage;
}

/** Reads the words of a page. */
export async function recognisePage({ file, page, size, language }: RecogniseTask): Promise<Recognised> {
  return recogniseGray(await grayOf(await openFile(file), page, size), scaleOf(size), language);
}

/** Degrees of tilt below which nobody notices. */
const LEAST_ASKEW = 0.12;

/** Reads the words of a picture, however it lies. */
export async function recogniseGray(asItLies: Gray, scale: number, language: ScanLanguage): Promise<Recognised> {
  const found = lieOf(inkOf(asItLies));
  const lie = Math.abs(found.straighten) < LEAST_ASKEW ? { ...found, straighten: 0 } : found;
  const gray = await laidStraight(asItLies, lie);
  let best = { ...(await wordsIn(gray, scale, language)), over: false };
  // Words upside down make no sense: then the other way up is tried.
  if (best.sense < SURE) {
    const turned = await wordsIn(headOver(gray), scale, language);
    if (turned.sense > best.sense + 0.05) best = { ...turned, over: true };
  }
  const spoken = languageOf(best.seen);
  if (spoken && spoken !== language) {
    const again = await wordsIn(best.over ? headOver(gray) : gray, scale, spoken);
    if (again.sense >= best.sense) return { lie, words: again.words, over: best.over, language: spoken };
  }
  return { lie, words: best.words, over: best.over, language };
}

/** Confidence from which a page counts as upright. */
const SURE = 0.8;
/** Minimum number of letters to decide anything. */
const FEWEST = 12;

async function wordsIn(
  gray: Gray,
  scale: number,
  language: ScanLanguage,
): Promise<{ words: PlacedWord[]; seen: SeenWord[]; sense: number }> {
  const mask = inkOf(gray);
  const ink = linesIn(mask, scale);
  const bare = withoutLines(gray, mask, ink, scale);
  const seen = await recognise(await pngOf(bare), Math.round(scale * 72), language);
  return { words: wordsOfScan(seen, ink, scale), seen, sense: senseOf(seen) };
}

/** Returns the mean confidence of a page's letters, from 0 to 1. */
function senseOf(words: SeenWord[]): number {
  let sum = 0;
  let letters = 0;
  for (const w of words) {
    const n = w.text.replace(/[^\p{L}]/gu, '').length;
    letters += n;
    sum += n * w.confidence;
  }
  return letters < FEWEST ? 0 : sum / letters;
}

/** Short words that only one of the languages has. */
const SMALL: Record<ScanLanguage, Set<string>> = {
  eng: new Set('the of and to in is that for by this with or be as at'.split(' ')),
  spa: new Set('de la el los las que del por con para una un se su al lo'.split(' ')),
};

/** Returns the language most short words belong to; null if there are too few. */
function languageOf(words: SeenWord[]): ScanLanguage | null {
  const counts = SCAN_LANGUAGES.map((language) => ({
    language,
    n: words.filter((w) => SMALL[language].has(w.text.toLowerCase())).length,
  })).sort((a, b) => b.n - a.n);
  const [first, second] = counts;
  return first && second && first.n >= 4 && first.n >= 3 * second.n ? first.language : null;
}

const pngOf = ({ data, width, height }: Gray) =>
  sharp(data, { raw: { width, height, channels: 1 } })
    .png({ compressionLevel: 1 })
    .toBuffer();

/** Returns the image turned to lie straight; what is turned out of it is cut off. */
async function laidStraight(gray: Gray, { aside, straighten }: Lie): Promise<Gray> {
  if (!aside && !straighten) return gray;
  const [width, height] = aside ? [gray.height, gray.width] : [gray.width, gray.height];
  const raw = (g: Gray) => sharp(g.data, { raw: { width: g.width, height: g.height, channels: 1 } });
  const dots = async (s: Sharp) => {
    const { data, info } = await s.toColourspace('b-w').raw().toBuffer({ resolveWithObject: true });
    return { width: info.width, height: info.height, data: new Uint8Array(data) };
  };
  const stood = aside ? await dots(raw(gray).rotate(90)) : gray;
  if (!straighten) return stood;
  const lain = await dots(raw(stood).rotate(straighten, { background: '#ffffff' }));
  const left = (lain.width - width) >> 1;
  const top = (lain.height - height) >> 1;
  const out = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const from = (y + top) * lain.width + left;
    out.set(lain.data.subarray(from, from + width), y * width);
  }
  return { width, height, data: out };
}

/** Returns the image turned by 180 degrees. */
function headOver({ width, height, data }: Gray): Gray {
  return { width, height, data: data.slice().reverse() };
}
