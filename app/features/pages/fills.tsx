/** What stands in filled marks, drawn over a page exactly as the sealed copy will have it. */
import { memo } from 'react';
import Svg, { Path, Text as SvgText } from 'react-native-svg';
import { drawingSteps, PEN_WIDTH, setScript, setText, type PathStep, type Rect } from '@gatepath/core/marks';
import type { ShownFill } from '@gatepath/contract';
import { inkOf } from '@gatepath/core/inks';
import { FONT } from '../../ui/theme';
import { familyOf, measureIn, useHandFonts } from './hand-fonts';

interface Props {
  page: { width: number; height: number };
  /** Points to pixels. */
  scale: number;
  fills: ShownFill[];
}

export const Fills = memo(function Fills({ page, scale, fills }: Props) {
  const faces = fills.flatMap((f) => (f.shows.form === 'typed' ? [f.shows.face] : []));
  const text = fills.map((f) => (f.shows.form === 'typed' ? f.shows.text : '')).join('');
  const ready = useHandFonts(faces, text);
  return (
    <Svg
      width={page.width * scale}
      height={page.height * scale}
      viewBox={`0 0 ${page.width} ${page.height}`}
      style={{ position: 'absolute', left: 0, top: 0, pointerEvents: 'none' } as never}
    >
      {ready
        ? fills.map((f) => (
            <Shown key={f.markId} shows={f.shows} rect={f.rect} kind={f.kind} color={inkOf(f.ink).color} />
          ))
        : null}
    </Svg>
  );
});

export function Shown({
  shows,
  rect,
  kind,
  color,
}: {
  shows: ShownFill['shows'];
  rect: Rect;
  kind: ShownFill['kind'];
  color: string;
}) {
  if (shows.form === 'drawn') {
    return (
      <>
        {drawingSteps(shows.drawing, rect).map((steps, i) => (
          <Path
            key={i}
            d={pathData(steps)}
            stroke={color}
            strokeWidth={PEN_WIDTH}
            strokeLinecap="round"
            strokeLinejoin="round"
            fill="none"
          />
        ))}
      </>
    );
  }
  const family = shows.form === 'typed' ? familyOf(shows.face) : FONT.text;
  const measure = measureIn(family);
  const line =
    shows.form === 'typed'
      ? setScript(shows.text, kind === 'initials' ? 'initials' : 'signature', rect, measure)
      : setText(shows.text, rect, measure);
  return (
    <SvgText
      x={line.x}
      y={line.baseline}
      fontSize={line.size}
      fontFamily={family}
      fill={shows.form === 'typed' ? color : '#1E2A32'}
    >
      {shows.text}
    </SvgText>
  );
}

function pathData(steps: PathStep[]): string {
  return steps.map((s) => (s.to === 'Q' ? `Q${s.cx} ${s.cy} ${s.x} ${s.y}` : `${s.to}${s.x} ${s.y}`)).join(' ');
}
