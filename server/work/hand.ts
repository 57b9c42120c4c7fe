/** One worker process: started, given one task at a time, watched, and ended when it passes its allowance. */
import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import os from 'node:os';
import { DamagedFile } from '../files/stored';
import { WorkFailure } from './failure';
import { LANE_LIMITS, MOST_MEMORY, WALL_FACTOR, type Lane } from './lanes';

/** How often a busy worker is checked, in milliseconds. */
const LOOK_MS = 100;
/** Seconds a process may take to start, on the slowest of machines. */
const MOST_TO_START = 180;
/** The environment variables a process gets: it handles strangers' files and needs none of our secrets. */
const ENV = ['PATH', 'HOME', 'TMPDIR', 'TEMP', 'LANG', 'SystemRoot'];

/** A worker process's answer. */
export type Reply = { ready: true } | { at: string } | { value: unknown } | { error: string; damaged?: string };

/** A task with its caller. */
export interface Job {
  task: string;
  input: unknown;
  seconds: number;
  resolve(value: unknown): void;
  reject(error: unknown): void;
}

interface UnderWay {
  job: Job;
  /** Its current step: "page 3". */
  at: string | null;
  /** CPU seconds the process had used when the step started, and when that was. */
  cpu: number;
  since: number;
}

/** One worker process. */
export class Hand {
  private readonly child: ChildProcess;
  private now: UnderWay | null = null;
  private watch: NodeJS.Timeout | null = null;
  private why: WorkFailure['reason'] | null = null;
  /** Whether the program has loaded; until then its time is not the task's. */
  private ready = false;
  /** Set once it takes no more work. */
  ended = false;

  constructor(
    lane: Lane,
    program: string,
    /** Called whenever it is free again, or has ended. */
    private readonly changed: (hand: Hand) => void,
  ) {
    const env = Object.fromEntries(ENV.flatMap((k) => (process.env[k] === undefined ? [] : [[k, process.env[k]]])));
    this.child = fork(program, [], {
      execArgv: ['--max-old-space-size=1200', '--no-warnings'],
      env,
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    this.child.on('message', (reply: Reply) => this.hear(reply));
    this.child.on('exit', () => this.end());
    this.child.on('error', () => this.end());
    // Work that nobody waits for at a screen yields to work that somebody does.
    const { nice } = LANE_LIMITS[lane];
    if (nice && this.child.pid)
      try {
        os.setPriority(this.child.pid, nice);
      } catch {
        // Some systems do not permit it; then all have the same priority.
      }
  }

  get busy(): boolean {
    return this.now !== null;
  }

  /** Returns the memory the process holds, in bytes; 0 if the system does not say. */
  memory(): number {
    return this.look()?.memory ?? 0;
  }

  give(job: Job): void {
    this.now = { job, at: null, cpu: this.look()?.cpu ?? 0, since: Date.now() };
    this.watch = setInterval(() => this.check(), LOOK_MS);
    this.child.send({ task: job.task, input: job.input }, (error) => {
      if (error) this.end();
    });
  }

  /** Ends the process; its task fails for the given reason. */
  stop(why: WorkFailure['reason'] = 'stopped'): void {
    this.why ??= why;
    this.ended = true;
    this.child.kill('SIGKILL');
  }

  private hear(reply: Reply): void {
    const now = this.now;
    if ('ready' in reply) this.ready = true;
    if (!now) return;
    if ('ready' in reply) {
      Object.assign(now, { cpu: this.look()?.cpu ?? 0, since: Date.now() });
      return;
    }
    if ('at' in reply) {
      Object.assign(now, { at: reply.at, cpu: this.look()?.cpu ?? 0, since: Date.now() });
      return;
    }
    if (this.watch) clearInterval(this.watch);
    this.now = null;
    if ('value' in reply) now.job.resolve(reply.value);
    else if (reply.damaged) now.job.reject(new DamagedFile(reply.damaged));
    else now.job.reject(new WorkFailure('error', now.job.task, now.at, now.job.seconds, reply.error));
    // A library that failed may be broken for whatever comes next.
    if ('error' in reply && !reply.damaged) this.stop();
    this.changed(this);
  }

  private check(): void {
    const now = this.now;
    if (!now) return;
    const seen = this.look();
    const waited = (Date.now() - now.since) / 1000;
    if (!this.ready) {
      if (waited > MOST_TO_START) this.stop('time');
      return;
    }
    if (seen && seen.memory > MOST_MEMORY) this.stop('memory');
    else if (seen ? seen.cpu - now.cpu > now.job.seconds : waited > now.job.seconds) this.stop('time');
    else if (waited > now.job.seconds * WALL_FACTOR) this.stop('time');
  }

  /** Returns CPU seconds used and memory held, if the system says (proc(5)). */
  private look(): { cpu: number; memory: number } | null {
    try {
      const stat = readFileSync(`/proc/${this.child.pid}/stat`, 'latin1');
      const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
      return { cpu: (Number(fields[11]) + Number(fields[12])) / 100, memory: Number(fields[21]) * 4096 };
    } catch {
      return null;
    }
  }

  private end(): void {
    if (this.watch) clearInterval(this.watch);
    this.ended = true;
    const now = this.now;
    this.now = null;
    now?.job.reject(new WorkFailure(this.why ?? 'died', now.job.task, now.at, now.job.seconds));
    this.changed(this);
  }
}
