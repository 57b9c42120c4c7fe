/** Settings of a kit that its users cannot change. */
import type { Draft, DraftEdit, DraftField, DraftList } from '../packet/draft';
import type { PacketParty } from '../packet/types';
import type { ChangeCommand } from '../routing';

/** Names of the settings of a kit that can be locked. */
export const LOCKS = ['name', 'message', 'schedule', 'path', 'people', 'papers', 'marks', 'reports'] as const;
/** What can be locked; each stands for the fields and lists of a draft it covers. */
export type Lock = (typeof LOCKS)[number];

/** Who locked what. */
export type Locks = Partial<Record<Lock, { memberId: string; name: string }>>;

/** What a lock is called where it is set, and where it stops an edit. */
export const LOCK_WORDS: Record<Lock, string> = {
  name: 'the name',
  message: 'subject and message',
  schedule: 'nudges, the last day and when it goes',
  path: 'the order',
  people: 'what people do',
  papers: 'the papers',
  marks: 'the marks',
  reports: 'who is notified',
};

const OF_FIELD: Record<DraftField, Lock> = {
  name: 'name',
  subject: 'message',
  message: 'message',
  schedule: 'schedule',
  handOver: 'schedule',
  readAlong: 'schedule',
  reports: 'reports',
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

/** Returns the lock that covers an edit. */
export const lockOf = (edit: DraftEdit): Lock => (edit.op === 'set' ? OF_FIELD[edit.field] : OF_LIST[edit.list]);

/** The lock that covers a change after sending. Changes that must always be possible have none. */
const OF_CHANGE: Partial<Record<ChangeCommand['type'], Lock>> = {
  set_path: 'path',
  change_act: 'people',
  change_marks: 'marks',
  add_document: 'papers',
  set_reading: 'schedule',
};

/** Returns the lock that a change after sending would break; null if none. */
export function lockBrokenBy(change: ChangeCommand['type'], locks: Locks): Broken | null {
  const lock = OF_CHANGE[change];
  const by = lock && locks[lock];
  return by ? { lock, by: by.name } : null;
}

interface Broken {
  lock: Lock;
  by: string;
}

/** Returns the sentence for a broken lock: "Odile Farrant locked the order. …" */
export const lockedWords = ({ lock, by }: Broken) =>
  `${by} locked ${LOCK_WORDS[lock]} in the kit this packet was made from. Ask ${by}, or start a packet without the kit.`;

/** Returns what a person does, without who they are: names and addresses can always be corrected. */
const doing = ({ act, only, secondStep, copyAt, note, memberId }: PacketParty) =>
  JSON.stringify([act, only, secondStep, copyAt, note, memberId]);

/**
 * Returns the first lock that edits would break; null if none.
 *
 * @param before the draft they apply to
 */
export function brokenLock(
  edits: readonly DraftEdit[],
  locks: Locks,
  before: Pick<Draft, 'parties'> = { parties: [] },
): Broken | null {
  for (const edit of edits) {
    const lock = lockOf(edit);
    if (edit.op === 'put' && edit.list === 'parties') {
      const was = before.parties.find((p) => p.id === edit.item.id);
      if (was && doing(was) === doing(edit.item)) continue;
    }
    const by = locks[lock];
    if (by) return { lock, by: by.name };
  }
  return null;
}
