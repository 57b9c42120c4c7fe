/** A firm's rules: a condition over facts, the required document, who signs it, when it is due, and why. */
import { countWords, MOST_DAYS, type Count } from '../calendar/due';
import { DOCUMENT_TYPES, type DocumentType } from '../reading/suggest';
import { isOneOf } from '../sure';
import { SIDES, type Side } from '../text/sides';
import { conditionFaults, type Condition } from './conditions';
import type { FactDef } from './facts';
import { DATE_PHRASES, DATES_OF, DEAL_KINDS, KEY_DATES, type DealKind, type KeyDate } from './kinds';

/** When a document is due: counted from a key date. */
export interface Term extends Count {
  from: KeyDate;
}

/** A rule of the firm. */
export interface Rule {
  id: string;
  /** Kinds of deal to which it applies. */
  kinds: DealKind[];
  /** null for always. */
  when: Condition | null;
  /** The document type it requires. */
  paper: DocumentType;
  /** What the document is called in this firm: "Lead paint disclosure". */
  title: string;
  /** Sides that must sign; empty if the document only has to be on file. */
  signers: Side[];
  /** null if it has no due day. */
  due: Term | null;
  /** Why, in words: "built before 1978". */
  reason: string;
  /** Whether it is active. */
  on: boolean;
  /** A shipped sample: to be read and adapted by the firm. */
  sample: boolean;
}

/** Maximum lengths of title and reason, and maximum number of rules. */
export const RULE_LIMITS = { title: 120, reason: 200, rules: 400 };

/** A fault in a rule: in which part, and where in its condition. */
export interface RuleFault {
  part: 'kinds' | 'when' | 'paper' | 'title' | 'signers' | 'due' | 'reason';
  at: string;
  words: string;
}

/** Returns the faults of a rule; empty if it can be saved. */
export function ruleFaults(
  rule: { [K in keyof Omit<Rule, 'id' | 'sample' | 'on'>]?: unknown },
  facts: ReadonlyMap<string, FactDef>,
): RuleFault[] {
  const faults: RuleFault[] = [];
  const wrong = (part: RuleFault['part'], words: string, at = '') => void faults.push({ part, at, words });
  const kinds = Array.isArray(rule.kinds) ? rule.kinds.filter((k) => isOneOf(DEAL_KINDS, k)) : [];
  if (!kinds.length) wrong('kinds', 'Choose at least one kind of deal.');
  if (rule.when !== null && rule.when !== undefined)
    for (const f of conditionFaults(rule.when, facts)) wrong('when', f.words, f.at);
  if (!isOneOf(DOCUMENT_TYPES, rule.paper)) wrong('paper', 'Choose the type of paper it calls for.');
  const { title, reason, due } = rule;
  if (typeof title !== 'string' || !title.trim()) wrong('title', 'Say what the paper is called.');
  else if (title.length > RULE_LIMITS.title) wrong('title', `Write at most ${RULE_LIMITS.title} letters.`);
  if (typeof reason !== 'string' || !reason.trim())
    wrong('reason', 'Say why, in a few words. The reason is shown next to the paper.');
  else if (reason.length > RULE_LIMITS.reason) wrong('reason', `Write at most ${RULE_LIMITS.reason} letters.`);
  if (!Array.isArray(rule.signers) || rule.signers.some((s) => !isOneOf(SIDES, s)))
    wrong('signers', 'Choose who signs, or no one.');
  if (due !== null && due !== undefined) for (const words of termFaults(due, kinds)) wrong('due', words);
  return faults;
}

function termFaults(due: unknown, kinds: DealKind[]): string[] {
  if (typeof due !== 'object' || due === null) return ['Choose when it is due.'];
  const part = (key: keyof Term): unknown => Reflect.get(due, key);
  const n = part('n');
  const from = part('from');
  if (!isOneOf(KEY_DATES, from)) return ['Choose the day it is counted from.'];
  if (typeof n !== 'number' || !Number.isInteger(n) || n < 0 || n > MOST_DAYS)
    return [`Write how many days, from 0 to ${MOST_DAYS.toLocaleString('en-US')}.`];
  if (!isOneOf(['days', 'business_days'], part('unit')) || !isOneOf(['after', 'before'], part('way')))
    return ['Choose how the days are counted.'];
  const without = kinds.filter((k) => !DATES_OF[k].includes(from));
  return without.length ? [`A ${without[0] ?? ''} does not have this date: ${DATE_PHRASES[from]}.`] : [];
}

