/**
 * Recalling a document: what was on it the last time, placed again on its pages for the people of another packet. Nothing
 * of the earlier deal comes along: the document comes as a form, with slots in place of people.
 */
import type { Draft, DraftEdit, LeftOutPlace } from '../packet/draft';
import { KIND_OF_PLACE, proposalsOf } from '../packet/proposals';
import type { DocumentFacts } from '../packet/resolve';
import type { Gate, InitialsRule, Mark, PacketParty } from '../packet/types';
import { overlapArea } from '../paper/geometry';
import { addForm, asTags, fillSlots, findAgain, gatesOf, slotsOf, type Filling, type Tags } from '../shelf';
import { asRead } from './as-read';
import { relationOf, type Relation } from './relation';

/** What is remembered of a document: what was on it, by role. */
export interface Remembered {
  /** The document as a form: see `formFrom` of the shelf. Its marks are where they were on the earlier document. */
  form: Draft;
  /** The earlier document. */
  before: DocumentFacts;
}

/** Who a slot became. */
export interface SlotRecalled {
  /** "Seller 1" */
  name: string;
  /** The parties that fill it; empty if the packet has nobody for it. */
  partyIds: string[];
}

/** What is recalled of a document for a packet. */
export interface Recalled {
  relation: Relation;
  /** What was found for certain, for the parties of the packet: marks, initials rules, and dismissed places. */
  marks: Mark[];
  rules: InitialsRule[];
  passed: LeftOutPlace[];
  /** The order of acts; null where the packet has an order that people may have chosen for other documents. */
  gates: Gate[] | null;
  /** The ids of those of `marks` that moved. */
  elsewhere: string[];
  /** Marks whose position is not certain. A member confirms each of them. */
  doubtful: Mark[];
  /** Number of remembered marks that were not certain, were not found, and whose slot nobody fills. */
  uncertain: number;
  lost: number;
  unfilled: number;
  slots: SlotRecalled[];
  /** Parties for whom the document has no line, and for whom free space was found. */
  beyond: string[];
  /** Number of printed places that are still without a mark once these are placed, and were not dismissed. */
  open: number;
}

/** Returns what is recalled of a document for a packet, or null if it is another document. */
export function recall(
  { form, before }: Remembered,
  after: DocumentFacts,
  draft: Draft,
  newId: () => string,
): Recalled | null {
  const relation = relationOf(before, after);
  if (relation.kind === 'other') return null;
  const [was, now] = [asRead(before), asRead(after)];
  // A person of no side belongs to the earlier deal.
  const slots = slotsOf(form.parties).filter((s) => s.slot !== 'person');
  const { marks, doubtful, moved, ...count } = marksAgain(form, was, now);
  const samePages = before.pages.length === after.pages.length;
  const rules = form.rules.map((r) => ({
    ...r,
    documentId: after.id,
    // On other pages they would be exceptions for other words.
    ...(samePages && relation.kind !== 'edition' ? {} : { except: [], moved: [] }),
  }));
  const passed = dismissedAgain(form, was, now);
  const filling = fillSlots(slots, draft.parties);
  const onPages = (of: Pick<Draft, 'marks' | 'rules' | 'passed'>) => ({
    draft: { ...form, parties: slots, documents: [{ id: after.id }], ...of },
    document: after,
  });
  const made = addForm(draft, onPages({ marks, rules, passed }), filling, newId);
  const alone = { ...filling, beyond: [] };
  const asked = addForm(draft, onPages({ marks: doubtful, rules: [], passed: [] }), alone, newId);
  const dismissed = new Set(made.draft.passed.map((p) => p.id));
  const there = { ...made.draft, marks: made.draft.marks.filter((m) => m.documentId === after.id) };
  return {
    relation,
    marks: newIn(draft.marks, there.marks),
    elsewhere: newIn(draft.marks, there.marks).flatMap((m) => (moved.has(placeKey(m)) ? [m.id] : [])),
    doubtful: newIn(draft.marks, asked.draft.marks),
    rules: newIn(draft.rules, made.draft.rules),
    passed: newIn(draft.passed, made.draft.passed),
    gates: gatesAgain(form, filling, draft, newId),
    ...count,
    unfilled: marks.filter((m) => filling.slots.some((f) => f.slot.id === m.partyId && !f.people.length)).length,
    slots: filling.slots.map((f) => ({ name: f.slot.name, partyIds: f.people.map((p) => p.id) })),
    beyond: made.beyond,
    open: after.places.filter(
      (p, i) =>
        !p.dismissed &&
        !dismissed.has(`${after.id}.${p.page}.${i}`) &&
        !there.marks.some(
          (m) => m.page === p.page && overlapArea(m.rect, p.rect) > 0.3 * Math.min(area(m.rect), area(p.rect)),
        ),
    ).length,
  };
}

const placeKey = ({ page, rect }: Mark) => `${page} ${rect.x} ${rect.y}`;

/**
 * Returns the marks that were found for certain, where those are that moved, the doubtful ones, and the numbers of doubtful and
 * lost ones; those of persons of no side stay behind.
 */
