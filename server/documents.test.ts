/** Bringing papers in, and placing initials on papers of every origin without touching their print. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import sharp from 'sharp';
import { PDFDocument, PDFDict, PDFName } from '@cantoo/pdf-lib';
import type { DealView, DocumentView, PacketView } from '@gatepath/contract';
import { viewDraft } from '@gatepath/core/checks';
import { factsFiles, documentOr404 } from './documents/service';
import { factsIn } from './pdf/facts-file';
import { spaceOfPage, toUserPoint } from './pdf/space';
import { verifySealed } from './pdf-sealing/verify';
import { TestServer, typedHand } from './test/harness';
import { formPaper, paper } from './test/papers';
import { inkUnder } from './test/pixels';
import { markEdit } from './test/way';

jest.setTimeout(240_000);

let server: TestServer;
let deal: DealView;
beforeAll(async () => {
  server = await TestServer.start();
  deal = await server.deal('7 Weir Terrace', ['Wren Alder', 'Callum Alder', 'Priya Nair', 'Mateo Ibarra']);
});
afterAll(() => server.stop());

const upload = (name: string, bytes: Uint8Array) => server.upload(deal.id, name, bytes);

test('files that cannot serve get an error that says which and why', async () => {
  const says = async (name: string, bytes: Uint8Array) => {
    const a = await upload(name, bytes);
    return [a.status, a.problem.detail] as const;
  };
  expect(await says('photo.pdf', Buffer.from('GIF89a, not a paper'))).toEqual([
    422,
    expect.stringMatching(/photo\.pdf.* is not a PDF/),
  ]);
  const whole = await paper({ pages: 2 });
  expect(await says('torn.pdf', whole.slice(0, 400))).toEqual([422, expect.stringMatching(/torn\.pdf.*damaged/)]);
  const locked = await PDFDocument.create();
  locked.addPage();
  locked.encrypt({ userPassword: 'secret', ownerPassword: 'owner' });
  expect(await says('locked.pdf', await locked.save())).toEqual([422, expect.stringMatching(/locked\.pdf.*password/)]);
  expect(await says('empty.pdf', new Uint8Array())).toEqual([422, expect.stringContaining('empty')]);
  expect(await says('huge.pdf', new Uint8Array(51 * 1024 * 1024))).toEqual([422, expect.stringContaining('50 MB')]);
  // Nothing of what was refused stays behind.
  const files = readdirSync(path.join(server.dir, 'files'), { recursive: true, withFileTypes: true });
  expect(files.filter((f) => f.isFile())).toEqual([]);
});

test('facts travel compressed to those who can take it, and say the same', async () => {
  const doc = await server.uploadReady(deal.id, 'facts.pdf', await paper({ pages: 1 }));
  const ask = (headers: Record<string, string>) =>
    server.call('documentFacts', { params: { documentId: doc.id }, headers });
  const plain = (await ask({})).raw;
  const packed = (await ask({ 'accept-encoding': 'gzip, br' })).raw;
  expect(gunzipSync(new Uint8Array(packed)).toString()).toBe(plain.toString());
  expect(packed.length).toBeLessThan(plain.length);
});

test('form fields become part of the page, and scripts are gone', async () => {
  const bytes = await formPaper();
  const doc = await server.uploadReady(deal.id, 'form.pdf', bytes);
  const row = await documentOr404(server.ctx.database.pool, doc.id);
  const prepared = await PDFDocument.load(await server.ctx.files.read(row.sha256));
  expect(prepared.catalog.has(PDFName.of('AcroForm'))).toBe(false);
  const names = prepared.catalog.lookup(PDFName.of('Names'));
  expect(names instanceof PDFDict && names.has(PDFName.of('JavaScript'))).toBe(false);
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'form-')), 'prepared.pdf');
  writeFileSync(file, new Uint8Array(await server.ctx.files.read(row.sha256)));
  expect(execFileSync('pdftotext', [file, '-']).toString()).toContain('Wren Alder');
  expect(execFileSync('qpdf', ['--qdf', '--object-streams=disable', file, '-']).toString('latin1')).not.toContain(
    'app.alert',
  );
  const original = await server.call('documentFile', { params: { documentId: doc.id } });
  expect(original.raw.equals(bytes)).toBe(true);
});

/** Returns a paper made by another program, stored here so that the result does not depend on what is installed. */
const fixture = (name: string) => () => readFileSync(path.join(process.cwd(), 'server/test/fixtures', name));

