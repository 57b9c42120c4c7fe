/** Converting files that are not PDFs, once, when they are added: what is seen is what is sent. */
import { createRequire } from 'node:module';
import { buffer } from 'node:stream/consumers';
import sharp, { type Sharp } from 'sharp';
import { PDFDocument } from '@cantoo/pdf-lib';
import type { PaperKind } from '@gatepath/contract';
import { flattened, sidesOf, type Corners } from '@gatepath/core/scan';
import { cutEnd } from '@gatepath/core/text';
import { htmlContent } from './html-content';
import { PAPER_LIMITS } from './refusal';
import { spreadsheetToPdf } from './spreadsheet';
import { printDefinition } from '../typesetting/typeset';
import { openArchive, refuseTypes, UnfitParts } from '../archives/read';
import { archiveOf } from '../archives/write';
import { isWholePicture, uprightRgb } from './whole-picture';

const require = createRequire(import.meta.url);

/** Why a kind of file cannot be used. */
export type SortProblem = 'old_word' | 'old_sheet' | 'heic' | 'not_pdf' | 'unknown';

/**
 * Returns a file's kind by its bytes. Its name matters only for text, which nearly anything can be: a web page saved
 * as PDF is not a document.
 */
export async function sortOf(bytes: Uint8Array, name: string): Promise<PaperKind | SortProblem> {
  const b = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  // Readers accept a PDF's header anywhere in the first kilobyte (ISO 32000-1, Annex H).
  if (b.subarray(0, 1024).includes('%PDF-')) return 'pdf';
  if (b.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]))) return 'picture';
  if (b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff) return 'picture';
  if (b.subarray(0, 4).toString('latin1') === 'RIFF' && b.subarray(8, 12).toString('latin1') === 'WEBP')
    return 'picture';
  if (/^ftyp(?:hei|hev|mif|msf)/.test(b.subarray(4, 12).toString('latin1'))) return 'heic';
  if (b.subarray(0, 4).toString('latin1') === 'PK\u0003\u0004') {
    const parts = await openArchive(b, { bytes: Infinity, parts: MOST_UNFOLDED.parts }).catch(() => null);
    if (parts?.has('word/document.xml')) return 'docx';
    return parts?.has('xl/workbook.xml') ? 'xlsx' : 'unknown';
  }
  if (b.subarray(0, 8).equals(Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1])))
    return /\.xl\w?$/i.test(name) ? 'old_sheet' : 'old_word';
  if (/\.pdf$/i.test(name)) return 'not_pdf';
  const named = /\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase();
  if (named && !['txt', 'text', 'md'].includes(named)) return 'unknown';
  return textOf(bytes) === null ? 'unknown' : 'text';
}

/** Why a file cannot be converted. */
export type ConvertProblem =
  | { problem: 'cut_short' | 'external' | 'too_many_parts' | 'cannot_convert' | 'broken' }
  | { problem: 'picture_too_large'; page: number };

class Unfit extends Error {
  constructor(readonly why: ConvertProblem) {
    super(why.problem);
  }
}

/** Converts a file of another kind to PDF. */
export async function convert(
  bytes: Uint8Array,
  kind: Exclude<PaperKind, 'pdf'>,
  title: string,
  /** Corners of the sheet in a photo. */
  corners: Corners | null = null,
): Promise<{ bytes: Uint8Array } | ConvertProblem> {
  try {
    if (kind === 'picture') return { bytes: await pictureToPdf(bytes, corners) };
    if (kind === 'xlsx') return { bytes: await spreadsheetToPdf(bytes, title) };
    if (kind === 'docx') return { bytes: await docxToPdf(bytes, title) };
    return { bytes: await textToPdf(textOf(bytes) ?? '', title) };
  } catch (error) {
    if (error instanceof UnfitParts) return { problem: error.why };
    return error instanceof Unfit ? error.why : { problem: kind === 'picture' ? 'broken' : 'cannot_convert' };
  }
}

