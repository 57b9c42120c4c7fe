/** From a draft to its marks: those placed by hand, those of redlines, those made from initials rules. */
import type { PrintedPlace } from '../reading/types';
import { type PacketParty, NOBODY, type InitialsRule, type Mark, type Redline } from './types';
import type { Draft } from './draft';
import { partyOfPlace, signsDocument } from './place-party';
import { placeInitials } from '../paper/placing';
import { marksOfRedline } from './redline';
import { overlapArea } from '../paper/geometry';
import { type PageFacts, type Rect } from '../paper/types';
import { itemAt } from '../sure';

/** A document as the rules see it. Never changed once made: what was worked out for it is kept with it. */
export interface DocumentFacts {
  id: string;
  name: string;
  pages: PageFacts[];
  /** What was read on its pages. */
  places: PrintedPlace[];
  /** The last day of the form it was made of, where that has passed. */
  formEnded?: string;
  /** The number of a sealed copy's own pages, without the signing record that follows them. */
  ownPages?: number;
}

/** A page that a rule or a redline asks for and on which the search found no free space. */
export interface Unplaced {
  documentId: string;
  page: number;
  partyId: string;
  redlineId?: string;
}

/** All marks of a draft, those of rules and redlines included, and what could not be placed. */
export interface ResolvedMarks {
  marks: Mark[];
  unplaced: Unplaced[];
}

/** All marks of a draft, and those of each document: the same list as before where nothing changed. */
export interface ResolvedDraft extends ResolvedMarks {
  byDocument: Map<string, Mark[]>;
}

interface Cached {
  marks: Mark[];
  rules: InitialsRule[];
  redlines: Redline[];
  parties: PacketParty[];
  result: ResolvedMarks;
}

/** What was placed last for a document; an edit elsewhere leaves it as it is. */
const kept = new WeakMap<DocumentFacts, Cached>();

const sameItems = (a: readonly unknown[], b: readonly unknown[]) =>
  a.length === b.length && a.every((x, i) => x === b[i]);

/**
 * Returns all marks of a draft: those placed by hand, those of its redlines, and those of the initials rules. Marks
 * whose document, page or party is not in the packet are left out. Documents that an edit did not touch are not
 * computed again.
 */
export function resolveMarks(draft: Draft, documents: DocumentFacts[]): ResolvedDraft {
  const parties = new Set([...draft.parties.map((p) => p.id), NOBODY]);
  const byDocument = new Map<string, Mark[]>(draft.documents.map((d) => [d.id, []]));
  for (const m of draft.marks) if (parties.has(m.partyId)) byDocument.get(m.documentId)?.push(m);
  const out: ResolvedDraft = { marks: [], unplaced: [], byDocument: new Map() };
  for (const doc of documents) {
    const marks = byDocument.get(doc.id);
    if (!marks) continue;
    const rules = draft.rules.filter((r) => r.documentId === doc.id);
    const redlines = draft.redlines.filter((r) => r.documentId === doc.id && doc.pages[r.page - 1]);
    const last = kept.get(doc);
    const still =
      last &&
      sameItems(last.marks, marks) &&
      sameItems(last.rules, rules) &&
      sameItems(last.redlines, redlines) &&
      sameItems(last.parties, draft.parties);
    const result = still ? last.result : sameMarks(last, resolveDocument(doc, marks, rules, redlines, draft.parties));
    if (!still) kept.set(doc, { marks, rules, redlines, parties: draft.parties, result });
    out.byDocument.set(doc.id, result.marks);
    for (const m of result.marks) out.marks.push(m);
    for (const u of result.unplaced) out.unplaced.push(u);
  }
  return out;
}

/** Returns marks as the objects they were before, where a rule or redline makes the same ones again. */
function sameMarks(last: Cached | undefined, made: ResolvedMarks): ResolvedMarks {
  if (!last) return made;
  const before = new Map(last.result.marks.filter((m) => m.ruleId || m.redlineId).map((m) => [m.id, m]));
  const marks = made.marks.map((m) => {
    const was = before.get(m.id);
    const { x, y, w, h } = m.rect;
    return was && was.page === m.page && was.rect.x === x && was.rect.y === y && was.rect.w === w && was.rect.h === h
      ? was
      : m;
  });
  return { ...made, marks };
}

