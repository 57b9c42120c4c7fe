/**
 * A PostgreSQL server for the tests: a scratch cluster on a free port, with one migrated template
 * that every test file's database is a copy of. It goes with the tests.
 */
const { execFileSync, spawnSync } = require('node:child_process');
const { existsSync, mkdtempSync, readdirSync, chmodSync, chownSync } = require('node:fs');
const net = require('node:net');
const os = require('node:os');
const path = require('node:path');
const sharedSetup = require('./global-setup.cjs');

/** Where Debian keeps the programs of each version; on other systems they are on the path. */
function programs() {
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return '';
  const newest = readdirSync(base).sort((a, b) => Number(b) - Number(a))[0];
  return newest ? path.join(base, newest, 'bin') : '';
}

const freePort = () =>
  new Promise((resolve) => {
    const s = net.createServer().listen(0, '127.0.0.1', () => {
      const { port } = s.address();
      s.close(() => resolve(port));
    });
  });

module.exports = async () => {
  await sharedSetup();
  const bin = programs();
  const root = process.getuid?.() === 0;
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-pg-'));
  // PostgreSQL does not run as root: then it runs as the user its package made.
  const run = (program, args) => {
    const command = [path.join(bin, program), ...args];
    const [c, ...a] = root ? ['runuser', '-u', 'postgres', '--', ...command] : command;
    const r = spawnSync(c, a, { stdio: ['ignore', 'pipe', 'pipe'], cwd: os.tmpdir() });
    if (r.status !== 0) throw new Error(`${program} failed: ${r.error ?? ''}${r.stdout}${r.stderr}`);
  };
  if (root) {
    const uid = Number(execFileSync('id', ['-u', 'postgres']).toString());
    chownSync(dir, uid, Number(execFileSync('id', ['-g', 'postgres']).toString()));
    chmodSync(dir, 0o700);
  }
  const data = path.join(dir, 'data');
  const port = await freePort();
  run('initdb', ['-D', data, '-U', 'gatepath', '-A', 'trust', '-E', 'UTF8', '--locale=C', '-N']);
  // Nothing here has to outlive a power cut.
  const settings = `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c fsync=off -c synchronous_commit=off -c full_page_writes=off -c max_connections=300`;
  run('pg_ctl', ['-D', data, '-l', path.join(dir, 'log'), '-w', '-t', '120', '-o', settings, 'start']);
  process.env.GATEPATH_TEST_PG = `postgres://gatepath@127.0.0.1:${port}`;
  globalThis.__GATEPATH_PG__ = { stop: () => run('pg_ctl', ['-D', data, '-m', 'immediate', 'stop']), dir };
  const script = path.join(__dirname, 'make-template.ts');
  execFileSync(process.execPath, ['--import', 'tsx', script, 'postgres'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_OPTIONS: '' },
  });
};
