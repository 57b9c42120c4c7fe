/**
 * A draft on the screen: the server's, with the edits that it has not accepted yet, and what undoes them. Nothing here
 * knows React, the network or the device.
 */
import { applyEdits, invertEdits, type Draft, type DraftEdit } from '@gatepath/core/packet';
import { replaceEqualDeep } from '@tanstack/react-query';
import { TEXT } from './words';

/** Whether everything is saved. */
export interface Saving {
  state: 'saved' | 'saving' | 'offline' | 'refused';
  /** Words for the screen. */
  sentence: string;
}

/** A draft as the server has it. */
export interface SavedBase {
  draft: Draft;
  version: number;
}

export interface DraftState {
  base: SavedBase;
  /** Edits that the server has not accepted yet, oldest first. */
  waiting: DraftEdit[];
  saving: Saving;
  /** The base with the waiting edits. */
  draft: Draft;
  /** The edits that undo each act, newest last. */
  past: DraftEdit[][];
  /** The edits that do again what was undone, the next one last. */
  future: DraftEdit[][];
}

export type DraftAction =
  /** The server's draft is another one now. */
  | { type: 'base'; base: SavedBase }
  /** What waits to be saved, and whether it can be; with the server's draft if edits were accepted. */
  | { type: 'queue'; waiting: DraftEdit[]; saving: Saving; base?: SavedBase }
  /** An act is about to be made by these edits. */
  | { type: 'act'; edits: DraftEdit[] }
  /** The last act is about to be undone. */
  | { type: 'undo' }
  /** What was undone last is about to be done again. */
  | { type: 'redo' }
  /** Nothing can be undone any more: it was made on top of an edit that was refused. */
  | { type: 'forget-past' };

/** Maximum number of acts that can be undone. */
const UNDONE = 200;

export const openDraft = (base: SavedBase): DraftState => ({
  base,
  waiting: [],
  saving: { state: 'saved', sentence: TEXT.saved },
  draft: base.draft,
  past: [],
  future: [],
});

/** Returns whether two lists hold the same objects. */
export const isSame = (a: readonly unknown[], b: readonly unknown[]) =>
  a.length === b.length && a.every((x, i) => x === b[i]);

/**
 * Returns the state with the draft computed from its base and waiting edits. Items that did not change stay the same
 * objects: parts of the screen that show them are not drawn again after every save.
 */
const redrafted = (state: DraftState): DraftState => ({
  ...state,
  draft: replaceEqualDeep(state.draft, applyEdits(state.base.draft, state.waiting)),
});

function queued(state: DraftState, waiting: DraftEdit[]): DraftState {
  const was = state.waiting;
  if (isSame(was, waiting)) return state;
  const next = { ...state, waiting };
  // New edits at the end of the list are applied to the current draft. After any other change of the list the draft
  // is computed from the server's.
  return waiting.length > was.length && isSame(was, waiting.slice(0, was.length))
    ? { ...next, draft: applyEdits(state.draft, waiting.slice(was.length)) }
    : redrafted(next);
}

/** Returns the edits by which the last act is undone; null if there is none. */
export const editsOfUndo = ({ past }: Pick<DraftState, 'past'>): DraftEdit[] | null => past[past.length - 1] ?? null;
/** Returns the edits by which the act undone last is done again; null if there is none. */
export const editsOfRedo = ({ future }: Pick<DraftState, 'future'>): DraftEdit[] | null =>
  future[future.length - 1] ?? null;

/** Returns the state after an action; the given one is unchanged. */
export function reduceDraft(state: DraftState, action: DraftAction): DraftState {
  const { draft, past, future } = state;
  switch (action.type) {
    case 'base':
      return redrafted({ ...state, base: action.base });
    case 'queue':
      return {
        ...(action.base
          ? redrafted({ ...state, base: action.base, waiting: action.waiting })
          : queued(state, action.waiting)),
        saving: action.saving,
      };
    case 'act':
      return { ...state, past: [...past.slice(1 - UNDONE), invertEdits(draft, action.edits)], future: [] };
    case 'undo': {
      const edits = editsOfUndo(state);
      return edits ? { ...state, past: past.slice(0, -1), future: [...future, invertEdits(draft, edits)] } : state;
    }
    case 'redo': {
      const edits = editsOfRedo(state);
      return edits ? { ...state, future: future.slice(0, -1), past: [...past, invertEdits(draft, edits)] } : state;
    }
    case 'forget-past':
      return { ...state, past: [], future: [] };
  }
}
