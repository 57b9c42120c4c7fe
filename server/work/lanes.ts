/**
 * Which work goes where, and how much each piece may take. People who are signing never wait
 * behind somebody's import: what they see (`view`), what seals their acts (`seal`) and papers
 * that are brought in (`papers`) have worker processes of their own, and so have pages whose words are recognised
 * (`scans`), which take seconds each.
 */
import type { TaskName } from './tasks';

export const LANES = ['view', 'seal', 'papers', 'scans'] as const;
export type Lane = (typeof LANES)[number];

export interface Allowance {
  lane: Lane;
  /** Processor time for one step, in seconds; a task that tells where it is begins a new step with it. */
  seconds: number;
}

/** Every task by name: its lane and its allowance. */
export const ALLOWED: Record<TaskName, Allowance> = {
  png: { lane: 'view', seconds: 20 },
  missing: { lane: 'view', seconds: 20 },
  faces: { lane: 'view', seconds: 20 },
  gateCheck: { lane: 'view', seconds: 60 },
  slots: { lane: 'view', seconds: 60 },
  kit: { lane: 'view', seconds: 60 },
  again: { lane: 'view', seconds: 60 },
  missingOn: { lane: 'view', seconds: 60 },
  marksFor: { lane: 'view', seconds: 60 },
  marksOverPrint: { lane: 'view', seconds: 60 },
  marksBeside: { lane: 'view', seconds: 60 },
  copy: { lane: 'view', seconds: 60 },
  changes: { lane: 'view', seconds: 60 },
  changesPdf: { lane: 'papers', seconds: 60 },
  written: { lane: 'view', seconds: 60 },
  writtenOfMany: { lane: 'papers', seconds: 60 },
  letters: { lane: 'papers', seconds: 60 },
  seal: { lane: 'seal', seconds: 180 },
  picture: { lane: 'papers', seconds: 30 },
  recognise: { lane: 'scans', seconds: 120 },
  layWords: { lane: 'papers', seconds: 120 },
  gaps: { lane: 'papers', seconds: 60 },
  sort: { lane: 'papers', seconds: 10 },
  convert: { lane: 'papers', seconds: 60 },
  prepare: { lane: 'papers', seconds: 60 },
  read: { lane: 'papers', seconds: 20 },
  compose: { lane: 'papers', seconds: 120 },
  inspect: { lane: 'papers', seconds: 120 },
  words: { lane: 'papers', seconds: 30 },
  sizes: { lane: 'papers', seconds: 60 },
  bundle: { lane: 'papers', seconds: 60 },
  table: { lane: 'papers', seconds: 30 },
  signatures: { lane: 'papers', seconds: 60 },
  checkSeals: { lane: 'papers', seconds: 60 },
};

/** A task may stand still for so many times its allowance: on a machine that is busy, or waiting for a disk. */
export const WALL_FACTOR = 6;
/** Memory one worker process may hold, in bytes. */
export const MOST_MEMORY = 1_500 * 1024 * 1024;
/** A worker that holds more than this after its work makes room for a fresh one: WebAssembly never gives back. */
export const TIDY_MEMORY = 500 * 1024 * 1024;
/** Tasks that may wait in a lane, and those of one owner among them. */
export const MOST_WAITING = 240;
export const MOST_OF_ONE = 80;
