/** The real server as a process of its own, on a folder of its own. */
import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { copyInto, removeFolder } from '../server/test/folders';
import { deleteDatabase, endLeases, newDatabase, onPostgres } from '../server/test/postgres';
import { SERVER_PROGRAM } from '../server/test/program';
import { TEMPLATE_DIR } from '../server/test/template';

/** The root of the project, where the tests and the pictures are started. */
export const ROOT = process.cwd();

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const s = net.createServer().listen(0, () => {
      const { port } = s.address() as net.AddressInfo;
      s.close(() => resolve(port));
    });
  });
}

export class ServerProcess {
  private child: ChildProcess | null = null;
  output = '';
  private constructor(
    readonly dir: string,
    readonly port: number,
    private readonly env: NodeJS.ProcessEnv,
    /** The database that was made for it, and goes with it. */
    private readonly ownDatabase: string | null,
  ) {}

  /**
   * Starts a server on PostgreSQL where the run has one; on the embedded database elsewhere and with `embedded`.
   *
   * @param options.databaseUrl  an empty database to work on instead
   */
  static async start(
    env: NodeJS.ProcessEnv = {},
    { embedded = !onPostgres(), databaseUrl }: { embedded?: boolean; databaseUrl?: string } = {},
  ): Promise<ServerProcess> {
    const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-e2e-'));
    const own = embedded || databaseUrl ? null : await newDatabase();
    if (embedded && existsSync(TEMPLATE_DIR)) copyInto(TEMPLATE_DIR, dir);
    const url = databaseUrl ?? own;
    const s = new ServerProcess(dir, await freePort(), { ...(url ? { DATABASE_URL: url } : {}), ...env }, own);
    await s.up();
    return s;
  }

  get url(): string {
    return `http://localhost:${this.port}`;
  }

  async up(): Promise<void> {
    this.child = spawn(process.execPath, SERVER_PROGRAM, {
      cwd: ROOT,
      env: {
        ...process.env,
        NODE_OPTIONS: '',
        PORT: String(this.port),
        HOST: '127.0.0.1',
        DATA_DIR: this.dir,
        ...this.env,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    for (const stream of [this.child.stdout!, this.child.stderr!])
      stream.on('data', (d: Buffer) => (this.output += d.toString()));
    const end = Date.now() + 90_000;
    while (!this.output.includes('Gate Path is ready')) {
      if (this.child.exitCode !== null || Date.now() > end)
        throw new Error(`the server did not start:\n${this.output}`);
      await new Promise((r) => setTimeout(r, 100));
    }
  }

  /** Ends the process at once, as a power cut or an out-of-memory kill would. */
  async kill(): Promise<void> {
    const gone = new Promise((r) => this.child!.once('exit', r));
    this.child!.kill('SIGKILL');
    await gone;
    this.output = '';
    // The next server would wait for them, as it cannot know that this one is gone.
    if (this.ownDatabase) await endLeases(this.ownDatabase);
  }

  /** Ends it as Ctrl-C does; returns the exit status. */
  async stop(): Promise<number | null> {
    const gone = new Promise<number | null>((r) => this.child!.once('exit', r));
    this.child!.kill('SIGINT');
    const code = await gone;
    return code;
  }

  /** Returns whether the server process is still running. */
  get isRunning(): boolean {
    return this.child !== null && this.child.exitCode === null && this.child.signalCode === null;
  }

  async remove(): Promise<void> {
    if (this.isRunning) await this.stop();
    if (this.ownDatabase) await deleteDatabase(this.ownDatabase);
    removeFolder(this.dir);
  }
}
