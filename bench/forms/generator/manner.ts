/** What a generated form is like throughout, and what it calls its people. */
import type { Drawn, Whose } from './blanks';
import type { Random } from './random';
import { ORDINALS, type Language, type Role } from './wording';

/** What a generated form is like throughout. */
export interface Manner {
  r: Random;
  language: Language;
  /** How signatures, and how initials, are drawn. */
  lines: Drawn;
  short: Drawn;
  /** What each role is called here. */
  called: Record<Role, readonly [string, string]>;
  /** How many people of each role there are; roles without people are not in the form. */
  people: Partial<Record<Role, number>>;
  /** How people of one role are numbered in their captions: "Seller 2", "Seller #2", "Second seller", "Co-seller", "Seller (2)" or not at all. */
  numbering: 'after' | 'hash' | 'word' | 'co' | 'none' | 'letter';
  capitals: boolean;
  colon: boolean;
}

/** Returns what a form calls a person, such as "Seller 2". `many` is the number of people of the role; one alone has no number. */
export function nameOf(m: Manner, who: Whose, many: number): string {
  const [one] = m.called[who.role];
  const numbered = many > 1 ? numberedName(m, one, who.ordinal) : one;
  return m.capitals ? numbered.toUpperCase() : numbered;
}

function numberedName(m: Manner, one: string, n: number): string {
  switch (m.numbering) {
    case 'after':
      return `${one} ${n}`;
    case 'hash':
      return `${one} #${n}`;
    case 'letter':
      return `${one} (${n})`;
    case 'word':
      return `${ORDINALS[m.language][n - 1] ?? n} ${one.toLowerCase()}`;
    case 'co':
      return n === 2 && m.language === 'en' ? `Co-${one.toLowerCase()}` : n > 2 ? `${one} ${n}` : one;
    case 'none':
      return one;
  }
}

/** Returns the people who sign, role by role. */
export const peopleOf = (m: Manner, roles: readonly Role[]): Whose[] =>
  roles.flatMap((role) => Array.from({ length: m.people[role] ?? 0 }, (_, i) => ({ role, ordinal: i + 1 })));
