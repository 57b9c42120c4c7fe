/** What whoever fills marks and shows what stands in them needs. A door of its own beside `marks` and `routing`, so that
 *  the reading of forms, the proposals and the edits of a draft are not sent to people who only sign. */
export * from '../marks/geometry';
export * from '../marks/fit';
export * from '../marks/kinds';
export * from '../marks/hand';
export * from '../marks/values';
export { showHand } from '../routing/shown';
