import { count } from '../../text/names';
import { byItself } from './kind';

export const dateSigned = byItself('date signed', 96, (n) => count(n, 'date'), {
  text: ({ dateText }) => dateText,
  known: () => null,
});
