/** Papers from strangers: what a page needs to be seen comes along, and nothing else. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { crc32, deflateSync } from 'node:zlib';
import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { wordsOfProblem, type PaperProblem } from '../documents/problems';
import { sha256 } from '../ids';
import {
  ACTIVE_WORDS,
  activePaper,
  bomb,
  multiplying,
  onePage,
  selfDrawing,
  stream,
  twoMillionStrokes,
} from '../test/nasty';
import { formPaper, paper } from '../test/papers';
import { WorkPool } from '../work/pool';

jest.setTimeout(300_000);

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-prepare-'));
let pool: WorkPool;
beforeAll(() => {
  pool = new WorkPool(1);
});
afterAll(async () => {
  await pool.close();
  rmSync(dir, { recursive: true, force: true });
});

const keep = (bytes: Uint8Array) => {
  const file = path.join(dir, sha256(bytes));
  writeFileSync(file, bytes);
  return file;
};
const prepare = (bytes: Uint8Array) => pool.run('prepare', { file: keep(bytes) });
const prepared = async (bytes: Uint8Array) => {
  const p = await prepare(bytes);
  if (!p.ok) throw new Error(p.refusal.problem);
  return p;
};
/** Returns a file with all streams unpacked by another tool. */
const unpacked = (bytes: Uint8Array) =>
  execFileSync('qpdf', ['--qdf', '--object-streams=disable', keep(bytes), '-'], { maxBuffer: 1 << 28 }).toString(
    'latin1',
  );
const textOf = (bytes: Uint8Array) => execFileSync('pdftotext', ['-layout', keep(bytes), '-']).toString();

const pixels = async (bytes: Uint8Array, page: number, size: { width: number; height: number }) =>
  sharp(await pool.run('png', { file: keep(bytes), page, size, dpi: 72 }))
    .greyscale()
    .raw()
    .toBuffer();

test('forms of every producer look the same as before, pixel by pixel', async () => {
  const forms = path.join(__dirname, '..', '..', 'bench', 'forms');
  const files = readdirSync(forms)
    .filter((f) => f.endsWith('.pdf'))
    .map((f) => path.join(forms, f));
  files.push(path.join(__dirname, '..', 'test', 'fixtures', 'berth-tenancy-libreoffice.pdf'));
  for (const file of files) {
    const bytes = new Uint8Array(readFileSync(file));
    const p = await prepared(bytes);
    const [before, after] = [await pixels(bytes, 1, p.pages[0]!), await pixels(p.bytes, 1, p.pages[0]!)];
    let differ = 0;
    for (let i = 0; i < before.length; i++) if (Math.abs(before[i]! - after[i]!) > 40) differ++;
    expect([path.basename(file), differ]).toEqual([path.basename(file), 0]);
    execFileSync('qpdf', ['--check', keep(p.bytes)]);
  }
});

test('turned, cropped and scaled pages keep their boxes; fields become part of the page', async () => {
  for (const o of [{ rotate: 90, crop: true }, { rotate: 180 }, { rotate: 270 }, { crop: true }]) {
    const bytes = await paper({ pages: 1, ...o });
    const p = await prepared(bytes);
    const [before, after] = [await pixels(bytes, 1, p.pages[0]!), await pixels(p.bytes, 1, p.pages[0]!)];
    expect([o, before.equals(after)]).toEqual([o, true]);
  }
  const form = await prepared(await formPaper());
  expect(textOf(form.bytes)).toContain('Wren Alder');
  expect(unpacked(form.bytes)).not.toMatch(/AcroForm|Widget|JavaScript/);
});

test('of a file full of active content none comes along, and what was left out is told', async () => {
  const p = await prepared(activePaper());
  const all = unpacked(p.bytes);
  for (const word of ACTIVE_WORDS) expect([word, all.includes(word)]).toEqual([word, false]);
  const text = textOf(p.bytes);
  expect(text).toContain('Seen by all');
  expect(text).toContain('Layer on');
  expect(text).toContain('Stamped');
  // The web, a mailbox, a place in the same file; every other way out is gone.
  expect([...all.matchAll(/\/URI \(([^)]*)\)/g)].map((m) => m[1]).sort()).toEqual([
    'https://example.com/ok',
    'mailto:desk@example.com',
  ]);
  expect((all.match(/\/Subtype \/Link/g) ?? []).length).toBe(3);
  const left = Object.fromEntries(p.leftOut.map((l) => [l.what, l.n]));
  for (const what of ['scripts', 'actions', 'attachments', 'media', 'xfa', 'layers', 'notes', 'links'] as const)
    expect([what, (left[what] ?? 0) > 0]).toEqual([what, true]);
});

