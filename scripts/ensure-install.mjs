/** Installs the npm packages when they are missing or the lock file changed since. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT } from './root.mjs';

const STAMP = path.join(ROOT, 'node_modules', '.gate-path-lock.sha256');

export function ensureInstall() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(`Gate Path needs Node 20.19 or newer; this is ${process.version}.`);
    process.exit(1);
  }
  const lock = createHash('sha256')
    .update(readFileSync(path.join(ROOT, 'package-lock.json')))
    .digest('hex');
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === lock) return;
  console.log('Installing packages (some minutes the first time)…');
  const r = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: ROOT, stdio: 'inherit' });
  if (r.status !== 0) {
    console.error('The packages could not be installed. Check the connection to the npm registry and try again.');
    process.exit(1);
  }
  writeFileSync(STAMP, lock);
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) ensureInstall();
