/** npm test: everything there is to check, on a fresh clone too. Its last line counts. */
import { Buffer } from 'node:buffer';
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ensureInstall } from './ensure-install.mjs';
import { ROOT } from './root.mjs';

/** Debian packages whose programs the tests call. */
const TOOLS = {
  chromium: ['chromium'],
  'poppler-utils': ['pdfsig', 'pdftotext', 'pdftoppm', 'pdfinfo'],
  openssl: ['openssl'],
  qpdf: ['qpdf'],
  'mupdf-tools': ['mutool'],
  postgresql: ['initdb', 'pg_ctl'],
};
/** Where Debian keeps programs of PostgreSQL that are not on the path. */
const POSTGRES = '/usr/lib/postgresql';

const onPath = (program) =>
  spawnSync('sh', ['-c', `command -v ${program}`]).status === 0 ||
  (existsSync(POSTGRES) && readdirSync(POSTGRES).some((v) => existsSync(path.join(POSTGRES, v, 'bin', program))));

function ensureTools() {
  const missing = Object.keys(TOOLS).filter((name) => !TOOLS[name].every(onPath));
  if (!missing.length) return;
  console.log(`Installing ${missing.join(', ')}…`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const options = { stdio: 'ignore', env };
  if (spawnSync('apt-get', ['update', '-qq'], options).status === 0)
    spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], options);
  const still = missing.filter((name) => !TOOLS[name].every(onPath));
  if (still.length) {
    console.error(
      `The tests need ${still.join(', ')}. Install them (Debian: apt-get install ${still.join(' ')}) and try again.`,
    );
    process.exit(1);
  }
}

let passed = 0;
let failed = 0;

/** One check that is a whole command: it passes or fails as one, and says what it said when it is over. */
function check(name, command, args) {
  return new Promise((resolve) => {
    const said = [];
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], env: process.env });
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => said.push(data));
    child.on('error', (error) => said.push(Buffer.from(String(error))));
    child.on('close', (code) => {
      console.log(`\n── ${name}`);
      process.stdout.write(Buffer.concat(said));
      if (code === 0) passed++;
      else failed++;
      resolve(code === 0);
    });
  });
}

/** Jest projects; their tests are counted one by one, and a file that cannot run counts as failed. */
function jest(projects, extra = []) {
  console.log(`\n── ${projects.join(' and ')} tests`);
  const out = path.join(mkdtempSync(path.join(os.tmpdir(), 'gatepath-')), 'jest.json');
  spawnSync(
    'npx',
    ['jest', '--silent', '--forceExit', '--selectProjects', ...projects, '--json', '--outputFile', out, ...extra],
    {
      cwd: ROOT,
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, NODE_OPTIONS: '--experimental-vm-modules --no-warnings' },
    },
  );
  if (!existsSync(out)) {
    failed++;
    return;
  }
  const r = JSON.parse(readFileSync(out, 'utf8'));
  passed += r.numPassedTests;
  failed += r.numFailedTests + r.numRuntimeErrorTestSuites + (r.numTotalTests === 0 ? 1 : 0);
}

/** Where our own code is, for the check that nothing imports in a circle. */
const HOUSE = [
  'core',
  'contract',
  'server',
  'app/app',
  'app/features',
  'app/api',
  'app/ui',
  'app/places.ts',
  'demo',
  'e2e',
  'bench',
];

ensureInstall();
ensureTools();
const only = process.argv.slice(2);
const wanted = (name) => only.length === 0 || only.includes(name);

/** What can be told without running anything, one after another: the web application is built beside it. */
async function withoutRunning() {
  if (wanted('types')) {
    await check('types', 'npx', ['tsc', '-p', 'tsconfig.json', '--noEmit']);
    await check('types of the application', 'npx', ['tsc', '-p', 'app/tsconfig.json', '--noEmit']);
  }
  if (wanted('lint')) {
    await check('lint', 'npx', ['eslint', '.', '--max-warnings', '0']);
    await check('direction of imports', 'npx', ['depcruise', '--config', '.dependency-cruiser.cjs', ...HOUSE]);
    await check('format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
  }
}

const [, built] = await Promise.all([
  withoutRunning(),
  wanted('e2e') ? check('web build', 'node', ['scripts/build-web.mjs']) : false,
]);
// The server's tests run on the embedded database, and on a PostgreSQL server that the tests start and remove.
const projects = [
  ...(wanted('core') ? ['core'] : []),
  ...(wanted('server') ? ['server', 'postgres'] : []),
  ...(wanted('app') ? ['app'] : []),
  ...(built ? ['e2e'] : []),
];
// All in one go, as many files at once as there are processors: the long ones begin, the short ones fill up.
if (projects.length) jest(projects, ['--maxWorkers', '100%']);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
