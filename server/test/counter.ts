/** A counteroffer, whose sum is the thing. */
import { printDefinition } from '../typesetting/typeset';

/** What the second of two counteroffers has beside another sum. */
export interface Counter {
  sum: string;
  /** The line to sign on; empty for none. */
  line?: string;
  /** In the order in which they stand. */
  clauses?: readonly string[];
}

const CLAUSES = [
  'The seller accepts the offer of the buyer for 5 Lantern Row with the following changes.',
  'The buyer shall have ten days to inspect the roof, the boiler and the well of the house.',
  'The seller leaves the stove, the blinds and the shed where they are now, in the order they are in.',
];

export const counteroffer = ({
  sum,
  line = 'Buyer signature: ______________________   Date: ____________',
  clauses = CLAUSES,
}: Counter) =>
  printDefinition({
    pageSize: 'LETTER',
    pageMargins: [72, 72, 72, 72],
    content: [
      { text: 'COUNTEROFFER', fontSize: 16, margin: [0, 0, 0, 14] },
      { text: `1. The price shall be ${sum} payable at closing.`, margin: [0, 0, 0, 8] },
      ...clauses.map((text, i) => ({ text: `${i + 2}. ${text}`, margin: [0, 0, 0, 8] })),
      { text: line, margin: [0, 30, 0, 0] },
    ],
  });