test('a paper that carries signatures is brought in with a word about them', async () => {
  const signed = onePage('0 0 9 9 re f', '', [
    '<< /Type /Sig /Filter /Adobe.PPKLite /ByteRange [0 1 2 3] /Contents <00> >>',
    '<< /FT /Sig /T (s) /V 5 0 R >>',
  ]);
  expect((await prepared(signed)).leftOut).toContainEqual({ what: 'signatures', n: 1 });
  expect((await prepared(await paper({ pages: 1 }))).leftOut).toEqual([]);
});

/** Returns a PNG (ISO 15948) of one bit a dot and whatever size, all white. */
function png(side: number): Buffer {
  const chunk = (name: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(name), data]);
    const out = Buffer.alloc(body.length + 8);
    out.writeUInt32BE(data.length, 0);
    body.copy(out, 4);
    out.writeUInt32BE(crc32(body), body.length + 4);
    return out;
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(side, 0);
  head.writeUInt32BE(side, 4);
  head[8] = 1;
  const rows = deflateSync(Buffer.alloc(Math.ceil(side / 8 + 1) * side, 0), { level: 9 });
  const sign = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([sign, chunk('IHDR', head), chunk('IDAT', rows), chunk('IEND', Buffer.alloc(0))]);
}

test('a picture of nearly a billion dots in less than a megabyte is refused as too large before it is unfolded', async () => {
  const bytes = png(30_000);
  expect(bytes.length).toBeLessThan(1024 * 1024);
  expect((await sharp(bytes, { limitInputPixels: false }).metadata()).width).toBe(30_000);
  // Unfolded it would want more memory than a worker has.
  const made = await pool.run('convert', { file: keep(bytes), kind: 'picture', title: 'x' });
  expect(made).toEqual({ problem: 'picture_too_large', page: 1 });
});

const page = (box: string) => onePage('0 0 9 9 re f', '', [], `/MediaBox [${box}]`);
const image = (w: number, h: number) =>
  onePage('/I Do', '/XObject << /I 5 0 R >>', [
    stream(
      new Uint8Array(1000),
      `/Type /XObject /Subtype /Image /Width ${w} /Height ${h} /BitsPerComponent 1 /ColorSpace /DeviceGray`,
    ),
  ]);
const nested = (n: number) =>
  onePage(
    '/F Do',
    '/XObject << /F 5 0 R >>',
    Array.from({ length: n }, (_, i) =>
      stream(
        '/F Do',
        `/Type /XObject /Subtype /Form /BBox [0 0 9 9] /Resources << /XObject << /F ${6 + i} 0 R >> >>`,
        false,
      ),
    ),
  );
const pattern = () =>
  onePage('/Pattern cs /P scn 0 0 600 600 re f', '/Pattern << /P 5 0 R >>', [
    stream(
      '/Pattern cs /P scn 0 0 9 9 re f',
      '/Type /Pattern /PatternType 1 /PaintType 1 /TilingType 1 /BBox [0 0 9 9] /XStep 9 /YStep 9 /Resources << /Pattern << /P 5 0 R >> >>',
      false,
    ),
  ]);
const mask = () =>
  onePage('/G gs 0 0 9 9 re f', '/ExtGState << /G 5 0 R >>', [
    '<< /SMask << /S /Luminosity /G 6 0 R >> >>',
    stream(
      '/G gs 0 0 9 9 re f',
      '/Type /XObject /Subtype /Form /BBox [0 0 9 9] /Group << /S /Transparency >> /Resources << /ExtGState << /G 5 0 R >> >>',
      false,
    ),
  ]);
