/** Touching a change selects it; with the strike tool, a stroke over words strikes them. */
import { useEffect, useRef, useState } from 'react';
import { Pressable, View } from 'react-native';
import { type Redline, wordsBetween } from '@gatepath/core/packet';
import type { PageFacts } from '@gatepath/core/paper';
import { REDLINE } from '@gatepath/core/inks';
import { redlineInHand, type PageAt } from './desk-state';
import { useDesk, useDeskActs } from './use-desk';
import { elementOf, webStyle } from '../../ui/web';
import { TEXT } from './words';

interface Props {
  at: PageAt;
  redlines: Redline[];
  page: PageFacts;
  scale: number;
  point: (native: { clientX: number; clientY: number }) => { x: number; y: number } | null;
}

export function RedlineHandles({ at, redlines, page, scale, point }: Props) {
  const { pickRedline } = useDeskActs();
  const { strikes, selectedId } = useDesk((s) => ({ strikes: s.tool === 'strike', selectedId: redlineInHand(s) }));
  return (
    <>
      {strikes ? <StrikePad at={at} page={page} scale={scale} point={point} /> : null}
      {redlines.flatMap((r) =>
        r.rects.map((b, i) => (
          <Pressable
            key={`${r.id}${i}`}
            role="button"
            testID={`redline-${r.kind}`}
            aria-label={r.kind === 'strike' ? TEXT.struckOf(r.text) : TEXT.putIn(r.text)}
            onPress={() => pickRedline(r.id)}
            style={{
              position: 'absolute',
              left: (b.x - 2) * scale,
              top: (b.y - 2) * scale,
              width: (b.w + 4) * scale,
              height: (b.h + 4) * scale,
              borderRadius: 3,
              borderWidth: selectedId === r.id ? 2 : 0,
              borderColor: REDLINE,
              zIndex: 3,
            }}
          />
        )),
      )}
    </>
  );
}

/** Lies over the page while the strike tool is chosen: strikes from the first word to the last, by finger or mouse. */
// eslint-disable-next-line max-lines-per-function -- one gesture from its start to its end
function StrikePad({ at, page, scale, point }: Omit<Props, 'redlines'>) {
  const { makeCurrent, strike } = useDeskActs();
  const pad = useRef<View>(null);
  const [over, setOver] = useState<{ x: number; y: number; w: number; h: number }[]>([]);
  const now = useRef({ at, page, point });
  now.current = { at, page, point };
  useEffect(() => {
    const el = elementOf(pad);
    if (!el) return;
    let from: { x: number; y: number } | null = null;
    const down = (e: PointerEvent) => {
      el.setPointerCapture(e.pointerId);
      from = now.current.point(e);
    };
    const move = (e: PointerEvent) => {
      const to = from && now.current.point(e);
      if (from && to) setOver(wordsBetween(now.current.page, from, to)?.rects ?? []);
    };
    const up = (e: PointerEvent) => {
      const to = now.current.point(e);
      if (from && to) {
        makeCurrent(now.current.at);
        strike(from, to);
      }
      from = null;
      setOver([]);
    };
    const cancel = () => {
      from = null;
      setOver([]);
    };
    el.addEventListener('pointerdown', down);
    el.addEventListener('pointermove', move);
    el.addEventListener('pointerup', up);
    el.addEventListener('pointercancel', cancel);
    return () => {
      el.removeEventListener('pointerdown', down);
      el.removeEventListener('pointermove', move);
      el.removeEventListener('pointerup', up);
      el.removeEventListener('pointercancel', cancel);
    };
  }, [makeCurrent, strike]);
  return (
    <View
      ref={pad}
      testID="strike-pad"
      style={webStyle({
        position: 'absolute',
        left: 0,
        top: 0,
        right: 0,
        bottom: 0,
        zIndex: 2,
        cursor: 'text',
        touchAction: 'none',
      })}
    >
      {over.map((b, i) => (
        <View
          key={i}
          style={{
            position: 'absolute',
            left: b.x * scale,
            top: b.y * scale,
            width: b.w * scale,
            height: b.h * scale,
            backgroundColor: `${REDLINE}33`,
          }}
        />
      ))}
    </View>
  );
}
