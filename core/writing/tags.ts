/** Tags of written forms: what a deal knows, with types, formatted in the paper's language. */
import { factsByKey, factWords, FACT_TYPES, type FactDef, type FactType, type FactValue } from '../deal/facts';
import { SIDE_WORDS, SIDES, sideLabel, type Side } from '../text/sides';
import { listIn, localeOf, say, type Words } from '../words';

/** Types of tags: those of facts, and lists of names. */
export const TAG_TYPES = [...FACT_TYPES, 'names'] as const;
/** Type of a tag's value. */
export type TagType = FactType | 'names';

/** Where a tag's value comes from. */
export const TAG_SOURCES = ['deal', 'people', 'firm', 'paper'] as const;
/** One of `TAG_SOURCES`. */
export type TagSource = (typeof TAG_SOURCES)[number];

/** Definition of a tag. */
export interface TagDef {
  key: string;
  label: string;
  type: TagType;
  unit?: string;
  options?: { value: string; label: string }[];
  /** Where it is offered while writing; `paper` tags are filled in for each use. */
  from: TagSource;
}

/** The values of tags: facts by key, and people of each side by name, in order. */
export interface TagValues {
  facts: ReadonlyMap<string, FactValue>;
  people: ReadonlyMap<Side, readonly string[]>;
}

/** Inside a repeated part: the person it is repeated for. */
export const EACH_NAME = 'each.name';
const OF_DEAL: readonly TagDef[] = [
  { key: 'address', label: 'Address', type: 'text', from: 'deal' },
  { key: 'city', label: 'City', type: 'text', from: 'deal' },
  { key: 'firm', label: 'Name of the firm', type: 'text', from: 'firm' },
  { key: 'today', label: 'Day of sending', type: 'day', from: 'firm' },
];
/** Tags that no deal stores: filled in for one packet, or for each household of a notice. */
const OF_PAPER: readonly TagDef[] = [
  { key: 'paper.new_rent', label: 'New rent a month', type: 'money', from: 'paper' },
  { key: 'paper.from', label: 'From which day', type: 'day', from: 'paper' },
  { key: 'paper.entry_on', label: 'Day of entry', type: 'day', from: 'paper' },
  { key: 'paper.hours', label: 'Hours', type: 'text', from: 'paper' },
  { key: 'paper.leave_by', label: 'Day to leave by', type: 'day', from: 'paper' },
  { key: 'paper.amount', label: 'Amount', type: 'money', from: 'paper' },
  { key: 'paper.reason', label: 'Reason', type: 'text', from: 'paper' },
];

/** Returns whether a tag belongs to the paper alone and is not stored with the deal. */
export const isOfPaper = (key: string): boolean => OF_PAPER.some((t) => t.key === key);

/** Maximum number of people of one side with a tag of their own. */
const MOST_ORDINALS = 4;

/** Returns every tag, in the order in which they are offered. @param own facts that the firm added */
export function tagDefs(own: readonly FactDef[] = []): TagDef[] {
  const facts = [...factsByKey(own).values()].map(({ key, label, type, unit, options }): TagDef => ({
    key,
    label,
    type,
    from: 'deal',
    ...(unit ? { unit } : {}),
    ...(options ? { options } : {}),
  }));
  const people = SIDES.filter((s) => s !== 'other').flatMap((side): TagDef[] => [
    { key: `people.${side}`, label: `All names: ${SIDE_WORDS[side].toLowerCase()}`, type: 'names', from: 'people' },
    ...Array.from({ length: MOST_ORDINALS }, (_, i): TagDef => ({
      key: `person.${side}.${i + 1}`,
      label: `Name of ${sideLabel(side, i + 1)}`,
      type: 'text',
      from: 'people',
    })),
  ]);
  const each: TagDef = { key: EACH_NAME, label: 'Name, in a repeated part', type: 'text', from: 'people' };
  return [...OF_DEAL, ...facts, ...OF_PAPER, ...people, each];
}

/** Returns a value in a language: "$1,450", "1 de diciembre de 2026", "yes". */
export function valueIn(words: Words, def: Pick<TagDef, 'type' | 'unit' | 'options'>, v: FactValue): string {
  const locale = localeOf(words);
  if (typeof v === 'boolean') return say(words, v ? 'paper.yes' : 'paper.no');
  if (def.type === 'money' && typeof v === 'number') {
    // The sum is in dollars, wherever the paper is read.
    const cents = Number.isInteger(v) ? 0 : 2;
    const format = { minimumFractionDigits: cents, maximumFractionDigits: cents };
    return `$${new Intl.NumberFormat(locale, format).format(v)}`;
  }
  if (def.type === 'day')
    return new Intl.DateTimeFormat(locale, { dateStyle: 'long', timeZone: 'UTC' }).format(new Date(`${v}T12:00:00Z`));
  if (def.type === 'number' && typeof v === 'number') {
    const figure = new Intl.NumberFormat(locale, { maximumFractionDigits: 4 }).format(v);
    return def.unit === '%' ? `${figure}%` : def.unit ? `${figure} ${def.unit}` : figure;
  }
  return def.type === 'names' ? String(v) : factWords({ ...def, type: def.type }, v);
}

/**
 * Returns the value of a tag in words.
 *
 * @returns null if it is unknown
 */
export function tagWords(key: string, def: TagDef | undefined, values: TagValues, words: Words): string | null {
  const [what, side, ordinal] = key.split('.');
  if (what === 'people') {
    const names = namesOf(values, side);
    return names.length ? listIn(words, [...names]) : null;
  }
  if (what === 'person') return namesOf(values, side)[Number(ordinal) - 1] ?? null;
  const v = values.facts.get(key);
  return v === undefined || v === '' || !def ? null : valueIn(words, def, v);
}

/** Returns the raw value a condition tests; for people, whether there are any. */
export function tagFact(key: string, values: TagValues): FactValue | undefined {
  const [what, side, ordinal] = key.split('.');
  if (what === 'people') return namesOf(values, side).length > 0;
  if (what === 'person') return namesOf(values, side)[Number(ordinal) - 1] !== undefined;
  return values.facts.get(key);
}

const namesOf = (values: TagValues, side: string | undefined) => {
  const known = SIDES.find((s) => s === side);
  return (known && values.people.get(known)) ?? [];
};
