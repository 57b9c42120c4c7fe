/** Workers that can be spared: whatever a task does, the next one is done. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { sha256 } from '../ids';
import { paper } from '../test/papers';
import { selfDrawing, twoMillionStrokes } from '../test/nasty';
import { WorkFailure } from './failure';
import { ALLOWED } from './lanes';
import { Problem } from '../problem';
import { WorkPool } from './pool';
import { Rota } from './rota';

jest.setTimeout(300_000);

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-pool-'));
const SIZE = { width: 612, height: 792 };
let pool: WorkPool;
let good: string;

const keep = (bytes: Uint8Array) => {
  const file = path.join(dir, sha256(bytes));
  writeFileSync(file, bytes);
  return file;
};
const draw = (file: string, dpi = 72) => pool.run('png', { file, page: 1, size: SIZE, dpi });

beforeAll(async () => {
  pool = new WorkPool(1);
  good = keep(await paper({ pages: 1 }));
  await pool.warm();
});
afterAll(async () => {
  await pool.close();
  rmSync(dir, { recursive: true, force: true });
});

const failureOf = (work: Promise<unknown>) =>
  work.then(
    () => null,
    (e: unknown) => e as WorkFailure,
  );

test('a file that makes the library fall over costs that file, and nothing after it', async () => {
  const bad = keep(selfDrawing());
  const failure = await failureOf(draw(bad));
  expect(failure).toBeInstanceOf(WorkFailure);
  expect(['memory', 'died', 'error', 'time']).toContain(failure!.reason);
  expect((await draw(good)).length).toBeGreaterThan(1000);
});

test('a task that takes too long is ended, says where it was, and the rest goes on beside it', async () => {
  const bad = keep(twoMillionStrokes());
  const was = ALLOWED.read.seconds;
  ALLOWED.read.seconds = 2;
  const slow = failureOf(
    pool.run('read', { file: bad, original: null, sizes: [SIZE], from: 1, to: 1, before: '' }, 'a'),
  );
  // People who look at pages do not wait for it.
  expect((await draw(good, 108)).length).toBeGreaterThan(1000);
  const failure = await slow;
  ALLOWED.read.seconds = was;
  expect([failure!.reason, failure!.at]).toEqual(['time', 'page 1']);
  expect(failure!.inWords('read')).toContain('2 seconds');
  const next = await pool.run('read', { file: good, original: null, sizes: [SIZE], from: 1, to: 1, before: '' }, 'b');
  expect(next.text).toContain('owner');
});

test('a stored file with a changed byte is neither drawn nor sealed', async () => {
  const bytes = await paper({ pages: 1, title: 'Changed' });
  const file = keep(bytes);
  bytes[bytes.length - 30]! ^= 1;
  writeFileSync(file, bytes);
  await expect(draw(file)).rejects.toThrow('not what its name says');
  expect((await draw(good)).length).toBeGreaterThan(1000);
});

test('what is too much is refused at once, and said so', async () => {
  const busy = Array.from({ length: 100 }, () => failureOf(pool.run('missing', { text: 'a', face: 'caveat' }, 'one')));
  const answers = await Promise.all(busy);
  const refused = answers.filter((a) => a instanceof Problem);
  expect(refused.length).toBeGreaterThan(0);
  for (const r of refused) expect([r.status, r.more.retryAfter! > 0]).toEqual([503, true]);
  expect(await pool.run('missing', { text: 'a', face: 'caveat' }, 'two')).toEqual([]);
});

test('workers see none of the server’s secrets', async () => {
  process.env['SESSION_SECRET_OF_TEST'] = 'a secret';
  const fresh = new WorkPool(1);
  // What a child is given is decided in one place; this looks at the running process.
  await fresh.run('missing', { text: 'a', face: 'caveat' });
  const { readFileSync, readdirSync } = await import('node:fs');
  const mine = readdirSync('/proc')
    .filter((p) => /^\d+$/.test(p))
    .filter((p) => {
      try {
        return readFileSync(`/proc/${p}/stat`, 'latin1').split(') ')[1]!.split(' ')[1] === String(process.pid);
      } catch {
        return false;
      }
    });
  for (const p of mine) {
    if (!readFileSync(`/proc/${p}/cmdline`, 'latin1').includes('process.ts')) continue;
    expect(readFileSync(`/proc/${p}/environ`, 'latin1')).not.toContain('a secret');
  }
  await fresh.close();
});

test('turns are taken between owners, within bounds', () => {
  const rota = new Rota<string>(6, 4);
  for (const x of ['a1', 'a2', 'a3', 'a4', 'a5', 'b1', 'c1', 'd1']) rota.push(x[0]!, x);
  const order: string[] = [];
  for (let x = rota.shift(); x; x = rota.shift()) order.push(x);
  expect(order).toEqual(['a1', 'b1', 'c1', 'a2', 'a3', 'a4']);
  expect(rota.size).toBe(0);
});
