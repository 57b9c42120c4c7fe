/**
 * Two thousand damaged papers, from our own and from nasty ones: whatever they are, the server
 * answers, others are served meanwhile, and nothing of them stays.
 */
import { execFileSync } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import JSZip from 'jszip';
import sharp from 'sharp';
import type { DealView, DocumentView } from '@gatepath/contract';
import { newSecret } from './ids';
import { TestServer } from './test/harness';
import { activePaper, multiplying, onePage, selfDrawing } from './test/nasty';
import { formPaper, paper } from './test/papers';
import { WorkFailure } from './work/failure';

jest.setTimeout(900_000);

const RUNS = 2_000;
const UPLOADS = 150;
/** What the files may leave in memory, in megabytes. Most of it is libraries that workers load with them; on a busy machine memory is given back late. */
const MOST_MB = 600;
/** Files that come together, as from a picker. */
const AT_ONCE = 10;
let server: TestServer;
let deal: DealView;
let good: DocumentView;
beforeAll(async () => {
  server = await TestServer.start();
  deal = await server.deal('14 Lantern Row');
  good = await server.uploadReady(deal.id, 'good.pdf', await paper({ pages: 3 }));
  await server.ctx.work.warm();
});
afterAll(() => server.stop());

async function docx(): Promise<Uint8Array> {
  const zip = new JSZip();
  zip.file(
    '[Content_Types].xml',
    '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/></Types>',
  );
  zip.file(
    '_rels/.rels',
    '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
  );
  zip.file(
    'word/document.xml',
    '<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body><w:p><w:r><w:t>House rules</w:t></w:r></w:p></w:body></w:document>',
  );
  return zip.generateAsync({ type: 'uint8array' });
}

/** What is done to a file's bytes. */
type Mutation =
  | { do: 'flip'; at: number; to: number }
  | { do: 'cut'; at: number }
  | { do: 'repeat'; at: number; length: number; times: number }
  | { do: 'drop'; at: number; length: number }
  | { do: 'put'; at: number; text: string };
const place = fc.double({ min: 0, max: 1, noNaN: true });
const mutation: fc.Arbitrary<Mutation> = fc.oneof(
  { weight: 6, arbitrary: fc.record({ do: fc.constant('flip' as const), at: place, to: fc.nat(255) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('cut' as const), at: place }) },
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constant('repeat' as const), at: place, length: fc.nat(400), times: fc.nat(20) }),
  },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('drop' as const), at: place, length: fc.nat(400) }) },
  {
    weight: 3,
    arbitrary: fc.record({
      do: fc.constant('put' as const),
      at: place,
      text: fc.constantFrom(
        ' 3 0 R ',
        '-1',
        '99999999999',
        '[[[[',
        '<<',
        '>>',
        '/Kids',
        'endstream',
        'obj',
        '\0\0',
        '(',
        '/Length 1',
        '/Filter /FlateDecode',
        'stream\n',
        '<!DOCTYPE x [<!ENTITY a "b">]>',
      ),
    }),
  },
);

function apply(bytes: Uint8Array, all: Mutation[]): Uint8Array {
  let b = Buffer.from(bytes);
  for (const m of all) {
    const at = Math.floor(m.at * b.length);
    if (m.do === 'flip') b[at] = m.to;
    else if (m.do === 'cut') b = b.subarray(0, at);
    else if (m.do === 'drop') b = Buffer.concat([b.subarray(0, at), b.subarray(at + m.length)]);
    else if (m.do === 'put') b = Buffer.concat([b.subarray(0, at), Buffer.from(m.text), b.subarray(at)]);
    else {
      const part = b.subarray(at, at + m.length);
      b = Buffer.concat([b.subarray(0, at), ...Array.from({ length: m.times }, () => part), b.subarray(at)]);
    }
  }
  return new Uint8Array(b);
}

/** Returns memory of the server and its workers, in bytes. */
function memory(): number {
  const rows = execFileSync('ps', ['-eo', 'pid=,ppid=,rss='])
    .toString()
    .trim()
    .split('\n')
    .map((r) => r.trim().split(/\s+/).map(Number));
  return rows
    .filter(([pid, ppid]) => pid === process.pid || ppid === process.pid)
    .reduce((n, r) => n + r[2]! * 1024, 0);
}

