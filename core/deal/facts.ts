/** Facts of a deal on which its documents depend. An unknown fact is represented by its absence. */
import { isDay } from '../calendar/due';
import { DATE_WORDS, DEAL_KINDS, DATES_OF, FOR_WHOM, KIND_WORDS, type DealKind, type KeyDate } from './kinds';
import { keysOf } from '../sure';

/** Types of facts. A choice is stored as text, a day as ISO day. */
export const FACT_TYPES = ['flag', 'number', 'money', 'year', 'choice', 'text', 'day'] as const;
/** One of `FACT_TYPES`. */
export type FactType = (typeof FACT_TYPES)[number];
/** The value of a fact. */
export type FactValue = boolean | number | string;
/** Known facts by key; unknown ones are absent. */
export type Facts = Readonly<Record<string, FactValue>>;

/** Definition of a fact. */
export interface FactDef {
  /** A built-in name, or one of the firm's own: `own.…`. */
  key: string;
  label: string;
  type: FactType;
  /** Follows the number: "%", "months". */
  unit?: string;
  /** For a choice: its values with their labels. */
  options?: { value: string; label: string }[];
  kinds: DealKind[];
}

const ALL: DealKind[] = [...DEAL_KINDS];
const SALES: DealKind[] = ['listing', 'sale'];
const RENTS: DealKind[] = ['tenancy'];
const options = (o: Record<string, string>) => keysOf(o).map((value) => ({ value, label: o[value] ?? value }));

/** The built-in facts of a deal; a firm adds its own. */
export const FACTS: readonly FactDef[] = [
  { key: 'year_built', label: 'Year built', type: 'year', kinds: ALL },
  { key: 'units', label: 'Homes in the building', type: 'number', kinds: ALL },
  { key: 'association', label: 'Association', type: 'flag', kinds: ALL },
  {
    key: 'water',
    label: 'Water from',
    type: 'choice',
    options: options({ town: 'the town', well: 'a well', shared_well: 'a shared well' }),
    kinds: ALL,
  },
  {
    key: 'waste',
    label: 'Waste water goes to',
    type: 'choice',
    options: options({ sewer: 'the sewer', septic: 'a septic system' }),
    kinds: SALES,
  },
  { key: 'tank', label: 'Buried tank', type: 'flag', kinds: SALES },
  { key: 'flood_zone', label: 'In a flood zone', type: 'flag', kinds: ALL },
  { key: 'leased_ground', label: 'On leased ground', type: 'flag', kinds: SALES },
  {
    key: 'owner',
    label: 'The owner is',
    type: 'choice',
    options: options({ people: 'one or more people', trust: 'a trust', company: 'a company', estate: 'an estate' }),
    kinds: ALL,
  },
  { key: 'lived_in', label: 'Someone lives there now', type: 'flag', kinds: SALES },
  { key: 'pets', label: 'Pets', type: 'flag', kinds: RENTS },
  { key: 'furnished', label: 'Furnished', type: 'flag', kinds: RENTS },
  { key: 'guaranteed', label: 'Someone guarantees the rent', type: 'flag', kinds: RENTS },
  { key: 'price', label: 'Price', type: 'money', kinds: SALES },
  { key: 'earnest', label: 'Earnest money', type: 'money', kinds: SALES },
  { key: 'commission', label: 'Commission', type: 'number', unit: '%', kinds: ALL },
  { key: 'rent', label: 'Rent a month', type: 'money', kinds: RENTS },
  { key: 'deposit', label: 'Deposit', type: 'money', kinds: RENTS },
  /** Used in text in place of the number. */
  { key: 'price_words', label: 'Price as written on papers', type: 'text', kinds: ALL },
];

/** Properties besides facts that rules can use: kind, for whom, and key dates. */
const BESIDE: readonly FactDef[] = [
  {
    key: 'kind',
    label: 'Kind of deal',
    type: 'choice',
    options: DEAL_KINDS.map((value) => ({ value, label: KIND_WORDS[value].toLowerCase() })),
    kinds: ALL,
  },
  {
    key: 'for_whom',
    label: 'For whom we act',
    type: 'choice',
    options: FOR_WHOM.map((value) => ({ value, label: value === 'both' ? 'both sides' : `the ${value}` })),
    kinds: ALL,
  },
  ...keysOf(DATE_WORDS).map((date): FactDef => ({
    key: `date.${date}`,
    label: `${DATE_WORDS[date]} (day)`,
    type: 'day',
    kinds: DEAL_KINDS.filter((k) => DATES_OF[k].includes(date)),
  })),
];

/** Returns everything rules can use, by key. */
export function factsByKey(own: readonly FactDef[] = []): Map<string, FactDef> {
  return new Map([...FACTS, ...BESIDE, ...own].map((f) => [f.key, f]));
}

/** Returns the key date of a fact's key; null if it is not one. */
export const dateOfKey = (key: string): KeyDate | null => {
  const name = key.startsWith('date.') ? key.slice(5) : '';
  return keysOf(DATE_WORDS).find((d) => d === name) ?? null;
};

/** Longest text a fact holds, in UTF-16 units. */
export const MOST_FACT_TEXT = 200;

/**
 * Validates a value of a fact.
 *
 * @returns what is wrong with it, in words; null if nothing is
 */
export function wrongWith(def: Pick<FactDef, 'label' | 'type' | 'options'>, value: unknown): string | null {
  const { label } = def;
  switch (def.type) {
    case 'flag':
      return typeof value === 'boolean' ? null : `${label}: say yes or no.`;
    case 'year':
      return typeof value === 'number' && Number.isInteger(value) && value >= 1000 && value <= 2200
        ? null
        : `${label}: write a year, like 1972.`;
    case 'number':
    case 'money':
      return typeof value === 'number' && Number.isFinite(value) && value >= 0 && value <= 1e12
        ? null
        : `${label}: write a figure, like ${def.type === 'money' ? '412,000' : '3'}.`;
    case 'choice':
      return def.options?.some((o) => o.value === value)
        ? null
        : `${label}: choose one of ${(def.options ?? []).map((o) => `“${o.label}”`).join(', ')}.`;
    case 'day':
      return typeof value === 'string' && isDay(value) ? null : `${label}: write a day, like 2026-11-30.`;
    case 'text':
      return typeof value === 'string' && value.trim() !== '' && value.length <= MOST_FACT_TEXT
        ? null
        : `${label}: write at most ${MOST_FACT_TEXT} letters.`;
  }
}

const MONEY = new Intl.NumberFormat('en-US', { style: 'currency', currency: 'USD', maximumFractionDigits: 2 });

/** Returns an amount as written on papers: "$412,000", "$1,250.50". */
export const moneyWords = (amount: number) => MONEY.format(amount).replace(/\.00$/, '');

/** Returns a value in words: "yes", "$412,000", "a well". */
export function factWords(def: Pick<FactDef, 'type' | 'unit' | 'options'>, value: FactValue): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (def.type === 'money' && typeof value === 'number') return moneyWords(value);
  if (def.type === 'choice') return def.options?.find((o) => o.value === value)?.label ?? String(value);
  return `${value}${def.unit ? ` ${def.unit}` : ''}`;
}
