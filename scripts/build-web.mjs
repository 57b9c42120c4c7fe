/** Builds the web application when its sources changed, and compresses it ahead for the wire. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  createReadStream,
  createWriteStream,
  existsSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { constants, createBrotliCompress, createGzip } from 'node:zlib';
import { pathToFileURL } from 'node:url';
import { ROOT } from './root.mjs';

const DIST = path.join(ROOT, 'app', 'dist');
const STAMP = path.join(DIST, 'sources.sha256');
const SKIP = new Set(['node_modules', 'dist', '.expo', 'coverage']);

function* filesUnder(dir) {
  for (const entry of readdirSync(dir, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    if (SKIP.has(entry.name)) continue;
    const full = path.join(dir, entry.name);
    if (entry.isDirectory()) yield* filesUnder(full);
    else yield full;
  }
}

/** One hash over everything the application is made of. */
function sourcesHash() {
  const hash = createHash('sha256');
  for (const dir of ['app', 'core', 'contract'])
    for (const file of filesUnder(path.join(ROOT, dir))) {
      if (/\.test\.tsx?$/.test(file) || file.endsWith('expo-env.d.ts')) continue;
      hash.update(path.relative(ROOT, file)).update(readFileSync(file));
    }
  return hash.update(readFileSync(path.join(ROOT, 'package-lock.json'))).digest('hex');
}

/** Bundles the Expo application in `dir` for the web, into `out`. */
function exportWeb(dir, out) {
  return new Promise((resolve, reject) => {
    const child = spawn('npx', ['expo', 'export', '-p', 'web', '--output-dir', out], {
      cwd: dir,
      env: {
        ...process.env,
        NODE_OPTIONS: '',
        EXPO_OFFLINE: '1',
        EXPO_NO_TELEMETRY: '1',
        CI: '1',
        EXPO_UNSTABLE_METRO_OPTIMIZE_GRAPH: '1',
        EXPO_UNSTABLE_TREE_SHAKING: '1',
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (d) => (output += d));
    child.on('exit', (code) =>
      code === 0 ? resolve() : reject(new Error(`The web application could not be built:\n${output.slice(-6000)}`)),
    );
  });
}

async function compress() {
  for (const file of filesUnder(DIST)) {
    if (!/\.(js|css|html|json|svg|ttf|map)$/.test(file) || statSync(file).size < 1024) continue;
    const quality = { [constants.BROTLI_PARAM_QUALITY]: file.endsWith('.ttf') ? 6 : 9 };
    await pipeline(createReadStream(file), createBrotliCompress({ params: quality }), createWriteStream(`${file}.br`));
    await pipeline(createReadStream(file), createGzip({ level: 7 }), createWriteStream(`${file}.gz`));
  }
}

/** Returns whether anything had to be built. */
export async function buildWeb(say = console.log) {
  const now = sourcesHash();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === now) return false;
  say('Building the web application (about a minute or two)…');
  rmSync(DIST, { recursive: true, force: true });
  await exportWeb(path.join(ROOT, 'app'), 'dist');
  await compress();
  writeFileSync(STAMP, now);
  return true;
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  // With a folder and a place to write to, another Expo application is bundled in the same way.
  const [dir, out] = process.argv.slice(2);
  if (dir && out) await exportWeb(dir, out);
  else {
    const built = await buildWeb();
    console.log(built ? 'The web application is built.' : 'The web application is up to date.');
  }
}
