/** The screens behind the routes, fetched when one is first gone to. There are two pieces, for those who work in the
 *  office and for those who only sign; what both need goes with the first view. */
import { lazy, type ComponentType } from 'react';
import type * as Office from './features/office';

/** A screen of the office that is shown without being told anything. */
type OfficePlace = {
  [K in keyof typeof Office]: (typeof Office)[K] extends ComponentType ? K : never;
}[keyof typeof Office];

/** Returns the path of a screen of the office by its name. */
export function place(name: OfficePlace) {
  return lazy(async () => ({ default: (await import('./features/office'))[name] }));
}