const glyphs = () =>
  onePage('BT /F 12 Tf (a) Tj ET', '/Font << /F 5 0 R >>', [
    '<< /Type /Font /Subtype /Type3 /FontBBox [0 0 1 1] /FontMatrix [1 0 0 1 0 0] /CharProcs << /a 6 0 R >> /Encoding << /Differences [97 /a] >> /FirstChar 97 /LastChar 97 /Widths [1] /Resources << /Font << /F 5 0 R >> >> >>',
    stream('BT /F 1 Tf (a) Tj ET', '', false),
  ]);
const cut = async () => (await paper({ pages: 1 })).slice(0, 700);
const xfaOnly = () => onePage('', '', ['<< /XFA (x) /Fields [] >>'], '', '/AcroForm 5 0 R /NeedsRendering true');

const NASTY: [string, () => Uint8Array | Promise<Uint8Array>, string[], RegExp][] = [
  ['a form that draws itself', selfDrawing, ['draws_itself'], /draws itself/],
  ['a pattern that draws itself', pattern, ['draws_itself'], /draws itself/],
  ['a mask that masks itself', mask, ['draws_itself'], /draws itself/],
  ['a letter made of itself', glyphs, ['draws_itself'], /draws itself/],
  ['two million strokes', twoMillionStrokes, ['too_many_operators'], /Page 1 of “x.pdf” draws [\d,]+ lines/],
  ['forms that multiply', multiplying, ['too_many_operators'], /1,000,000 is the maximum/],
  ['forms nested without end', () => nested(60), ['too_deep'], /nested too deeply/],
  ['400 MB of blanks', bomb, ['unpacks_too_large'], /unpacks to more/],
  ['a page of nothing', () => page('0 0 0 0'), ['page_size'], /0 by 0 inches/],
  ['a page as wide as a field', () => page('0 0 99999 10'), ['page_size'], /200 inches/],
  ['a page without numbers', () => page('/a /b /c /d'), ['page_size', 'broken'], /inches|damaged/],
  ['a picture of a billion pixels', () => image(40_000, 40_000), ['picture_too_large'], /too many pixels/],
  ['no PDF at all', () => new Uint8Array(Buffer.from('hello')), ['not_pdf'], /not a PDF/],
  [
    'a header and nothing else',
    () => new Uint8Array(Buffer.from('%PDF-1.7\n')),
    ['broken', 'no_pages'],
    /damaged|no pages/,
  ],
  ['half a file', cut, ['broken', 'no_pages'], /damaged|no pages/],
  ['a form of another language', xfaOnly, ['xfa_only'], /pages are not in the file/],
];

test.each(NASTY)('%s is refused in words, before it is drawn', async (_name, make, problems, words) => {
  const p = await prepare(await make());
  expect(p.ok).toBe(false);
  if (p.ok) return;
  expect(problems).toContain(p.refusal.problem);
  expect(wordsOfProblem(p.refusal as PaperProblem, 'x.pdf')).toMatch(words);
  // The next paper is drawn at once.
  const good = await paper({ pages: 1 });
  expect(
    (await pool.run('png', { file: keep(good), page: 1, size: { width: 612, height: 792 }, dpi: 72 })).length,
  ).toBeGreaterThan(1000);
});

test('a swapped box is one all the same, and shared resources that name themselves are no circle', async () => {
  expect((await prepared(page('612 792 0 0'))).pages).toEqual([{ width: 612, height: 792 }]);
  // Producers share one dictionary among a page and its forms: naming is not drawing.
  const shared = onePage('/A Do', '/XObject 5 0 R', [
    '<< /A 6 0 R /B 7 0 R >>',
    stream('/B Do', '/Type /XObject /Subtype /Form /BBox [0 0 99 99] /Resources << /XObject 5 0 R >>', false),
    stream('0 0 9 9 re f', '/Type /XObject /Subtype /Form /BBox [0 0 99 99] /Resources << /XObject 5 0 R >>', false),
  ]);
  expect((await prepared(shared)).pages).toHaveLength(1);
  const doc = await PDFDocument.load((await prepared(shared)).bytes);
  expect(doc.getPageCount()).toBe(1);
});
