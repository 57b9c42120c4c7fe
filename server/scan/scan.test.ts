/** Papers that came as pictures: turned, straightened, recognised in the background, and read like any other. */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { unpackFacts } from '@gatepath/contract/facts';
import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { nextPage } from '../documents/scans';
import { lease, OFFICE, scanOf } from '../test/scan';
import { Way } from '../test/way';

jest.setTimeout(240_000);

let way: Way;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

const scanned = async (paper: Uint8Array, askew: number, turned: 0 | 90 | 180 | 270) =>
  (await scanOf(paper, { ...OFFICE, askew, turned, always: true })).bytes;

async function broughtIn(dealId: string, name: string, bytes: Uint8Array) {
  const { id } = (await way.server.upload(dealId, name, bytes)).body;
  for (const job of ['read', 'scan', 'read'] as const) await way.server.ctx.jobs.idle(job);
  const deal = await way.server.ok('deal', { params: { dealId } });
  return deal.documents.find((d) => d.id === id)!;
}

test.each([
  [0.9, 0],
  [-1.1, 180],
  [0.7, 90],
  [-0.6, 270],
] as const)('laid in %d degrees askew and turned by %d: read as if it had been printed', async (askew, turned) => {
  const deal = await way.server.deal('14 Lantern Row');
  const doc = await broughtIn(deal.id, 'Lease scan.pdf', await scanned(await lease(), askew, turned));
  expect({ status: doc.status, scanned: doc.scanned, type: doc.type }).toEqual({
    status: 'ready',
    scanned: 1,
    type: 'lease',
  });
  expect(doc.pages.map((p) => [Math.round(p.width), Math.round(p.height)])).toEqual([[612, 792]]);
  const facts = unpackFacts(doc.id, doc.name, await way.server.ok('documentFacts', { params: { documentId: doc.id } }));
  const found = facts.places.map((p) => [
    p.kind,
    p.role,
    Math.round(p.rect.x / 10) * 10,
    Math.round((p.rect.y + p.rect.h) / 10) * 10,
  ]);
  expect(found).toEqual([
    ['signature', 'landlord', 70, 490],
    ['date', 'landlord', 320, 490],
    ['signature', 'tenant', 70, 550],
    ['date', 'tenant', 320, 550],
  ]);
  expect(facts.pages[0]!.words.join(' ')).toContain('keeps the dwelling');
});

test('the words can be selected, and the picture is what it was', async () => {
  const deal = await way.server.deal('15 Lantern Row');
  const bytes = await scanned(await lease(), 0, 0);
  const doc = await broughtIn(deal.id, 'Lease.pdf', bytes);
  const file = path.join(way.server.dir, 'words.pdf');
  writeFileSync(file, await way.server.ctx.files.read(doc.sha256));
  execFileSync('qpdf', ['--check', file]);
  expect(execFileSync('pdftotext', [file, '-']).toString()).toMatch(/Tenant.s signature/);
  const picture = (f: string) => execFileSync('pdftoppm', ['-r', '60', '-gray', f]);
  const came = path.join(way.server.dir, 'came.pdf');
  writeFileSync(came, bytes);
  expect(picture(file).equals(picture(came))).toBe(true);
});

test('a page of noise costs no more than itself, and its paper is usable', async () => {
  const deal = await way.server.deal('16 Lantern Row');
  const doc = await PDFDocument.create();
  const dots = Buffer.alloc(1700 * 2200);
  for (let i = 0, seed = 5; i < dots.length; i++) dots[i] = (seed = (seed * 16807) % 2147483647) % 256;
  const picture = await doc.embedJpg(
    await sharp(dots, { raw: { width: 1700, height: 2200, channels: 1 } })
      .jpeg({ quality: 70 })
      .toBuffer(),
  );
  doc.addPage([612, 792]).drawImage(picture, { x: 0, y: 0, width: 612, height: 792 });
  const read = await broughtIn(deal.id, 'Noise.pdf', await doc.save());
  expect(read.status).toBe('ready');
});

test('whoever has no time goes on without the words', async () => {
  const deal = await way.server.deal('17 Lantern Row');
  const { id } = (await way.server.upload(deal.id, 'Long lease.pdf', await scanned(await lease({ pages: 6 }), 0.3, 0)))
    .body;
  await way.server.ctx.jobs.idle('read');
  const params = { documentId: id };
  const told = await way.server.ok('setDocument', { params, body: { withoutWords: true } });
  expect(told.scanned).toBeLessThanOrEqual(6);
  for (const job of ['scan', 'read'] as const) await way.server.ctx.jobs.idle(job);
  const { documents } = await way.server.ok('deal', { params: { dealId: deal.id } });
  const doc = documents.find((d) => d.id === id)!;
  // What was recognised by then is kept.
  const unread = doc.leftOut.find((l) => l.what === 'words')!.n;
  expect(doc.status).toBe('ready');
  expect(unread).toBeGreaterThan(0);
});

test('a thousand scanned pages hold nobody up: they come in, tell how far they are, and others are read meanwhile', async () => {
  const deal = await way.server.deal('18 Lantern Row');
  const coarse = await scanOf(await lease(), { ...OFFICE, dpi: 60 });
  const one = await PDFDocument.load(coarse.bytes);
  const many = await PDFDocument.create();
  const [page] = await many.copyPages(one, [0]);
  for (let n = 0; n < 1000; n++) many.addPage(page!);
  const { id } = (await way.server.upload(deal.id, 'Archive.pdf', await many.save())).body;
  // A small scan that comes later is done long before it.
  const small = await way.server.uploadReady(deal.id, 'Lease.pdf', await scanned(await lease(), -0.5, 0));
  expect([small.status, small.scanned]).toEqual(['ready', 1]);
  const { documents } = await way.server.ok('deal', { params: { dealId: deal.id } });
  const archive = documents.find((d) => d.id === id)!;
  expect([archive.status, archive.pages.length]).toEqual(['reading', 1000]);
  // Whoever throws it away ends the work on it.
  await way.server.ok('deleteDocument', { params: { documentId: id } });
  for (const job of ['read', 'scan'] as const) await way.server.ctx.jobs.idle(job);
});

test('pages that somebody looks at come first', () => {
  expect(nextPage([2, 5, 9], undefined)).toBe(2);
  expect(nextPage([2, 5, 9], 4)).toBe(5);
  expect(nextPage([2, 5], 9)).toBe(2);
  expect(nextPage([], 3)).toBeUndefined();
});
