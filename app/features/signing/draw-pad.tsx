/** A pad to draw on with finger, pen or mouse; strokes are stored as points, never as a picture. */
import { type RefObject, useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { Svg, Path } from '../../ui/svg';
import { drawingSteps, strokesBox } from '@gatepath/core/filling';
import type { Drawing, Stroke } from '@gatepath/core/packet';
import { usePalette } from '../../ui/hooks';
import { Button } from '../../ui/pieces';
import { Strong } from '../../ui/text';
import { useSay } from './say';
import { elementOf, webStyle } from '../../ui/web';
import { itemAt } from '@gatepath/core/sure';
import { Row, Stack } from '../../ui/layout';

interface Props {
  label: string;
  height: number;
  value: Drawing | null;
  color: string;
  onChange: (drawing: Drawing | null) => void;
  testID: string;
}

/** Maximum number of coordinates of a drawing. */
const MOST_NUMBERS = 39_000;
const STEP = 2;

/** Follows a pointer on the pad. @returns the stroke being drawn; null between strokes */
function useStroke(box: RefObject<View | null>, { value, onChange }: Pick<Props, 'value' | 'onChange'>): Stroke | null {
  const [live, setLive] = useState<Stroke | null>(null);
  const latest = useRef({ value, onChange });
  latest.current = { value, onChange };
  useEffect(() => {
    const el = elementOf(box);
    if (!el) return;
    let stroke: Stroke | null = null;
    const point = (e: PointerEvent): [number, number] => {
      const r = el.getBoundingClientRect();
      const { value: v } = latest.current;
      // A drawing keeps the units it was begun in, even if the phone is turned meanwhile.
      const k = v ? v.width / r.width : 1;
      return [Math.round((e.clientX - r.left) * k * 10) / 10, Math.round((e.clientY - r.top) * k * 10) / 10];
    };
    const down = (e: PointerEvent) => {
      el.setPointerCapture(e.pointerId);
      stroke = point(e);
      setLive(stroke);
    };
    const move = (e: PointerEvent) => {
      if (!stroke) return;
      const [x, y] = point(e);
      const n = stroke.length;
      if (Math.hypot(x - itemAt(stroke, n - 2), y - itemAt(stroke, n - 1)) < STEP || n > 7900) return;
      stroke = [...stroke, x, y];
      setLive(stroke);
    };
    const up = () => {
      if (!stroke) return;
      const done = stroke;
      stroke = null;
      setLive(null);
      const { value: v, onChange: change } = latest.current;
      // As much as the server accepts: some minutes of a continuous line.
      const drawn = (v?.strokes ?? []).reduce((n, s) => n + s.length, 0);
      if (drawn + done.length > MOST_NUMBERS) return;
      const r = el.getBoundingClientRect();
      change(
        v
          ? { ...v, strokes: [...v.strokes, done].slice(-200) }
          : { width: Math.round(r.width), height: Math.round(r.height), strokes: [done] },
      );
    };
    el.addEventListener('pointerdown', down);
    el.addEventListener('pointermove', move);
    el.addEventListener('pointerup', up);
    el.addEventListener('pointercancel', up);
    return () => {
      el.removeEventListener('pointerdown', down);
      el.removeEventListener('pointermove', move);
      el.removeEventListener('pointerup', up);
      el.removeEventListener('pointercancel', up);
    };
  }, [box]);
  return live;
}

export function DrawPad({ label, height, value, color, onChange, testID }: Props) {
  const p = usePalette();
  const t = useSay();
  const box = useRef<View>(null);
  const live = useStroke(box, { value, onChange });
  const size = value ?? { width: 320, height };
  return (
    <Stack gap={4}>
      <Strong>{label}</Strong>
      <View
        ref={box}
        role="img"
        aria-label={`${label}. ${t(value ? 'sign.hand.drawn' : 'sign.hand.empty')}`}
        testID={testID}
        style={webStyle({
          height,
          borderWidth: 1.5,
          borderStyle: 'dashed',
          borderColor: p.slate,
          borderRadius: 12,
          backgroundColor: '#FFFFFF',
          touchAction: 'none',
          cursor: 'crosshair',
          overflow: 'hidden',
        })}
      >
        <Strokes
          strokes={[...(value?.strokes ?? []), ...(live ? [live] : [])]}
          size={value ? size : null}
          color={color}
        />
      </View>
      <Row align="stretch" justify="end">
        <Button
          kind="quiet"
          icon="undo"
          disabled={!value}
          onPress={() =>
            onChange(value && value.strokes.length > 1 ? { ...value, strokes: value.strokes.slice(0, -1) } : null)
          }
        >
          {t('sign.hand.undo')}
        </Button>
        <Button kind="quiet" disabled={!value} onPress={() => onChange(null)}>
          {t('sign.hand.start_over')}
        </Button>
      </Row>
    </Stack>
  );
}

/** Strokes as they were drawn, in the units of a drawing, or in pixels while there is none. */
function Strokes(o: { strokes: Stroke[]; size: { width: number; height: number } | null; color: string }) {
  const { strokes, size, color } = o;
  const all = strokesBox(strokes);
  // Shown where it was drawn: a rectangle of the drawing's own size leaves it as it is.
  const rect = { x: all.x - 1.3, y: all.y - 1.3, w: all.w + 2.6, h: all.h + 2.6 };
  return (
    <Svg
      width="100%"
      height="100%"
      viewBox={size ? `0 0 ${size.width} ${size.height}` : undefined}
      style={webStyle({ pointerEvents: 'none' })}
    >
      {strokes.length
        ? drawingSteps({ strokes }, rect).map((steps, i) => (
            <Path
              key={i}
              d={steps.map((s) => (s.to === 'Q' ? `Q${s.cx} ${s.cy} ${s.x} ${s.y}` : `${s.to}${s.x} ${s.y}`)).join(' ')}
              stroke={color}
              strokeWidth={3}
              strokeLinecap="round"
              strokeLinejoin="round"
              fill="none"
            />
          ))
        : null}
    </Svg>
  );
}
