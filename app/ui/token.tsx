/** A party's token: its ink's shape with the party's letters in it. Colour is never the only sign. */
import { View } from 'react-native';
import Svg, { Circle, Path, Polygon, Rect, Text as SvgText } from 'react-native-svg';
import { inkOf, type Ink } from '@gatepath/core/inks';
import { initialsOf } from '@gatepath/core/text';
import { FONT } from './theme';

function Shape({ ink }: { ink: Ink }) {
  const fill = ink.color;
  switch (ink.shape) {
    case 'disc':
      return <Circle cx={16} cy={16} r={15} fill={fill} />;
    case 'square':
      return <Rect x={2} y={2} width={28} height={28} rx={4} fill={fill} />;
    case 'diamond':
      return <Polygon points="16,0 32,16 16,32 0,16" fill={fill} />;
    case 'triangle':
      return <Path d="M16 1 L32 30 H0 Z" fill={fill} />;
    case 'hexagon':
      return <Polygon points="8,2 24,2 32,16 24,30 8,30 0,16" fill={fill} />;
    case 'pentagon':
      return <Polygon points="16,0 32,12 26,31 6,31 0,12" fill={fill} />;
    case 'shield':
      return <Path d="M2 2 H30 V16 C30 25 23 30 16 32 C9 30 2 25 2 16 Z" fill={fill} />;
    case 'bar':
      return <Rect x={0} y={6} width={32} height={20} rx={3} fill={fill} />;
  }
}

export function Token({
  name,
  ink: index,
  size = 30,
  label,
}: {
  name: string;
  ink: number;
  size?: number;
  label?: string;
}) {
  const ink = inkOf(index);
  const letters = initialsOf(name).slice(0, 2);
  const low = ink.shape === 'triangle';
  return (
    <View role="img" aria-label={label ?? name} style={{ width: size, height: size }}>
      <Svg width={size} height={size} viewBox="0 0 32 32" aria-hidden>
        <Shape ink={ink} />
        <SvgText
          x={16}
          y={low ? 26 : 20.2}
          fontSize={low ? 10 : 12}
          fontFamily={FONT.bold}
          fontWeight="bold"
          fill="#FFFFFF"
          textAnchor="middle"
        >
          {letters}
        </SvgText>
      </Svg>
    </View>
  );
}
