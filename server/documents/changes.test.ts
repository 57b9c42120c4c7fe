/** What changed between two versions of a paper: for the office, as a file, and for whoever signed the earlier one. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { degrees, PDFDocument } from '@cantoo/pdf-lib';
import sharp, { type Sharp } from 'sharp';
import type { DealView } from '@gatepath/contract';
import { counteroffer } from '../test/counter';
import { scanOf } from '../test/scan';
import { markEdit, tokenIn, Way } from '../test/way';

jest.setTimeout(240_000);

let way: Way;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

const counter = (sum: string, line?: string) => counteroffer({ sum, ...(line === undefined ? {} : { line }) });

async function versions(address: string, was: Uint8Array, now: Uint8Array) {
  const deal = await way.server.deal(address, [{ side: 'buyer', name: 'Callum Alder', email: 'callum@example.com' }]);
  const before = await way.server.uploadReady(deal.id, 'Counteroffer.pdf', was);
  const after = await way.server.uploadReady(deal.id, 'Counteroffer revised.pdf', now);
  return { deal, before, after, params: { documentId: after.id, beforeId: before.id } };
}

test('one sum that changed is the one change; as a file both lie side by side, sound, with their words', async () => {
  const { params } = await versions('1 Quay', await counter('$410,000'), await counter('$415,000'));
  const view = await way.server.ok('changes', { params });
  expect(view.changes.map((c) => [c.kind, c.before?.text, c.after?.text])).toEqual([
    ['replaced', '$410,000', '$415,000'],
  ]);
  expect([view.before.name, view.after.name, view.pages]).toEqual([
    'Counteroffer',
    'Counteroffer revised',
    [{ before: 1, after: 1 }],
  ]);
  const { raw, status } = await way.server.call('changesFile', { params });
  expect(status).toBe(200);
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'gatepath-changes-')), 'changes.pdf');
  writeFileSync(file, raw);
  execFileSync('qpdf', ['--check', file]);
  const text = (page: number) =>
    execFileSync('pdftotext', ['-layout', '-f', `${page}`, '-l', `${page}`, file, '-']).toString();
  expect(text(1)).toMatch(/1 change\b/);
  expect(text(1)).toContain('The price shall be $410,000 $415,000 payable at closing.');
  // Both pages on one sheet, in their own words.
  expect(text(2)).toMatch(/Before, page 1 of 1\s+After, page 1 of 1/);
  expect(text(2)).toMatch(/\$410,000 payable[\s\S]*\$415,000 payable/);
});

test('pages that lie turned, or are cropped, stand in the file as they are seen', async () => {
  const turned = async (sum: string) => {
    const doc = await PDFDocument.load(await counter(sum));
    doc.getPage(0).setRotation(degrees(90));
    doc.getPage(0).setCropBox(40, 300, 540, 460);
    return doc.save();
  };
  const { params, after } = await versions('6 Quay', await turned('$410,000'), await turned('$415,000'));
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-turned-'));
  writeFileSync(path.join(dir, 'changes.pdf'), (await way.server.call('changesFile', { params })).raw);
  execFileSync('pdftoppm', ['-r', '144', '-f', '2', '-l', '2', '-singlefile', '-png', 'changes.pdf', 'sheet'], {
    cwd: dir,
  });
  const seen = await way.server.call('documentPage', {
    params: { documentId: after.id, page: 1 },
    query: { dpi: '144' },
  });
  const size = after.pages[0]!;
  expect(size.width).toBeLessThan(size.height);
  // Where the later page stands on the sheet: 405 points from the left, below the line that names it.
  const scale = Math.min(357 / size.width, 546 / size.height);
  const [width, height] = [Math.round(size.width * scale * 2), Math.round(size.height * scale * 2)];
  const gray = (image: Sharp) => image.flatten({ background: '#fff' }).blur(3).toColourspace('b-w').raw().toBuffer();
  const there = await gray(sharp(path.join(dir, 'sheet.png')).extract({ left: 818, top: 80, width, height }));
  const off = async (turn: number) => {
    const page = await gray(
      sharp(await sharp(seen.raw).rotate(turn).resize(width, height, { fit: 'fill' }).toBuffer()),
    );
    return page.reduce((sum, v, i) => sum + Math.abs(v - there[i]!), 0) / page.length;
  };
  const [upright, over] = [await off(0), await off(180)];
  expect(upright).toBeLessThan(over / 2);
});

test('a scan of the same paper differs in nothing; one with another sum in just that', async () => {
  const paper = await counter('$410,000');
  const same = await versions('2 Quay', paper, (await scanOf(paper)).bytes);
  const words = (list: { drawn: boolean }[]) => list.filter((c) => !c.drawn);
  const alike = await way.server.ok('changes', { params: same.params });
  expect(alike.changes).toEqual([]);
  const other = await way.server.uploadReady(
    same.deal.id,
    'Other.pdf',
    (await scanOf(await counter('$418,500'))).bytes,
  );
  const { changes } = await way.server.ok('changes', {
    params: { documentId: other.id, beforeId: same.before.id },
  });
  expect(words(changes)).toEqual([
    expect.objectContaining({
      kind: 'replaced',
      scan: true,
      before: expect.objectContaining({ text: '$410,000' }),
      after: expect.objectContaining({ text: '$418,500' }),
    }),
  ]);
});

test('papers that do not belong together are not compared, nor one with itself', async () => {
  const a = await versions('3 Quay', await counter('$1'), await counter('$2'));
  const b = await versions('4 Quay', await counter('$3'), await counter('$4'));
  for (const beforeId of [b.before.id, a.after.id, 'none'])
    expect((await way.server.call('changes', { params: { documentId: a.after.id, beforeId } })).status).toBe(404);
});

test('whoever signed an earlier version is shown what changed, and nobody else is', async () => {
  const { server } = way;
  const people = [
    { side: 'buyer' as const, name: 'Callum Alder', email: 'callum@example.com' },
    { side: 'buyer' as const, name: 'Wren Alder', email: 'wren@example.com' },
  ];
  const deal = await server.deal('5 Quay', people);
  const before = await server.uploadReady(deal.id, 'Counteroffer.pdf', await counter('$410,000', ''));
  // Only Callum is asked at first.
  const first = await asks(deal, before.id, ['Callum Alder']);
  expect((await server.ok('signing', { params: { token: first[0]! } })).revised).toEqual([]);
  await way.signAll(first[0]!, 'Callum Alder');
  const after = await server.uploadReady(deal.id, 'Counteroffer revised.pdf', await counter('$415,000', ''));
  await server.ok('setDocument', { params: { documentId: before.id }, body: { replacedBy: after.id } });
  const [callum, wren] = await asks(deal, after.id, ['Callum Alder', 'Wren Alder']);
  const revised = async (token: string) =>
    (await server.ok('signing', { params: { token } })).revised.map((r) => r.documentId);
  expect([await revised(callum!), await revised(wren!)]).toEqual([[after.id], []]);
  const seen = await server.ok('signingChanges', { params: { token: callum!, documentId: after.id } });
  expect(seen.changes.map((c) => [c.before?.text, c.after?.text])).toEqual([['$410,000', '$415,000']]);
  for (const documentId of [before.id, after.id])
    expect((await server.call('signingChanges', { params: { token: wren!, documentId } })).status).toBe(404);
});

/** Sends a packet of one paper to some people of a deal, each with a signature, and returns their tokens. */
async function asks(deal: DealView, documentId: string, names: string[]): Promise<string[]> {
  const { server } = way;
  const { id, draft } = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Counteroffer', documentIds: [documentId] },
  });
  const out = draft.parties.filter((p) => !names.includes(p.name));
  const asked = draft.parties.filter((p) => names.includes(p.name));
  await server.edit(id, [
    ...draft.gates.map((g) => ({ op: 'drop' as const, list: 'gates' as const, id: g.id })),
    ...out.map((p) => ({ op: 'drop' as const, list: 'parties' as const, id: p.id })),
    { op: 'put', list: 'gates', item: { id: 'g', partyIds: asked.map((p) => p.id) } },
    ...asked.map((p, i) =>
      markEdit(`s${i}`, documentId, 1, 'signature', p.id, { x: 72, y: 500 + i * 40, w: 160, h: 26 }),
    ),
  ]);
  await server.send(id);
  return Promise.all(names.map(async (name) => tokenIn(await way.newest(id, name))));
}
