/** The API as an outside programmer has it: a client made from its description, and the worked example of docs/api.md as written. */
import { execFile, spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { allRoutes } from '@gatepath/contract/routes';
import { validateAnswer } from './test/as-told';
import { removeFolder } from './test/folders';
import { TestServer, typedHand } from './test/harness';
import { paper } from './test/papers';
import { judged, sound } from './test/judges';

jest.setTimeout(240_000);

const ROOT = path.join(__dirname, '..');
const DOC = path.join(ROOT, 'docs', 'api.md');
const run = promisify(execFile);

let server: TestServer;
let folder: string;

beforeAll(async () => {
  server = await TestServer.start();
  folder = mkdtempSync(path.join(os.tmpdir(), 'gatepath-api-'));
  await server.running.app.listen({ port: 0, host: '127.0.0.1' });
});
afterAll(async () => {
  await server.stop();
  removeFolder(folder);
});

test('the worked example drives a client that is made from the description, from the deal to the sealed copy', async () => {
  const { port } = server.running.app.server.address() as { port: number };
  const url = `http://127.0.0.1:${port}`;
  const example = [...readFileSync(DOC, 'utf8').matchAll(/```ts\n([\s\S]*?)```/g)].map((m) => m[1]).join('\n');
  writeFileSync(path.join(folder, 'example.mts'), example);
  writeFileSync(path.join(folder, 'paper.pdf'), await paper({ pages: 1 }));
  // What an outsider would install.
  mkdirSync(path.join(folder, 'node_modules', '@types'), { recursive: true });
  for (const name of ['openapi-fetch', 'openapi-typescript-helpers', '@types/node', 'undici-types'])
    symlinkSync(path.join(ROOT, 'node_modules', name), path.join(folder, 'node_modules', name));
  const bin = (name: string) => path.join(ROOT, 'node_modules', '.bin', name);
  await run(bin('openapi-typescript'), [`${url}/api/openapi.json`, '-o', 'gate-path.d.ts'], { cwd: folder });
  const strict = ['--noEmit', '--strict', '--target', 'es2022', '--module', 'esnext', '--moduleResolution', 'bundler'];
  await run(bin('tsc'), [...strict, '--skipLibCheck', '--types', 'node', 'example.mts'], { cwd: folder });

  const env = { ...process.env, GATE_PATH: url, EMAIL: 'odile@example.com', PASSWORD: 'long enough 1' };
  const child = spawn(bin('tsx'), ['example.mts'], { cwd: folder, env });
  let said = '';
  child.stdout.on('data', (d: Buffer) => (said += d.toString()));
  child.stderr.on('data', (d: Buffer) => (said += d.toString()));
  const ended = new Promise<number | null>((resolve) => child.on('close', resolve));
  while (!/Sent \S+/.test(said) && child.exitCode === null) await new Promise((r) => setTimeout(r, 50));
  const packetId = /Sent (\S+)/.exec(said)?.[1];
  if (!packetId) throw new Error(said);
  // The seller, meanwhile, at their own link.
  await server.sign(await server.tokenFor(packetId, 'Wren Alder'), typedHand('Wren Alder', 'WA'));
  expect([await ended, said]).toEqual([0, `Sent ${packetId}\nSealed: Seller disclosure\n`]);
  const sealed = path.join(folder, 'Seller disclosure (sealed).pdf');
  expect(judged(readFileSync(sealed))).toEqual(sound(2));
});

test('the page tells of every route who may call it', () => {
  const table = [
    '| route | | who | what |',
    '| --- | --- | --- | --- |',
    ...allRoutes.map(([name, r]) => `| \`${name}\` | ${r.method} \`${r.path}\` | ${r.who} | ${r.summary} |`),
  ];
  const cells = (line: string) => line.split('|').map((c) => c.trim());
  const page = readFileSync(DOC, 'utf8').split('## Who may call what')[1]!;
  const lines = page.split('\n').filter((l) => l.startsWith('| `'));
  // `npm run api-table` brings the page up to date.
  expect(lines.map(cells)).toEqual(table.slice(2).map(cells));
});

test('an answer with more, less or other than is told is found', () => {
  const answer = (body: unknown, status = 200) => ({
    status,
    body,
    problem: body as never,
    raw: Buffer.of(),
    cookie: null,
  });
  const one = { token: 'x' };
  expect(() => validateAnswer('hostParty', answer(one))).not.toThrow();
  for (const wrong of [{}, { token: 1 }, { ...one, email: 'wren@example.com' }, []])
    expect(() => validateAnswer('hostParty', answer(wrong))).toThrow('not as told');
  expect(() => validateAnswer('deletePacket', answer(null))).toThrow('nothing to tell');
  expect(() => validateAnswer('hostParty', answer({ type: '/problems/not-at-desk' }, 403))).not.toThrow();
  expect(() => validateAnswer('hostParty', answer({ type: '/problems/wrong-code' }, 422))).toThrow('does not tell of');
});
