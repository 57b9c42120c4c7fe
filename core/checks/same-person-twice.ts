import type { CheckRule, Finding } from './types';

/** Finds two parties with the same name and email address. Spouses share an address, not a name. */
export const samePersonTwice: CheckRule = ({ draft }) => {
  const found: Finding[] = [];
  const seen = new Map<string, string>();
  for (const p of draft.parties) {
    const key = `${p.name.trim().toLowerCase().replace(/\s+/g, ' ')}|${p.email.trim().toLowerCase()}`;
    if (seen.has(key))
      found.push({
        rule: 'same-person-twice',
        severity: 'warns',
        sentence: `${p.name} is in this packet twice, with the same email address.`,
        place: { partyId: p.id },
      });
    seen.set(key, p.id);
  }
  return found;
};
