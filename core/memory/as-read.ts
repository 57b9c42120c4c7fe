/** Printed places as the reader had read them, before it learned from people. */
import type { DocumentFacts } from '../packet/resolve';
import type { PrintedPlace } from '../reading/types';

/** Returns a place as it was read. */
export const placeAsRead = ({ read, dismissed: _dismissed, ...place }: PrintedPlace): PrintedPlace => ({
  ...place,
  ...read,
});

/** Returns a document with its places as they were read: what people have learned from one document, another one may not have. */
export const asRead = (doc: DocumentFacts): DocumentFacts => ({ ...doc, places: doc.places.map(placeAsRead) });
