/** Settings of a kit that those who use it cannot change. */
import type { DraftEdit, DraftField, DraftList } from '../packet/draft';

export const LOCKS = ['name', 'message', 'schedule', 'path', 'people', 'papers', 'marks'] as const;
/** What can be locked: each stands for the fields and lists of a draft that it is about. */
export type Lock = (typeof LOCKS)[number];

/** Who locked what. */
export type Locks = Partial<Record<Lock, { memberId: string; name: string }>>;

/** What a lock is called where it is set, and where it stops somebody. */
export const LOCK_WORDS: Record<Lock, string> = {
  name: 'the name',
  message: 'subject and message',
  schedule: 'nudges and the last day',
  path: 'the order',
  people: 'what people do',
  papers: 'the papers',
  marks: 'the marks',
};

const OF_FIELD: Record<DraftField, Lock> = {
  name: 'name',
  subject: 'message',
  message: 'message',
  schedule: 'schedule',
  handOver: 'schedule',
  readAlong: 'schedule',
};
const OF_LIST: Record<DraftList, Lock> = {
  parties: 'people',
  documents: 'papers',
  gates: 'path',
  marks: 'marks',
  rules: 'marks',
  redlines: 'marks',
  passed: 'marks',
};

/** What an edit is about. */
export const lockOf = (edit: DraftEdit): Lock => (edit.op === 'set' ? OF_FIELD[edit.field] : OF_LIST[edit.list]);

/** The first lock that edits would break; null when they break none. */
export function brokenLock(edits: readonly DraftEdit[], locks: Locks): { lock: Lock; by: string } | null {
  for (const edit of edits) {
    const lock = lockOf(edit);
    const by = locks[lock];
    if (by) return { lock, by: by.name };
  }
  return null;
}
