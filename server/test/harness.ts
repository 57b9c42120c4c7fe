/** A real server on a copy of the template database. */
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { utimes } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import type { DealView, HandBody, RouteName } from '@gatepath/contract';
import { dayOf, morningOf, NUDGE_HOUR } from '@gatepath/core/calendar';
import { sure } from '@gatepath/core/sure';
import type { Side } from '@gatepath/core/text';
import { buildServer, type Running } from '../app';
import { readConfig } from '../config';
import { ALL_FILES } from '../files/tidy';
import { hashPassword } from '../firm/password';
import { insertMember, listMembers } from '../firm/queries';
import { newId } from '../ids';
import { InProcess, type Answer } from '../in-process';
import type { WorkPool } from '../work/pool';
import type { TaskName } from '../work/tasks';
import { validateAnswer } from './as-told';
import { copyInto, removeFolder } from './folders';
import { deleteDatabase, newDatabase, onPostgres } from './postgres';
import { RecordedWork } from './recorded';
import { TEMPLATE_DIR } from './template';

/** Worker processes that all servers of a Jest worker share: to start them, with their fonts, takes seconds. */
let work: WorkPool | null = null;

const FIRM_ZONE = 'America/New_York';

/** Returns the database of a folder; it is made with the first server that uses the folder. */
async function databaseOf(dir: string): Promise<string> {
  const note = path.join(dir, 'database-url');
  if (!existsSync(note)) writeFileSync(note, await newDatabase());
  return readFileSync(note, 'utf8');
}

export class TestServer extends InProcess {
  private constructor(
    readonly running: Running,
    readonly dir: string,
  ) {
    super(() => running.app);
  }

  /** Returns another member of the firm, signed in. */
  async member(name: string, email: string): Promise<{ id: string; cookie: string }> {
    const db = this.ctx.database.pool;
    const password = 'long enough 2';
    const { firm_id } = sure((await listMembers(db))[0], 'a member');
    const id = newId();
    await insertMember(db, {
      id,
      firm_id,
      name,
      email,
      role: 'member',
      password_hash: await hashPassword(password),
      at: new Date(),
    });
    const { cookie } = await this.call('signIn', { body: { email, password }, as: 'nobody' });
    return { id, cookie: sure(cookie, 'a session') };
  }

  /**
   * Starts a server on the embedded database or, in the runs on PostgreSQL, on a database there; unless
   * told otherwise the firm and its first member are there and signed in. `dir` is the folder of a
   * server that was stopped, or of one that runs beside this one.
   */
  static async start(options: { setUp?: boolean; env?: NodeJS.ProcessEnv; dir?: string } = {}): Promise<TestServer> {
    const dir = options.dir ?? mkdtempSync(path.join(os.tmpdir(), 'gatepath-test-'));
    const env: NodeJS.ProcessEnv = { DATA_DIR: dir, PORT: '0', HOST: '127.0.0.1', ...options.env };
    if (onPostgres()) env['DATABASE_URL'] = await databaseOf(dir);
    else if (!existsSync(path.join(dir, 'database'))) copyInto(TEMPLATE_DIR, dir);
    const config = readConfig(env, { demo: false });
    work ??= new RecordedWork();
    const server = new TestServer(
      await buildServer({ config, work, logLevel: process.env['LOG_LEVEL'] ?? 'silent' }),
      dir,
    );
    if (options.setUp !== false) await server.setUp();
    return server;
  }

  protected override heard(name: RouteName, answer: Answer<unknown>): void {
    validateAnswer(name, answer);
  }

  async setUp(): Promise<void> {
    const a = await this.call('setup', {
      body: {
        firmName: 'Towpath & Vane Realty',
        timeZone: FIRM_ZONE,
        name: 'Odile Farrant',
        email: 'odile@example.com',
        password: 'long enough 1',
      },
    });
    if (a.status !== 200) throw new Error(`set-up failed: ${a.raw.toString()}`);
    this.cookie = a.cookie!;
  }

  async stop(keep = false): Promise<void> {
    await this.running.close();
    if (keep) return;
    if (onPostgres()) await deleteDatabase(await databaseOf(this.dir));
    removeFolder(this.dir);
  }

  /** Opens a deal with people of one side, or of the sides given. */
  deal(
    address: string,
    people: (string | { side: Side; name: string; email?: string; phone?: string })[] = [],
    side: Side = 'seller',
    kind: DealView['kind'] = 'sale',
  ): Promise<DealView> {
    const parties = people.map((p) => (typeof p === 'string' ? { side, name: p } : p));
    return this.ok('newDeal', {
      body: {
        kind,
        address,
        city: 'Tern Lock',
        parties: parties.map((p) => ({ email: `${p.name.split(' ')[0]!.toLowerCase()}@example.com`, ...p })),
      },
    });
  }

  /** Lets an hour pass for files that were let go: they are deleted if nothing refers to them. */
  async afterAnHour(): Promise<void> {
    const old = new Date(Date.now() - 2 * 3_600_000);
    for await (const sha256 of this.ctx.files.all()) await utimes(this.ctx.files.fileOf(sha256), old, old);
    await this.ctx.database.pool.query(
      `update job set start_after = now() where name = 'tidy' and state <> 'running' and thing <> $1`,
      [ALL_FILES],
    );
    await this.ctx.jobs.idle('tidy');
  }

  /** Runs `work` while the named tasks of the worker processes fail with the error that `answer` returns; null lets them run. */
  async withTask<T>(tasks: TaskName[], answer: () => Error | null, work: () => Promise<T>): Promise<T> {
    const pool = this.ctx.work;
    const run = pool.run.bind(pool);
    pool.run = ((task: TaskName, ...rest: never[]) => {
      const error = tasks.includes(task) ? answer() : null;
      return error ? Promise.reject(error) : (run as (...all: unknown[]) => Promise<unknown>)(task, ...rest);
    }) as typeof pool.run;
    try {
      return await work();
    } finally {
      delete (pool as Partial<typeof pool>).run;
    }
  }

  /** Sets the clock to noon of its day where the firm is, so that no test depends on the hour it is run at. */
  toNoon(): void {
    const now = this.ctx.clock.now();
    const morning = morningOf(dayOf(now.toISOString(), FIRM_ZONE), FIRM_ZONE);
    this.ctx.clock.forward(Date.parse(morning) + (12 - NUDGE_HOUR) * 3_600_000 - now.getTime());
  }

  get ctx() {
    return this.running.ctx;
  }
}

export const typedHand = (name: string, initials: string): HandBody => ({
  form: 'typed',
  face: 'caveat',
  signature: name,
  initials,
});
