/** The sign of one step of one household: not yet, just now, done, failed; nothing if it does not apply. */
import { View } from 'react-native';
import type { NoticeRow } from '@gatepath/contract';
import { usePalette } from '../../ui/hooks';
import { Icon } from '../../ui/icon';
import { Small } from '../../ui/text';
import { TEXT } from './words';

export type StepName = keyof NoticeRow['steps'];
export type StepState = NoticeRow['steps'][StepName];

export const STATE_WORDS: Record<StepState, string> = {
  done: 'yes',
  now: TEXT.justNow,
  to_do: TEXT.notYet,
  failed: 'no',
  none: '',
};

export function StepMark({ state, label }: { state: StepState; label: string }) {
  const p = usePalette();
  if (state === 'none')
    return (
      <View style={{ width: 22, alignItems: 'center' }}>
        <Small aria-hidden>–</Small>
      </View>
    );
  const look = {
    done: { backgroundColor: p.moss, borderColor: p.moss, borderStyle: 'solid' as const },
    failed: { backgroundColor: p.sheet, borderColor: p.wine, borderStyle: 'solid' as const },
    now: { backgroundColor: p.brickWash, borderColor: p.brick, borderStyle: 'solid' as const },
    to_do: { backgroundColor: 'transparent', borderColor: p.slate, borderStyle: 'dashed' as const },
  }[state];
  return (
    <View
      role="img"
      aria-label={`${label}: ${STATE_WORDS[state]}`}
      style={{
        width: 22,
        height: 22,
        borderRadius: 11,
        borderWidth: 1.5,
        alignItems: 'center',
        justifyContent: 'center',
        ...look,
      }}
    >
      {state === 'done' ? <Icon name="check" color={p.sheet} size={15} /> : null}
      {state === 'failed' ? <Icon name="close" color={p.wine} size={15} /> : null}
    </View>
  );
}
