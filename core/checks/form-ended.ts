import { shortDay } from '../calendar';
import type { CheckRule } from './types';

/** Finds papers made from a form that may no longer be used. */
export const formEnded: CheckRule = (input) =>
  input.documents.flatMap((d) =>
    d.formEnded
      ? [
          {
            rule: 'form-ended',
            severity: 'warns' as const,
            sentence: `The form for “${d.name}” could be used until ${shortDay(d.formEnded, '')}, which has passed. Look for a newer edition.`,
            place: { documentId: d.id },
          },
        ]
      : [],
  );
