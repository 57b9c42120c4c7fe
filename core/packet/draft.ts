/**
 * A draft packet and its edits. An edit is data: it travels to the server, is applied there
 * and here by the same function, and can be turned round for undo. All lists hold items with
 * an `id`, so edits of two people meet item by item rather than overwrite each other.
 */
import { NO_SCHEDULE, type Schedule } from '../calendar';
import type { Delivery, Gate, PacketParty, InitialsRule, Mark, Redline } from './types';

/** A document of a draft, with the pages and text runs its marks need. */
export interface DraftDocument {
  id: string;
  /** It is a returned paper: only what is missing on it is asked for. */
  byHand?: boolean;
}

/** Returns whether a document of a draft came back signed by hand. */
export const isByHand = (draft: Pick<Draft, 'documents'>, documentId: string): boolean =>
  draft.documents.some((d) => d.id === documentId && d.byHand);

/** A packet before it is sent. */
export interface Draft {
  name: string;
  subject: string;
  message: string;
  parties: PacketParty[];
  documents: DraftDocument[];
  gates: Gate[];
  marks: Mark[];
  rules: InitialsRule[];
  redlines: Redline[];
  /** Printed places that were dismissed on purpose. */
  passed: LeftOutPlace[];
  schedule: Schedule;
  /** Whether a party may hand over to somebody else. */
  handOver: boolean;
  /** Whether those whose gate is still ahead may read along; absent in drafts of before that could be. */
  readAlong?: boolean;
  /** Ids of members who are notified like the sender; absent for nobody. */
  reports?: string[];
  /** The packet of which this draft is the new version. */
  replaces?: { packetId: string; version: number };
  /** The executed packet whose documents get a late round. */
  continues?: { packetId: string; packetName: string };
  /** How delivery is counted; absent for the usual way. */
  delivery?: Delivery;
}

/** A dismissed printed place; its id is the place's. */
export interface LeftOutPlace {
  id: string;
}

interface DraftLists {
  parties: PacketParty;
  documents: DraftDocument;
  gates: Gate;
  marks: Mark;
  rules: InitialsRule;
  redlines: Redline;
  passed: LeftOutPlace;
}
/** Name of a list of a draft. */
export type DraftList = keyof DraftLists;
/** All lists of a draft. */
export const DRAFT_LISTS: DraftList[] = ['parties', 'documents', 'gates', 'marks', 'rules', 'redlines', 'passed'];
interface DraftFields {
  name: string;
  subject: string;
  message: string;
  schedule: Schedule;
  handOver: boolean;
  readAlong: boolean;
  reports: string[];
}
/** Name of a field of a draft. */
export type DraftField = keyof DraftFields;
/** All fields of a draft. */
export const DRAFT_FIELDS: DraftField[] = [
  'name',
  'subject',
  'message',
  'schedule',
  'handOver',
  'readAlong',
  'reports',
];

/** Maximum sizes of a packet: enough for the largest one. Pages are those of all its documents. */
export const PACKET_LIMITS = {
  documents: 60,
  pages: 1000,
  parties: 60,
  gates: 60,
  marks: 20_000,
  rules: 60,
  redlines: 2000,
  passed: 20_000,
} as const;

/** Returns the list of a draft that exceeds its limit; null if none. */
export const overLimit = (draft: Draft): DraftList | null =>
  DRAFT_LISTS.find((list) => draft[list].length > PACKET_LIMITS[list]) ?? null;

type PutEdit = { [L in DraftList]: { op: 'put'; list: L; item: DraftLists[L]; index?: number } }[DraftList];
type SetEdit = { [F in DraftField]: { op: 'set'; field: F; value: DraftFields[F] } }[DraftField];
/** An invertible change of a draft. */
export type DraftEdit = PutEdit | { op: 'drop'; list: DraftList; id: string } | SetEdit;

type AnyItem = { id: string };

const isObject = (value: unknown): value is object => typeof value === 'object' && value !== null;

/**
 * Returns whether a value has the shape of an edit, so that applying it cannot fail. Whether its item makes sense is
 * checked by the server.
 */
export function isDraftEdit(value: unknown): value is DraftEdit {
  if (!isObject(value) || !('op' in value)) return false;
  if (value.op === 'set') return 'field' in value && DRAFT_FIELDS.some((f) => f === value.field) && 'value' in value;
  if (!('list' in value) || !DRAFT_LISTS.some((l) => l === value.list)) return false;
  if (value.op === 'drop') return 'id' in value && typeof value.id === 'string';
  return (
    value.op === 'put' && 'item' in value && isObject(value.item) && typeof Reflect.get(value.item, 'id') === 'string'
  );
}

