import type { Mark } from '../packet/types';
import { KINDS } from '../packet/kinds';
import { onEachDocument } from './documents';
import type { Finding } from './types';
import { documentIn, nameIn } from './words';

/** How near to the foot and head of a page, as shares of its height. */
const FOOT = 0.82;
const HEAD = 0.2;

/** Finds signatures at the foot of a page whose date or name is at the head of the next. */
export const signatureParted = onEachDocument(({ doc, marks }, input) => {
  const found: Finding[] = [];
  const signatures = marks.filter((m) => m.kind === 'signature');
  for (const s of signatures) {
    const height = doc.pages[s.page - 1]?.height;
    const next = doc.pages[s.page]?.height;
    if (!height || !next || s.rect.y + s.rect.h < FOOT * height) continue;
    const mine = (m: Mark) => m.partyId === s.partyId;
    const over = marks.find(
      (m) =>
        mine(m) &&
        m.page === s.page + 1 &&
        KINDS[m.kind].withSignature &&
        m.rect.y < HEAD * next &&
        // If the same is beside the signature, the other page has a block of its own.
        !marks.some((o) => mine(o) && o.page === s.page && o.kind === m.kind) &&
        !signatures.some((o) => mine(o) && o.page === s.page + 1 && o.rect.y < HEAD * next + 60),
    );
    if (!over) continue;
    found.push({
      rule: 'signature-parted',
      severity: 'warns',
      sentence: `${nameIn(input, s.partyId)}’s signature is on page ${s.page} of ${documentIn(input, s.documentId)}, and the ${KINDS[over.kind].word} that belongs with it on page ${s.page + 1}.`,
      place: { documentId: s.documentId, page: s.page, partyId: s.partyId, markId: s.id },
    });
  }
  return found;
});
