import type { CheckRule } from './types';

/** A document that nobody marks: perhaps meant only to be read, perhaps forgotten. */
export const documentWithoutMarks: CheckRule = (input) =>
  input.draft.documents
    .filter((d) => !input.marks.some((m) => m.documentId === d.id && m.kind !== 'label'))
    .map((d) => ({
      rule: 'document-without-marks',
      severity: 'warns' as const,
      sentence: `Nobody signs or initials ${input.documents.find((f) => f.id === d.id)?.name ?? 'a document'}.`,
      place: { documentId: d.id, page: 1 },
    }));
