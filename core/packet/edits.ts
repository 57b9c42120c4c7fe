/** Actions on marks at the desk, as edits: moving, removing, copying, repeating, assigning. */
import type { Draft, DraftEdit } from './draft';
import { clampToPage, overlapArea, roundRect } from '../paper/geometry';
import { KINDS, isSenders } from './kinds';
import { signsDocument } from './place-party';
import type { DocumentFacts } from './resolve';
import { FreeSpace } from '../paper/space';
import type { InitialsRule, Mark, Redline } from './types';
import type { Rect } from '../paper/types';
import { itemAt } from '../sure';

/** Returns the initials rule of a document, or an empty one that is not in the draft yet. */
export function ruleOf(draft: Draft, documentId: string): InitialsRule {
  return (
    draft.rules.find((r) => r.documentId === documentId) ?? {
      id: `rule-${documentId}`,
      documentId,
      partyIds: [],
      anchor: { fx: 0, fy: 1 },
      except: [],
      moved: [],
    }
  );
}

/**
 * Returns the edits that have a party initial every page of every document it gets, or of none by rule. What a document
 * has of its own stays: where the initials are, and which pages are excepted for others.
 */
export function editsToInitialAll(draft: Draft, partyId: string, on: boolean): DraftEdit[] {
  const party = draft.parties.find((p) => p.id === partyId);
  return draft.documents.flatMap(({ id }): DraftEdit[] => {
    const rule = ruleOf(draft, id);
    const has = rule.partyIds.includes(partyId);
    const except = rule.except.filter((e) => e.partyId !== partyId);
    if (on) {
      if (!party || !signsDocument(party, id) || (has && except.length === rule.except.length)) return [];
      const partyIds = has ? rule.partyIds : [...rule.partyIds, partyId];
      return [{ op: 'put', list: 'rules', item: { ...rule, partyIds, except } }];
    }
    if (!has) return [];
    const partyIds = rule.partyIds.filter((p) => p !== partyId);
    if (!partyIds.length) return [{ op: 'drop', list: 'rules', id: rule.id }];
    const moved = rule.moved.filter((m) => m.partyId !== partyId);
    return [{ op: 'put', list: 'rules', item: { ...rule, partyIds, except, moved } }];
  });
}

/** Returns a mark by itself: not computed from a rule or redline. */
function plain(m: Mark): Mark {
  const { ruleId: _rule, redlineId: _redline, placeId: _place, ...rest } = m;
  return rest;
}

/** Returns the edits that move marks. A computed mark stays computed: its move is stored in its rule or redline. */
export function moveEdits(draft: Draft, documents: DocumentFacts[], moves: { mark: Mark; rect: Rect }[]): DraftEdit[] {
  const rules = new Map<string, InitialsRule>();
  const redlines = new Map<string, Redline>();
  const edits: DraftEdit[] = [];
  for (const { mark, rect } of moves) {
    const page = documents.find((d) => d.id === mark.documentId)?.pages[mark.page - 1];
    if (!page) continue;
    const least = KINDS[mark.kind].least;
    const to = roundRect(
      clampToPage({ ...rect, w: Math.max(least.w, rect.w), h: Math.max(least.h, rect.h) }, page.width, page.height),
    );
    if (mark.ruleId) {
      const rule = rules.get(mark.documentId) ?? ruleOf(draft, mark.documentId);
      const others = rule.moved.filter((x) => !(x.page === mark.page && x.partyId === mark.partyId));
      rules.set(mark.documentId, { ...rule, moved: [...others, { page: mark.page, partyId: mark.partyId, rect: to }] });
    } else if (mark.redlineId) {
      const redline = redlines.get(mark.redlineId) ?? draft.redlines.find((r) => r.id === mark.redlineId);
      if (!redline) continue;
      const others = redline.moved.filter((x) => x.partyId !== mark.partyId);
      redlines.set(redline.id, { ...redline, moved: [...others, { partyId: mark.partyId, rect: to }] });
    } else edits.push({ op: 'put', list: 'marks', item: { ...mark, rect: to } });
  }
  for (const item of rules.values()) edits.push({ op: 'put', list: 'rules', item });
  for (const item of redlines.values()) edits.push({ op: 'put', list: 'redlines', item });
  return edits;
}

/**
 * Returns the edits that remove marks. Removing a rule's mark makes an exception, which the ledger shows; initials
 * beside a redline stay as long as the redline.
 */
export function removeEdits(draft: Draft, marks: Mark[]): DraftEdit[] {
  const rules = new Map<string, InitialsRule>();
  const edits: DraftEdit[] = [];
  for (const m of marks) {
    if (m.redlineId) continue;
    if (!m.ruleId) {
      edits.push({ op: 'drop', list: 'marks', id: m.id });
      continue;
    }
    const rule = rules.get(m.documentId) ?? ruleOf(draft, m.documentId);
    rules.set(m.documentId, { ...rule, except: [...rule.except, { page: m.page, partyId: m.partyId }] });
  }
  for (const item of rules.values()) edits.push({ op: 'put', list: 'rules', item });
  return edits;
}

