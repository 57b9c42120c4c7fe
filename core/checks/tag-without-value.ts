import { mergeTags } from '../merge';
import type { CheckRule, Finding } from './types';
import { pageIn } from './words';

/** Finds tags that have no value in the deal: they would be sent in curly brackets. */
export const tagWithoutValue: CheckRule = (input) => {
  const found: Finding[] = [];
  const look = (text: string | undefined, where: () => string, place: Finding['place']) => {
    if (!text?.includes('{')) return;
    const { missing } = mergeTags(text, input.tags);
    if (missing.length)
      found.push({
        rule: 'tag-without-value',
        severity: 'stops',
        sentence: `The tag “{${missing[0]}}” ${where()} has no value in this deal.`,
        place,
      });
  };
  for (const m of input.draft.marks)
    look(m.value, () => `on ${pageIn(input, m.documentId, m.page)}`, {
      documentId: m.documentId,
      page: m.page,
      markId: m.id,
    });
  look(input.draft.subject, () => 'in the subject', {});
  look(input.draft.message, () => 'in the message', {});
  look(input.draft.schedule.nudge?.words, () => 'in the words of the nudges', {});
  return found;
};
