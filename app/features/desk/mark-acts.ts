/** What can be done with marks on the desk. Every act is a list of edits, so all of it can be undone. */
import {
  type DraftEdit,
  type InitialsRule,
  KINDS,
  type Mark,
  type MarkKind,
  NOBODY,
  type Proposal,
  acceptEdits,
  copyEdits,
  handEdits,
  moveEdits,
  pageRange,
  leaveOutEdits,
  removeEdits,
  ruleOf,
  isSenders,
  calledOf,
} from '@gatepath/core/packet';
import {
  type Edge,
  INITIALS_SIZES,
  PAGE_EDGE,
  type Rect,
  align,
  clampToPage,
  distribute,
  roundRect,
  sameSize,
  snap,
} from '@gatepath/core/paper';
import { count } from '@gatepath/core/text';
import { newId } from '../../api/client';
import type { ActsOn } from './acts-on';
import { redlineActs } from './redline-acts';
import { itemAt } from '@gatepath/core/sure';
import { TEXT } from './words';

export type MarkActs = ReturnType<typeof markActs>;

/** Returns the functions by which the desk places, moves, changes and removes marks. */
export function markActs(b: ActsOn) {
  return { ...placingActs(b), ...handActs(b), ...copyActs(b), ...readActs(b), ...ruleActs(b), ...redlineActs(b) };
}

const put = (item: Mark): DraftEdit => ({ op: 'put', list: 'marks', item });

const putIds = (edits: DraftEdit[]) => edits.flatMap((e) => (e.op === 'put' && e.list === 'marks' ? [e.item.id] : []));

/** Applies edits, if there are any, announces what was done, and selects marks. */
function make(b: ActsOn, edits: DraftEdit[], said: string, select?: string[]): void {
  if (!edits.length) return;
  b.edit(edits);
  b.setSaid(said);
  if (select) b.setSelected(select);
}

const pageAt = (b: ActsOn, documentId: string, page: number) =>
  b.view.documents.find((d) => d.id === documentId)?.pages[page - 1];

/** Returns the rectangles of printed places on the current page, to snap to. */
const blanksHere = ({ at, view }: ActsOn): Rect[] =>
  at
    ? view.proposals.filter((p) => p.documentId === at.documentId && p.page === at.page && !p.beside).map((p) => p.rect)
    : [];

/** Returns the acts that place a mark and snap a dragged one. */
function placingActs(b: ActsOn) {
  const { view, at } = b;
  /** Places the mark, or the pair of choices, of the chosen tool, centered at a point of the page. */
  const placeAt = (x: number, y: number) => {
    const here = at && pageAt(b, at.documentId, at.page);
    if (!at || !here || b.tool === 'strike' || b.tool === 'insert') return;
    const kind: MarkKind = b.tool;
    const what = KINDS[kind];
    const owner = isSenders(kind) ? NOBODY : b.partyId;
    if (!owner) return;
    const size = kind === 'initials' ? INITIALS_SIZES[0] : what.size;
    const wish = { x: x - size.w / 2, y: y - size.h / 2, ...size };
    const marks = view.marks.filter((m) => m.documentId === at.documentId && m.page === at.page).map((m) => m.rect);
    const rect = roundRect(clampToPage(snap(wish, marks, blanksHere(b), here).rect, here.width, here.height));
    const id = newId();
    const mark: Mark = { id, ...at, kind, partyId: owner, rect, required: what.required, ...what.begins };
    if (what.filled.by !== 'touch' || !what.filled.together) return make(b, [put(mark)], TEXT.placed(what.word), [id]);
    // A single choice makes no sense: two at once, one below the other.
    const group = newId();
    const below = roundRect(clampToPage({ ...rect, y: rect.y + rect.h + 8 }, here.width, here.height));
    const second = { ...mark, id: newId(), rect: below, group, label: TEXT.second };
    make(b, [put({ ...mark, group, label: TEXT.first }), put(second)], TEXT.twoChoicesPlaced, [id]);
  };

  /** Returns where a dragged mark would come to rest, and the lines it snaps to. */
  const snapped = (mark: Mark, rect: Rect) => {
    const page = pageAt(b, mark.documentId, mark.page);
    if (!page) return { rect, lines: [] };
    const moving = new Set(b.selected.map((m) => m.id));
    const others = view.marks
      .filter((m) => m.documentId === mark.documentId && m.page === mark.page && m.id !== mark.id && !moving.has(m.id))
      .map((m) => m.rect);
    return snap(rect, others, blanksHere(b), page);
  };
  return { placeAt, snapped };
}