/**
 * Returns the due date of a rule in words: "3 business days after the offer is accepted", "before the lease is signed".
 */
export function termWords(term: Term): string {
  if (term.n === 0) return `${term.way === 'before' ? 'before' : 'on the day'} ${DATE_PHRASES[term.from]}`;
  return `${countWords(term)} ${DATE_PHRASES[term.from]}`;
}

const after = (n: number, from: KeyDate, unit: Count['unit'] = 'business_days'): Term => ({
  n,
  unit,
  way: 'after',
  roll: true,
  from,
});
const before = (n: number, from: KeyDate, unit: Count['unit'] = 'days'): Term => ({
  ...after(n, from, unit),
  way: 'before',
});
const yes = (fact: string): Condition => ({ fact, compare: 'is', value: true });
const is = (fact: string, value: string): Condition => ({ fact, compare: 'is', value });

type Sample = Omit<Rule, 'id' | 'on' | 'sample'>;
const SALE_KINDS: DealKind[] = ['listing', 'sale'];
const BOTH: Side[] = ['seller', 'buyer'];

const SALE: Sample[] = [
  {
    kinds: ['listing'],
    when: null,
    paper: 'listing_agreement',
    title: 'Listing agreement',
    signers: ['seller', 'listing_broker'],
    due: before(0, 'listed'),
    reason: 'every listing has one',
  },
  {
    kinds: SALE_KINDS,
    when: { any: [is('for_whom', 'seller'), is('for_whom', 'both')] },
    paper: 'seller_disclosure',
    title: 'Seller’s disclosure',
    signers: ['seller'],
    due: after(3, 'accepted'),
    reason: 'the seller tells what they know of the house',
  },
  {
    kinds: ['sale'],
    when: null,
    paper: 'purchase_agreement',
    title: 'Purchase agreement',
    signers: BOTH,
    due: after(2, 'accepted'),
    reason: 'every sale has one',
  },
  {
    kinds: SALE_KINDS,
    when: { fact: 'year_built', compare: 'before', value: 1978 },
    paper: 'lead_paint',
    title: 'Lead paint disclosure',
    signers: BOTH,
    due: after(3, 'accepted'),
    reason: 'built before 1978',
  },
  {
    kinds: SALE_KINDS,
    when: yes('association'),
    paper: 'association',
    title: 'Association papers',
    signers: [],
    due: after(7, 'accepted', 'days'),
    reason: 'there is an association',
  },
  {
    kinds: SALE_KINDS,
    when: { any: [is('water', 'well'), is('water', 'shared_well')] },
    paper: 'water',
    title: 'Well statement',
    signers: ['seller'],
    due: before(0, 'inspection'),
    reason: 'the water comes from a well',
  },
  {
    kinds: SALE_KINDS,
    when: is('waste', 'septic'),
    paper: 'septic',
    title: 'Septic statement',
    signers: ['seller'],
    due: before(0, 'inspection'),
    reason: 'there is a septic system',
  },
  {
    kinds: SALE_KINDS,
    when: yes('tank'),
    paper: 'tank',
    title: 'Buried tank statement',
    signers: ['seller'],
    due: before(0, 'inspection'),
    reason: 'there is a buried tank',
  },
  {
    kinds: SALE_KINDS,
    when: yes('flood_zone'),
    paper: 'flood',
    title: 'Flood zone notice',
    signers: ['buyer'],
    due: after(5, 'accepted'),
    reason: 'it lies in a flood zone',
  },
  {
    kinds: SALE_KINDS,
    when: yes('leased_ground'),
    paper: 'leased_ground',
    title: 'Leased ground paper',
    signers: BOTH,
    due: before(10, 'closing'),
    reason: 'the ground is leased',
  },
  {
    kinds: SALE_KINDS,
    when: { any: [is('owner', 'trust'), is('owner', 'company'), is('owner', 'estate')] },
    paper: 'trust',
    title: 'Authority to sign',
    signers: ['seller'],
    due: before(10, 'closing'),
    reason: 'the owner is not a person',
  },
  {
    kinds: ['sale'],
    when: is('for_whom', 'both'),
    paper: 'both_sides',
    title: 'Consent to act for both sides',
    signers: BOTH,
    due: before(0, 'accepted'),
    reason: 'we act for both',
  },
  {
    kinds: SALE_KINDS,
    when: { fact: 'earnest', compare: 'at_least', value: 1 },
    paper: 'receipt',
    title: 'Earnest money receipt',
    signers: [],
    due: after(2, 'accepted'),
    reason: 'money is held',
  },
  {
    kinds: SALE_KINDS,
    when: { not: { fact: 'date.closing', compare: 'unknown' } },
    paper: 'closing_statement',
    title: 'Closing statement',
    signers: [],
    due: before(1, 'closing', 'business_days'),
    reason: 'a closing day is set',
  },
];

