/** A mark on the desk: dragged, resized, or moved by keys; other selected marks move with it. */
import { memo, useRef } from 'react';
import { View } from 'react-native';
import { KINDS, type Mark, NOBODY, type PacketParty, isFixed, lettersOf } from '@gatepath/core/packet';
import { inkOf } from '@gatepath/core/inks';
import { MarkFace } from '../pages/mark-box';
import { selectedMarks } from './desk-state';
import type { DeskStore } from './desk-store';
import { useDesk, useDeskStore } from './use-desk';
import { isFocusedByKeys, webProps, webStyle } from '../../ui/web';
import { useDrag, type Drag } from './use-drag';
import { TEXT } from './words';

interface Props {
  mark: Mark;
  party: PacketParty | null;
  scale: number;
}

export const PlacedMark = memo(function PlacedMark({ mark, party, scale }: Props) {
  const box = useRef<View>(null);
  const desk = useDeskStore();
  // The only one selected can be resized.
  const { selected, alone } = useDesk(({ selectedIds }) => ({
    selected: selectedIds.includes(mark.id),
    alone: selectedIds.length === 1 && selectedIds[0] === mark.id,
  }));
  const drag = useDrag(box, { mark, scale, selected });
  const rect = drag?.rect ?? mark.rect;
  const { color } = party ? inkOf(party.ink) : { color: '#1E2A32' };
  const whose =
    mark.partyId === NOBODY || !party ? TEXT.label(mark.value ?? '') : TEXT.of(KINDS[mark.kind].word, party.name);
  // The keyboard selects a mark by focusing it; a pointer does that itself, keeping the selection.
  const onFocus = (e: { target: unknown }) => {
    if (!selected && isFocusedByKeys(e.target)) desk.acts.select(mark.id);
  };
  const short = mark.kind === 'initials' && party && rect.w * scale < 52 ? lettersOf(party) : undefined;
  return (
    <>
      {drag ? <SnapLines lines={drag.lines} scale={scale} color={color} /> : null}
      <View
        ref={box}
        role="button"
        tabIndex={0}
        testID={`mark-${mark.kind}`}
        aria-label={TEXT.pageArrowKeysMove(whose, mark.page)}
        {...webProps({ onKeyDown: (e: Key) => onKey(e, mark, desk, selected), onFocus, 'aria-pressed': selected })}
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
          text={isFixed(mark) ? mark.value : short}
        />
        {alone ? <Corner color={color} /> : null}
      </View>
    </>
  );
});

/** The lines that a dragged mark snaps to. */
function SnapLines({ lines, scale, color }: { lines: Drag['lines']; scale: number; color: string }) {
  return lines.map((l, i) => (
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
  ));
}

interface Key {
  key: string;
  shiftKey: boolean;
  altKey: boolean;
  preventDefault: () => void;
  stopPropagation: () => void;
}

const ARROWS: Record<string, [x: number, y: number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/**
 * Handles the keys of a mark: arrow keys move it, with Alt they resize it; Delete removes it; Space and Enter select
 * it.
 */
function onKey(e: Key, mark: Mark, { acts, store }: DeskStore, selected: boolean): void {
  const arrow = ARROWS[e.key];
  if (arrow) {
    const by = e.shiftKey ? 10 : 1;
    const [dx, dy] = [arrow[0] * by, arrow[1] * by];
    const r = mark.rect;
    const least = KINDS[mark.kind].least;
    if (e.altKey)
      acts.moveMarks([{ mark, rect: { ...r, w: Math.max(least.w, r.w + dx), h: Math.max(least.h, r.h + dy) } }]);
    else if (selected) acts.nudge(dx, dy);
    else acts.moveMarks([{ mark, rect: { ...r, x: r.x + dx, y: r.y + dy } }]);
  } else if (e.key === 'Delete' || e.key === 'Backspace')
    acts.remove(selected ? selectedMarks(store.getState()) : [mark]);
  else if (e.key === ' ' || e.key === 'Enter') acts.select(mark.id, e.shiftKey);
  else return;
  e.preventDefault();
  e.stopPropagation();
}

/** The handle for resizing a mark. */
function Corner({ color }: { color: string }) {
  return (
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
  );
}