/** Returns the acts that move, change and remove selected marks. */
function handActs(b: ActsOn) {
  const { draft, edit, selected } = b;
  const moveMarks = (moves: { mark: Mark; rect: Rect }[]) => edit(moveEdits(draft, b.view.documents, moves));
  const arrange = (rects: Rect[]) => moveMarks(selected.map((mark, i) => ({ mark, rect: itemAt(rects, i) })));
  const rects = selected.map((m) => m.rect);
  return {
    moveMarks,
    /** Moves all selected marks by the same distance. */
    nudge: (dx: number, dy: number) =>
      moveMarks(selected.map((mark) => ({ mark, rect: { ...mark.rect, x: mark.rect.x + dx, y: mark.rect.y + dy } }))),
    alignTo: (edge: Edge) => arrange(align(rects, edge)),
    spread: (along: 'across' | 'down') => arrange(distribute(rects, along)),
    evenOut: () => arrange(sameSize(rects)),
    remove: (marks: Mark[] = selected) => {
      const stay = marks.filter((m) => m.redlineId);
      make(b, removeEdits(draft, marks), TEXT.removed(count(marks.length - stay.length, 'mark')), []);
      if (stay.length) b.setSaid(TEXT.initialsBesideAChangeAre);
    },
    change: (mark: Mark, more: Partial<Mark>) => edit([put({ ...mark, ...more })]),
    changeAll: (more: Partial<Mark>) =>
      edit(selected.filter((m) => !m.ruleId && !m.redlineId).map((m) => put({ ...m, ...more }))),
  };
}

/** Returns the acts that copy selected marks to other pages and people. */
function copyActs(b: ActsOn) {
  const { draft, at, selected } = b;
  const { documents } = b.view;
  return {
    copy: () => {
      b.setCopied(selected);
      b.setSaid(TEXT.copied(count(selected.length, 'mark')));
    },
    paste: () => {
      if (!at || !b.copied.length) return;
      // On the page they come from they are placed a little lower, so that they can be seen.
      const same = b.copied.every((m) => m.documentId === at.documentId && m.page === at.page);
      const marks = same
        ? b.copied.map((m) => ({ ...m, page: -1, rect: { ...m.rect, x: m.rect.x + 12, y: m.rect.y + 12 } }))
        : b.copied;
      const edits = copyEdits(marks, documents, [at], newId);
      make(b, edits, TEXT.pasted(count(edits.length, 'mark')), putIds(edits));
    },
    repeat: (from: number, to: number) => {
      if (!at) return;
      const edits = copyEdits(selected, documents, pageRange(at.documentId, from, to), newId);
      make(b, edits, TEXT.putOnPagesTo(count(edits.length, 'mark'), from, to));
    },
    handTo: (toParty: string) => {
      const edits = handEdits(selected, toParty, documents, b.view.marks, newId);
      const to = draft.parties.find((p) => p.id === toParty);
      const name = to ? calledOf(to) : '';
      make(b, edits, TEXT.givenToToo(count(edits.length, 'mark'), name), putIds(edits));
    },
  };
}

/** Returns the acts that accept or dismiss the places read on the pages. */
function readActs(b: ActsOn) {
  return {
    accept: (proposals: Proposal[], correct: { partyId?: string; kind?: MarkKind } = {}) => {
      const edits = acceptEdits(proposals, b.draft.parties, correct);
      const inHand = proposals.length === 1 ? putIds(edits).slice(0, 1) : [];
      make(b, edits, TEXT.accepted(count(proposals.length, TEXT.printedPlace)), inHand);
    },
    dismiss: (proposals: Proposal[]) =>
      make(b, leaveOutEdits(proposals), TEXT.leftOutCount(count(proposals.length, TEXT.printedPlace))),
  };
}

/** Returns the acts that set the initials rules. */
function ruleActs(b: ActsOn) {
  const { draft, at, partyId } = b;
  const ruleFor = (documentId: string): InitialsRule => ruleOf(draft, documentId);
  /** Turns the selected initials into the document's rule: its party on every page, near this place. */
  const everyPageLikeThis = () => {
    if (!at || !partyId) return;
    const here = pageAt(b, at.documentId, at.page);
    const rule = ruleFor(at.documentId);
    const like = b.selected.find((m) => m.kind === 'initials' && !m.ruleId && !m.redlineId && m.partyId === partyId);
    const part = (offset: number, size: number, own: number) =>
      Math.min(1, Math.max(0, (offset - PAGE_EDGE) / Math.max(1, size - 2 * PAGE_EDGE - own)));
    const anchor =
      like && here
        ? { fx: part(like.rect.x, here.width, like.rect.w), fy: part(like.rect.y, here.height, like.rect.h) }
        : rule.anchor;
    const partyIds = [...new Set([...rule.partyIds, partyId])];
    const except = rule.except.filter((e) => e.partyId !== partyId);
    b.edit([
      ...(like ? [{ op: 'drop' as const, list: 'marks' as const, id: like.id }] : []),
      { op: 'put', list: 'rules', item: { ...rule, anchor, partyIds, except } },
    ]);
    b.setSelected([]);
  };
  return { ruleFor, everyPageLikeThis };
}
