/** A server of its own with a firm set up, for measuring; nothing of it is left afterwards. */
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { buildServer, type Running } from '../server/app';
import { readConfig } from '../server/config';
import { InProcess } from '../server/in-process';

export const MEMBER = { email: 'bench@example.com', password: 'bench bench bench' };

/**
 * Starts a server with a new firm, signs in, runs `work`, and removes the server.
 *
 * @param env further settings, such as `DATABASE_URL`
 */
export async function withFirm<T>(
  work: (desk: InProcess, running: Running) => Promise<T>,
  env: Record<string, string> = {},
): Promise<T> {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-bench-'));
  const running = await buildServer({
    config: readConfig({ DATA_DIR: dir, PORT: '0', HOST: '127.0.0.1', ...env }, { demo: false }),
    logLevel: 'silent',
  });
  try {
    const desk = new InProcess(() => running.app);
    const setup = await desk.call('setup', { body: { firmName: 'Bench', timeZone: 'UTC', name: 'Bench', ...MEMBER } });
    desk.cookie = setup.cookie!;
    return await work(desk, running);
  } finally {
    await running.close();
    rmSync(dir, { recursive: true, force: true });
  }
}
