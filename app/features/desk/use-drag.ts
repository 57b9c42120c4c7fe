/** Where a mark's pointer drags it to; the listeners live as long as its element. */
import { type RefObject, useEffect, useRef, useState } from 'react';
import type { View } from 'react-native';
import { KINDS, type Mark } from '@gatepath/core/packet';
import type { Rect } from '@gatepath/core/paper';
import { elementOf } from '../../ui/web';
import { isGathering, selectedMarks } from './desk-state';
import type { DeskStore } from './desk-store';
import { useDeskStore } from './use-desk';

/** Pixels a pointer may move before a touch becomes a drag. */
const SLACK = 4;

/** Where a mark is dragged to. */
export interface Drag {
  rect: Rect;
  /** The lines it snaps to. */
  lines: { x?: number; y?: number }[];
}

interface Newest {
  mark: Mark;
  scale: number;
  selected: boolean;
}

/** Tracks the dragging of a mark. @returns where the mark is being dragged to; null while nobody drags it */
export function useDrag(box: RefObject<View | null>, newest: Newest): Drag | null {
  const desk = useDeskStore();
  const [drag, setDrag] = useState<Drag | null>(null);
  // The listeners read the newest props through here.
  const now = useRef(newest);
  now.current = newest;
  useEffect(() => {
    const el = elementOf(box);
    return el ? listen(el, desk, now, setDrag) : undefined;
  }, [box, desk]);
  return drag;
}

/** Where a pointer was pressed, and on what. */
interface Start {
  x: number;
  y: number;
  rect: Rect;
  stretch: boolean;
  moved: boolean;
  also: boolean;
}

function listen(
  el: HTMLElement,
  desk: DeskStore,
  now: RefObject<Newest>,
  setDrag: (drag: Drag | null) => void,
): () => void {
  const { acts, store } = desk;
  let from: Start | null = null;
  let last: Rect | null = null;
  const endDrag = () => {
    from = null;
    last = null;
    setDrag(null);
  };
  const down = (e: PointerEvent) => {
    const { mark, selected } = now.current;
    e.stopPropagation();
    el.setPointerCapture(e.pointerId);
    const stretch = e.target instanceof Element && e.target.closest('[data-stretch]') !== null;
    const also = e.shiftKey || e.ctrlKey || e.metaKey || isGathering(store.getState());
    from = { x: e.clientX, y: e.clientY, rect: mark.rect, stretch, moved: false, also };
    // A selected mark stays selected, so that all can be dragged together.
    if (also || !selected) acts.select(mark.id, also);
  };
  const move = (e: PointerEvent) => {
    if (!from) return;
    const dx = e.clientX - from.x;
    const dy = e.clientY - from.y;
    if (!from.moved && Math.hypot(dx, dy) < SLACK) return;
    from.moved = true;
    const to = draggedTo(acts, now.current, from, dx, dy, e.altKey);
    last = to.rect;
    setDrag(to);
  };
  const up = () => {
    const { mark } = now.current;
    if (from?.moved && last) putDown(desk, mark, from, last);
    else if (from && !from.also && store.getState().selectedIds.length > 1) acts.select(mark.id);
    endDrag();
  };
  const still = (e: Event) => e.stopPropagation();
  const hearing = new AbortController();
  const { signal } = hearing;
  el.addEventListener('pointerdown', down, { signal });
  el.addEventListener('pointermove', move, { signal });
  el.addEventListener('pointerup', up, { signal });
  el.addEventListener('pointercancel', endDrag, { signal });
  el.addEventListener('click', still, { signal });
  return () => hearing.abort();
}

/** Returns where a mark is dragged to. @param freely whether it follows the pointer without snapping */
function draggedTo(
  acts: DeskStore['acts'],
  { mark, scale }: Newest,
  from: Start,
  dx: number,
  dy: number,
  freely: boolean,
): Drag {
  const r = from.rect;
  if (from.stretch) {
    const least = KINDS[mark.kind].least;
    return {
      rect: { ...r, w: Math.max(least.w, r.w + dx / scale), h: Math.max(least.h, r.h + dy / scale) },
      lines: [],
    };
  }
  const free = { ...r, x: r.x + dx / scale, y: r.y + dy / scale };
  return freely ? { rect: free, lines: [] } : acts.snapped(mark, free);
}

/** Moves the selection with a mark; a mark is resized alone. */
function putDown({ acts, store }: DeskStore, mark: Mark, from: Start, to: Rect): void {
  const dx = to.x - from.rect.x;
  const dy = to.y - from.rect.y;
  const others = from.stretch ? [] : selectedMarks(store.getState()).filter((x) => x.id !== mark.id);
  acts.moveMarks([
    { mark, rect: to },
    ...others.map((x) => ({ mark: x, rect: { ...x.rect, x: x.rect.x + dx, y: x.rect.y + dy } })),
  ]);
}
