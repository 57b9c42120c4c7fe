/** The worker processes: nothing that draws, reads, seals or verifies a file runs on the request thread. */
import { SCRIPT_FACES } from '@gatepath/core/packet';
import { busy, WorkFailure } from './failure';
import { Hand, type Job } from './hand';
import { ALLOWED, LANE_LIMITS, LANES, MOST_OF_ONE, MOST_WAITING, TIDY_MEMORY, WARM_LANES, type Lane } from './lanes';
import { workerProgram } from './program';
import { Rota } from './rota';
import type { Tasks, TaskName } from './tasks';

interface LaneState {
  waiting: Rota<Job>;
  hands: Hand[];
}

/** The worker processes of a server; see `run`. */
export class WorkPool {
  private readonly lanes: Record<Lane, LaneState>;
  private closed = false;
  private readonly ready: Promise<void>;

  /** The workers' program, once it is built. */
  private program: string | null = null;

  /** @param width most worker processes of any lane; they are started as they are wanted */
  constructor(private readonly width = Infinity) {
    const lane = (): LaneState => ({ waiting: new Rota(MOST_WAITING, MOST_OF_ONE), hands: [] });
    this.lanes = {
      pages: lane(),
      acts: lane(),
      seal: lane(),
      desk: lane(),
      compare: lane(),
      papers: lane(),
      scans: lane(),
      check: lane(),
    };
    this.ready = workerProgram().then((file) => {
      this.program = file;
      for (const name of LANES) this.next(name);
    });
  }

  /**
   * Runs a task in a worker process.
   *
   * @param owner whose work it is, for taking turns: a deal, a packet
   * @returns what the task returns
   * @throws `WorkFailure` when it passed its allowance or the library inside it failed
   * @throws `Problem` 503 when too much is waiting already
   */
  run<K extends TaskName>(task: K, input: Parameters<Tasks[K]>[0], owner = ''): Promise<Awaited<ReturnType<Tasks[K]>>> {
    const { lane, seconds } = ALLOWED[task];
    return new Promise((resolve, reject) => {
      const job: Job = { task, input, seconds, resolve: resolve as (value: unknown) => void, reject };
      if (this.closed) return reject(new WorkFailure('stopped', task, null, seconds));
      if (!this.lanes[lane].waiting.push(owner, job)) return reject(busy());
      this.next(lane);
    });
  }

  /** Starts a worker in every warm lane and loads its fonts, so that the first client does not wait. */
  async warm(): Promise<void> {
    await this.ready;
    for (const lane of WARM_LANES) if (!this.lanes[lane].hands.length) this.start(lane);
    for (const face of [...SCRIPT_FACES, 'document'] as const) await this.run('missing', { text: 'Żofia Ж Σ', face });
  }

  /** Ends all workers; their tasks fail as `stopped`. */
  async close(): Promise<void> {
    this.closed = true;
    for (const lane of LANES) {
      const { waiting, hands } = this.lanes[lane];
      for (const job of waiting.drain()) job.reject(new WorkFailure('stopped', job.task, null, job.seconds));
      for (const hand of hands) hand.stop();
    }
    while (LANES.some((lane) => this.lanes[lane].hands.length)) await new Promise((r) => setTimeout(r, 5));
  }

  private start(lane: Lane): Hand {
    const hand = new Hand(lane, this.program!, (h) => this.changed(lane, h));
    this.lanes[lane].hands.push(hand);
    return hand;
  }

  private changed(lane: Lane, hand: Hand): void {
    const { hands, waiting } = this.lanes[lane];
    if (hand.ended) {
      const at = hands.indexOf(hand);
      if (at >= 0) hands.splice(at, 1);
      // The next task should find a worker that is ready.
      if (at >= 0 && !this.closed && !hands.some((h) => !h.ended)) this.start(lane);
    } else if (!waiting.size && hand.memory() > TIDY_MEMORY) {
      hand.stop();
      return;
    }
    this.next(lane);
  }

  private next(lane: Lane): void {
    const { hands, waiting } = this.lanes[lane];
    while (waiting.size && !this.closed && this.program) {
      const free =
        hands.find((h) => !h.busy && !h.ended) ??
        (hands.filter((h) => !h.ended).length < Math.min(this.width, LANE_LIMITS[lane].processes)
          ? this.start(lane)
          : null);
      if (!free) return;
      free.give(waiting.shift()!);
    }
  }
}
