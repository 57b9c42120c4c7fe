/** What whoever fills marks and shows what stands in them needs. A door of its own beside the whole of `packet`, so that
 *  the reading of forms, the proposals and the edits of a draft are not sent to people who only sign. */
export { approves, holdsGate, puts, receives } from './acts';
export { validateValue, type Filled, filledHow, handOf, KINDS, takesHand } from './kinds';
export {
  drawingSteps,
  fitPicture,
  PEN_WIDTH,
  setParagraph,
  setScript,
  setText,
  strokesBox,
  tickStrokes,
  withUnder,
} from './hand';
export { showHand } from './shown';
