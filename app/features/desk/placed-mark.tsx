/** A mark on the desk: dragged, resized, or moved by keys; other selected marks move with it. */
import { useRef } from 'react';
import { View } from 'react-native';
import { KINDS, type Mark, NOBODY, type PacketParty, isFixed, lettersOf } from '@gatepath/core/packet';
import { inkOf } from '@gatepath/core/inks';
import { MarkFace } from '../pages/mark-box';
import type { Desk } from './use-desk';
import { isFocusedByKeys, webProps, webStyle } from '../../ui/web';
import { useDrag } from './use-drag';
import { TEXT } from './words';

interface Props {
  mark: Mark;
  party: PacketParty | null;
  scale: number;
  selected: boolean;
  /** Whether it is the only one selected: then it can be resized. */
  alone: boolean;
  desk: Desk;
}

export function PlacedMark({ mark, party, scale, selected, alone, desk }: Props) {
  const box = useRef<View>(null);
  const drag = useDrag(box, { mark, scale, desk, selected });
  const rect = drag?.rect ?? mark.rect;
  const { color } = party ? inkOf(party.ink) : { color: '#1E2A32' };
  const whose =
    mark.partyId === NOBODY || !party ? TEXT.label(mark.value ?? '') : TEXT.of(KINDS[mark.kind].word, party.name);
  // The keyboard selects a mark by focusing it; a pointer does that itself, keeping the selection.
  const onFocus = (e: { target: unknown }) => {
    if (!selected && isFocusedByKeys(e.target)) desk.select(mark.id);
  };
  const short = mark.kind === 'initials' && party && rect.w * scale < 52 ? lettersOf(party) : undefined;
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
        {selected && alone ? <Corner color={color} /> : null}
      </View>
    </>
  );
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
function onKey(e: Key, mark: Mark, desk: Desk, selected: boolean): void {
  const arrow = ARROWS[e.key];
  if (arrow) {
    const by = e.shiftKey ? 10 : 1;
    const [dx, dy] = [arrow[0] * by, arrow[1] * by];
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