const PEOPLE: Side[] = ['landlord', 'tenant'];
const TENANCY: Sample[] = [
  {
    kinds: ['tenancy'],
    when: null,
    paper: 'lease',
    title: 'Lease',
    signers: PEOPLE,
    due: before(0, 'move_in'),
    reason: 'every tenancy has one',
  },
  {
    kinds: ['tenancy'],
    when: { fact: 'year_built', compare: 'before', value: 1978 },
    paper: 'lead_paint',
    title: 'Lead paint disclosure',
    signers: PEOPLE,
    due: before(0, 'lease_signed'),
    reason: 'built before 1978',
  },
  {
    kinds: ['tenancy'],
    when: null,
    paper: 'condition',
    title: 'Condition report',
    signers: ['tenant'],
    due: after(3, 'move_in'),
    reason: 'what was there on the first day',
  },
  {
    kinds: ['tenancy'],
    when: yes('pets'),
    paper: 'pets',
    title: 'Pet addendum',
    signers: PEOPLE,
    due: before(0, 'move_in'),
    reason: 'pets move in',
  },
  {
    kinds: ['tenancy'],
    when: yes('furnished'),
    paper: 'inventory',
    title: 'Inventory',
    signers: ['tenant'],
    due: after(3, 'move_in'),
    reason: 'it is furnished',
  },
  {
    kinds: ['tenancy'],
    when: yes('guaranteed'),
    paper: 'guaranty',
    title: 'Guaranty',
    signers: ['guarantor'],
    due: before(0, 'lease_signed'),
    reason: 'somebody stands in for the rent',
  },
  {
    kinds: ['tenancy'],
    when: { fact: 'units', compare: 'at_least', value: 3 },
    paper: 'house_rules',
    title: 'House rules',
    signers: ['tenant'],
    due: before(0, 'move_in'),
    reason: 'three homes or more',
  },
  {
    kinds: ['tenancy'],
    when: { fact: 'deposit', compare: 'at_least', value: 1 },
    paper: 'receipt',
    title: 'Deposit receipt',
    signers: [],
    due: after(5, 'lease_signed'),
    reason: 'a deposit is held',
  },
  {
    kinds: ['tenancy'],
    when: { not: { fact: 'date.notice_given', compare: 'unknown' } },
    paper: 'notice',
    title: 'Notice to move out',
    signers: [],
    due: before(14, 'end'),
    reason: 'notice was given',
  },
];

/** The shipped sample sets; not legal advice. */
export const SAMPLE_SETS = { sale: SALE, tenancy: TENANCY } as const;

/** Returns all sample rules, with ids that are the same on every server. */
export function sampleRules(): Rule[] {
  return Object.entries(SAMPLE_SETS).flatMap(([set, list]) =>
    list.map((r) => ({ ...r, id: `sample-${set}-${r.paper}`, on: true, sample: true })),
  );
}
