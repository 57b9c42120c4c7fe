/** Papers that came as pictures: turned, straightened, recognised in the background, and read like any other. */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { unpackFacts } from '@gatepath/contract/facts';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { pdfium } from '../pdf/draw';
import { nextPage } from '../documents/scans';
import { Way } from '../test/way';

jest.setTimeout(240_000);

let way: Way;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

/** A lease with a line for the landlord and one for the tenant, as a person would lay it out. */
async function lease(pages = 1): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  for (let n = 1; n <= pages; n++) {
    const page = doc.addPage([612, 792]);
    const text = (words: string, x: number, y: number, size = 11) => page.drawText(words, { x, y, size, font });
    const line = (x: number, y: number, w: number) =>
      page.drawLine({ start: { x, y }, end: { x: x + w, y }, thickness: 0.8 });
    text('Residential lease agreement', 72, 720, 16);
    for (let y = 690; y > 420; y -= 18)
      text('The tenant keeps the dwelling at Tern Lock in good order and pays the rent on the first day.', 72, y);
    line(72, 300, 200);
    text("Landlord's signature", 72, 287, 9);
    line(320, 300, 110);
    text('Date', 320, 287, 9);
    line(72, 240, 200);
    text("Tenant's signature", 72, 227, 9);
    line(320, 240, 110);
    text('Date', 320, 227, 9);
  }
  return doc.save();
}

/** What a scanner makes of a paper: pictures at 200 dots an inch, a little askew, laid in on some side. */
async function scanned(paper: Uint8Array, askew: number, turned: number): Promise<Uint8Array> {
  const drawn = await (await pdfium()).loadDocument(Buffer.from(paper));
  const out = await PDFDocument.create();
  for (let n = 0; n < drawn.getPageCount(); n++) {
    const { width, height, data } = await drawn
      .getPage(n)
      .render({ scale: 200 / 72, colorSpace: 'Gray', render: async (o) => o.data });
    const lain = await sharp(data, { raw: { width, height, channels: 1 } })
      .rotate(askew, { background: '#fff' })
      .toColourspace('b-w')
      .toBuffer({ resolveWithObject: true });
    const straight = await sharp(lain.data, {
      raw: { width: lain.info.width, height: lain.info.height, channels: lain.info.channels },
    })
      .extract({ left: (lain.info.width - width) >> 1, top: (lain.info.height - height) >> 1, width, height })
      .png()
      .toBuffer();
    const picture = await out.embedJpg(await sharp(straight).rotate(turned).jpeg({ quality: 60 }).toBuffer());
    const size: [number, number] = [(picture.width * 72) / 200, (picture.height * 72) / 200];
    out.addPage(size).drawImage(picture, { x: 0, y: 0, width: size[0], height: size[1] });
  }
  drawn.destroy();
  return out.save();
}

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
])('laid in %d degrees askew and turned by %d: read as if it had been printed', async (askew, turned) => {
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
  const { id } = (await way.server.upload(deal.id, 'Long lease.pdf', await scanned(await lease(6), 0.3, 0))).body;
  await way.server.ctx.jobs.idle('read');
  const params = { documentId: id };
  const told = await way.server.ok('setDocument', { params, body: { withoutWords: true } });
  expect(told.scanned).toBe(6);
  for (const job of ['scan', 'read'] as const) await way.server.ctx.jobs.idle(job);
  const { documents } = await way.server.ok('deal', { params: { dealId: deal.id } });
  const doc = documents.find((d) => d.id === id)!;
  expect([doc.status, doc.leftOut]).toEqual(['ready', [{ what: 'words', n: 6 }]]);
});

test('pages that somebody looks at come first', () => {
  expect(nextPage([2, 5, 9], undefined)).toBe(2);
  expect(nextPage([2, 5, 9], 4)).toBe(5);
  expect(nextPage([2, 5], 9)).toBe(2);
  expect(nextPage([], 3)).toBeUndefined();
});