function marksAgain(form: Draft, before: DocumentFacts, after: DocumentFacts) {
  const strangers = new Set(slotsOf(form.parties).flatMap((s) => (s.slot === 'person' ? [s.id] : [])));
  const mine = form.marks.filter((m) => !strangers.has(m.partyId));
  const out = { marks: [] as Mark[], doubtful: [] as Mark[], moved: new Set<string>(), uncertain: 0, lost: 0 };
  for (const [i, a] of findAgain(before, after, mine, { unseen: true }).entries()) {
    const m = mine[i];
    if (!m || a.state === 'lost') {
      out.lost++;
      continue;
    }
    const { placeId: _place, ...rest } = m;
    const mark = { ...rest, documentId: after.id, page: a.page, rect: a.rect };
    if (a.state === 'doubtful') {
      out.uncertain++;
      out.doubtful.push(mark);
      continue;
    }
    out.marks.push(mark);
    if (a.state === 'moved') out.moved.add(placeKey(mark));
  }
  return out;
}

const area = (r: { w: number; h: number }) => r.w * r.h;

/**
 * Returns the places of a document that were dismissed on the earlier one and found again for certain. A place that was
 * printed for somebody who was not there is asked about again: the person may be there now.
 */
function dismissedAgain(form: Draft, before: DocumentFacts, after: DocumentFacts): Draft['passed'] {
  const passed = new Set(form.passed.map((p) => p.id));
  const dismissed = proposalsOf({ ...form, passed: [] }, [before], []).flatMap(({ id, place, stranger }) =>
    passed.has(id) && !stranger ? [place] : [],
  );
  const searched = dismissed.map((p, i): Mark => ({
    id: String(i),
    documentId: before.id,
    page: p.page,
    kind: KIND_OF_PLACE[p.kind],
    partyId: '',
    rect: p.rect,
    required: false,
  }));
  return findAgain(before, after, searched, { unseen: true }).flatMap((a) => {
    if (a.state !== 'same' && a.state !== 'moved') return [];
    const kind = dismissed[Number(a.markId)]?.kind;
    const at = after.places.findIndex(
      (p) =>
        p.page === a.page &&
        p.kind === kind &&
        overlapArea(p.rect, a.rect) > 0.6 * Math.min(area(p.rect), area(a.rect)),
    );
    return at < 0 ? [] : [{ id: `${after.id}.${a.page}.${at}` }];
  });
}

/** Returns the items of a list that an earlier one does not have. */
function newIn<T extends { id: string }>(before: readonly T[], after: readonly T[]): T[] {
  const had = new Set(before.map((item) => item.id));
  return after.filter((item) => !had.has(item.id));
}

/** Returns the order of acts of the last time, for a packet with nothing on its pages yet; null if it is the same. */
function gatesAgain(form: Draft, filling: Filling, draft: Draft, newId: () => string): Gate[] | null {
  if (draft.marks.length || draft.rules.length || !form.gates.length) return null;
  const gates = gatesOf(form, filling, draft.parties, newId);
  const order = (of: readonly Gate[]) => of.map((g) => [...g.partyIds].sort().join()).join(';');
  return order(gates) === order(draft.gates) ? null : gates;
}

/** Returns the edits that place what was recalled; the order of acts only where nothing was placed since. */
export function editsOfRecalled(
  draft: Draft,
  recalled: Pick<Recalled, 'marks' | 'rules' | 'passed' | 'gates'>,
): DraftEdit[] {
  return [
    ...recalled.marks.map((item): DraftEdit => ({ op: 'put', list: 'marks', item })),
    ...recalled.rules.map((item): DraftEdit => ({ op: 'put', list: 'rules', item })),
    ...recalled.passed.map((item): DraftEdit => ({ op: 'put', list: 'passed', item })),
    ...(recalled.gates && !draft.marks.length && !draft.rules.length
      ? [
          ...draft.gates.map((g): DraftEdit => ({ op: 'drop', list: 'gates', id: g.id })),
          ...recalled.gates.map((item): DraftEdit => ({ op: 'put', list: 'gates', item })),
        ]
      : []),
  ];
}

/**
 * Returns a form without the labels and explanations that name the earlier deal or its people. The words beside a choice are the form's own and stay, unless they name a person.
 */
export function withoutDeal(form: Draft, parties: readonly PacketParty[], tags: Tags): Draft {
  const isFree = (text: string) => asTags(text, parties, tags) === text;
  return {
    ...form,
    marks: form.marks.map((m) => {
      const { label, help, options, check, ...rest } = m;
      const names = m.kind === 'choice' ? label && asTags(label, parties, tags) === '' : label && !isFree(label);
      return {
        ...rest,
        ...(label && !names ? { label } : {}),
        ...(help && isFree(help) ? { help } : {}),
        ...(options?.every(isFree) ? { options } : {}),
        ...(check && (!check.message || isFree(check.message)) ? { check } : {}),
      };
    }),
  };
}
