/** Touching a change selects it; with the strike tool, a stroke over words strikes them. */
import { useEffect, useRef, useState } from 'react';
import { Pressable, View } from 'react-native';
import { type Redline, wordsBetween } from '@gatepath/core/packet';
import type { PageFacts } from '@gatepath/core/paper';
import { REDLINE } from '@gatepath/core/inks';
import type { Desk } from './use-desk';
import { elementOf, webStyle } from '../../ui/web';
import { TEXT } from './words';

interface Props {
  desk: Desk;
  redlines: Redline[];
  page: PageFacts;
  scale: number;
  point: (native: { clientX: number; clientY: number }) => { x: number; y: number } | null;
}

export function RedlineHandles({ desk, redlines, page, scale, point }: Props) {
  return (
    <>
      {desk.tool === 'strike' ? <StrikePad desk={desk} page={page} scale={scale} point={point} /> : null}
      {redlines.flatMap((r) =>
        r.rects.map((b, i) => (
          <Pressable
            key={`${r.id}${i}`}
            role="button"
            testID={`redline-${r.kind}`}
            aria-label={r.kind === 'strike' ? TEXT.struckOf(r.text) : TEXT.putIn(r.text)}
            onPress={() => desk.pickRedline(r.id)}
            style={{
              position: 'absolute',
              left: (b.x - 2) * scale,
              top: (b.y - 2) * scale,
              width: (b.w + 4) * scale,
              height: (b.h + 4) * scale,
              borderRadius: 3,
              borderWidth: desk.redlineId === r.id ? 2 : 0,
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
function StrikePad({ desk, page, scale, point }: Omit<Props, 'redlines'>) {
  const pad = useRef<View>(null);
  const [over, setOver] = useState<{ x: number; y: number; w: number; h: number }[]>([]);
  const now = useRef({ desk, page, point });
  now.current = { desk, page, point };
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
      if (from && to) now.current.desk.strike(from, to);
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
  }, []);
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
