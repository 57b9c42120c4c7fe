import { puts, receives } from '../packet/acts';
import { isSenders } from '../packet/kinds';
import type { CheckRule } from './types';

/** Finds documents without marks: perhaps only to be read, perhaps forgotten. */
export const documentWithoutMarks: CheckRule = (input) => {
  // Where nobody puts anything on a page, all of it is only to be delivered or read.
  if (!input.draft.parties.some(puts) && input.draft.parties.some(receives)) return [];
  const parts = new Map(input.parts.map((p) => [p.doc.id, p]));
  return input.draft.documents
    .filter((d) => !parts.get(d.id)?.marks.some((m) => !isSenders(m.kind)))
    .map((d) => ({
      rule: 'document-without-marks',
      severity: 'warns' as const,
      sentence: `No one signs or initials ${parts.get(d.id)?.doc.name ?? 'a document'}.`,
      place: { documentId: d.id, page: 1 },
    }));
};
