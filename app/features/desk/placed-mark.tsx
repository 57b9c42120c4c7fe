/** A mark on the desk: dragged, stretched, or moved by keys; the arrows of the keyboard move it by points. */
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { MARK_MIN, MARK_WORDS, type Mark, type Rect } from '@gatepath/core/marks';
import type { PacketParty } from '@gatepath/core/routing';
import { inkOf } from '@gatepath/core/inks';
import { MarkFace } from '../pages/mark-box';

interface Props {
  mark: Mark;
  party: PacketParty;
  scale: number;
  selected: boolean;
  onSelect: () => void;
  onMove: (rect: Rect) => void;
  onDelete: () => void;
}

/** Pixels a pointer may wander before a touch becomes a drag. */
const SLACK = 4;

export function PlacedMark({ mark, party, scale, selected, onSelect, onMove, onDelete }: Props) {
  const [drag, setDrag] = useState<Rect | null>(null);
  const box = useRef<View>(null);
  const rect = drag ?? mark.rect;
  // The listeners live as long as the element; they read the newest props through here.
  const now = useRef({ mark, scale, onSelect, onMove });
  now.current = { mark, scale, onSelect, onMove };

  useEffect(() => {
    const el = box.current as unknown as HTMLElement | null;
    if (!el) return;
    let from: { x: number; y: number; rect: Rect; stretch: boolean; moved: boolean } | null = null;
    let last: Rect | null = null;
    const down = (e: PointerEvent) => {
      e.stopPropagation();
      el.setPointerCapture(e.pointerId);
      const stretch = (e.target as HTMLElement).closest('[data-stretch]') !== null;
      from = { x: e.clientX, y: e.clientY, rect: now.current.mark.rect, stretch, moved: false };
      now.current.onSelect();
    };
    const move = (e: PointerEvent) => {
      if (!from) return;
      const dx = e.clientX - from.x;
      const dy = e.clientY - from.y;
      if (!from.moved && Math.hypot(dx, dy) < SLACK) return;
      from.moved = true;
      const s = now.current.scale;
      const r = from.rect;
      last = from.stretch
        ? { ...r, w: Math.max(MARK_MIN.w, r.w + dx / s), h: Math.max(MARK_MIN.h, r.h + dy / s) }
        : { ...r, x: r.x + dx / s, y: r.y + dy / s };
      setDrag(last);
    };
    const up = () => {
      if (from?.moved && last) now.current.onMove(last);
      from = null;
      last = null;
      setDrag(null);
    };
    const cancel = () => {
      from = null;
      last = null;
      setDrag(null);
    };
    const still = (e: Event) => e.stopPropagation();
    el.addEventListener('pointerdown', down);
    el.addEventListener('pointermove', move);
    el.addEventListener('pointerup', up);
    el.addEventListener('pointercancel', cancel);
    el.addEventListener('click', still);
    return () => {
      el.removeEventListener('pointerdown', down);
      el.removeEventListener('pointermove', move);
      el.removeEventListener('pointerup', up);
      el.removeEventListener('pointercancel', cancel);
      el.removeEventListener('click', still);
    };
  }, []);

  const onKeyDown = (e: {
    key: string;
    shiftKey: boolean;
    altKey: boolean;
    preventDefault: () => void;
    stopPropagation: () => void;
  }) => {
    const by = e.shiftKey ? 10 : 1;
    const arrows: Record<string, [number, number]> = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    };
    const arrow = arrows[e.key];
    if (arrow) {
      const [dx, dy] = arrow;
      const r = mark.rect;
      onMove(
        e.altKey
          ? { ...r, w: Math.max(MARK_MIN.w, r.w + dx), h: Math.max(MARK_MIN.h, r.h + dy) }
          : { ...r, x: r.x + dx, y: r.y + dy },
      );
    } else if (e.key === 'Delete' || e.key === 'Backspace') onDelete();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const { color } = inkOf(party.ink);
  return (
    <View
      ref={box}
      role="button"
      tabIndex={0}
      testID={`mark-${mark.kind}`}
      aria-label={`${MARK_WORDS[mark.kind]} of ${party.name}, page ${mark.page}. Arrow keys move it, Alt and arrow keys change its size, Delete removes it.`}
      {...({ onKeyDown, onFocus: onSelect } as object)}
      style={
        {
          position: 'absolute',
          left: rect.x * scale,
          top: rect.y * scale,
          width: rect.w * scale,
          height: rect.h * scale,
          zIndex: selected ? 2 : 1,
          touchAction: 'none',
          cursor: 'grab',
        } as never
      }
    >
      <MarkFace
        rect={rect}
        scale={scale}
        kind={mark.kind}
        ink={party.ink}
        required={mark.required}
        selected={selected}
      />
      {selected ? (
        <View
          {...({ dataSet: { stretch: '1' } } as object)}
          style={
            {
              position: 'absolute',
              right: -20,
              bottom: -20,
              width: 36,
              height: 36,
              alignItems: 'center',
              justifyContent: 'center',
              cursor: 'nwse-resize',
            } as never
          }
        >
          <View
            style={{
              width: 14,
              height: 14,
              borderRadius: 7,
              backgroundColor: color,
              borderWidth: 2,
              borderColor: '#FFFFFF',
            }}
          />
        </View>
      ) : null}
    </View>
  );
}
