/** A scratch PostgreSQL server on a free port. It need not outlive a power cut. */
const { execFileSync, spawnSync } = require('node:child_process');
const { existsSync, mkdtempSync, readdirSync, rmSync, chmodSync, chownSync } = require('node:fs');
const net = require('node:net');
const os = require('node:os');
const path = require('node:path');

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

/**
 * Starts a server.
 *
 * @param {{ durable?: boolean }} options  whether what was committed outlives a crash of the server; slower
 * @returns {Promise<{ url: string, crash(): void, start(): void, remove(): void }>} `url` without a database; `crash`
 *   cuts off whatever runs; `start` starts a server that crashed; `remove` stops the server and deletes its data
 */
exports.startCluster = async ({ durable = false } = {}) => {
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
  const settings = `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c fsync=off -c synchronous_commit=${durable ? 'on' : 'off'} -c full_page_writes=off -c max_connections=300`;
  const control = (...args) => run('pg_ctl', ['-D', data, ...args]);
  let running = false;
  const start = () => {
    control('-l', path.join(dir, 'log'), '-w', '-t', '120', '-o', settings, 'start');
    running = true;
  };
  const crash = () => {
    control('-m', 'immediate', 'stop');
    running = false;
  };
  start();
  return {
    url: `postgres://gatepath@127.0.0.1:${port}`,
    crash,
    start,
    remove() {
      if (running) crash();
      rmSync(dir, { recursive: true, force: true });
    },
  };
};
