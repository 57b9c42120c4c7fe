import { count } from '../../text/names';
import { byItself } from './kind';

/** The mark "company": the company or trust a party signs for, as the deal has it. */
export const company = byItself('company', 180, (n) => count(n, 'company', 'companies'), {
  text: ({ party }) => party.company ?? '',
  known: (party) => party.company ?? '',
});
