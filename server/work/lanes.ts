/**
 * Which work goes where, and how much each piece may take. People who are signing never wait behind somebody's work: the
 * pages they see (`pages`), what they do (`acts`) and what seals their acts (`seal`) have worker processes that nothing
 * else uses. What members wait for at the desk (`desk`), comparisons (`compare`), papers that are brought in (`papers`),
 * scanned pages whose words are recognized (`scans`) and sealed copies that anybody may have checked (`check`) have
 * processes of their own.
 */
import type { TaskName } from './tasks';

/** Lanes of worker processes. */
export const LANES = ['pages', 'acts', 'seal', 'desk', 'compare', 'papers', 'scans', 'check'] as const;
/** One of `LANES`. */
export type Lane = (typeof LANES)[number];

/** Number of worker processes per lane, and how far it yields to others (`nice`, from 0). */
export const LANE_LIMITS: Record<Lane, { processes: number; nice: number }> = {
  pages: { processes: 2, nice: 0 },
  acts: { processes: 1, nice: 0 },
  seal: { processes: 2, nice: 0 },
  desk: { processes: 2, nice: 5 },
  compare: { processes: 1, nice: 10 },
  papers: { processes: 2, nice: 10 },
  scans: { processes: 2, nice: 10 },
  check: { processes: 1, nice: 10 },
};
/** Lanes whose first process is started with the server. */
export const WARM_LANES: readonly Lane[] = ['pages', 'acts', 'seal', 'desk', 'papers'];

/** What a task may use. */
export interface Allowance {
  lane: Lane;
  /** CPU time for one step, in seconds. A task that reports its position starts a new step. */
  seconds: number;
}

/** Every task by name: its lane and its allowance. */
export const ALLOWED: Record<TaskName, Allowance> = {
  png: { lane: 'pages', seconds: 20 },
  missing: { lane: 'acts', seconds: 20 },
  faces: { lane: 'acts', seconds: 20 },
  picture: { lane: 'acts', seconds: 20 },
  seal: { lane: 'seal', seconds: 180 },
  copy: { lane: 'seal', seconds: 60 },
  gateCheck: { lane: 'desk', seconds: 30 },
  slots: { lane: 'desk', seconds: 30 },
  kit: { lane: 'desk', seconds: 30 },
  again: { lane: 'desk', seconds: 30 },
  recall: { lane: 'desk', seconds: 30 },
  fingerprint: { lane: 'papers', seconds: 30 },
  relation: { lane: 'papers', seconds: 30 },
  learn: { lane: 'papers', seconds: 30 },
  corrections: { lane: 'papers', seconds: 30 },
  abstract: { lane: 'papers', seconds: 30 },
  missingOn: { lane: 'desk', seconds: 30 },
  marksFor: { lane: 'desk', seconds: 30 },
  marksOverPrint: { lane: 'desk', seconds: 30 },
  marksBeside: { lane: 'desk', seconds: 30 },
  written: { lane: 'desk', seconds: 20 },
  changes: { lane: 'compare', seconds: 60 },
  changesPdf: { lane: 'compare', seconds: 60 },
  writtenOfMany: { lane: 'papers', seconds: 60 },
  letters: { lane: 'papers', seconds: 60 },
  recognise: { lane: 'scans', seconds: 120 },
  layWords: { lane: 'papers', seconds: 120 },
  gaps: { lane: 'papers', seconds: 60 },
  sort: { lane: 'papers', seconds: 10 },
  convert: { lane: 'papers', seconds: 30 },
  prepare: { lane: 'papers', seconds: 60 },
  read: { lane: 'papers', seconds: 20 },
  compose: { lane: 'papers', seconds: 120 },
  inspect: { lane: 'papers', seconds: 120 },
  words: { lane: 'papers', seconds: 30 },
  sizes: { lane: 'papers', seconds: 60 },
  bundle: { lane: 'papers', seconds: 60 },
  table: { lane: 'papers', seconds: 30 },
  signatures: { lane: 'papers', seconds: 60 },
  verifySeals: { lane: 'check', seconds: 30 },
};

/** A task may take this many times its allowance in wall time: on a busy machine, or waiting for a disk. */
export const WALL_FACTOR = 6;
/** Maximum memory of one worker process, in bytes. */
export const MOST_MEMORY = 1_500 * 1024 * 1024;
/** A worker that holds more than this after its work is replaced: WebAssembly never returns memory. */
export const TIDY_MEMORY = 500 * 1024 * 1024;
/** Maximum number of tasks waiting in a lane, and of one owner among them. */
export const MOST_WAITING = 240;
/** Maximum number of waiting tasks of one owner in a lane. */
export const MOST_OF_ONE = 80;
