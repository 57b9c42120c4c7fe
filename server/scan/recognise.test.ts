/** Recognition for real: what the other tests read from records is what a page is recognized as today. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { lease, OFFICE, scanOf } from '../test/scan';
import { TestServer } from '../test/harness';
import { WorkPool } from '../work/pool';

jest.setTimeout(240_000);

let server: TestServer;
const real = new WorkPool(1);
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(async () => {
  await real.close();
  await server.stop();
});

test('a page is recognized as its record says', async () => {
  const { bytes } = await scanOf(await lease(), { ...OFFICE, askew: 0.9, always: true });
  const file = path.join(server.dir, 'lease.pdf');
  writeFileSync(file, bytes);
  const prepared = await real.run('prepare', { file });
  if (!prepared.ok) throw new Error('the scan could not be prepared');
  const stored = path.join(server.dir, 'prepared.pdf');
  writeFileSync(stored, prepared.bytes);
  const task = { file: stored, page: 1, size: prepared.pages[0]!, language: 'eng' as const };
  const found = await real.run('recognise', task);
  expect(found.words.map((w) => w.text).join(' ')).toContain('keeps the dwelling');
  // The first time there is a record to keep; from then on it must be the same.
  expect(JSON.parse(JSON.stringify(found))).toEqual(await server.ctx.work.run('recognise', task));
});
