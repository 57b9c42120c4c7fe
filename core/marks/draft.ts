/**
 * A draft packet and its edits. An edit is data: it travels to the server, is applied there
 * and here by the same function, and can be turned round for undo. All lists hold items with
 * an `id`, so edits of two people meet item by item rather than overwrite each other.
 */
import type { Gate, PacketParty } from '../routing/types';
import type { InitialsRule, Mark, PageFacts } from './types';
import { placeInitials } from './placing';

export interface DraftDocument {
  id: string;
}

export interface Draft {
  name: string;
  subject: string;
  message: string;
  parties: PacketParty[];
  documents: DraftDocument[];
  gates: Gate[];
  marks: Mark[];
  rules: InitialsRule[];
}

interface DraftLists {
  parties: PacketParty;
  documents: DraftDocument;
  gates: Gate;
  marks: Mark;
  rules: InitialsRule;
}
export type DraftList = keyof DraftLists;
export const DRAFT_LISTS: DraftList[] = ['parties', 'documents', 'gates', 'marks', 'rules'];
export type DraftField = 'name' | 'subject' | 'message';
export const DRAFT_FIELDS: DraftField[] = ['name', 'subject', 'message'];

type PutEdit = { [L in DraftList]: { op: 'put'; list: L; item: DraftLists[L]; index?: number } }[DraftList];
export type DraftEdit =
  PutEdit | { op: 'drop'; list: DraftList; id: string } | { op: 'set'; field: DraftField; value: string };

type AnyItem = { id: string };

/** A packet with nothing in it. */
export function emptyDraft(name: string): Draft {
  return { name, subject: '', message: '', parties: [], documents: [], gates: [], marks: [], rules: [] };
}

/** The draft after one edit; the given draft stays as it was. Dropping what is not there is no error. */
export function applyEdit(draft: Draft, edit: DraftEdit): Draft {
  if (edit.op === 'set') return { ...draft, [edit.field]: edit.value };
  const list = draft[edit.list] as AnyItem[];
  if (edit.op === 'drop') return { ...draft, [edit.list]: list.filter((i) => i.id !== edit.id) };
  const was = list.findIndex((i) => i.id === edit.item.id);
  const next = list.filter((i) => i.id !== edit.item.id);
  const index = edit.index ?? (was >= 0 ? was : next.length);
  next.splice(Math.max(0, Math.min(index, next.length)), 0, edit.item);
  return { ...draft, [edit.list]: next };
}

/** The draft after several edits in order. */
export function applyEdits(draft: Draft, edits: DraftEdit[]): Draft {
  return edits.reduce(applyEdit, draft);
}

/** The edit that takes `edit` back, given the draft before it. */
export function invertEdit(before: Draft, edit: DraftEdit): DraftEdit {
  if (edit.op === 'set') return { op: 'set', field: edit.field, value: before[edit.field] };
  const id = edit.op === 'put' ? edit.item.id : edit.id;
  const list = before[edit.list] as AnyItem[];
  const index = list.findIndex((i) => i.id === id);
  if (index < 0) return { op: 'drop', list: edit.list, id };
  return { op: 'put', list: edit.list, item: list[index], index } as DraftEdit;
}

/** The edits, in order, that take `edits` back. */
export function invertEdits(before: Draft, edits: DraftEdit[]): DraftEdit[] {
  const back: DraftEdit[] = [];
  let at = before;
  for (const edit of edits) {
    back.unshift(invertEdit(at, edit));
    at = applyEdit(at, edit);
  }
  return back;
}