/** Returns a function that keeps choices of one group together in a group of their own wherever they are copied. */
function regroup(id: (of: string) => string): (m: Mark) => Mark {
  return (m) => (m.group ? { ...m, group: id(m.group) } : m);
}

/**
 * Returns the edits that copy marks to other pages, at the same position.
 *
 * @param onto document and page of each copy
 * @param newId makes an id
 */
export function copyEdits(
  marks: Mark[],
  documents: DocumentFacts[],
  onto: { documentId: string; page: number }[],
  newId: () => string,
): DraftEdit[] {
  return onto.flatMap(({ documentId, page }) => {
    const size = documents.find((d) => d.id === documentId)?.pages[page - 1];
    if (!size) return [];
    const groups = new Map<string, string>();
    const grouped = regroup((of) => {
      const made = groups.get(of) ?? newId();
      groups.set(of, made);
      return made;
    });
    return marks
      .filter((m) => !(m.documentId === documentId && m.page === page))
      .map((m): DraftEdit => ({
        op: 'put',
        list: 'marks',
        item: {
          ...grouped(plain(m)),
          id: newId(),
          documentId,
          page,
          rect: clampToPage(m.rect, size.width, size.height),
        },
      }));
  });
}

/** Returns pages `from` to `to` of a document, both included, as targets for copies. */
export function pageRange(documentId: string, from: number, to: number): { documentId: string; page: number }[] {
  const [a, b] = from <= to ? [from, to] : [to, from];
  return Array.from({ length: b - a + 1 }, (_, i) => ({ documentId, page: a + i }));
}

/**
 * Returns the edits that give another party the same marks beside those of the first. The marks of a page keep their
 * arrangement and are moved to the nearest position where none covers print or another mark. If there is none, they are
 * placed a little lower, and the gate check reports them.
 */
export function handEdits(
  marks: Mark[],
  partyId: string,
  documents: DocumentFacts[],
  all: Mark[],
  newId: () => string,
): DraftEdit[] {
  const pages = new Map<string, Mark[]>();
  for (const m of marks) {
    if (isSenders(m.kind) || m.redlineId) continue;
    const key = `${m.documentId}:${m.page}`;
    pages.set(key, [...(pages.get(key) ?? []), m]);
  }
  return [...pages.values()].flatMap((group) => {
    const first = itemAt(group, 0);
    const page = documents.find((d) => d.id === first.documentId)?.pages[first.page - 1];
    if (!page) return [];
    const here = all.filter((m) => m.documentId === first.documentId && m.page === first.page).map((m) => m.rect);
    const { dx, dy } = freeOffset(
      group.map((m) => m.rect),
      page,
      here,
    );
    const groups = new Map<string, string>();
    const grouped = regroup((of) => {
      const made = groups.get(of) ?? newId();
      groups.set(of, made);
      return made;
    });
    return group.map((m): DraftEdit => ({
      op: 'put',
      list: 'marks',
      item: {
        ...grouped(plain(m)),
        id: newId(),
        partyId,
        rect: roundRect(clampToPage({ ...m.rect, x: m.rect.x + dx, y: m.rect.y + dy }, page.width, page.height)),
      },
    }));
  });
}

/** Returns the smallest shift at which a group of rectangles is free; one line down if there is none. */
function freeOffset(
  rects: Rect[],
  page: DocumentFacts['pages'][number],
  obstacles: Rect[],
): { dx: number; dy: number } {
  const space = new FreeSpace(page, obstacles);
  const tallest = Math.max(...rects.map((r) => r.h));
  const widest = Math.max(...rects.map((r) => r.w));
  const steps: { dx: number; dy: number }[] = [];
  for (let dy = -240; dy <= 240; dy += 6) for (let dx = -300; dx <= 300; dx += 6) steps.push({ dx, dy });
  steps.push({ dx: 0, dy: tallest + 6 }, { dx: widest + 6, dy: 0 });
  const away = ({ dx, dy }: { dx: number; dy: number }) =>
    Math.hypot(dx * 0.9, dy) + (dy < 0 ? 40 : 0) + (dx < 0 ? 40 : 0);
  steps.sort((a, b) => away(a) - away(b));
  for (const s of steps) {
    const moved = rects.map((r) => ({ ...r, x: r.x + s.dx, y: r.y + s.dy }));
    const ok = moved.every(
      (r) =>
        r.x >= 6 &&
        r.y >= 6 &&
        r.x + r.w <= page.width - 6 &&
        r.y + r.h <= page.height - 6 &&
        space.isFree(r) &&
        !rects.some((o) => overlapArea(o, r) > 0),
    );
    if (ok) return s;
  }
  return { dx: 0, dy: tallest + 6 };
}
