/** The content of filled marks, drawn over a page exactly as in the sealed copy. */
import { memo } from 'react';
import { Svg, Image as SvgImage, Path, Text as SvgText } from '../../ui/svg';
import {
  PEN_WIDTH,
  drawingSteps,
  fitPicture,
  setParagraph,
  setScript,
  setText,
  tickStrokes,
  handOf,
  withUnder,
} from '@gatepath/core/filling';
import type { PathStep } from '@gatepath/core/packet';
import type { Rect } from '@gatepath/core/paper';
import type { ShownFill } from '@gatepath/core/packet';
import { inkOf } from '@gatepath/core/inks';
import { FONT } from '../../ui/theme';
import { familyOf, measureIn, useHandFonts } from './hand-fonts';
import { webStyle } from '../../ui/web';

interface Props {
  page: { width: number; height: number };
  /** Pixels per point. */
  scale: number;
  fills: ShownFill[];
  /** Returns the address of a hand's picture by its fingerprint. */
  pictureUrl: (sha256: string) => string;
}

export const Fills = memo(function Fills({ page, scale, fills, pictureUrl }: Props) {
  const faces = fills.flatMap((f) => (f.shows.form === 'typed' ? [f.shows.face] : []));
  const text = fills.map((f) => (f.shows.form === 'typed' ? f.shows.text : '')).join('');
  const ready = useHandFonts(
    faces,
    text,
    fills.some((f) => f.shows.form === 'text' || f.under),
  );
  return (
    <Svg
      width={page.width * scale}
      height={page.height * scale}
      viewBox={`0 0 ${page.width} ${page.height}`}
      style={webStyle({ position: 'absolute', left: 0, top: 0, pointerEvents: 'none' })}
    >
      {ready
        ? fills.map((f) => (
            <Shown
              key={f.markId}
              shows={f.shows}
              rect={f.rect}
              kind={f.kind}
              color={inkOf(f.ink).color}
              several={f.lines === 'several'}
              under={f.under}
              pictureUrl={pictureUrl}
            />
          ))
        : null}
    </Svg>
  );
});

export function Shown({ under, rect, ...rest }: ShownProps & { under?: string | undefined }) {
  const { hand, words } = withUnder(rect, under);
  if (!words || !under) return <Hand {...rest} rect={rect} />;
  const line = setText(under, words, measureIn(FONT.document));
  return (
    <>
      <Hand {...rest} rect={hand} />
      <SvgText x={line.x} y={line.baseline} fontSize={line.size} fontFamily={FONT.document} fill={INK}>
        {under}
      </SvgText>
    </>
  );
}

interface ShownProps {
  shows: ShownFill['shows'];
  rect: Rect;
  kind: ShownFill['kind'];
  color: string;
  several?: boolean;
  pictureUrl?: (sha256: string) => string;
}

function Hand({ shows, rect, kind, color, several, pictureUrl }: ShownProps) {
  if (shows.form === 'picture') {
    const box = fitPicture(shows.picture, rect);
    const href = pictureUrl?.(shows.picture.sha256);
    return href ? <SvgImage href={href} x={box.x} y={box.y} width={box.w} height={box.h} /> : null;
  }
  if (shows.form === 'drawn') return <Strokes paths={drawingSteps(shows.drawing, rect).map(pathData)} color={color} />;
  if (shows.form === 'tick')
    return <Strokes paths={tickStrokes(rect).map((s) => `M${s[0]} ${s[1]}L${s[2]} ${s[3]}`)} color={INK} />;
  const family = shows.form === 'typed' ? familyOf(shows.face) : FONT.document;
  const measure = measureIn(family);
  if (shows.form === 'text' && several)
    return (
      <>
        {setParagraph(shows.text, rect, measure).map((l, i) => (
          <SvgText key={i} x={l.x} y={l.baseline} fontSize={l.size} fontFamily={family} fill={INK}>
            {l.text}
          </SvgText>
        ))}
      </>
    );
  const line =
    shows.form === 'typed' ? setScript(shows.text, handOf(kind), rect, measure) : setText(shows.text, rect, measure);
  return (
    <SvgText
      x={line.x}
      y={line.baseline}
      fontSize={line.size}
      fontFamily={family}
      fill={shows.form === 'typed' ? color : INK}
    >
      {shows.text}
    </SvgText>
  );
}

const INK = '#1E2A32';

function Strokes({ paths, color }: { paths: string[]; color: string }) {
  return (
    <>
      {paths.map((d, i) => (
        <Path
          key={i}
          d={d}
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

function pathData(steps: PathStep[]): string {
  return steps.map((s) => (s.to === 'Q' ? `Q${s.cx} ${s.cy} ${s.x} ${s.y}` : `${s.to}${s.x} ${s.y}`)).join(' ');
}