/** Paper sizes, in points, portrait. */
const LETTER = { width: 612, height: 792 };
const A4 = { width: 595.28, height: 841.89 };
/** Pixels along the longer side: 200 per printed inch, sharp enough to read and small enough to send. */
const MAX_SIDE = 2200;

/** Converts a photographed page: turned upright by its EXIF data, without its other data, on US Letter or A4. */
async function pictureToPdf(bytes: Uint8Array, corners: Corners | null): Promise<Uint8Array> {
  if (!isWholePicture(bytes)) throw new Unfit({ problem: 'cut_short' });
  // Its own metadata is read without decoding it; one that is too large is refused as such.
  const meta = await sharp(bytes, { limitInputPixels: false }).metadata();
  if ((meta.width ?? 0) * (meta.height ?? 0) > PAPER_LIMITS.pixels)
    throw new Unfit({ problem: 'picture_too_large', page: 1 });
  const flat = corners && (await flatSheet(bytes, corners));
  const { data, info } = await (
    flat ?? sharp(bytes, { failOn: 'error', limitInputPixels: PAPER_LIMITS.pixels }).rotate()
  )
    .flatten({ background: '#ffffff' })
    .resize({ width: MAX_SIDE, height: MAX_SIDE, fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 84, mozjpeg: true })
    .toBuffer({ resolveWithObject: true });
  const ratio = Math.max(info.width, info.height) / Math.min(info.width, info.height);
  // 11/8.5 is 1.294 and the root of two is 1.414: whichever is nearer.
  const size = ratio < 1.354 ? LETTER : A4;
  const wide = info.width > info.height;
  const page = wide ? { width: size.height, height: size.width } : size;
  const scale = Math.min(page.width / info.width, page.height / info.height);
  const doc = await PDFDocument.create();
  const image = await doc.embedJpg(new Uint8Array(data));
  const w = info.width * scale;
  const h = info.height * scale;
  doc
    .addPage([page.width, page.height])
    .drawImage(image, { x: (page.width - w) / 2, y: (page.height - h) / 2, width: w, height: h });
  return doc.save();
}

/** Pixels along the longer side of a photo while it is processed: enough remain for the sheet in it. */
const PHOTO_SIDE = 3600;

/** Returns the sheet of a photo alone, flat, in the proportions of US Letter or A4 if nearly so. */
async function flatSheet(bytes: Uint8Array, corners: Corners): Promise<Sharp> {
  const picture = await uprightRgb(bytes, PHOTO_SIDE, PAPER_LIMITS.pixels);
  const { width, height } = sheetSize(sidesOf(corners, picture));
  const flat = flattened(picture, corners, width, height);
  return sharp(flat.data, { raw: { width, height, channels: 3 } });
}

/** Tolerance of proportions: perspective shortens what is further away. */
const NEARLY = 0.16;

/** Returns the size of a flattened sheet, in pixels. */
function sheetSize({ across, down }: { across: number; down: number }): { width: number; height: number } {
  const ratio = Math.max(across, down) / Math.max(1, Math.min(across, down));
  const known = [LETTER, A4]
    .map((s) => s.height / s.width)
    .sort((a, b) => Math.abs(a - ratio) - Math.abs(b - ratio))[0];
  const used = known && Math.abs(known - ratio) < NEARLY * known ? known : ratio;
  const long = Math.min(MAX_SIDE, Math.max(200, Math.round(Math.max(across, down))));
  const short = Math.max(2, Math.round(long / used));
  return across > down ? { width: long, height: short } : { width: short, height: long };
}

/** Returns the text of a file, or null if it is not text. UTF-8, UTF-16 with its mark, or Windows-1252. */
export function textOf(bytes: Uint8Array): string | null {
  const b = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (b[0] === 0xff && b[1] === 0xfe) return tidy(new TextDecoder('utf-16le').decode(b));
  if (b[0] === 0xfe && b[1] === 0xff) return tidy(new TextDecoder('utf-16be').decode(b));
  try {
    return tidy(new TextDecoder('utf-8', { fatal: true }).decode(b));
  } catch {
    return tidy(new TextDecoder('windows-1252').decode(b));
  }
}

