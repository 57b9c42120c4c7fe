import { FOR_WHOM_OF, forWhomWords, type DealKind, type ForWhom } from '@gatepath/core/deal';
import { Problem } from '../problem';

/**
 * Returns the side the firm acts for, if a deal of this kind has it.
 *
 * @throws Problem `bad-status` if not
 */
export function forWhomIn(kind: DealKind, wished: ForWhom): ForWhom {
  if (FOR_WHOM_OF[kind].includes(wished)) return wished;
  throw new Problem('bad-status', `In a ${kind} the firm cannot act ${forWhomWords(wished)}. Choose another side.`);
}
