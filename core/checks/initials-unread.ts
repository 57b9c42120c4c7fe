import { asksForInitials } from '../reading';
import { aboutPages, onEachDocument } from './documents';
import { documentIn, pageRanges } from './words';
import { itemAt } from '../sure';

const asks = aboutPages(asksForInitials);

/** Finds pages that have a word for initials but no place for them that was read or given to anyone. */
export const initialsUnread = onEachDocument(({ doc, marks }, named) => {
  const there = new Set([
    ...doc.places.filter((p) => p.kind === 'initials').map((p) => p.page),
    ...marks.filter((m) => m.kind === 'initials').map((m) => m.page),
  ]);
  const pages = doc.pages.flatMap((page, i) => (!there.has(i + 1) && asks(page) ? [i + 1] : []));
  if (!pages.length) return [];
  const [it, asked] = pages.length === 1 ? ['It', 'speaks'] : ['They', 'speak'];
  return [
    {
      rule: 'initials-unread',
      severity: 'warns' as const,
      sentence: `No place for initials was read on ${pageRanges(pages)} of ${documentIn(named, doc.id)}. ${it} ${asked} of initials: look, and place them by hand or by rule.`,
      place: { documentId: doc.id, page: itemAt(pages, 0) },
    },
  ];
});
