import { fitLine } from '../paper/fit';
import { setParagraph } from '../packet/hand';
import { filledHow, isFixed, isSenders, KINDS } from '../packet/kinds';
import { mergeTags } from '../merge';
import { type Mark, NOBODY, type PacketParty } from '../packet/types';
import type { CheckRule, Finding } from './types';
import { markIn, capital, pageIn } from './words';

/** The smallest type size that is easily read on paper, in points. */
const READABLE = 6.5;

/** Returns a rough width of text, a little too wide; the screen and the seal measure exactly. */
export function roughWidth(text: string, size: number): number {
  let em = 0;
  for (const c of text) em += /[ilIj.,:;'|!()[\] ft]/.test(c) ? 0.32 : /[A-Zmw@%&]/.test(c) ? 0.7 : 0.53;
  return em * size;
}

/** Finds texts that do not fit their mark at a readable size. */
export const textTooLong: CheckRule = (input) => {
  const found: Finding[] = [];
  const parties = new Map(input.draft.parties.map((p) => [p.id, p]));
  for (const m of input.marks) {
    const text = wordsOf(m, parties.get(m.partyId), input.tags);
    if (!text) continue;
    const told = text.replace(/\s+/g, ' ');
    const fits =
      m.lines === 'several'
        ? setParagraph(text, m.rect, roughWidth, READABLE).every((l) => l.fits)
        : fitLine(text, { w: m.rect.w - 4, h: m.rect.h }, roughWidth, 11, READABLE, 1.15).fits;
    if (fits) continue;
    found.push({
      rule: 'text-too-long',
      severity: 'warns',
      sentence: capital(
        `${m.partyId === NOBODY ? `the ${KINDS[m.kind].word}` : markIn(input, m)} “${told.length > 40 ? `${told.slice(0, 38)}…` : told}” does not fit at a readable size on ${pageIn(input, m.documentId, m.page)}.`,
      ),
      place: { documentId: m.documentId, page: m.page, markId: m.id },
    });
  }
  return found;
};

/**
 * Returns the text that is known before sending. The small name under an added place is left out: it is meant to be
 * small.
 */
function wordsOf(m: Mark, party: PacketParty | undefined, tags: ReadonlyMap<string, string>): string | null {
  if (isSenders(m.kind) && m.partyId !== NOBODY) return null;
  const how = filledHow(m.kind);
  if (isFixed(m) || (m.value && how.by !== 'touch')) return m.value ? mergeTags(m.value, tags).text : null;
  return how.by === 'itself' && party ? how.known(party) : null;
}
