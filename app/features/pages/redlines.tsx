/** The sender's changes, drawn over a page as in the sealed copy. */
import { memo } from 'react';
import { Svg, Line, Text as SvgText } from '../../ui/svg';
import { PEN_WIDTH, setParagraph } from '@gatepath/core/filling';
import { REDLINE } from '@gatepath/core/inks';
import type { Redline } from '@gatepath/core/packet';
import { FONT } from '../../ui/theme';
import { measureIn, useHandFonts } from './hand-fonts';
import { webStyle } from '../../ui/web';
import { itemAt } from '@gatepath/core/sure';

interface Props {
  page: { width: number; height: number };
  scale: number;
  redlines: Redline[];
}

export const Redlines = memo(function Redlines({ page, scale, redlines }: Props) {
  const written = redlines.some((r) => r.kind === 'insert');
  const ready = useHandFonts([], '', written);
  if (!redlines.length || !ready) return null;
  return (
    <Svg
      width={page.width * scale}
      height={page.height * scale}
      viewBox={`0 0 ${page.width} ${page.height}`}
      style={webStyle({ position: 'absolute', left: 0, top: 0, pointerEvents: 'none' })}
      aria-hidden
    >
      {redlines.map((r) =>
        r.kind === 'strike'
          ? r.rects.map((b, i) => (
              <Line
                key={`${r.id}${i}`}
                x1={b.x - 1}
                x2={b.x + b.w + 1}
                y1={b.y + b.h * 0.52}
                y2={b.y + b.h * 0.52}
                stroke={REDLINE}
                strokeWidth={PEN_WIDTH}
                strokeLinecap="round"
              />
            ))
          : setParagraph(r.text, itemAt(r.rects, 0), measureIn(FONT.document)).map((l, i) => (
              <SvgText
                key={`${r.id}${i}`}
                x={l.x}
                y={l.baseline}
                fontSize={l.size}
                fontFamily={FONT.document}
                fill={REDLINE}
              >
                {l.text}
              </SvgText>
            )),
      )}
    </Svg>
  );
});
