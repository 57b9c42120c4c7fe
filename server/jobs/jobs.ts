/**
 * Background jobs: one per thing, enqueued in the transaction it follows from. Each kind has its own retries with
 * growing pauses; failures are shown on the Firm screen. Jobs are in the database, so they outlive the process, and
 * several servers share them: each leases what it runs.
 */
import type { Database, Db } from '../db/pool';
import type { Tx } from '../db/tx';
import { newId } from '../ids';
import { type Live, topics } from '../live/live';
import * as q from './queries';
import { isOneOf, keysOf } from '@gatepath/core/sure';
import { codeOf, messageOf } from '../errors';
import { isTransient } from '../transient';

/** Kinds of background jobs. */
export type JobName =
  | 'mail'
  | 'seal'
  | 'read'
  /** Recognizing the words of scanned pages. */
  | 'scan'
  /** Reviewing the places of a returned paper. */
  | 'gaps'
  | 'tick'
  | 'digest'
  | 'calendar'
  | 'snapshot'
  | 'tidy'
  | 'deal'
  | 'rules'
  | 'binder'
  | 'notice'
  | 'form'
  /** Finding out which known document a document is. */
  | 'remember'
  /** The same for documents that an earlier version has read. */
  | 'memory'
  /** Reading what a document says about its deal. */
  | 'abstract';

interface Kind {
  /** Number of tries after the first. */
  again: number;
  /** Seconds before the next try; each pause is longer than the one before. */
  pause: number;
  /** Time limit of one attempt, in seconds. */
  limit: number;
  /** How many of them one server runs at a time. */
  atOnce: number;
}

const KINDS: Record<JobName, Kind> = {
  mail: { again: 5, pause: 5, limit: 120, atOnce: 8 },
  seal: { again: 5, pause: 5, limit: 900, atOnce: 2 },
  read: { again: 2, pause: 5, limit: 3_600, atOnce: 3 },
  // Runs in slices well within the limit.
  scan: { again: 3, pause: 5, limit: 1_800, atOnce: 2 },
  gaps: { again: 2, pause: 5, limit: 3_600, atOnce: 2 },
  tick: { again: 5, pause: 10, limit: 60, atOnce: 4 },
  digest: { again: 5, pause: 30, limit: 60, atOnce: 2 },
  calendar: { again: 5, pause: 5, limit: 60, atOnce: 1 },
  snapshot: { again: 2, pause: 30, limit: 120, atOnce: 1 },
  deal: { again: 3, pause: 5, limit: 120, atOnce: 2 },
  // Runs in slices well within the limit.
  rules: { again: 3, pause: 5, limit: 600, atOnce: 1 },
  form: { again: 3, pause: 5, limit: 120, atOnce: 1 },
  remember: { again: 2, pause: 5, limit: 300, atOnce: 1 },
  abstract: { again: 2, pause: 5, limit: 300, atOnce: 2 },
  // Runs in slices well within the limit.
  memory: { again: 3, pause: 30, limit: 3_600, atOnce: 1 },
  // A run is divided into slices well within the limit.
  notice: { again: 5, pause: 5, limit: 120, atOnce: 1 },
  binder: { again: 2, pause: 10, limit: 3_600, atOnce: 1 },
  tidy: { again: 2, pause: 60, limit: 3_600, atOnce: 1 },
};
/** All kinds of background jobs. */
export const JOB_NAMES = keysOf(KINDS);

/** How often a server polls for jobs it was not notified of: delayed ones, and those other servers left. */
const LOOK_MS = 2_000;
/** How long a job waits while another one with the same subject runs. */
const A_MOMENT_MS = 200;
/** How often a server renews the leases of its jobs and looks for expired ones. */
const LEASES_MS = 10_000;
/**
 * Seconds after which a job is taken from a server that does not renew its lease, because it was killed or cut off.
 */
const LEASE = 60;

/** Waits for a handler, at most some seconds. @throws Error if it does not end in time */
async function within(seconds: number, name: JobName, handled: Promise<void>): Promise<void> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(
      () => reject(new Error(`${name} did not end within ${Math.round(seconds)} seconds`)),
      seconds * 1000,
    );
    timer.unref();
  });
  try {
    await Promise.race([handled, late]);
  } finally {
    clearTimeout(timer);
  }
}

/** Returns the pause before the next try, in seconds: each is twice the one before, and no two servers' are equal. */
function pauseBefore(name: JobName, tries: number): number {
  return KINDS[name].pause * 2 ** Math.min(tries - 1, 16) * (1 + Math.random());
}

