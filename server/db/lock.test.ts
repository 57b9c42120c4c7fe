/** One server to a data folder. */
import { execFileSync, spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ConfigError } from '../config';
import { SERVER_PROGRAM } from '../test/program';
import { lockFolder } from './lock';
import { openDatabase } from './pool';

jest.setTimeout(120_000);

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-lock-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const file = path.join(dir, 'server.lock');

test('a second server on the same folder is refused, and told whose it is', async () => {
  const first = await openDatabase({ databaseUrl: null, dataDir: dir });
  await expect(openDatabase({ databaseUrl: null, dataDir: dir })).rejects.toThrow(ConfigError);
  await expect(openDatabase({ databaseUrl: null, dataDir: dir })).rejects.toThrow(`process ${process.pid}`);
  await first.close();
  expect(existsSync(file)).toBe(false);
  const again = await openDatabase({ databaseUrl: null, dataDir: dir });
  await again.close();
});

test('a lock that a killed server left is taken over; one of a living process is not', async () => {
  const program = `import('${path.join(__dirname, 'lock.ts')}').then((m) => { m.lockFolder('${dir}'); console.log('held'); setInterval(() => {}, 1000); })`;
  const child = spawn(process.execPath, ['--import', 'tsx', '-e', program], {
    env: { ...process.env, NODE_OPTIONS: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((r) => child.stdout.once('data', () => r()));
  expect(() => lockFolder(dir)).toThrow(`process ${child.pid}`);
  const gone = new Promise((r) => child.once('exit', r));
  child.kill('SIGKILL');
  await gone;
  const unlock = lockFolder(dir);
  unlock();
  // A number that another process has by now, and a file that is no lock at all.
  writeFileSync(file, JSON.stringify({ pid: 1, began: '0', token: 'x' }));
  lockFolder(dir)();
  writeFileSync(file, 'not a lock');
  lockFolder(dir)();
  expect(readdirSync(dir).filter((f) => f.startsWith('server.lock'))).toEqual([]);
});

test('the server says so and ends', () => {
  const unlock = lockFolder(dir);
  let out = '';
  try {
    execFileSync(process.execPath, SERVER_PROGRAM, {
      env: { ...process.env, NODE_OPTIONS: '', DATA_DIR: dir, PORT: '0' },
      stdio: 'pipe',
    });
  } catch (error) {
    out = String((error as { stderr: Buffer }).stderr);
  }
  unlock();
  expect(out).toContain('is in use by another Gate Path server');
});