const FOREIGN: [name: string, make: () => Promise<Uint8Array> | Uint8Array][] = [
  ['printed by Chromium', fixture('house-rules-chromium.pdf')],
  ['exported by LibreOffice', fixture('berth-tenancy-libreoffice.pdf')],
  ['turned by 90 degrees with an offset crop box', () => paper({ pages: 3, rotate: 90, crop: true })],
  ['turned by 180 degrees', () => paper({ pages: 2, rotate: 180 })],
  ['turned by 270 degrees with an offset crop box', () => paper({ pages: 2, rotate: 270, crop: true })],
  ['of 120 pages', () => paper({ pages: 120 })],
  ['with form fields', formPaper],
  ['printed densely to the foot', () => paper({ pages: 3, dense: true })],
];

async function packetWith(doc: DocumentView): Promise<PacketView> {
  const packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: doc.name, documentIds: [doc.id] },
  });
  await server.edit(packet.id, [
    {
      op: 'put',
      list: 'rules',
      item: {
        id: 'r',
        documentId: doc.id,
        partyIds: deal.parties.map((p) => p.id),
        anchor: { fx: 0, fy: 1 },
        except: [],
        moved: [],
      },
    },
  ]);
  return server.ok('packet', { params: { packetId: packet.id } });
}

test.each(FOREIGN)('initials on every page of a paper %s touch no print', async (name, make) => {
  const doc = await server.uploadReady(deal.id, `${name}.pdf`, await make());
  expect([doc.status, doc.problem]).toEqual(['ready', null]);
  const packet = await packetWith(doc);
  const row = await documentOr404(server.ctx.database.pool, doc.id);
  const { marks, unplaced } = viewDraft(packet.draft, await factsIn(factsFiles(server.ctx, [row])));
  expect(unplaced).toEqual([]);
  expect(marks).toHaveLength(doc.pages.length * 4);
  for (let page = 1; page <= doc.pages.length; page += doc.pages.length > 20 ? 17 : 1)
    for (const m of marks.filter((x) => x.page === page))
      expect([page, await inkUnder(server.ctx, doc.id, page, m.rect)]).toEqual([page, 0]);
});

test('a turned and cropped paper is sealed with every mark where it was shown', async () => {
  const doc = await server.uploadReady(deal.id, 'turned.pdf', await paper({ pages: 2, rotate: 90, crop: true }));
  expect(doc.pages[0]).toEqual({ width: 744, height: 540 });
  const packet = await packetWith(doc);
  await server.edit(
    packet.id,
    deal.parties.map((p, i) =>
      markEdit(`s${i}`, doc.id, 1, 'signature', p.id, { x: 500, y: 40 + 50 * i, w: 160, h: 30 }),
    ),
  );
  const sent = await server.send(packet.id);
  for (const p of deal.parties)
    await server.sign(
      await server.tokenFor(packet.id, p.name),
      typedHand(
        p.name,
        p.name
          .split(' ')
          .map((w) => w[0])
          .join(''),
      ),
    );
  const done = await server.until(packet.id, (p) => p.sent!.sealed !== null);
  const copy = (await server.call('sealedCopy', { params: { packetId: packet.id, documentId: doc.id } })).raw;
  expect(verifySealed(copy).whole).toBe(true);
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'turned-')), 'sealed.pdf');
  writeFileSync(file, new Uint8Array(copy));
  execFileSync('pdftoppm', ['-cropbox', '-r', '72', '-f', '1', '-l', '1', '-png', file, file.replace('.pdf', '')]);
  const shot = sharp(file.replace('.pdf', '-1.png')).greyscale();
  const { width, height } = await shot.metadata();
  expect([width, height]).toEqual([744, 540]);
  const pixels = await shot.raw().toBuffer();
  for (const m of sent.sent!.plan.marks.filter((x) => x.page === 1)) {
    let dark = 0;
    for (let y = Math.ceil(m.rect.y); y < m.rect.y + m.rect.h; y++)
      for (let x = Math.ceil(m.rect.x); x < m.rect.x + m.rect.w; x++) if (pixels[y * width! + x]! < 160) dark++;
    expect([m.kind, dark > 8]).toEqual([m.kind, true]);
  }
  expect(done.status).toBe('executed');
});

test.each([0, 90, 180, 270])('points as displayed go to user space and back at %i degrees', async (rotate) => {
  const doc = await PDFDocument.load(await paper({ pages: 1, rotate, crop: true }));
  const space = spaceOfPage(doc.getPage(0));
  const corners = [
    [0, 0],
    [space.width, 0],
    [0, space.height],
    [space.width, space.height],
  ].map(([x, y]) => toUserPoint(space, x!, y!));
  const xs = corners.map((c) => c.x);
  const ys = corners.map((c) => c.y);
  expect([Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]).toEqual([36, 576, 24, 768]);
});
