/** Where the words of a page are, against another tool's eyes; and what inspect tells of forms it was not written on. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { degrees, PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import type { DealView } from '@gatepath/contract';
import { htmlContent } from './uploads/html-content';
import { TestServer } from './test/harness';
import { paper } from './test/papers';

jest.setTimeout(180_000);

let server: TestServer;
let deal: DealView;
beforeAll(async () => {
  server = await TestServer.start();
  deal = await server.deal('2 Weir Terrace');
});
afterAll(() => server.stop());

interface Word {
  text: string;
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}

/** Returns words of page 1 with their boxes, as poppler sees them. */
function popplerWords(file: string): Word[] {
  const out = execFileSync('pdftotext', ['-bbox', '-f', '1', '-l', '1', file, '-']).toString();
  const plain = (t: string) =>
    t
      .replace(/&amp;/g, '&')
      .replace(/&lt;/g, '<')
      .replace(/&gt;/g, '>')
      .replace(/&quot;/g, '"');
  return [
    ...out.matchAll(/<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]*)<\/word>/g),
  ].map((m) => ({ x0: Number(m[1]), y0: Number(m[2]), x1: Number(m[3]), y1: Number(m[4]), text: plain(m[5]!) }));
}

const form = (name: string) => readFileSync(path.join(process.cwd(), 'bench', 'forms', `${name}.pdf`));

test.each<[string, () => Promise<Uint8Array> | Uint8Array]>([
  ['made by a library', () => paper({ pages: 1 })],
  [
    'set by a word processor',
    () => readFileSync(path.join(process.cwd(), 'server/test/fixtures/berth-tenancy-libreoffice.pdf')),
  ],
  ['printed by a browser', () => form('escrow-browser')],
  ['printed by a browser, in Spanish', () => form('arriendo-browser')],
  ['set by another library', () => form('extension-library')],
])('the words of a paper %s stand where poppler sees them', async (name, make) => {
  const bytes = await make();
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'words-')), 'paper.pdf');
  writeFileSync(file, bytes);
  const doc = await server.uploadReady(deal.id, `${name}.pdf`, bytes);
  const facts = await server.ok('documentFacts', { params: { documentId: doc.id } });
  const page = facts.pages[0]!;
  const words = page.words.split(' ');
  expect(words.length).toBe(page.print.length / 4);
  const ours = words.map((text, i) => ({
    text,
    x: page.print[4 * i]!,
    y: page.print[4 * i + 1]!,
    w: page.print[4 * i + 2]!,
    h: page.print[4 * i + 3]!,
  }));
  // Blanks made of underscores are no words here; what touches one is cut differently.
  const theirs = popplerWords(file).filter((w) => /^[\p{L}\p{N}.,’'-]+$/u.test(w.text));
  expect(theirs.length).toBeGreaterThan(20);
  const lost = theirs.filter(
    (w) =>
      !ours.some(
        (o) =>
          o.text === w.text &&
          Math.abs(o.x - w.x0) < 1.2 &&
          Math.abs(o.x + o.w - w.x1) < 1.6 &&
          o.y + o.h / 2 > w.y0 &&
          o.y + o.h / 2 < w.y1,
      ),
  );
  expect(lost.slice(0, 5)).toEqual([]);
});

test('a turned and cropped page is read as it is displayed', async () => {
  const doc = await server.uploadReady(deal.id, 'turned.pdf', await paper({ pages: 1, rotate: 90, crop: true }));
  const facts = await server.ok('documentFacts', { params: { documentId: doc.id } });
  const page = facts.pages[0]!;
  // Its lines run downwards now: print that is kept clear of, but nothing that is read.
  expect(new Set(page.words.split(' '))).toEqual(new Set(['\u00b7']));
  const boxes = Array.from({ length: page.print.length / 4 }, (_, i) => page.print.slice(4 * i, 4 * i + 4));
  expect(boxes.length).toBeGreaterThan(20);
  expect(boxes.filter(([, , w, h]) => h! > w!).length).toBeGreaterThan(0.7 * boxes.length);
  for (const [x, y, w] of boxes) expect(x! >= 0 && y! >= -1 && x! + w! <= page.width + 1).toBe(true);
});

test('a page that lies on its side in the file but stands upright when displayed is read like any other', async () => {
  const made = await PDFDocument.create();
  const page = made.addPage([612, 792]);
  const font = await made.embedFont(StandardFonts.Helvetica);
  page.setRotation(degrees(90));
  const put = (text: string, x: number, y: number) =>
    page.drawText(text, { x, y, size: 11, font, rotate: degrees(90) });
  put('The seller has read this paper and signs it below, as the law asks for it.', 200, 80);
  put('Seller’s signature: ______________________   Date: __________', 300, 80);
  const doc = await server.uploadReady(deal.id, 'sideways.pdf', await made.save());
  const facts = await server.ok('documentFacts', { params: { documentId: doc.id } });
  expect(doc.pages[0]).toEqual({ width: 792, height: 612 });
  expect(facts.places.map((p) => [p.kind, p.role])).toEqual([
    ['signature', 'seller'],
    ['date', 'seller'],
  ]);
  expect(facts.places[0]!.rect.y + facts.places[0]!.rect.h).toBeCloseTo(302, 0);
});

test('inspect prints one JSON object, and says plainly what it cannot read', () => {
  const run = (file: string) =>
    execFileSync(process.execPath, ['--import', 'tsx', 'server/reading/inspect-cli.ts', file], {
      env: { ...process.env, NODE_OPTIONS: '' },
      stdio: ['ignore', 'pipe', 'pipe'],
    }).toString();
  const seen = JSON.parse(run(path.join('bench', 'forms', 'oferta-writer.pdf'))) as {
    pages: { width: number; height: number; rotation: number }[];
    places: { page: number; kind: string; role: string; ordinal: number | null; rect: number[]; source: string }[];
  };
  expect(seen.pages[0]).toEqual({ width: 612, height: 792, rotation: 0 });
  expect(seen.places.filter((p) => p.kind === 'signature').map((p) => [p.role, p.ordinal])).toEqual([
    ['buyer', 1],
    ['buyer', 2],
    ['seller', 1],
  ]);
  expect(seen.places.every((p) => p.rect.length === 4 && p.source === 'print')).toBe(true);
  expect(() => run('package.json')).toThrow(/package\.json cannot be read/);
});

test('what a Word file holds is set: headings, lists, boxes, tables whose cells reach over others', () => {
  const content = htmlContent(
    '<h1>Lease</h1><p>Pets <strong>allowed</strong>: <input type="checkbox"/> yes</p><ul><li>Keys</li><li><p>Bin</p><p>lid</p></li></ul>' +
      '<table><tr><th colspan="2">Room</th></tr><tr><td rowspan="2">Bath</td><td>good</td></tr><tr><td>clean</td></tr></table><p><img src="https://example.com/x.png"/></p>',
  );
  expect(content[0]).toMatchObject({ bold: true, text: [{ text: 'Lease' }] });
  expect(JSON.stringify(content[1])).toContain('"text":"allowed","bold":true');
  expect(JSON.stringify(content[1])).toContain('[   ]');
  expect((content[2] as { ul: unknown[] }).ul).toHaveLength(2);
  const table = (content[3] as { table: { body: { colSpan?: number; rowSpan?: number }[][] } }).table.body;
  expect(table.map((r) => r.length)).toEqual([2, 2, 2]);
  expect([table[0]![0]!.colSpan, table[1]![0]!.rowSpan]).toEqual([2, 2]);
  // A picture from elsewhere is never fetched.
  expect(JSON.stringify(content)).not.toContain('example.com');
});
