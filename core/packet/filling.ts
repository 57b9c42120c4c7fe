/**
 * What is needed to fill marks and show what is in them. A separate entry beside `packet`, so that reading forms,
 * proposals and draft edits are not sent to people who only sign.
 */
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
