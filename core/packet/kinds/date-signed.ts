import { count } from '../../text/names';
import { byItself } from './kind';

/** The mark "date signed", filled when its party finishes. */
export const dateSigned = byItself('date signed', 96, (n) => count(n, 'date'), {
  text: ({ dateText }) => dateText,
  known: () => null,
});
