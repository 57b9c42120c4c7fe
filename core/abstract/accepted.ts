/** The values of an abstract that a member has chosen or corrected, and the deal that is opened with them. */
import { isDay } from '../calendar';
import {
  DATES_OF,
  FACTS,
  FOR_WHOM_OF,
  isOurs,
  KEY_DATES,
  type DealKind,
  type FactValue,
  type ForWhom,
  type KeyDate,
  type KeyDates,
} from '../deal';
import { itemAt } from '../sure';
import type { Side } from '../text/sides';
import { dayOfStated, type WorkedOut } from './due';
import { isStatedDay, type Abstract, type FieldKey, type FieldRead, type PersonRead, type StatedDay } from './types';

/** What a field holds: one of its readings, a typed value, or nothing. Days that are typed are ISO 8601. */
export type Chosen = { reading: number } | { typed: FactValue } | null;

/** A person of the abstract as the deal gets them. */
export interface ChosenPerson extends Pick<PersonRead, 'side' | 'name' | 'company' | 'capacity'> {
  /** The position among the abstract's people; null for one who was typed. */
  read: number | null;
  email: string;
  phone: string | null;
  /** Who of the address book they are; null to look them up by name and address. */
  personId: string | null;
  /** Whether they become a party of the deal. */
  on: boolean;
}

/** Everything a member has accepted so far. */
export interface Accepted {
  kind: DealKind;
  forWhom: ForWhom;
  fields: Readonly<Partial<Record<FieldKey, Chosen>>>;
  people: readonly ChosenPerson[];
}

/** A person with those of the address book who have their name. */
type Offered = PersonRead & { known?: readonly { id: string; email: string; phone: string | null; company: string }[] };

/** Maximum number of people that are preselected: the server accepts no more when a deal is opened. */
const MOST_PEOPLE = 40;

/** Returns what is accepted before a member has changed anything: whatever is certain. */
export function acceptedAtFirst(a: Pick<Abstract, 'kind' | 'fields'> & { people: readonly Offered[] }): Accepted {
  return {
    kind: a.kind,
    forWhom: itemAt(FOR_WHOM_OF[a.kind], 0),
    fields: Object.fromEntries(a.fields.map((f) => [f.field, f.certain ? { reading: 0 } : null])),
    people: a.people.map((p, read) => {
      // Of two with the same name nobody can tell which one it is.
      const known = p.known?.length === 1 ? p.known[0] : undefined;
      return {
        side: p.side,
        name: p.name,
        company: p.company || known?.company || '',
        capacity: p.capacity,
        read,
        email: known?.email ?? '',
        phone: known?.phone ?? null,
        personId: known?.id ?? null,
        on: p.certain && read < MOST_PEOPLE,
      };
    }),
  };
}

/** Returns the value a field holds; null for none. */
export function valueOf(
  a: Pick<Abstract, 'fields'>,
  accepted: Accepted,
  field: FieldKey,
): FactValue | StatedDay | null {
  const chosen = accepted.fields[field];
  if (!chosen) return null;
  if ('typed' in chosen) return chosen.typed;
  return a.fields.find((f) => f.field === field)?.readings[chosen.reading]?.value ?? null;
}

/** Returns the key dates that are accepted, each worked out; a counted one needs the day it is counted from. */
export function datesOf(
  a: Pick<Abstract, 'fields'>,
  accepted: Accepted,
  holidays: readonly string[],
): Partial<Record<KeyDate, WorkedOut>> {
  const out: Partial<Record<KeyDate, WorkedOut>> = {};
  const open = new Map<KeyDate, StatedDay>();
  for (const date of DATES_OF[accepted.kind]) {
    const value = valueOf(a, accepted, `date.${date}`);
    if (value === null) continue;
    if (isStatedDay(value)) open.set(date, value);
    else if (typeof value === 'string' && isDay(value)) out[date] = { day: value, why: null };
  }
  // A day may be counted from one that is itself counted; each round finds at least one more, or none is left to find.
  for (let found = true; found;) {
    found = false;
    const known: KeyDates = Object.fromEntries(Object.entries(out).map(([date, w]) => [date, w.day]));
    for (const [date, stated] of open) {
      const worked = dayOfStated(stated, known, holidays);
      if (!worked || !isDay(worked.day)) continue;
      out[date] = worked;
      open.delete(date);
      found = true;
    }
  }
  return out;
}

