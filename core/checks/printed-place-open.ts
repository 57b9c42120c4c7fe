import { groupBy } from '../sure/group';
import { acceptEdits } from '../packet/proposals';
import { count } from '../text/names';
import type { Finding } from './types';
import { onEachDocument } from './documents';
import { documentIn, nameIn, pageRanges } from './words';
import { itemAt } from '../sure';

/**
 * Finds printed places for signatures and initials that were given to nobody. Places of people who are not in the
 * packet, and places dismissed by hand, are ignored.
 */
export const printedPlaceOpen = onEachDocument(({ marks, proposals }, input) => {
  const taken = new Set(proposals.filter((p) => p.state === 'accepted').map((p) => p.id));
  const has = new Set(marks.map((m) => `${m.page}:${m.partyId}:${m.kind}`));
  const open = proposals.filter(
    (p) =>
      p.state === 'open' &&
      !p.stranger &&
      (p.kind === 'signature' || p.kind === 'initials') &&
      // A place beyond the printed ones is missed only where the printed ones are used.
      (!p.beside || (taken.has(p.beside) && !has.has(`${p.page}:${p.partyId}:${p.kind}`))),
  );
  const groups = groupBy(open, (p) => `${p.kind}:${p.partyId ?? ''}:${p.beside ? 'beside' : ''}:${p.doubtful ?? ''}`);
  return [...groups.values()].map((places): Finding => {
    const first = itemAt(places, 0);
    const what = first.kind === 'signature' ? 'signature line' : 'initials blank';
    const where = `on ${pageRanges(places.map((p) => p.page))} of ${documentIn(input, first.documentId)}`;
    const n = count(places.length, `printed ${what}`);
    // An uncertain place must not be filled unseen, and may not be a signature at all.
    const sure = first.partyId && !first.doubtful;
    return {
      rule: 'printed-place-open',
      severity: sure ? 'stops' : 'warns',
      sentence: first.beside
        ? `${nameIn(input, first.partyId!)} has no ${first.kind} beside the printed ${first.kind === 'signature' ? 'one' : 'ones'} ${where}.`
        : first.partyId
          ? `${n} for ${nameIn(input, first.partyId)} ${where} ${places.length === 1 ? 'has' : 'have'} no mark${first.doubtful ? ', and may be for something else: check it' : ''}.`
          : `${n} ${where} ${places.length === 1 ? 'was' : 'were'} assigned to no one.`,
      places: places.length,
      place: { documentId: first.documentId, page: first.page, ...(first.partyId ? { partyId: first.partyId } : {}) },
      ...(sure ? { mend: { label: 'Put the marks there', edits: acceptEdits(places, input.draft.parties) } } : {}),
    };
  });
});
