/** Printed places as the reader read them, without people's corrections. */
import type { DocumentFacts } from '../packet/resolve';
import type { PrintedPlace } from '../reading/types';

/** Returns a place without corrections. */
export const placeAsRead = ({ read, dismissed: _dismissed, ...place }: PrintedPlace): PrintedPlace => ({
  ...place,
  ...read,
});

/** Returns a document without corrections of its places. Two documents are compared like this: only one of them may have corrections. */
export const asRead = (doc: DocumentFacts): DocumentFacts => ({ ...doc, places: doc.places.map(placeAsRead) });