/** Handles a job; must be idempotent. */
export type Handle = (id: string) => Promise<void>;

interface Queue {
  handle: Handle;
  running: Map<string, { jobId: string; done: Promise<void> }>;
  /** A request arrived while the queue was being polled: poll again. */
  dirty: boolean;
  looking: Promise<void> | null;
  timer: NodeJS.Timeout | null;
}

/** Runs background jobs. Make one per server, register handlers with `work`, then `start`. */
export class Jobs {
  /** Names this server in the leases of its jobs. */
  private readonly runner = newId();
  private readonly queues = new Map<JobName, Queue>();
  private readonly stops: (() => void)[] = [];
  private leases: NodeJS.Timeout | null = null;
  /** Set once the server stops: failures from then on are not the handler's. */
  stopping = false;

  constructor(
    private readonly database: Database,
    private readonly live: Live,
    private readonly onError: (error: unknown) => void,
    /** Returns what a job was about, in words, for the list of failures. */
    private readonly describe: (name: JobName, id: string) => Promise<string> = async (name) => name,
  ) {}

  async start(): Promise<void> {
    // The embedded database is this server's alone: what is under way there was cut off with the last one. On a database
    // server others may be at work. A job may have ended the process: that counts as a try.
    if (this.database.kind === 'embedded') await this.endExpired(await q.expire(this.database.pool, 0, this.runner));
    else await this.mindLeases();
    const mind = () =>
      this.mindLeases().catch((error: unknown) => {
        if (!this.stopping) this.onError(error);
      });
    this.leases = setInterval(() => void mind(), LEASES_MS);
  }

  /** Registers the handler of one kind of job. It must be idempotent. */
  work(name: JobName, handle: Handle): void {
    const queue: Queue = { handle, running: new Map(), dirty: false, looking: null, timer: null };
    this.queues.set(name, queue);
    this.stops.push(this.live.on(topics.work(name), () => this.look(name)));
    this.look(name);
  }

  /** Enqueues a job in a transaction. It starts if and when the transaction commits, or some seconds later. */
  async queue(tx: Tx, name: JobName, id: string, inSeconds = 0): Promise<void> {
    await this.send(tx.db, name, id, inSeconds);
    if (!inSeconds) tx.afterCommit(() => this.look(name));
  }

  /** Enqueues a job outside a transaction, at once or some seconds from now. */
  async queueNow(name: JobName, id: string, inSeconds = 0): Promise<void> {
    await this.send(this.database.pool, name, id, inSeconds);
    if (!inSeconds) this.look(name);
  }

  /** Enqueues a failed job again. */
  async tryAgain(name: JobName, id: string): Promise<void> {
    await q.deleteFailure(this.database.pool, name, id);
    await this.queueNow(name, id);
  }

  /** Renews the leases of this server's running jobs, and requeues jobs whose lease has expired. */
  async mindLeases(): Promise<void> {
    await q.renew(this.database.pool, this.running(), this.runner);
    await this.endExpired(await q.expire(this.database.pool, LEASE, this.runner));
  }

  /** Returns the ids of this server's running jobs. */
  private running(): string[] {
    return [...this.queues.values()].flatMap((x) => [...x.running.values()].map((r) => r.jobId));
  }

  /** Waits until no job of a kind is due or running here. */
  async idle(name: JobName): Promise<void> {
    for (;;) {
      const queue = this.queues.get(name);
      if (this.stopping || !queue) return;
      if (queue.looking) await queue.looking;
      else if (queue.running.size) await Promise.all([...queue.running.values()].map((r) => r.done));
      else if (await q.isWaiting(this.database.pool, name)) {
        this.look(name);
        // Some of it may be due only in a moment.
        if (!queue.running.size) await new Promise((r) => setTimeout(r, 20));
        // One may have been taken while the database was asked.
      } else if (!queue.looking && !queue.running.size) return;
    }
  }

  /** Waits for running jobs to end, returns those that do not end soon to the queue, and takes no more. */
  async stop(): Promise<void> {
    this.stopping = true;
    if (this.leases) clearInterval(this.leases);
    for (const stop of this.stops) stop();
    const all = [...this.queues.values()];
    for (const { timer } of all) if (timer) clearTimeout(timer);
    await Promise.all(all.map((x) => x.looking));
    const running = all.flatMap((x) => [...x.running.values()]);
    await Promise.race([
      Promise.all(running.map((r) => r.done)),
      new Promise((r) => setTimeout(r, running.length ? 10_000 : 0).unref()),
    ]);
    await q.giveBack(this.database.pool, this.running(), this.runner).catch(() => undefined);
  }

