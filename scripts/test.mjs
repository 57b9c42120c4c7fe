/**
 * npm test: everything there is to check, on a fresh clone too. Its last line counts.
 *
 *     npm test                      everything
 *     npm test -- core server       only these parts: types, lint, core, server, app, e2e
 *     npm test -- --changed [REV]   only what the changes since a commit (HEAD unless named) can affect
 */
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
/** The native TypeScript compiler. It takes half the time; ESLint and Expo still need the one in JavaScript. */
const TSC = 'node_modules/typescript-native/bin/tsc';
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
/** The name of each that failed, for the last lines. */
const failures = [];
const begun = Date.now();
const seconds = (since) => `${Math.round((Date.now() - since) / 1000)} s`;

/** One check that is a whole command: it passes or fails as one, and says what it said when it is over. */
function check(name, command, args) {
  return new Promise((resolve) => {
    const said = [];
    const since = Date.now();
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], env: process.env });
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => said.push(data));
    child.on('error', (error) => said.push(Buffer.from(String(error))));
    child.on('close', (code) => {
      console.log(`${code === 0 ? 'ok' : 'FAILED'} ${name} ${seconds(since)}`);
      if (code !== 0) process.stdout.write(Buffer.concat(said));
      if (code === 0) passed++;
      else {
        failed++;
        failures.push(name);
      }
      resolve(code === 0);
    });
  });
}

/** The first lines of what a failed test said, without colors and calls. */
const beginning = (messages) =>
  messages
    .join('\n')
    // eslint-disable-next-line no-control-regex -- colors of a terminal
    .replace(/\u001b\[\d+m/g, '')
    .split('\n')
    .filter((line) => line.trim() && !/^\s+at /.test(line))
    .slice(0, LINES_OF_A_FAILURE)
    .map((line) => `\n    ${line.slice(0, 200)}`)
    .join('');
const LINES_OF_A_FAILURE = 8;

/** Jest projects, each file told as it is done; tests are counted one by one, and a file that cannot run counts as failed. */
function jest(projects, extra = []) {
  console.log(`\n── ${projects.join(', ')}`);
  const out = path.join(mkdtempSync(path.join(os.tmpdir(), 'gatepath-')), 'jest.json');
  spawnSync(
    'npx',
    [
      'jest',
      '--silent',
      '--forceExit',
      '--reporters',
      path.join(ROOT, 'scripts', 'jest', 'reporter.cjs'),
      '--json',
      '--outputFile',
      out,
      ...extra,
      '--selectProjects',
      ...projects,
    ],
    // The JSON goes to the file alone; what the reporter says is written where it is seen at once.
    { cwd: ROOT, stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, NODE_OPTIONS: '--no-warnings' } },
  );
  if (!existsSync(out)) {
    failed++;
    return;
  }
  const r = JSON.parse(readFileSync(out, 'utf8'));
  const none = r.numTotalTests === 0 && !extra.some((x) => x.startsWith('--changedSince'));
  for (const { name, status, assertionResults } of r.testResults) {
    const file = path.relative(ROOT, name);
    const those = assertionResults.filter((one) => one.status === 'failed');
    failures.push(...those.map((one) => `${file}: ${one.fullName}${beginning(one.failureMessages)}`));
    if (status === 'failed' && !those.length) failures.push(`${file} did not run`);
  }
  passed += r.numPassedTests;
  failed += r.numFailedTests + r.numRuntimeErrorTestSuites + (none ? 1 : 0);
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

/** Files that differ from a commit, those git does not know yet among them. */
function filesSince(rev) {
  const git = (...args) => spawnSync('git', args, { cwd: ROOT }).stdout.toString().split('\n').filter(Boolean);
  const all = [...git('diff', '--name-only', rev), ...git('ls-files', '--others', '--exclude-standard')];
  return [...new Set(all)].filter((f) => existsSync(path.join(ROOT, f)));
}

ensureInstall();
ensureTools();
const args = process.argv.slice(2);
const at = args.indexOf('--changed');
const since = at < 0 ? null : (args[at + 1] ?? 'HEAD');
const only = at < 0 ? args : args.slice(0, at);
const wanted = (name) => only.length === 0 || only.includes(name);
const changed = since === null ? null : filesSince(since);
const touched = (pattern) => changed === null || changed.some((f) => pattern.test(f));

/** What can be told without running anything, one after another: the web application is built beside it. */
async function withoutRunning() {
  if (wanted('types') && touched(/\.tsx?$/)) {
    await check('types', 'node', [TSC, '-p', 'tsconfig.json', '--noEmit']);
    await check('types of the application', 'node', [TSC, '-p', 'app/tsconfig.json', '--noEmit']);
    await check('types of demo and bench', 'node', [TSC, '-p', 'bench/tsconfig.json', '--noEmit']);
  }
  if (wanted('lint')) {
    const code = (changed ?? ['.']).filter((f) => f === '.' || /\.(?:tsx?|mjs|cjs|js)$/.test(f));
    const text = (changed ?? ['.']).filter((f) => f === '.' || /\.(?:tsx?|mjs|cjs|js|json|md)$/.test(f));
    if (code.length) await check('lint', 'npx', ['eslint', ...code, '--max-warnings', '0', '--no-warn-ignored']);
    // Promises that nobody awaits are found with types, which the native compiler has in a sixth of the time.
    if (code.length)
      await check('promises', 'npx', ['oxlint', '--type-aware', '--no-error-on-unmatched-pattern', ...code]);
    if (code.length)
      await check('direction of imports', 'npx', ['depcruise', '--config', '.dependency-cruiser.cjs', ...HOUSE]);
    if (text.length) await check('format', 'npx', ['oxfmt', '--check', '--no-error-on-unmatched-pattern', ...text]);
  }
}

// Whatever is part of the product can change what a browser shows.
const inBrowser =
  wanted('e2e') && touched(/^(?:app|core|contract|server|e2e)\/(?!.*\.test\.tsx?$)|^e2e\/|^package-lock/);
const [, built] = await Promise.all([
  withoutRunning(),
  inBrowser ? check('web build', 'node', ['scripts/build-web.mjs']) : false,
]);
const projects = [
  ...(wanted('core') ? ['core'] : []),
  ...(wanted('server') ? ['server', 'embedded'] : []),
  ...(wanted('app') ? ['app'] : []),
];
const all = ['--maxWorkers', '100%'];
// All in one go, as many files at once as there are processors: the long ones begin, the short ones fill up.
if (changed === null) {
  const both = [...projects, ...(built ? ['e2e'] : [])];
  if (both.length) jest(both, all);
} else {
  if (projects.length) jest(projects, [...all, `--changedSince=${since}`, '--passWithNoTests']);
  if (built) jest(['e2e'], all);
}
console.log(`\n${seconds(begun)} in all`);
// Repeated here: a long log may be cut, and its end is read first.
for (const one of failures) console.log(`failed: ${one}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
