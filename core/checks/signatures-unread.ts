import { asksForSignatures } from '../reading';
import { aboutPages, onEachDocument } from './documents';
import { documentIn } from './words';

const asks = aboutPages(asksForSignatures);

/** Finds documents that speak of being signed and have no place for a signature that was read or given to anyone. */
export const signaturesUnread = onEachDocument(({ doc, marks }, named) => {
  const there = doc.places.some((p) => p.kind === 'signature') || marks.some((m) => m.kind === 'signature');
  const page = there ? -1 : doc.pages.findIndex(asks);
  if (page < 0) return [];
  return [
    {
      rule: 'signatures-unread',
      severity: 'warns' as const,
      sentence: `No place for a signature was read in ${documentIn(named, doc.id)}. Page ${page + 1} speaks of signing: look, and place the marks by hand.`,
      place: { documentId: doc.id, page: page + 1 },
    },
  ];
});
