/** Forms passed on between houses: what goes out comes in the same, and what was tampered with leaves nothing behind. */
import Ajv from 'ajv';
import JSZip from 'jszip';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import type { ShelfItemView } from '@gatepath/contract';
import type { DraftEdit } from '@gatepath/core/packet';
import { newSlot } from '@gatepath/core/shelf';
import { newId } from '../ids';
import { paper } from '../test/papers';
import { Way } from '../test/way';

jest.setTimeout(400_000);

let here: Way;
let there: Way;
let bundle: Buffer;
let kit: ShelfItemView;
beforeAll(async () => {
  here = await Way.start();
  there = await Way.start();
});
afterAll(async () => {
  await here.stop();
  await there.stop();
});

const bring = (bytes: Uint8Array) => there.server.post('bringBundle', {}, 'forms.zip', bytes);
const item = (way: Way, shelfId: string) => way.server.ok('shelfItem', { params: { shelfId } });
const all = async (way: Way) => [
  ...(await way.server.ok('shelf', { query: { what: 'form' } })).items,
  ...(await way.server.ok('shelf', { query: { what: 'kit' } })).items,
];
async function filesOf(way: Way): Promise<string[]> {
  const out: string[] = [];
  for await (const sha256 of way.server.ctx.files.all()) out.push(sha256);
  return out.sort();
}
/** Returns what must be equal in two drafts; ids of documents differ. */
const bare = ({ draft, written }: ShelfItemView) => ({
  ...draft,
  documents: draft.documents.length,
  marks: draft.marks.map(({ id: _id, documentId: _doc, ...m }) => m),
  rules: draft.rules.map(({ documentId: _doc, ...r }) => r),
  text: written?.text ?? null,
});

async function shelved(id: string, edits: DraftEdit[]): Promise<ShelfItemView> {
  const params = { shelfId: id };
  const { version } = await here.server.ok('editShelfItem', { params, body: { edits } });
  await here.server.ctx.jobs.idle('read');
  return here.server.ok('putOnShelf', { params, body: { version } });
}

test('a kit with a form of a paper and one that is written goes out as one open file', async () => {
  const made = await here.server.post('newForm', {}, 'Disclosure.pdf', await paper({ pages: 2 }));
  await here.server.ctx.jobs.idle('read');
  const seller = newSlot('one', 'seller', 1, newId(), 0);
  const documentId = made.body.documents[0]!.id;
  const rect = { x: 100, y: 640, w: 160, h: 26 };
  const own = await shelved(made.body.id, [
    { op: 'put', list: 'parties', item: seller },
    {
      op: 'put',
      list: 'marks',
      item: { id: 'm', documentId, page: 2, kind: 'signature', partyId: seller.id, rect, required: true },
    },
    {
      op: 'put',
      list: 'rules',
      item: { id: 'r', documentId, partyIds: [seller.id], anchor: { fx: 1, fy: 1 }, except: [], moved: [] },
    },
  ]);
  const begun = await here.server.ok('newWritten', { body: { name: 'Water rules' } });
  const buyer = newSlot('every', 'buyer', 1, newId(), 0);
  await here.server.ok('editShelfItem', {
    params: { shelfId: begun.id },
    body: { edits: [{ op: 'put', list: 'parties', item: buyer }] },
  });
  const text = {
    language: 'es',
    doc: {
      type: 'doc',
      content: [
        { type: 'paragraph', content: [{ type: 'tag', attrs: { key: 'price' } }] },
        { type: 'signatures', attrs: { slots: [buyer.id], date: true } },
      ],
    },
  };
  await here.server.ok('saveWritten', { params: { shelfId: begun.id }, body: { version: 1, text } });
  const written = await shelved(begun.id, [{ op: 'set', field: 'name', value: 'Water rules' }]);
  kit = await here.server.ok('newKit', { body: { name: 'To pass on', formIds: [own.id, written.id] } });
  await here.server.ok('setShelfItem', { params: { shelfId: kit.id }, body: { lastIn: 9, locks: ['path'] } });
  kit = await here.server.ok('putOnShelf', { params: { shelfId: kit.id }, body: { version: kit.version } });
  const got = await here.server.call('shelfBundle', { params: { shelfId: kit.id } });
  expect(got.status).toBe(200);
  bundle = Buffer.from(got.raw);
  // Another program opens it, and finds plain JSON and PDF in it.
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-bundle-'));
  writeFileSync(path.join(dir, 'b.zip'), new Uint8Array(bundle));
  execFileSync('python3', ['-m', 'zipfile', '-e', path.join(dir, 'b.zip'), path.join(dir, 'out')]);
  expect(readdirSync(path.join(dir, 'out'), { recursive: true }).map(String).sort()).toEqual([
    'bundle.json',
    'papers',
    'papers/001.pdf',
  ]);
  execFileSync('qpdf', ['--check', path.join(dir, 'out', 'papers', '001.pdf')]);
  rmSync(dir, { recursive: true });
  const manifest = await manifestOf(bundle);
  expect(manifest).toMatchObject({ format: 'gate-path-shelf/1', kits: [{ name: 'To pass on', lastIn: 9 }] });
  const schema = JSON.parse(readFileSync('docs/shelf-bundle.schema.json', 'utf8')) as object;
  const fits = new Ajv({ strict: false }).compile(schema);
  expect([fits(manifest), fits.errors]).toEqual([true, null]);
  expect(fits({ ...manifest, forms: [] })).toBe(false);
  expect(JSON.stringify(manifest)).not.toMatch(/Odile|memberId|accessCode/);
});

