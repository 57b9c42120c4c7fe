/** Signatures of a person who is added after sending: clear of print and of every mark. */
import type { PacketParty, Mark, Redline } from './types';
import { placeInitials } from '../paper/placing';
import type { DocumentFacts } from './resolve';
import { FreeSpace } from '../paper/space';
import type { Rect } from '../paper/types';
import { itemAt } from '../sure';

const SIGNATURE = { w: 170, h: 28 };
const SMALL = { w: 130, h: 22 };
const DATE = { w: 84, h: 20 };

/**
 * Returns a signature with its date on every document, near existing signatures, and initials on every page if
 * wanted. Documents without room are listed in `without`.
 *
 * @param newId ids come from outside: the core has no randomness
 */
export function marksForNewcomer(
  party: PacketParty,
  documents: DocumentFacts[],
  marks: Mark[],
  redlines: Redline[],
  initials: boolean,
  newId: () => string,
): { marks: Mark[]; without: string[] } {
  const out: Mark[] = [];
  const without: string[] = [];
  for (const doc of documents) {
    const taken = (page: number): Rect[] => [
      ...[...marks, ...out].filter((m) => m.documentId === doc.id && m.page === page).map((m) => m.rect),
      ...redlines.filter((r) => r.documentId === doc.id && r.page === page).flatMap((r) => r.rects),
    ];
    const add = (kind: Mark['kind'], page: number, rect: Rect) =>
      out.push({ id: newId(), documentId: doc.id, page, kind, partyId: party.id, rect, required: true });
    const place = signaturePlace(doc, marks, taken);
    if (!place) {
      without.push(doc.name);
      continue;
    }
    add('signature', place.page, place.rect);
    const beside = new FreeSpace(itemAt(doc.pages, place.page - 1), taken(place.page)).nearest(
      DATE,
      { x: place.rect.x + place.rect.w + 8, y: place.rect.y + place.rect.h - DATE.h },
      200,
      18,
      2,
    );
    if (beside) add('date_signed', place.page, beside);
    if (!initials) continue;
    const pages = doc.pages.map((facts, i) => ({ page: i + 1, facts, obstacles: taken(i + 1) }));
    for (const [page, rects] of placeInitials(pages, 1, { fx: 0, fy: 1 }))
      if (rects) add('initials', page, itemAt(rects, 0));
  }
  return { marks: out, without };
}

/** Returns a place below the last signature on its page; otherwise on any page with room, from the last page back. */
function signaturePlace(
  doc: DocumentFacts,
  marks: Mark[],
  taken: (page: number) => Rect[],
): { page: number; rect: Rect } | null {
  const signed = marks
    .filter((m) => m.documentId === doc.id && m.kind === 'signature')
    .sort((a, b) => a.page - b.page || a.rect.y - b.rect.y);
  const last = signed[signed.length - 1];
  const pages = doc.pages.map((_, i) => doc.pages.length - i);
  const order = last ? [last.page, ...pages.filter((p) => p !== last.page)] : pages;
  for (const page of order) {
    const facts = doc.pages[page - 1];
    if (!facts) continue;
    const space = new FreeSpace(facts, taken(page));
    const wish =
      last && last.page === page
        ? { x: last.rect.x, y: last.rect.y + last.rect.h + 14 }
        : { x: 72, y: facts.height - 160 };
    for (const size of [SIGNATURE, SMALL]) {
      const rect = space.nearest(size, wish, 1200, 24, 1.2);
      if (rect) return { page, rect };
    }
  }
  return null;
}
