/** What columns of an imported table can be, and which one a heading most likely means. */
import { DATE_WORDS, FACTS, KEY_DATES, type FactDef } from '../deal';
import { fold } from '../text/names';
import { SIDE_WORDS, SIDES, type Side } from '../text/sides';

/** Kinds of tables that can be imported. */
export const TABLE_KINDS = ['deals', 'people'] as const;
/** What the rows of a table become. */
export type TableKind = (typeof TABLE_KINDS)[number];

/** A field that a column of a table can be. */
export interface IntakeField {
  /** A field's name: `address`, `fact.price`, `date.closing`, `side.seller`. */
  key: string;
  label: string;
  /** A row without it cannot be imported. */
  needed?: true;
  /** Other headings with the same meaning, folded. */
  also: string[];
}

const PEOPLE: IntakeField[] = [
  { key: 'name', label: 'Name', needed: true, also: ['full name', 'person', 'contact', 'client', 'fn'] },
  { key: 'first', label: 'Given name', also: ['first name', 'first', 'forename'] },
  { key: 'last', label: 'Family name', also: ['last name', 'last', 'surname'] },
  { key: 'email', label: 'Email', also: ['e mail', 'email address', 'mail', 'e mail address'] },
  { key: 'phone', label: 'Phone', also: ['telephone', 'mobile', 'cell', 'tel', 'phone number', 'mobile phone'] },
  {
    key: 'company',
    label: 'Company or trust',
    also: ['company', 'organization', 'organisation', 'firm', 'trust', 'org'],
  },
];

const sideField = (side: Side): IntakeField => ({
  key: `side.${side}`,
  label: SIDE_WORDS[side],
  also: [`${side.replace('_', ' ')}s`, `${side.replace('_', ' ')} 1`],
});

/** Returns the fields of a kind of table, in the order in which they are offered. */
export function intakeFields(kind: TableKind, own: readonly FactDef[] = []): IntakeField[] {
  if (kind === 'people') return PEOPLE;
  return [
    {
      key: 'address',
      label: 'Address',
      needed: true,
      also: ['street', 'street address', 'property', 'property address'],
    },
    { key: 'city', label: 'City', also: ['town', 'place'] },
    { key: 'kind', label: 'Kind', also: ['type', 'kind of deal', 'deal type'] },
    { key: 'forWhom', label: 'For whom we act', also: ['for whom', 'we act for', 'representing', 'represents'] },
    { key: 'status', label: 'Status', also: ['state', 'stage'] },
    { key: 'tags', label: 'Tags', also: ['tag', 'labels'] },
    ...SIDES.map(sideField),
    ...KEY_DATES.map((d): IntakeField => ({
      key: `date.${d}`,
      label: `${DATE_WORDS[d]} (day)`,
      also: [fold(DATE_WORDS[d]), `${d.replace('_', ' ')} date`, `${fold(DATE_WORDS[d])} date`],
    })),
    ...[...FACTS, ...own].map((f): IntakeField => ({
      key: `fact.${f.key}`,
      label: f.label,
      also: [f.key.replace(/^own\./, '').replace(/_/g, ' ')],
    })),
  ];
}

/** Returns a heading for comparing: folded, with only letters, digits and single spaces. */
const plain = (heading: string) =>
  fold(heading)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/**
 * Returns the field each column most likely holds, by its heading; each field once.
 *
 * @returns a key per heading; empty if none fits
 */
export function guessFields(headings: readonly string[], fields: readonly IntakeField[]): string[] {
  const taken = new Set<string>();
  return headings.map((heading) => {
    const words = plain(heading);
    const found = fields.find(
      (f) => !taken.has(f.key) && (plain(f.label) === words || f.also.some((a) => plain(a) === words)),
    );
    if (found) taken.add(found.key);
    return found?.key ?? '';
  });
}
