/** A mark on the desk: dragged, stretched, or moved by keys; what is in hand with it moves along. */
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { KINDS, type Mark, NOBODY, type PacketParty, isFixed } from '@gatepath/core/packet';
import type { Rect } from '@gatepath/core/paper';
import { inkOf } from '@gatepath/core/inks';
import { initialsOf } from '@gatepath/core/text';
import { MarkFace } from '../pages/mark-box';
import type { Desk } from './use-desk';
import { elementOf, webProps, webStyle } from '../../ui/web';

interface Props {
  mark: Mark;
  party: PacketParty | null;
  scale: number;
  selected: boolean;
  /** Whether it is the only one in hand: then it can be stretched. */
  alone: boolean;
  desk: Desk;
}

/** Pixels a pointer may wander before a touch becomes a drag. */
const SLACK = 4;

export function PlacedMark({ mark, party, scale, selected, alone, desk }: Props) {
  const [drag, setDrag] = useState<{ rect: Rect; lines: { x?: number; y?: number }[] } | null>(null);
  const box = useRef<View>(null);
  const rect = drag?.rect ?? mark.rect;
  // The listeners live as long as the element; they read the newest props through here.
  const now = useRef({ mark, scale, desk, selected });
  now.current = { mark, scale, desk, selected };

  useEffect(() => {
    const el = elementOf(box);
    if (!el) return;
    let from: { x: number; y: number; rect: Rect; stretch: boolean; moved: boolean; also: boolean } | null = null;
    let last: Rect | null = null;
    const down = (e: PointerEvent) => {
      e.stopPropagation();
      el.setPointerCapture(e.pointerId);
      const stretch = e.target instanceof Element && e.target.closest('[data-stretch]') !== null;
      const also = e.shiftKey || e.ctrlKey || e.metaKey || now.current.desk.gathering;
      from = { x: e.clientX, y: e.clientY, rect: now.current.mark.rect, stretch, moved: false, also };
      // A mark that is in hand with others stays with them, so that all can be dragged together.
      if (also || !now.current.selected) now.current.desk.select(now.current.mark.id, also);
    };
    const move = (e: PointerEvent) => {
      if (!from) return;
      const dx = e.clientX - from.x;
      const dy = e.clientY - from.y;
      if (!from.moved && Math.hypot(dx, dy) < SLACK) return;
      from.moved = true;
      const { scale: s, mark: m, desk: d } = now.current;
      const r = from.rect;
      const least = KINDS[m.kind].least;
      if (from.stretch) {
        last = { ...r, w: Math.max(least.w, r.w + dx / s), h: Math.max(least.h, r.h + dy / s) };
        setDrag({ rect: last, lines: [] });
        return;
      }
      const free = { ...r, x: r.x + dx / s, y: r.y + dy / s };
      const near = e.altKey ? { rect: free, lines: [] } : d.snapped(m, free);
      last = near.rect;
      setDrag(near);
    };
    const up = () => {
      const { mark: m, desk: d } = now.current;
      if (from?.moved && last) {
        const dx = last.x - from.rect.x;
        const dy = last.y - from.rect.y;
        const others = from.stretch ? [] : d.selected.filter((x) => x.id !== m.id);
        d.moveMarks([
          { mark: m, rect: last },
          ...others.map((x) => ({ mark: x, rect: { ...x.rect, x: x.rect.x + dx, y: x.rect.y + dy } })),
        ]);
      } else if (from && !from.also && d.selected.length > 1) d.select(m.id);
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
      const least = KINDS[mark.kind].least;
      if (e.altKey)
        desk.moveMarks([{ mark, rect: { ...r, w: Math.max(least.w, r.w + dx), h: Math.max(least.h, r.h + dy) } }]);
      else if (selected) desk.nudge(dx, dy);
      else desk.moveMarks([{ mark, rect: { ...r, x: r.x + dx, y: r.y + dy } }]);
    } else if (e.key === 'Delete' || e.key === 'Backspace') desk.remove(selected ? desk.selected : [mark]);
    else if (e.key === ' ' || e.key === 'Enter') desk.select(mark.id, e.shiftKey);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  // A keyboard that comes to a mark takes it in hand; a pointer does that by itself, with what is in hand already.
  const onFocus = (e: { target: unknown }) => {
    if (!now.current.selected && e.target instanceof Element && e.target.matches(':focus-visible'))
      desk.select(mark.id);
  };
  const { color } = party ? inkOf(party.ink) : { color: '#1E2A32' };
  const whose =
    mark.partyId === NOBODY || !party ? `label: ${mark.value ?? ''}` : `${KINDS[mark.kind].word} of ${party.name}`;
  return (
    <>
      {drag?.lines.map((l, i) => (
        <View
          key={i}
          style={webStyle({
            position: 'absolute',
            pointerEvents: 'none',
            backgroundColor: color,
            ...(l.x !== undefined
              ? { left: l.x * scale, top: 0, bottom: 0, width: 1 }
              : { top: (l.y ?? 0) * scale, left: 0, right: 0, height: 1 }),
          })}
        />
      ))}
      <View
        ref={box}
        role="button"
        tabIndex={0}
        testID={`mark-${mark.kind}`}
        aria-label={`${whose}, page ${mark.page}. Arrow keys move it, Alt and arrow keys change its size, Delete removes it.`}
        {...webProps({ onKeyDown, onFocus, 'aria-pressed': selected })}
        style={webStyle({
          position: 'absolute',
          left: rect.x * scale,
          top: rect.y * scale,
          width: rect.w * scale,
          height: rect.h * scale,
          zIndex: selected ? 4 : 2,
          touchAction: 'none',
          cursor: 'grab',
        })}
      >
        <MarkFace
          rect={rect}
          scale={scale}
          kind={mark.kind}
          ink={party?.ink ?? null}
          required={mark.required}
          selected={selected}
          text={
            isFixed(mark)
              ? mark.value
              : mark.kind === 'initials' && party && rect.w * scale < 52
                ? initialsOf(party.name)
                : undefined
          }
        />
        {selected && alone ? (
          <View
            {...webProps({ dataSet: { stretch: '1' } })}
            style={webStyle({
              position: 'absolute',
              right: -22,
              bottom: -22,
              width: 40,
              height: 40,
              alignItems: 'center',
              justifyContent: 'center',
              cursor: 'nwse-resize',
            })}
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
    </>
  );
}
