/** What can be done with marks on the desk; every act is a list of edits, so all of it can be undone. */
import {
  type Draft,
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
  passEdits,
  removeEdits,
  ruleOf,
  shiftStrike,
  wordsBetween,
  isSenders,
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
import type { DraftView } from '@gatepath/core/checks';
import { count, firstName } from '@gatepath/core/text';
import { newId } from '../../api/client';
import { itemAt } from '@gatepath/core/sure';

interface Bench {
  draft: Draft;
  edit: (edits: DraftEdit[]) => void;
  view: DraftView;
  at: { documentId: string; page: number } | null;
  partyId: string | null;
  tool: Tool;
  selected: Mark[];
  copied: Mark[];
  setCopied: (marks: Mark[]) => void;
  setSelected: (ids: string[]) => void;
  setRedline: (id: string | null) => void;
  setSaid: (what: string) => void;
}

/** What a touch on the page does: puts a mark of a kind, or changes the words there. */
export type Tool = MarkKind | 'strike' | 'insert';

export type MarkActs = ReturnType<typeof markActs>;

export function markActs(b: Bench) {
  const { draft, edit, view, at, partyId, selected } = b;
  const documents = view.documents;
  const pageAt = (documentId: string, page: number) => documents.find((d) => d.id === documentId)?.pages[page - 1];
  const here = at ? pageAt(at.documentId, at.page) : undefined;
  const put = (item: Mark): DraftEdit => ({ op: 'put', list: 'marks', item });
  const putIds = (edits: DraftEdit[]) =>
    edits.flatMap((e) => (e.op === 'put' && e.list === 'marks' ? [e.item.id] : []));
  const do_ = (edits: DraftEdit[], said: string, select?: string[]) => {
    if (!edits.length) return;
    edit(edits);
    b.setSaid(said);
    if (select) b.setSelected(select);
  };

  const ruleFor = (documentId: string): InitialsRule => ruleOf(draft, documentId);

  /** Puts down what is in hand, its middle at a point of the page. */
  const placeAt = (x: number, y: number) => {
    if (!at || !here || b.tool === 'strike' || b.tool === 'insert') return;
    const kind: MarkKind = b.tool;
    const what = KINDS[kind];
    const owner = isSenders(kind) ? NOBODY : partyId;
    if (!owner) return;
    const size = kind === 'initials' ? INITIALS_SIZES[0] : what.size;
    const wish = { x: x - size.w / 2, y: y - size.h / 2, ...size };
    const marks = view.marks.filter((m) => m.documentId === at.documentId && m.page === at.page).map((m) => m.rect);
    const rect = roundRect(clampToPage(snap(wish, marks, blanksHere(), here).rect, here.width, here.height));
    const id = newId();
    const mark: Mark = {
      id,
      ...at,
      kind,
      partyId: owner,
      rect,
      required: what.required,
      ...what.begins,
    };
    if (what.filled.by === 'touch' && what.filled.together) {
      // A choice alone is none: two at once, one under the other.
      const group = newId();
      const second = roundRect(clampToPage({ ...rect, y: rect.y + rect.h + 8 }, here.width, here.height));
      const ids = [id, newId()];
      do_(
        [
          put({ ...mark, group, label: 'First' }),
          put({ ...mark, id: itemAt(ids, 1), rect: second, group, label: 'Second' }),
        ],
        'Two choices placed.',
        [id],
      );
      return;
    }
    do_([put(mark)], `${what.word} placed.`, [id]);
  };

  /** Rectangles of the printed places on the page in hand, to snap to. */
  const blanksHere = (): Rect[] =>
    at
      ? view.proposals
          .filter((p) => p.documentId === at.documentId && p.page === at.page && !p.beside)
          .map((p) => p.rect)
      : [];

  const moveMarks = (moves: { mark: Mark; rect: Rect }[]) => edit(moveEdits(draft, documents, moves));

  /** Where a mark that is being dragged would come to rest, and the lines it rests on. */
  const snapped = (mark: Mark, rect: Rect) => {
    const page = pageAt(mark.documentId, mark.page);
    if (!page) return { rect, lines: [] };
    const moving = new Set(selected.map((m) => m.id));
    const others = view.marks
      .filter((m) => m.documentId === mark.documentId && m.page === mark.page && m.id !== mark.id && !moving.has(m.id))
      .map((m) => m.rect);
    return snap(rect, others, blanksHere(), page);
  };

  /** Moves everything in hand by the same distance. */
  const nudge = (dx: number, dy: number) =>
    moveMarks(selected.map((mark) => ({ mark, rect: { ...mark.rect, x: mark.rect.x + dx, y: mark.rect.y + dy } })));

  const arrange = (rects: Rect[]) => moveMarks(selected.map((mark, i) => ({ mark, rect: itemAt(rects, i) })));
  const rects = selected.map((m) => m.rect);

  const remove = (marks: Mark[] = selected) => {
    const stay = marks.filter((m) => m.redlineId);
    do_(removeEdits(draft, marks), `${count(marks.length - stay.length, 'mark')} removed.`, []);
    if (stay.length) b.setSaid('Initials beside a change go when the change goes.');
  };

  const copy = () => {
    b.setCopied(selected);
    b.setSaid(`${count(selected.length, 'mark')} copied.`);
  };
  const paste = () => {
    if (!at || !b.copied.length) return;
    // On the page they come from they are put a little lower, so that they can be seen.
    const same = b.copied.every((m) => m.documentId === at.documentId && m.page === at.page);
    const marks = same
      ? b.copied.map((m) => ({ ...m, page: -1, rect: { ...m.rect, x: m.rect.x + 12, y: m.rect.y + 12 } }))
      : b.copied;
    const edits = copyEdits(marks, documents, [at], newId);
    do_(edits, `${count(edits.length, 'mark')} pasted.`, putIds(edits));
  };
  const repeat = (from: number, to: number) => {
    if (!at) return;
    const edits = copyEdits(selected, documents, pageRange(at.documentId, from, to), newId);
    do_(edits, `${count(edits.length, 'mark')} put on pages ${from} to ${to}.`);
  };
  const handTo = (toParty: string) => {
    const edits = handEdits(selected, toParty, documents, view.marks, newId);
    do_(
      edits,
      `${count(edits.length, 'mark')} given to ${firstName(draft.parties.find((p) => p.id === toParty)?.name ?? '')} too.`,
      putIds(edits),
    );
  };
  const change = (mark: Mark, more: Partial<Mark>) => edit([put({ ...mark, ...more })]);
  const changeAll = (more: Partial<Mark>) =>
    edit(selected.filter((m) => !m.ruleId && !m.redlineId).map((m) => put({ ...m, ...more })));

  const accept = (proposals: Proposal[], correct: { partyId?: string; kind?: MarkKind } = {}) => {
    const edits = acceptEdits(proposals, draft.parties, correct);
    do_(
      edits,
      `${count(proposals.length, 'printed place')} accepted.`,
      proposals.length === 1 ? putIds(edits).slice(0, 1) : [],
    );
  };
  const pass = (proposals: Proposal[]) =>
    do_(passEdits(proposals), `${count(proposals.length, 'printed place')} left out.`);

  /** Strikes the words from one point to another. */
  const strike = (from: { x: number; y: number }, to: { x: number; y: number }) => {
    if (!at || !here) return;
    const words = wordsBetween(here, from, to);
    if (!words) {
      b.setSaid('No printed words are there.');
      return;
    }
    const id = newId();
    edit([
      {
        op: 'put',
        list: 'redlines',
        item: {
          id,
          ...at,
          kind: 'strike',
          rects: words.rects.map(roundRect),
          text: words.text.slice(0, 2000),
          moved: [],
        },
      },
    ]);
    b.setSelected([]);
    b.setRedline(id);
    b.setSaid(`Struck: ${words.text}`);
  };
  const insert = (rect: Rect, text: string) => {
    if (!at || !here) return;
    const id = newId();
    edit([
      {
        op: 'put',
        list: 'redlines',
        item: {
          id,
          ...at,
          kind: 'insert',
          rects: [roundRect(clampToPage(rect, here.width, here.height))],
          text,
          moved: [],
        },
      },
    ]);
    b.setSelected([]);
    b.setRedline(id);
  };
  const dropRedline = (id: string) => {
    edit([{ op: 'drop', list: 'redlines', id }]);
    b.setRedline(null);
    b.setSaid('The change and its initials are gone.');
  };
  /** Moves the ends of a strike by words, for those who do not draw. */
  const moveStrike = (id: string, by: { first: number; last: number }) => {
    const was = draft.redlines.find((r) => r.id === id);
    const page = was && pageAt(was.documentId, was.page);
    const words = was && page ? shiftStrike(page, was, by) : null;
    if (!was || !words) return;
    edit([
      {
        op: 'put',
        list: 'redlines',
        item: { ...was, rects: words.rects.map(roundRect), text: words.text.slice(0, 2000), moved: [] },
      },
    ]);
    b.setSaid(`Struck: ${words.text}`);
  };
  const changeRedline = (id: string, more: { text?: string; rect?: Rect }) => {
    const was = draft.redlines.find((r) => r.id === id);
    if (!was) return;
    edit([
      {
        op: 'put',
        list: 'redlines',
        item: {
          ...was,
          text: more.text ?? was.text,
          rects: more.rect ? [roundRect(more.rect)] : was.rects,
          moved: more.rect ? [] : was.moved,
        },
      },
    ]);
  };

  /** Turns the initials in hand into the document's rule: its party on every page, near this place. */
  const everyPageLikeThis = () => {
    if (!at || !partyId) return;
    const rule = ruleFor(at.documentId);
    const like = selected.find((m) => m.kind === 'initials' && !m.ruleId && !m.redlineId && m.partyId === partyId);
    const part = (offset: number, size: number, own: number) =>
      Math.min(1, Math.max(0, (offset - PAGE_EDGE) / Math.max(1, size - 2 * PAGE_EDGE - own)));
    const anchor =
      like && here
        ? { fx: part(like.rect.x, here.width, like.rect.w), fy: part(like.rect.y, here.height, like.rect.h) }
        : rule.anchor;
    const partyIds = [...new Set([...rule.partyIds, partyId])];
    edit([
      ...(like ? [{ op: 'drop' as const, list: 'marks' as const, id: like.id }] : []),
      {
        op: 'put',
        list: 'rules',
        item: { ...rule, anchor, partyIds, except: rule.except.filter((e) => e.partyId !== partyId) },
      },
    ]);
    b.setSelected([]);
  };

  return {
    ruleFor,
    placeAt,
    moveMarks,
    snapped,
    nudge,
    alignTo: (edge: Edge) => arrange(align(rects, edge)),
    spread: (along: 'across' | 'down') => arrange(distribute(rects, along)),
    evenOut: () => arrange(sameSize(rects)),
    remove,
    copy,
    paste,
    repeat,
    handTo,
    change,
    changeAll,
    accept,
    pass,
    strike,
    insert,
    dropRedline,
    changeRedline,
    moveStrike,
    everyPageLikeThis,
  };
}
