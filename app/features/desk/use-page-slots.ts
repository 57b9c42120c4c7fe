/** The pages of a document as they are being arranged: turned, moved, left out, or split in two. */
import { useMemo, useState } from 'react';
import type { DocumentFacts } from '@gatepath/core/packet';
import type { PageMove } from '@gatepath/core/packet';
import { itemAt } from '@gatepath/core/sure';
import type { useDocumentTools } from './use-document-tools';
import { TEXT } from './words';

type Turn = NonNullable<PageMove['to']>['turn'];

/** One page in its current order. */
export interface Slot {
  page: number;
  turn: Turn;
  out: boolean;
}

const TURNS: readonly Turn[] = [0, 90, 180, 270];

/** Returns a turn with another quarter to the right. */
export const turned = (turn: Turn): Turn => itemAt(TURNS, (TURNS.indexOf(turn) + 1) % TURNS.length);

/**
 * Returns the page order of a document as it is being edited, and the functions that change and save it.
 *
 * @param onDone called after the pages were changed in the deal and in the draft
 */
// eslint-disable-next-line max-lines-per-function -- putting pages in order, using them and splitting share one list of slots
export function usePageSlots(
  doc: DocumentFacts | undefined,
  tools: ReturnType<typeof useDocumentTools>,
  onDone: () => void,
) {
  const start = useMemo(() => (doc?.pages ?? []).map((_, i): Slot => ({ page: i + 1, turn: 0, out: false })), [doc]);
  const [order, setOrder] = useState<{ of: string; slots: Slot[] } | null>(null);
  const slots = order && order.of === doc?.id ? order.slots : start;
  const left = slots.filter((s) => !s.out);
  const change = (next: Slot[]) => doc && setOrder({ of: doc.id, slots: next });
  const apply = async () => {
    if (!doc) return;
    const made = await tools.compose({
      name: doc.name,
      parts: left.map((s) => ({ documentId: doc.id, page: s.page, turn: s.turn })),
      replaces: [doc.id],
    });
    if (!made) return;
    tools.swap(
      doc.pages.map((size, i): PageMove => {
        const to = left.findIndex((s) => s.page === i + 1);
        return {
          from: { documentId: doc.id, page: i + 1 },
          to: to < 0 ? null : { documentId: made.id, page: to + 1, turn: itemAt(left, to).turn },
          size,
        };
      }),
      [made.id],
    );
    onDone();
  };
  /** Splits the document before a page. */
  const split = async (before: number) => {
    if (!doc) return;
    const all = doc.pages.map((_, i) => i + 1);
    const made: string[] = [];
    for (const [i, pages] of [all.slice(0, before - 1), all.slice(before - 1)].entries()) {
      const part = await tools.compose({
        name: TEXT.part(doc.name, i + 1),
        parts: pages.map((page) => ({ documentId: doc.id, page, turn: 0 })),
        replaces: i === 0 ? [doc.id] : [],
      });
      if (!part) return;
      made.push(part.id);
    }
    tools.swap(
      doc.pages.map((size, i): PageMove => {
        const isFirst = i + 1 < before;
        const to = { documentId: itemAt(made, isFirst ? 0 : 1), page: isFirst ? i + 1 : i + 2 - before };
        return { from: { documentId: doc.id, page: i + 1 }, to: { ...to, turn: 0 }, size };
      }),
      made,
    );
    onDone();
  };
  return {
    slots,
    left,
    isChanged: slots.some((s, i) => s.page !== i + 1 || s.turn || s.out),
    set: (i: number, more: Partial<Slot>) => change(slots.map((s, k) => (k === i ? { ...s, ...more } : s))),
    swap: (i: number, k: number) => {
      const next = [...slots];
      [next[i], next[k]] = [itemAt(next, k), itemAt(next, i)];
      change(next);
    },
    reset: () => setOrder(null),
    apply,
    split,
  };
}
