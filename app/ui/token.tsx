/** A party's token: the shape of its ink with the party's letters. Color is never the only sign. */
import { View } from 'react-native';
import { Svg, Circle, Path, Polygon, Rect, Text as SvgText } from './svg';
import { inkOf, type Ink } from '@gatepath/core/inks';
import { initialsOf } from '@gatepath/core/text';
import { usePalette } from './hooks';
import { FONT } from './theme';

/** @param outlined  whether only its edge is drawn: no person fills it yet */
function Shape({ ink, outlined }: { ink: Ink; outlined: boolean }) {
  const p = usePalette();
  const drawn = outlined
    ? { fill: p.sheet, stroke: ink.color, strokeWidth: 2.4, strokeDasharray: '4 2.4' }
    : { fill: ink.color };
  switch (ink.shape) {
    case 'disc':
      return <Circle cx={16} cy={16} r={15} {...drawn} />;
    case 'square':
      return <Rect x={2} y={2} width={28} height={28} rx={4} {...drawn} />;
    case 'diamond':
      return <Polygon points="16,0 32,16 16,32 0,16" {...drawn} />;
    case 'triangle':
      return <Path d="M16 1 L32 30 H0 Z" {...drawn} />;
    case 'hexagon':
      return <Polygon points="8,2 24,2 32,16 24,30 8,30 0,16" {...drawn} />;
    case 'pentagon':
      return <Polygon points="16,0 32,12 26,31 6,31 0,12" {...drawn} />;
    case 'shield':
      return <Path d="M2 2 H30 V16 C30 25 23 30 16 32 C9 30 2 25 2 16 Z" {...drawn} />;
    case 'bar':
      return <Rect x={0} y={6} width={32} height={20} rx={3} {...drawn} />;
  }
}

export function Token({
  name,
  ink: index,
  size = 30,
  label,
  letters,
}: {
  name: string;
  ink: number;
  size?: number;
  label?: string;
  /** Letters of a slot: an outline that a person fills. */
  letters?: string | undefined;
}) {
  const ink = inkOf(index);
  const words = letters ?? initialsOf(name).slice(0, 2);
  const low = ink.shape === 'triangle';
  return (
    <View role="img" aria-label={label ?? name} style={{ width: size, height: size }}>
      <Svg width={size} height={size} viewBox="0 0 32 32" aria-hidden>
        <Shape ink={ink} outlined={letters !== undefined} />
        <SvgText
          x={16}
          y={low ? 26 : 20.2}
          fontSize={low ? 10 : 12}
          fontFamily={FONT.bold}
          fontWeight="bold"
          fill={letters === undefined ? '#FFFFFF' : ink.color}
          textAnchor="middle"
        >
          {words}
        </SvgText>
      </Svg>
    </View>
  );
}
