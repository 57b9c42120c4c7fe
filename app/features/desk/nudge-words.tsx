/** The sender's words in automatic nudges, beside what they always say. */
import type { NudgePlan } from '@gatepath/core/calendar';
import { LateInput } from '../../ui/late-input';
import { TextMenu } from './text-menu';
import { TEXT } from './words';

interface Props {
  nudge: NudgePlan;
  onChange: (nudge: NudgePlan) => void;
}

export function NudgeWords({ nudge, onChange }: Props) {
  const save = (words: string) => {
    const { words: _was, ...rest } = nudge;
    onChange(words.trim() ? { ...rest, words: words.slice(0, 1000) } : rest);
  };
  return (
    <>
      <LateInput label={TEXT.yourOwnWords} multiline value={nudge.words ?? ''} onSave={save} testID="nudge-words" />
      <TextMenu value={nudge.words ?? ''} onChange={save} />
    </>
  );
}
