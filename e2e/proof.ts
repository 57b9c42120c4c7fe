/** Downloads, and what the house's own check and poppler say of them. */
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import type { Page } from 'puppeteer-core';
import { judged } from '../server/test/judges';
import { ROOT } from './server';

/** Saves what a page's reader would download. Returns the file's name. */
export async function download(page: Page, url: string, file: string): Promise<string> {
  const base64 = await page.evaluate(async (u) => {
    const bytes = new Uint8Array(await (await fetch(u)).arrayBuffer());
    return btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(''));
  }, url);
  writeFileSync(file, new Uint8Array(Buffer.from(base64, 'base64')));
  return file;
}

/** Runs `npm run verify` on files. */
export const verify = (...files: string[]) =>
  spawnSync('npm', ['run', '-s', 'verify', '--', ...files], { cwd: ROOT, env: { ...process.env, NODE_OPTIONS: '' } });

/** Returns what other tools report about a sealed copy. */
export const judgedFile = (file: string) => judged(readFileSync(file));
