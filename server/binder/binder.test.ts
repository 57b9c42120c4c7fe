/** The binder of a deal, as other programs open it. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { sha256 } from '../ids';
import { judged, sound } from '../test/judges';
import { paper } from '../test/papers';
import { Way } from '../test/way';
import type { BinderIndex } from './contents';

jest.setTimeout(180_000);

let way: Way;
const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-binder-'));
beforeAll(async () => {
  way = await Way.start();
});
afterAll(async () => {
  await way.stop();
  rmSync(dir, { recursive: true });
});

async function binder(dealId: string): Promise<string> {
  await way.server.ok('makeBinder', { params: { dealId } });
  await way.server.ctx.jobs.idle('binder');
  expect(await way.server.ok('binder', { params: { dealId } })).toMatchObject({ status: 'ready' });
  const a = await way.server.call('binderFile', { params: { dealId } });
  const file = path.join(dir, `${dealId}.zip`);
  writeFileSync(file, new Uint8Array(a.raw));
  return file;
}

/** Returns what `unzip` makes of a file: names and bytes. */
function unpacked(zip: string): Map<string, Buffer> {
  const to = mkdtempSync(path.join(dir, 'out-'));
  execFileSync('python3', ['-m', 'zipfile', '-e', zip, to]);
  const out = new Map<string, Buffer>();
  for (const e of readdirSync(to, { recursive: true, withFileTypes: true }))
    if (e.isFile()) {
      const full = path.join(e.parentPath, e.name);
      out.set(path.relative(to, full), readFileSync(full));
    }
  return out;
}

test('executed papers, originals, chains and an index: whole, in order, and true', async () => {
  const { packet, deal } = await way.send(
    [
      { name: 'Wren Alder', email: 'wren@example.com' },
      { name: 'Callum Alder', email: 'callum@example.com' },
    ],
    [{ names: ['Wren'] }, { names: ['Callum'] }],
  );
  // A paper whose name would lead out of the folder, and one that only lies there.
  const odd = await paper({ pages: 1 });
  await way.server.uploadReady(deal.id, '../../..evil<script>.pdf', odd);
  await way.signAll(await way.server.tokenFor(packet.id, 'Wren Alder'), 'Wren Alder');
  await way.signAll(await way.server.tokenFor(packet.id, 'Callum Alder'), 'Callum Alder');
  const [sealed] = await way.sealed(packet.id);
  const files = unpacked(await binder(deal.id));
  const index = JSON.parse(files.get('index.json')!.toString('utf8')) as BinderIndex;
  expect(index).toMatchObject({ format: 'gate-path-binder/1', deal: { address: '14 Lantern Row', kind: 'Sale' } });
  expect(index.executed).toEqual([
    expect.objectContaining({ name: 'disclosure', packet: 'Papers', signedBy: ['Wren Alder', 'Callum Alder'] }),
  ]);
  // Everything the index names is there, with the fingerprint it says.
  for (const f of [...index.executed, ...index.originals]) expect(sha256(files.get(f.path)!)).toBe(f.sha256);
  const [one] = index.executed;
  expect(files.get(one!.path)!.equals(new Uint8Array(sealed!))).toBe(true);
  expect(judged(files.get(one!.path)!)).toEqual(sound(3));
  const chain = JSON.parse(files.get(index.chains[0]!.path)!.toString('utf8')) as { format: string };
  expect(chain.format).toBe('gate-path-chain/1');
  expect(
    [...files.keys()].every((k) => /^(?:index\.(?:html|json|pdf)|(?:executed|originals|chains)\/\d{3} [^/]+)$/.test(k)),
  ).toBe(true);
  const page = files.get('index.html')!.toString('utf8');
  expect(page).not.toMatch(/<script/i);
  for (const href of page.matchAll(/href="([^"]+)"/g)) expect(files.has(decodeURIComponent(href[1]!))).toBe(true);
  const pdf = path.join(dir, 'index.pdf');
  writeFileSync(pdf, new Uint8Array(files.get('index.pdf')!));
  expect(execFileSync('pdftotext', ['-layout', pdf, '-']).toString()).toContain('14 Lantern Row');
});

test('it is made anew when it is asked for again; a deal without papers has one too; before it there is none', async () => {
  const deal = await way.server.deal('2 Mill Cut', []);
  const none = await way.server.call('binderFile', { params: { dealId: deal.id } });
  expect([none.status, (await way.server.ok('binder', { params: { dealId: deal.id } })).status]).toEqual([404, 'none']);
  expect([...unpacked(await binder(deal.id)).keys()].sort()).toEqual(['index.html', 'index.json', 'index.pdf']);
  await way.server.uploadReady(deal.id, 'notes.pdf', await paper({ pages: 1 }));
  expect(unpacked(await binder(deal.id)).size).toBe(4);
});