/** Returns an empty draft. */
export function emptyDraft(name: string): Draft {
  return {
    name,
    subject: '',
    message: '',
    parties: [],
    documents: [],
    gates: [],
    marks: [],
    rules: [],
    redlines: [],
    passed: [],
    schedule: NO_SCHEDULE,
    handOver: false,
    readAlong: false,
  };
}

/** Returns the draft after one edit; the given one is unchanged. Dropping an item that does not exist is no error. */
export function applyEdit(draft: Draft, edit: DraftEdit): Draft {
  if (edit.op === 'set') return { ...draft, [edit.field]: edit.value };
  const list: AnyItem[] = draft[edit.list];
  if (edit.op === 'drop') return { ...draft, [edit.list]: list.filter((i) => i.id !== edit.id) };
  const was = list.findIndex((i) => i.id === edit.item.id);
  const next = list.filter((i) => i.id !== edit.item.id);
  const index = edit.index ?? (was >= 0 ? was : next.length);
  next.splice(Math.max(0, Math.min(index, next.length)), 0, edit.item);
  return { ...draft, [edit.list]: next };
}

/** Returns the draft after several edits, in order. */
export function applyEdits(draft: Draft, edits: DraftEdit[]): Draft {
  return edits.reduce(applyEdit, draft);
}

/** Returns the edit that undoes `edit`, given the draft before it. */
export function invertEdit(before: Draft, edit: DraftEdit): DraftEdit {
  if (edit.op === 'set')
    return { op: 'set', field: edit.field, value: before[edit.field] ?? emptyDraft('')[edit.field] } as DraftEdit;
  const id = edit.op === 'put' ? edit.item.id : edit.id;
  const list: AnyItem[] = before[edit.list];
  const index = list.findIndex((i) => i.id === id);
  if (index < 0) return { op: 'drop', list: edit.list, id };
  return { op: 'put', list: edit.list, item: list[index], index } as DraftEdit;
}

/** Returns the edits, in order, that undo `edits`. */
export function invertEdits(before: Draft, edits: DraftEdit[]): DraftEdit[] {
  const back: DraftEdit[] = [];
  let at = before;
  for (const edit of edits) {
    back.unshift(invertEdit(at, edit));
    at = applyEdit(at, edit);
  }
  return back;
}

/** Returns the edits that remove a party from the packet, with everything that depends on it. */
export function editsToRemoveParty(draft: Draft, partyId: string): DraftEdit[] {
  return [
    ...draft.marks
      .filter((m) => m.partyId === partyId)
      .map((m): DraftEdit => ({ op: 'drop', list: 'marks', id: m.id })),
    ...draft.rules
      .filter((r) => r.partyIds.includes(partyId))
      .map((r): DraftEdit => ({
        op: 'put',
        list: 'rules',
        item: {
          ...r,
          partyIds: r.partyIds.filter((p) => p !== partyId),
          except: r.except.filter((e) => e.partyId !== partyId),
          moved: r.moved.filter((m) => m.partyId !== partyId),
        },
      })),
    ...draft.redlines
      .filter((r) => r.moved.some((m) => m.partyId === partyId))
      .map((r): DraftEdit => ({
        op: 'put',
        list: 'redlines',
        item: { ...r, moved: r.moved.filter((m) => m.partyId !== partyId) },
      })),
    ...draft.gates
      .filter((g) => g.partyIds.includes(partyId))
      .map((g): DraftEdit => ({
        op: 'put',
        list: 'gates',
        item: { ...g, partyIds: g.partyIds.filter((p) => p !== partyId) },
      })),
    { op: 'drop', list: 'parties', id: partyId },
  ];
}

/** Returns the edits that remove a document from the packet, with its marks and its rule. */
export function editsToRemoveDocument(draft: Draft, documentId: string): DraftEdit[] {
  return [
    ...draft.marks
      .filter((m) => m.documentId === documentId)
      .map((m): DraftEdit => ({ op: 'drop', list: 'marks', id: m.id })),
    ...draft.rules
      .filter((r) => r.documentId === documentId)
      .map((r): DraftEdit => ({ op: 'drop', list: 'rules', id: r.id })),
    ...draft.redlines
      .filter((r) => r.documentId === documentId)
      .map((r): DraftEdit => ({ op: 'drop', list: 'redlines', id: r.id })),
    ...draft.passed
      .filter((p) => p.id.startsWith(`${documentId}.`))
      .map((p): DraftEdit => ({ op: 'drop', list: 'passed', id: p.id })),
    { op: 'drop', list: 'documents', id: documentId },
  ];
}