test('a clean house makes the same of it, which is on no shelf before it is put there', async () => {
  const came = await bring(bundle);
  expect([came.status, came.body.items.map((i) => [i.what, i.name])]).toEqual([
    200,
    [
      ['form', 'Disclosure'],
      ['form', 'Water rules'],
      ['kit', 'To pass on'],
    ],
  ]);
  await there.server.ctx.jobs.idle('read');
  const [own, written, packed] = await Promise.all(came.body.items.map((i) => item(there, i.id)));
  const forms = kit.forms.map((f) => f.id);
  expect(bare(own!)).toEqual(bare(await item(here, forms[0]!)));
  expect(bare(written!)).toEqual(bare(await item(here, forms[1]!)));
  // The text is set to the same file, the paper prepared to the same pages.
  expect(written!.documents[0]!.sha256).toBe((await item(here, forms[1]!)).documents[0]!.sha256);
  expect(own!.documents[0]!.pages).toEqual((await item(here, forms[0]!)).documents[0]!.pages);
  expect([packed!.draft.documents.map((d) => d.id), packed!.lastIn, packed!.locks, packed!.edition]).toEqual([
    [own!.id, written!.id],
    9,
    [],
    0,
  ]);
  // Once more it comes beside what is there.
  expect((await bring(bundle)).status).toBe(200);
});

async function manifestOf(bytes: Uint8Array): Promise<Record<string, never>> {
  return JSON.parse(await (await JSZip.loadAsync(bytes)).file('bundle.json')!.async('string')) as Record<string, never>;
}
async function withManifest(change: (m: never) => unknown): Promise<Buffer> {
  const zip = await JSZip.loadAsync(bundle);
  const now: unknown = change(structuredClone(await manifestOf(bundle)) as never);
  zip.file('bundle.json', typeof now === 'string' ? now : JSON.stringify(now));
  return zip.generateAsync({ type: 'nodebuffer' });
}

test.each<[string, (m: { forms: Record<string, never>[]; kits: Record<string, never>[] }) => unknown]>([
  ['another format', (m) => ({ ...m, format: 'other/9' })],
  ['no forms', (m) => ({ ...m, forms: [] })],
  ['a form that is not there in a kit', (m) => ({ ...m, forms: m.forms.slice(1) })],
  ['a paper that leads out', (m) => ({ ...m, forms: [{ ...m.forms[0], paper: '../../etc/passwd' }], kits: [] })],
  ['a key too many', (m) => ({ ...m, forms: [{ ...m.forms[0], draft: { marks: [{ id: 'x', evil: 1 }] } }], kits: [] })],
  ['a name of a NUL', (m) => ({ ...m, forms: [{ ...m.forms[0], name: 'a\u0000b' }], kits: [] })],
  ['ten thousand forms', (m) => ({ ...m, forms: Array(10_000).fill(m.forms[0]) })],
  ['too deep', () => `${'['.repeat(100_000)}${']'.repeat(100_000)}`],
  ['no JSON', () => '<html>'],
])('%s: refused in words, and nothing is left of it', async (_what, change) => {
  const before = [await all(there), await filesOf(there)];
  const no = await bring(await withManifest(change as never));
  expect([no.status, no.problem.type]).toEqual([422, '/problems/bad-bundle']);
  expect(no.problem.detail).toMatch(/^[A-Z“].*\.$/);
  expect([await all(there), await filesOf(there)]).toEqual(before);
});

test('a small file that unfolds to gigabytes is stopped while it unfolds', async () => {
  const zip = await JSZip.loadAsync(bundle);
  zip.file('papers/001.pdf', Buffer.alloc(260 * 1024 * 1024));
  const before = await filesOf(there);
  const no = await bring(await zip.generateAsync({ type: 'nodebuffer', compression: 'DEFLATE' }));
  expect([no.status, no.problem.type]).toEqual([422, '/problems/bad-bundle']);
  expect(await filesOf(there)).toEqual(before);
});

test('500 bundles with something changed in them: each is whole or leaves nothing behind', async () => {
  const plain = Buffer.from(JSON.stringify(await manifestOf(bundle)));
  const zip = await JSZip.loadAsync(bundle);
  const before = { items: (await all(there)).length, files: await filesOf(there) };
  let taken = 0;
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom('zip', 'manifest'),
      fc.array(fc.record({ at: fc.nat(), to: fc.integer({ min: 0, max: 255 }) }), { minLength: 1, maxLength: 3 }),
      fc.option(fc.nat()),
      async (where, changes, cut) => {
        const bytes = Buffer.from(where === 'zip' ? bundle : plain);
        for (const { at, to } of changes) bytes[at % bytes.length] = to;
        const part = cut === null ? bytes : bytes.subarray(0, cut % bytes.length);
        let sent: Buffer = part;
        if (where === 'manifest') {
          zip.file('bundle.json', part);
          sent = await zip.generateAsync({ type: 'nodebuffer' });
        }
        const r = await bring(sent);
        if (r.status === 200) {
          // What was changed was allowed to be what it is now: a name, a figure. It is taken out again.
          taken++;
          for (const i of [...r.body.items].reverse())
            await there.server.ok('deleteShelfItem', { params: { shelfId: i.id } });
        } else expect([r.status >= 400 && r.status < 500, r.problem.detail]).toEqual([true, expect.any(String)]);
      },
    ),
    { numRuns: 500 },
  );
  await there.server.ctx.jobs.idle('read');
  await there.server.afterAnHour();
  expect((await all(there)).length).toBe(before.items);
  expect(await filesOf(there)).toEqual(before.files);
  expect(taken).toBeLessThan(250);
});
