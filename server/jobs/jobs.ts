/** Background work over pg-boss: mail and sealing. A job is queued in the transaction it follows from. */
import PgBoss from 'pg-boss';
import type pg from 'pg';
import type { Tx } from '../db/tx';

export type JobName = 'mail' | 'seal';
const NAMES: JobName[] = ['mail', 'seal'];
const BATCH = 25;

export class Jobs {
  private readonly boss: PgBoss;
  private readonly workers = new Map<JobName, string>();
  /** Set once the server is going down: failures from then on are not the work's fault. */
  stopping = false;

  constructor(
    pool: pg.Pool,
    private readonly onError: (error: unknown) => void,
  ) {
    this.boss = new PgBoss({ db: { executeSql: (text, values) => pool.query(text, values) } });
    this.boss.on('error', (e) => {
      if (!this.stopping) this.onError(e);
    });
  }

  async start(): Promise<void> {
    await this.boss.start();
    for (const name of NAMES)
      await this.boss.createQueue(name, {
        name,
        retryLimit: 5,
        retryDelay: 5,
        retryBackoff: true,
        expireInSeconds: 600,
      });
  }

  /** Takes up work of one kind; `handle` must bear being called twice for the same job. */
  async work(name: JobName, handle: (id: string) => Promise<void>): Promise<void> {
    // One at a time a worker would wait out its interval after each; what is queued together goes together.
    const options = { pollingIntervalSeconds: 2, batchSize: BATCH };
    const worker = await this.boss.work<{ id: string }>(name, options, async (jobs) => {
      const failed: unknown[] = [];
      for (const id of new Set(jobs.map((j) => j.data.id))) {
        try {
          await handle(id);
        } catch (error) {
          if (!this.stopping) this.onError(error);
          failed.push(error);
        }
      }
      // The whole batch is tried again: what was done already bears it.
      if (failed.length) throw failed[0];
    });
    this.workers.set(name, worker);
  }

  /** Queues a job as part of a transaction; it starts when, and only if, the transaction commits. */
  async queue(tx: Tx, name: JobName, id: string): Promise<void> {
    await this.boss.send(name, { id }, { db: { executeSql: (text, values) => tx.db.query(text, values) } });
    tx.afterCommit(() => {
      const worker = this.workers.get(name);
      if (worker) this.boss.notifyWorker(worker);
    });
  }

  async stop(): Promise<void> {
    this.stopping = true;
    await this.boss.stop({ graceful: true, timeout: 10_000, close: false, wait: true });
  }
}
