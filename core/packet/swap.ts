/** Putting other pages in the place of a document's, keeping what was prepared on them. */
import type { Draft, DraftEdit } from './draft';
import { matchPages } from '../reading/match';
import { turnRect } from '../paper/arrange';
import type { DocumentFacts } from './resolve';
import type { InitialsRule, Mark, Redline } from './types';
import type { Rect } from '../paper/types';
import { itemAt } from '../sure';

/** Where a page went: to which document and page (from 1), and how far it was turned clockwise. */
export interface PageMove {
  from: { documentId: string; page: number };
  to: { documentId: string; page: number; turn: 0 | 90 | 180 | 270 } | null;
  /** Size of the page before, in points as displayed. */
  size: { width: number; height: number };
}

/**
 * Returns the edits that replace the documents of `moves` in a draft by those of `into`. Marks, rules and redlines move
 * along; those on pages that no longer exist are removed.
 *
 * @param into  ids of the documents to put in, in order, where the first of the old ones stood
 */
export function editsToSwapPages(draft: Draft, moves: PageMove[], into: string[]): DraftEdit[] {
  const at = new Map(moves.map((m) => [`${m.from.documentId}:${m.from.page}`, m]));
  const old = new Set(moves.map((m) => m.from.documentId));
  const edits: DraftEdit[] = [];
  const index = draft.documents.findIndex((d) => old.has(d.id));
  const stays = draft.documents.filter((d) => old.has(d.id) && !into.includes(d.id));
  for (const d of stays) edits.push({ op: 'drop', list: 'documents', id: d.id });
  into.forEach((id, i) => edits.push({ op: 'put', list: 'documents', item: { id }, index: Math.max(0, index) + i }));

  const moved = (rect: Rect, move: PageMove) => turnRect(rect, move.size, move.to!.turn);
  for (const m of draft.marks) {
    if (!old.has(m.documentId)) continue;
    const move = at.get(`${m.documentId}:${m.page}`);
    if (!move?.to) {
      edits.push({ op: 'drop', list: 'marks', id: m.id });
      continue;
    }
    // The place a mark was accepted for is named by its old document; the mark is now independent.
    const { placeId: _placeId, ...rest } = m;
    const item: Mark = { ...rest, documentId: move.to.documentId, page: move.to.page, rect: moved(m.rect, move) };
    edits.push({ op: 'put', list: 'marks', item });
  }
  for (const r of draft.redlines) {
    if (!old.has(r.documentId)) continue;
    const move = at.get(`${r.documentId}:${r.page}`);
    if (!move?.to) edits.push({ op: 'drop', list: 'redlines', id: r.id });
    else {
      const item: Redline = {
        ...r,
        documentId: move.to.documentId,
        page: move.to.page,
        rects: r.rects.map((b) => moved(b, move)),
        moved: r.moved.map((m) => ({ ...m, rect: moved(m.rect, move) })),
      };
      edits.push({ op: 'put', list: 'redlines', item });
    }
  }
  edits.push(...ruleEdits(draft, moves, old, into));
  for (const p of draft.passed)
    if (old.has(itemAt(p.id.split('.'), 0))) edits.push({ op: 'drop', list: 'passed', id: p.id });
  return edits;
}

/**
 * Returns the edits by which an initials rule follows its document. A document made of several takes over the rules of
 * all of them.
 */
function ruleEdits(draft: Draft, moves: PageMove[], old: Set<string>, into: string[]): DraftEdit[] {
  const rules = draft.rules.filter((r) => old.has(r.documentId));
  if (!rules.length) return [];
  const edits: DraftEdit[] = rules.map((r): DraftEdit => ({ op: 'drop', list: 'rules', id: r.id }));
  for (const documentId of into) {
    const sources = moves.filter((m) => m.to?.documentId === documentId);
    const mine = rules.filter((r) => sources.some((m) => m.from.documentId === r.documentId));
    const first = mine[0];
    if (!first) continue;
    const rule: InitialsRule = {
      id: `rule-${documentId}`,
      documentId,
      partyIds: [...new Set(mine.flatMap((r) => r.partyIds))],
      anchor: first.anchor,
      except: [],
      moved: [],
    };
    for (const m of sources) {
      const r = mine.find((x) => x.documentId === m.from.documentId);
      for (const partyId of rule.partyIds)
        // Nobody gets initials on pages of a part they did not initial before.
        if (!r?.partyIds.includes(partyId) || r.except.some((e) => e.page === m.from.page && e.partyId === partyId))
          rule.except.push({ page: m.to!.page, partyId });
      for (const x of r?.moved ?? [])
        if (x.page === m.from.page)
          rule.moved.push({ page: m.to!.page, partyId: x.partyId, rect: turnRect(x.rect, m.size, m.to!.turn) });
    }
    edits.push({ op: 'put', list: 'rules', item: rule });
  }
  return edits;
}

/** Returns, for each page of a document, the page of a new document with the same text (from 0), or null. */
export function matchPagesOf(before: DocumentFacts, after: DocumentFacts): (number | null)[] {
  const text = (d: DocumentFacts) => d.pages.map((p) => p.words.join(' '));
  return matchPages(text(before), text(after));
}
