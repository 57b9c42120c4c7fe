import { count } from '../../text/names';
import { byItself } from './kind';

export const printedName = byItself('printed name', 150, (n) => count(n, 'printed name'), {
  text: ({ party }) => party.name,
  known: (party) => party.name,
});