/** The deal that an accepted abstract makes. */
export interface AcceptedDeal {
  kind: DealKind;
  forWhom: ForWhom;
  address: string;
  city: string;
  parties: Omit<ChosenPerson, 'on' | 'read'>[];
  facts: Record<string, FactValue>;
  dates: Partial<Record<KeyDate, string>>;
}

/** Returns the deal that is accepted. Facts and dates that its kind does not have are left out. */
export function dealOf(a: Pick<Abstract, 'fields'>, accepted: Accepted, holidays: readonly string[]): AcceptedDeal {
  const text = (field: FieldKey) => {
    const value = valueOf(a, accepted, field);
    return typeof value === 'string' ? value.trim() : '';
  };
  const facts: Record<string, FactValue> = {};
  for (const { key, kinds } of FACTS) {
    const value = kinds.includes(accepted.kind) ? valueOf(a, accepted, `fact.${key}`) : null;
    if (value !== null && !isStatedDay(value)) facts[key] = value;
  }
  const dates = datesOf(a, accepted, holidays);
  return {
    kind: accepted.kind,
    forWhom: accepted.forWhom,
    address: text('address'),
    city: text('city'),
    parties: accepted.people
      .filter((p) => p.on && p.name.trim())
      .map(({ on: _, read: __, ...p }) => ({ ...p, name: p.name.trim() })),
    facts,
    dates: Object.fromEntries(KEY_DATES.flatMap((d) => (dates[d] ? [[d, dates[d].day]] : []))),
  };
}

/** Fields a member is asked for even if the contract does not say them, by kind. */
const ASKED: Readonly<Record<DealKind, readonly FieldKey[]>> = {
  sale: ['address', 'city', 'fact.price', 'date.accepted', 'date.closing'],
  listing: ['address', 'city', 'fact.price', 'date.listed'],
  tenancy: ['address', 'city', 'fact.rent', 'date.move_in', 'date.end'],
};

/** Returns the fields that are shown, in their order: those that were read, and the usual ones that were not. */
export function fieldsShown(a: Pick<Abstract, 'fields'>, kind: DealKind): FieldKey[] {
  const order: FieldKey[] = [
    'address',
    'city',
    ...FACTS.filter((f) => f.kinds.includes(kind)).map((f): FieldKey => `fact.${f.key}`),
    ...DATES_OF[kind].map((d): FieldKey => `date.${d}`),
  ];
  const read = new Set(a.fields.map((f) => f.field));
  // Amounts come before other facts, as people ask for them.
  const rank = (f: FieldKey) =>
    /^(?:address|city)$/.test(f)
      ? 0
      : /price|rent|earnest|deposit|commission/.test(f)
        ? 1
        : f.startsWith('date.')
          ? 2
          : 3;
  return order.filter((f) => read.has(f) || ASKED[kind].includes(f)).sort((x, y) => rank(x) - rank(y));
}

/** Returns the reading of a field; undefined if none was read. */
export const readingOf = (a: Pick<Abstract, 'fields'>, field: FieldKey): FieldRead | undefined =>
  a.fields.find((f) => f.field === field);

/** Returns the side the firm most likely acts for: that of the broker with the firm's name; null if none has it. */
export function forWhomOf(a: Pick<Abstract, 'people'>, kind: DealKind, firm: string): ForWhom | null {
  const ours = a.people.filter((p) => p.name.toLowerCase() === firm.toLowerCase()).map((p): Side => p.side);
  return FOR_WHOM_OF[kind].find((w) => w !== 'both' && ours.some((side) => isOurs(w, side))) ?? null;
}
