/**
 * npm run mutants -- FOLDER…: changes the code of core folders in small ways, one at a time, and reports which changes the
 * folder's own tests do not notice. Exits with 1 when fewer than 85 of 100 are noticed.
 *
 *     npm run mutants -- changed deal
 *     npm run mutants -- changed/alike.ts
 */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { ensureInstall } from './ensure-install.mjs';
import { ROOT } from './root.mjs';

ensureInstall();
const wanted = process.argv.slice(2);
const missing = wanted.filter((f) => !existsSync(path.join(ROOT, 'core', f)));
if (!wanted.length || missing.length) {
  console.error(
    missing.length ? `core has no ${missing.join(', ')}.` : 'Name a folder of core: npm run mutants -- deal',
  );
  process.exit(2);
}
let worst = 0;
for (const name of wanted) {
  console.log(`\n── core/${name}`);
  const run = spawnSync('npx', ['stryker', 'run', path.join('scripts', 'stryker.config.mjs')], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, MUTATED: name, NODE_OPTIONS: '--no-warnings' },
  });
  worst = Math.max(worst, run.status ?? 1);
}
process.exit(worst);