/** The edits that take a party out of the packet, with everything that hangs on it. */
export function editsToDropParty(draft: Draft, partyId: string): DraftEdit[] {
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

/** The edits that take a document out of the packet, with its marks and its rule. */
export function editsToDropDocument(draft: Draft, documentId: string): DraftEdit[] {
  return [
    ...draft.marks
      .filter((m) => m.documentId === documentId)
      .map((m): DraftEdit => ({ op: 'drop', list: 'marks', id: m.id })),
    ...draft.rules
      .filter((r) => r.documentId === documentId)
      .map((r): DraftEdit => ({ op: 'drop', list: 'rules', id: r.id })),
    { op: 'drop', list: 'documents', id: documentId },
  ];
}

/** A document as the rules see it. */
export interface DocumentFacts {
  id: string;
  name: string;
  pages: PageFacts[];
}

/** A page that a rule asks for and on which the search found no free space. */
export interface Unplaced {
  documentId: string;
  page: number;
  partyId: string;
}

export interface ResolvedMarks {
  marks: Mark[];
  unplaced: Unplaced[];
}

/**
 * All marks of a draft: those placed by hand, and those made from the initials rules.
 * Marks that point at a document, page or party which is not in the packet are left out.
 */
export function resolveMarks(draft: Draft, documents: DocumentFacts[]): ResolvedMarks {
  const parties = new Set(draft.parties.map((p) => p.id));
  const inPacket = new Set(draft.documents.map((d) => d.id));
  const facts = new Map(documents.filter((d) => inPacket.has(d.id)).map((d) => [d.id, d]));
  const marks = draft.marks.filter(
    (m) => parties.has(m.partyId) && facts.has(m.documentId) && facts.get(m.documentId)!.pages[m.page - 1],
  );
  const unplaced: Unplaced[] = [];
  const out = [...marks];
  for (const rule of draft.rules) {
    const doc = facts.get(rule.documentId);
    if (!doc) continue;
    const made = marksOfRule(rule, doc, marks, draft.parties);
    out.push(...made.marks);
    unplaced.push(...made.unplaced);
  }
  return { marks: out, unplaced };
}

/** The marks one rule makes on one document, around the marks placed by hand. */
export function marksOfRule(
  rule: InitialsRule,
  doc: DocumentFacts,
  handMarks: Mark[],
  parties: PacketParty[],
): ResolvedMarks {
  const out: Mark[] = [];
  const unplaced: Unplaced[] = [];
  // Side by side in the packet's order of parties, whatever order they were ticked in.
  const inOrder = parties.filter((p) => rule.partyIds.includes(p.id)).map((p) => p.id);
  const onDoc = handMarks.filter((m) => m.documentId === doc.id);
  // Initials placed by hand on a page stand in for the rule's there.
  const byHand = new Set(onDoc.filter((m) => m.kind === 'initials').map((m) => `${m.page}:${m.partyId}`));
  const excepted = new Set(rule.except.map((e) => `${e.page}:${e.partyId}`));
  const moved = new Map(rule.moved.map((m) => [`${m.page}:${m.partyId}`, m.rect]));
  const groups = new Map<string, number[]>();
  doc.pages.forEach((_, i) => {
    const page = i + 1;
    const wanted = inOrder.filter((p) => !byHand.has(`${page}:${p}`) && !excepted.has(`${page}:${p}`));
    const toPlace = wanted.filter((p) => !moved.has(`${page}:${p}`));
    for (const p of wanted) {
      const rect = moved.get(`${page}:${p}`);
      if (rect) out.push(ruleMark(rule, doc.id, page, p, rect));
    }
    if (toPlace.length) groups.set(toPlace.join(','), [...(groups.get(toPlace.join(',')) ?? []), page]);
  });
  for (const [key, pages] of groups) {
    const who = key.split(',');
    const placed = placeInitials(
      pages.map((page) => ({
        page,
        facts: doc.pages[page - 1]!,
        obstacles: [
          ...onDoc.filter((m) => m.page === page).map((m) => m.rect),
          ...out.filter((m) => m.page === page).map((m) => m.rect),
        ],
      })),
      who.length,
      rule.anchor,
    );
    for (const page of pages) {
      const rects = placed.get(page);
      who.forEach((partyId, i) => {
        if (rects) out.push(ruleMark(rule, doc.id, page, partyId, rects[i]!));
        else unplaced.push({ documentId: doc.id, page, partyId });
      });
    }
  }
  return { marks: out, unplaced };
}

function ruleMark(rule: InitialsRule, documentId: string, page: number, partyId: string, rect: Mark['rect']): Mark {
  return {
    id: `${rule.id}.${page}.${partyId}`,
    documentId,
    page,
    kind: 'initials',
    partyId,
    rect,
    required: true,
    ruleId: rule.id,
  };
}
