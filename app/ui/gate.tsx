/** A gate post as on every path: open when passed, lit when current, otherwise closed. */
import { View } from 'react-native';
import { Svg, Circle, Line } from './svg';
import { usePalette } from './hooks';
import { TEXT } from './words';

export type GateState = 'passed' | 'lit' | 'closed' | 'stopped';

const SAYS: Record<GateState, string> = {
  passed: 'passed',
  lit: TEXT.openNow,
  closed: TEXT.notOpenYet,
  stopped: TEXT.stoppedHere,
};

export function GatePost({ state, size = 30, n }: { state: GateState; size?: number; n: number }) {
  const p = usePalette();
  const color = state === 'passed' ? p.moss : state === 'lit' ? p.brick : state === 'stopped' ? p.wine : p.slate;
  const bar = { stroke: color, strokeWidth: 3, strokeLinecap: 'round' as const };
  return (
    <View
      role="img"
      aria-label={TEXT.gate(n, SAYS[state])}
      style={{ width: size, height: size, opacity: state === 'closed' ? 0.6 : 1 }}
    >
      <Svg width={size} height={size} viewBox="0 0 32 32" aria-hidden>
        {state === 'lit' ? <Circle cx={16} cy={16} r={16} fill={p.brickWash} /> : null}
        <Line x1={7} y1={6} x2={7} y2={26} {...bar} />
        {state === 'passed' ? (
          <>
            <Line x1={8} y1={14} x2={23} y2={5} {...bar} />
            <Line x1={24} y1={10} x2={24} y2={26} {...bar} />
          </>
        ) : (
          <>
            <Line x1={25} y1={6} x2={25} y2={26} {...bar} />
            <Line x1={7} y1={13} x2={25} y2={13} {...bar} />
            <Line x1={7} y1={20} x2={25} y2={20} {...bar} />
          </>
        )}
        {state === 'stopped' ? <Line x1={4} y1={28} x2={28} y2={4} {...bar} /> : null}
      </Svg>
    </View>
  );
}