function tidy(text: string): string | null {
  // Control characters but tab, line feed, form feed and carriage return: no text has them.
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if ((c < 32 && c !== 9 && c !== 10 && c !== 12 && c !== 13) || c === 127) return null;
  }
  return text.replace(/^\ufeff/, '').replace(/\r\n?/g, '\n');
}

async function textToPdf(text: string, title: string): Promise<Uint8Array> {
  // A form feed starts a page; every line stays a line, since blanks are lined up with spaces.
  const pages = text.split('\f');
  return printDefinition({
    info: { title },
    pageSize: 'LETTER',
    pageMargins: [60, 60, 60, 72],
    defaultStyle: { fontSize: 10.5, lineHeight: 1.25 },
    content: pages.flatMap((page, i) =>
      cutEnd(page, /\n/)
        .split('\n')
        .map((line, k) => ({
          text: line.replace(/\t/g, '    ') || ' ',
          preserveLeadingSpaces: true,
          ...(i > 0 && k === 0 ? { pageBreak: 'before' } : {}),
        })),
    ),
  });
}

interface Mammoth {
  convertToHtml(input: { buffer: Buffer }): Promise<{ value: string }>;
}

async function docxToPdf(bytes: Uint8Array, title: string): Promise<Uint8Array> {
  const mammoth: Mammoth = require('mammoth');
  const { value } = await mammoth.convertToHtml({ buffer: await withLeaders(bytes) });
  return printDefinition({
    info: { title },
    pageSize: 'LETTER',
    pageMargins: [64, 64, 64, 76],
    defaultStyle: { fontSize: 11, lineHeight: 1.2 },
    content: htmlContent(value),
  });
}

/** Maximum bytes and parts a DOCX may unpack to. */
const MOST_UNFOLDED = { bytes: 200 * 1024 * 1024, parts: 5_000 };

/** The line drawn for a tab stop. */
const LINE = '_'.repeat(30);

/**
 * Replaces lines that a word processor draws as leaders of tab stops by underscores; the DOCX reader would lose them.
 */
async function withLeaders(bytes: Uint8Array): Promise<Buffer> {
  const parts = await openArchive(bytes, MOST_UNFOLDED);
  const part = parts.get('word/document.xml');
  if (!part) throw new Error('no document in the file');
  let left = MOST_UNFOLDED.bytes;
  const entries = [...parts.values()].map((f) => ({
    path: f.name,
    open: async () => {
      const bytes = await f.bytes(left);
      left -= bytes.length;
      if (/\.(?:xml|rels)$/i.test(f.name)) refuseTypes(bytes.toString('utf8'));
      return f === part ? Buffer.from(leadersDrawn(bytes.toString('utf8'))) : bytes;
    },
  }));
  return buffer(archiveOf(entries, new Date()));
}

/** Replaces tabs by lines, paragraph by paragraph, where a tab stop draws one. */
function leadersDrawn(xml: string): string {
  let out = '';
  let at = 0;
  for (;;) {
    const open = nextParagraph(xml, at);
    const close = open < 0 ? -1 : xml.indexOf('</w:p>', open);
    if (close < 0) return out + xml.slice(at);
    const p = xml.slice(open, close);
    out += xml.slice(at, open);
    out += /w:leader="(?:underscore|heavy)"/.test(p)
      ? p.replace(/<w:tab\/>/g, `<w:t xml:space="preserve"> ${LINE} </w:t>`)
      : p;
    at = close;
  }
}

function nextParagraph(xml: string, from: number): number {
  for (let i = xml.indexOf('<w:p', from); i >= 0; i = xml.indexOf('<w:p', i + 4))
    if (xml[i + 4] === ' ' || xml[i + 4] === '>') return i;
  return -1;
}