  private send(db: Db, name: JobName, thing: string, inSeconds: number): Promise<void> {
    return q.insertJob(db, { id: newId(), name, thing, mostTries: KINDS[name].again + 1, inSeconds });
  }

  /** Polls for jobs of a kind, now and regularly. */
  private look(name: JobName): void {
    const queue = this.queues.get(name);
    if (!queue || this.stopping) return;
    queue.dirty = true;
    queue.looking ??= this.take(name, queue)
      .catch((error: unknown) => {
        if (!this.stopping) this.onError(error);
      })
      .finally(() => {
        queue.looking = null;
        if (this.stopping) return;
        // A request may have come between the last poll and here.
        if (queue.dirty && queue.running.size < KINDS[name].atOnce) return this.look(name);
        if (queue.timer) clearTimeout(queue.timer);
        queue.timer = setTimeout(() => this.look(name), LOOK_MS);
      });
  }

  private async take(name: JobName, queue: Queue): Promise<void> {
    while (queue.dirty && !this.stopping) {
      queue.dirty = false;
      const room = KINDS[name].atOnce - queue.running.size;
      if (room <= 0) return;
      const jobs = await q.takeJobs(this.database.pool, name, this.runner, room);
      for (const job of jobs) {
        // Two jobs of one thing, one of them tried again: the second waits for its turn.
        if (queue.running.has(job.thing)) {
          await this.waitForOther(job);
          setTimeout(() => this.look(name), A_MOMENT_MS + 20).unref();
          continue;
        }
        const done = this.run(name, queue.handle, job).finally(() => {
          queue.running.delete(job.thing);
          this.look(name);
        });
        queue.running.set(job.thing, { jobId: job.id, done });
      }
      if (jobs.length === room) queue.dirty = true;
    }
  }

  private async waitForOther(job: q.JobRow): Promise<void> {
    try {
      await q.waitForOther(this.database.pool, job.id, this.runner, A_MOMENT_MS / 1000);
    } catch (error) {
      // A new one of the same thing was enqueued in this moment.
      if (codeOf(error) !== '23505') throw error;
      await q.deleteJob(this.database.pool, job.id, this.runner);
    }
  }

  private async run(name: JobName, handle: Handle, job: q.JobRow): Promise<void> {
    try {
      await within(KINDS[name].limit, name, handle(job.thing));
      await q.deleteJob(this.database.pool, job.id, this.runner);
      if (job.tries > 0) await q.deleteFailure(this.database.pool, name, job.thing);
    } catch (error) {
      // The server going down is no fault of the work; the next one does it.
      if (this.stopping) return;
      this.onError(error);
      // Busy, or the database is away: it is not the work that failed, so no try is used up.
      if (isTransient(error)) return await this.later(name, job).catch((e: unknown) => this.onError(e));
      await this.failed(name, job, error).catch((e: unknown) => this.onError(e));
    }
  }

  /** Returns a job to the queue after its pause, without counting a try. */
  private async later(name: JobName, job: q.JobRow): Promise<void> {
    await q.giveBack(this.database.pool, [job.id], this.runner, KINDS[name].pause);
    setTimeout(() => this.look(name), KINDS[name].pause * 1000 + 20).unref();
  }

  private async failed(name: JobName, job: q.JobRow, error: unknown): Promise<void> {
    const tries = job.tries + 1;
    if (tries < job.most_tries) {
      await q.retryJob(this.database.pool, job.id, this.runner, pauseBefore(name, tries));
      return;
    }
    await this.giveUp(name, job, messageOf(error).slice(0, 500), tries);
  }

  /** Records a failure for the Firm screen, and then deletes its job: a server stopped in between loses neither. */
  private async giveUp(
    name: JobName,
    job: { id: string; thing: string },
    detail: string,
    tries: number,
  ): Promise<void> {
    const words = await this.describe(name, job.thing).catch(() => name);
    await q.saveFailure(this.database.pool, { queue: name, thing: job.thing, words, detail, tries });
    await q.deleteJob(this.database.pool, job.id, this.runner);
    this.live.notify(topics.firm());
  }

  /** Takes over jobs of other servers, and fails those without tries left. */
  private async endExpired(expired: q.Expired[]): Promise<void> {
    for (const job of expired) {
      const { name, failed, tries } = job;
      if (!isOneOf(JOB_NAMES, name)) continue;
      if (failed) await this.giveUp(name, job, 'It did not finish: its server was stopped or killed each time.', tries);
      else this.look(name);
    }
  }
}
