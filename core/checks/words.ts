import { firstName } from '../text/names';
import { KINDS, isSenders } from '../packet/kinds';
import { NOBODY, type Mark } from '../packet/types';
import type { Named } from './types';
import { itemAt } from '../sure';

/** Returns the given name of a party in the draft. */
export function nameIn(input: Named, partyId: string): string {
  const p = input.draft.parties.find((q) => q.id === partyId);
  return p ? firstName(p.name) : 'Someone';
}

/** Returns a page with its document: "page 4 of Seller's disclosure". */
export function pageIn(input: Named, documentId: string, page: number): string {
  const d = input.documents.find((q) => q.id === documentId);
  return `page ${page}${d ? ` of ${d.name}` : ''}`;
}

/** Returns page numbers in words: "pages 1 to 3 and 7". */
export function pageRanges(pages: number[]): string {
  const sorted = [...new Set(pages)].sort((a, b) => a - b);
  const runs: string[] = [];
  for (let i = 0; i < sorted.length;) {
    let j = i;
    while (sorted[j + 1] === itemAt(sorted, j) + 1) j++;
    runs.push(j === i ? `${sorted[i]}` : j === i + 1 ? `${sorted[i]}, ${sorted[j]}` : `${sorted[i]} to ${sorted[j]}`);
    i = j + 1;
  }
  return `${sorted.length === 1 ? 'page' : 'pages'} ${runs.join(', ')}`;
}

/** Returns a mark in words: "Wren’s signature", or "a label". */
export function markIn(input: Named, m: Pick<Mark, 'partyId' | 'kind'>): string {
  if (isSenders(m.kind) || m.partyId === NOBODY) return `a ${KINDS[m.kind].word}`;
  return `${nameIn(input, m.partyId)}’s ${KINDS[m.kind].word}`;
}

/** Returns a sentence with a capital at its beginning. */
export function capital(sentence: string): string {
  return sentence.charAt(0).toUpperCase() + sentence.slice(1);
}

/** Returns the name of a document in the packet. */
export function documentIn(input: Named, documentId: string): string {
  return input.documents.find((d) => d.id === documentId)?.name ?? 'a document';
}
