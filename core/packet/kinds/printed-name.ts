import { count } from '../../text/names';
import type { PacketParty } from '../types';
import { byItself } from './kind';

/** Returns "Wren Alder, trustee of the Alder Trust". */
const nameWithCapacity = ({ name, capacity }: PacketParty): string => (capacity ? `${name}, ${capacity}` : name);

/** The mark "printed name", filled when its party finishes. */
export const printedName = byItself('printed name', 150, (n) => count(n, 'printed name'), {
  text: ({ party }) => nameWithCapacity(party),
  known: nameWithCapacity,
});
