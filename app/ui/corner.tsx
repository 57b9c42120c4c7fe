/**
 * A sheet whose corner shows the status of a paper: hollow for needed, dotted for draft, lit for out, filled for
 * executed, struck for waived.
 */
import { View } from 'react-native';
import { Svg, Line, Path } from './svg';
import type { Corner } from '@gatepath/core/deal';
import { usePalette } from './hooks';
import { TEXT } from './words';

const SAYS: Record<Corner, string> = {
  needed: 'needed',
  draft: TEXT.inDraft,
  out: TEXT.outToBeSigned,
  executed: 'in',
  waived: 'waived',
};

export function PaperCorner({ corner, size = 26 }: { corner: Corner; size?: number }) {
  const p = usePalette();
  const color = corner === 'executed' ? p.moss : corner === 'out' ? p.brick : corner === 'waived' ? p.slate : p.ink;
  const fill = corner === 'executed' ? p.moss : corner === 'out' ? p.brickWash : 'none';
  return (
    <View role="img" aria-label={SAYS[corner]} style={{ width: size, height: size }}>
      <Svg width={size} height={size} viewBox="0 0 26 26" aria-hidden>
        <Path
          d="M5 2 H16 L21 7 V24 H5 Z"
          fill={fill}
          stroke={color}
          strokeWidth={2}
          strokeLinejoin="round"
          strokeDasharray={corner === 'draft' ? '2.2 2.6' : undefined}
        />
        <Path
          d="M16 2 V7 H21 Z"
          fill={corner === 'out' ? p.brick : corner === 'executed' ? p.sheet : 'none'}
          stroke={color}
          strokeWidth={1.6}
          strokeLinejoin="round"
        />
        {corner === 'executed' ? (
          <Path d="M8.5 15 L12 18.5 L17.5 11.5" stroke={p.sheet} strokeWidth={2.4} fill="none" strokeLinecap="round" />
        ) : null}
        {corner === 'waived' ? <Line x1={2} y1={24} x2={24} y2={4} stroke={color} strokeWidth={2} /> : null}
      </Svg>
    </View>
  );
}