function resolveDocument(
  doc: DocumentFacts,
  all: Mark[],
  rules: InitialsRule[],
  redlines: Redline[],
  parties: PacketParty[],
): ResolvedMarks {
  const marks = all.filter((m) => doc.pages[m.page - 1]);
  const out: ResolvedMarks = { marks: [...marks], unplaced: [] };
  const signers = parties.filter((p) => signsDocument(p, doc.id));
  for (const r of redlines) {
    const obstacles = [
      ...out.marks.filter((m) => m.page === r.page).map((m) => m.rect),
      ...redlines.filter((o) => o.page === r.page).flatMap((o) => o.rects),
    ];
    const made = marksOfRedline(r, itemAt(doc.pages, r.page - 1), signers, obstacles);
    out.marks.push(...made.marks);
    out.unplaced.push(...made.unplaced);
  }
  for (const rule of rules) {
    const made = marksOfRule(rule, doc, out.marks, parties, redlines);
    out.marks.push(...made.marks);
    out.unplaced.push(...made.unplaced);
  }
  return out;
}

/** Returns the marks that one rule makes on one document, clear of the marks placed by hand. */
export function marksOfRule(
  rule: InitialsRule,
  doc: DocumentFacts,
  handMarks: Mark[],
  parties: PacketParty[],
  redlines: Redline[] = [],
): ResolvedMarks {
  const out: Mark[] = [];
  const unplaced: Unplaced[] = [];
  // Side by side in the packet's order of parties, whatever order they were ticked in.
  const inOrder = parties.filter((p) => rule.partyIds.includes(p.id)).map((p) => p.id);
  const onDoc = handMarks.filter((m) => m.documentId === doc.id);
  // Initials placed by hand on a page replace the rule's there.
  const byHand = new Set(
    onDoc.filter((m) => m.kind === 'initials' && !m.redlineId).map((m) => `${m.page}:${m.partyId}`),
  );
  const excepted = new Set(rule.except.map((e) => `${e.page}:${e.partyId}`));
  const moved = new Map(rule.moved.map((m) => [`${m.page}:${m.partyId}`, m.rect]));
  const printed = printedInitials(doc, parties, onDoc);
  const groups = new Map<string, number[]>();
  doc.pages.slice(0, doc.ownPages).forEach((_, i) => {
    const page = i + 1;
    const wanted = inOrder.filter((p) => !byHand.has(`${page}:${p}`) && !excepted.has(`${page}:${p}`));
    // First where it was moved by hand, then in the blank the page has for it, then in free space.
    const known = (p: string) => moved.get(`${page}:${p}`) ?? printed.get(`${page}:${p}`);
    const toPlace = wanted.filter((p) => !known(p));
    for (const p of wanted) {
      const rect = known(p);
      if (rect) out.push(ruleMark(rule, doc.id, page, p, rect));
    }
    if (toPlace.length) groups.set(toPlace.join(','), [...(groups.get(toPlace.join(',')) ?? []), page]);
  });
  for (const [key, pages] of groups) {
    const who = key.split(',');
    const placed = placeInitials(
      pages.map((page) => ({
        page,
        facts: itemAt(doc.pages, page - 1),
        obstacles: [
          ...onDoc.filter((m) => m.page === page).map((m) => m.rect),
          ...out.filter((m) => m.page === page).map((m) => m.rect),
          ...redlines.filter((r) => r.page === page).flatMap((r) => r.rects),
        ],
      })),
      who.length,
      rule.anchor,
    );
    for (const page of pages) {
      const rects = placed.get(page);
      who.forEach((partyId, i) => {
        if (rects) out.push(ruleMark(rule, doc.id, page, partyId, itemAt(rects, i)));
        else unplaced.push({ documentId: doc.id, page, partyId });
      });
    }
  }
  return { marks: out, unplaced };
}

/** Returns the initials blanks printed on the pages: each party's lowest on a page, unless it has a mark already. */
function printedInitials(doc: DocumentFacts, parties: PacketParty[], onDoc: Mark[]): Map<string, Rect> {
  const out = new Map<string, Rect>();
  for (const place of doc.places) {
    if (place.kind !== 'initials') continue;
    const party = partyOfPlace(place, doc.id, parties);
    if (!party || onDoc.some((m) => m.page === place.page && overlapArea(m.rect, place.rect) > 0)) continue;
    const key = `${place.page}:${party.id}`;
    const before = out.get(key);
    if (!before || place.rect.y > before.y) out.set(key, place.rect);
  }
  return out;
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