/** Imports bytes as a paper in the workers. Every outcome is fine except a crashed worker. */
async function throughWorkers(name: string, bytes: Uint8Array): Promise<void> {
  const { work } = server.ctx;
  const file = path.join(server.dir, `fuzz-${newSecret()}`);
  writeFileSync(file, bytes);
  try {
    const kind = await work.run('sort', { file, name });
    if (kind !== 'pdf' && kind !== 'docx' && kind !== 'picture' && kind !== 'text') return;
    if (kind !== 'pdf') {
      const made = await work.run('convert', { file, kind, title: name });
      if ('problem' in made) return;
      writeFileSync(file, made.bytes);
    }
    const prepared = await work.run('prepare', { file });
    if (prepared.ok) expect(prepared.pages.length).toBeGreaterThan(0);
  } catch (error) {
    // One that was ended for what it did to its worker is what workers are spared for.
    if (!(error instanceof WorkFailure)) throw error;
    ended++;
  } finally {
    rmSync(file, { force: true });
  }
}
let ended = 0;

test('two thousand damaged files: no crash, no stall, nothing left', async () => {
  const picture = await sharp({ create: { width: 300, height: 400, channels: 3, background: '#eee' } });
  const sources: [string, Uint8Array][] = [
    ['paper.pdf', await paper({ pages: 2 })],
    ['turned.pdf', await paper({ pages: 1, rotate: 90, crop: true })],
    ['form.pdf', await formPaper()],
    ['office.pdf', new Uint8Array(readFileSync(path.join(__dirname, 'test/fixtures/berth-tenancy-libreoffice.pdf')))],
    ['active.pdf', activePaper()],
    ['self.pdf', selfDrawing()],
    ['many.pdf', multiplying()],
    ['plain.pdf', onePage('0 0 9 9 re f')],
    ['rules.docx', await docx()],
    ['photo.jpg', new Uint8Array(await picture.clone().jpeg().toBuffer())],
    ['photo.png', new Uint8Array(await picture.clone().png().toBuffer())],
    ['photo.webp', new Uint8Array(await picture.clone().webp().toBuffer())],
  ];
  const before = memory();
  let slowest = 0;
  let over = false;
  // Somebody looks at a page all the while: drawn for the first time each time, in the lane of those who sign.
  const looking = (async () => {
    for (let n = 0; !over; n++) {
      const begin = process.hrtime.bigint();
      const a = await server.call('deals', { query: { limit: '5' } });
      const p = await server.call('documentPage', { params: { documentId: good.id, page: 1 + (n % 3) } });
      if (a.status !== 200 || p.status !== 200) throw new Error(`${a.status} ${p.status} ${p.raw.toString()}`);
      slowest = Math.max(slowest, Number(process.hrtime.bigint() - begin) / 1e6);
      await new Promise((r) => setTimeout(r, 25));
    }
  })();
  const answers = new Map<number, number>();
  const file = fc.tuple(fc.nat(sources.length - 1), fc.array(mutation, { minLength: 1, maxLength: 6 }));
  const files = fc.array(file, { minLength: AT_ONCE, maxLength: AT_ONCE });
  const each = (handle: (name: string, bytes: Uint8Array) => Promise<void>) =>
    fc.asyncProperty(files, async (all) => {
      await Promise.all(all.map(([which, m]) => handle(sources[which]![0], apply(sources[which]![1], m))));
    });
  const settings = { seed: 20261128, endOnFailure: true };
  // All of them through the workers, where a paper is looked at, turned into PDF and prepared.
  await fc.assert(each(throughWorkers), { ...settings, numRuns: RUNS / AT_ONCE });
  // Some of them all the way, as uploads.
  await fc.assert(
    each(async (name, bytes) => {
      const a = await server.upload(deal.id, name, bytes);
      answers.set(a.status, (answers.get(a.status) ?? 0) + 1);
      // Taken, or refused in words; never a fault.
      if (a.status !== 200) {
        const { detail } = a.problem;
        if (a.status !== 422 || detail.length < 20) throw new Error(`${a.status}: ${a.raw.toString()}`);
      } else await server.call('deleteDocument', { params: { documentId: a.body.id } });
    }),
    { ...settings, seed: 4310, numRuns: UPLOADS / AT_ONCE },
  );
  over = true;
  await looking;
  expect(answers.get(200)! > 5 && answers.get(422)! > 5).toBe(true);
  // A second on a quiet machine; one that is five times slower may take five.
  expect(slowest).toBeLessThan(30_000);
  await server.ctx.jobs.idle('read');
  await server.ctx.jobs.idle('tidy');
  for (let n = 0; n < 100 && memory() - before > MOST_MB * 1024 * 1024; n++)
    await new Promise((r) => setTimeout(r, 300));
  expect((memory() - before) / 1024 / 1024).toBeLessThan(MOST_MB);
  console.log(
    `slowest other request ${Math.round(slowest)} ms; answers ${JSON.stringify([...answers])}; workers ended ${ended}`,
  );
  // And a good page is drawn as before.
  const page = await server.call('documentPage', { params: { documentId: good.id, page: 2 }, query: { dpi: '144' } });
  expect(page.status).toBe(200);
});
