/** What whoever fills marks and shows what stands in them needs. A door of its own beside the whole of `packet`, so that
 *  the reading of forms, the proposals and the edits of a draft are not sent to people who only sign. */
export * from '../paper/geometry';
export * from '../paper/fit';
export * from './acts';
export * from './kinds';
export * from './hand';
export * from './values';
export { showHand } from './shown';
