import { FOR_WHOM_OF, forWhomWords, type DealKind, type ForWhom } from '@gatepath/core/deal';
import { Problem } from '../problem';

/**
 * For whom the firm acts in a deal, as wished.
 *
 * @throws Problem `bad-status` when a deal of this kind has no such side
 */
export function forWhomIn(kind: DealKind, wished: ForWhom): ForWhom {
  if (FOR_WHOM_OF[kind].includes(wished)) return wished;
  throw new Problem('bad-status', `In a ${kind} the firm cannot act ${forWhomWords(wished)}. Choose another side.`);
}
