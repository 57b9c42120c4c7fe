/** Rows of a table as people and deals, each with what is wrong with it. */
import {
  DEAL_KINDS,
  factsByKey,
  FOR_WHOM_OF,
  KEY_DATES,
  KIND_WORDS,
  STATUS_WORDS,
  STATUSES_OF,
  wrongWith,
  type DealKind,
  type DealStatus,
  type FactDef,
  type FactValue,
  type ForWhom,
  type KeyDates,
} from '../deal';
import { isEmail } from '../text/email';
import { fold } from '../text/names';
import { SIDES, type Side } from '../text/sides';
import { dayOfCell, factOfCell, textOfCell } from './cells';

/** A row that cannot be imported, with every reason. */
export interface BadRow {
  /** Its line in the file, from 1. */
  line: number;
  why: string[];
}

/** The result of reading one row: a value, or what is wrong with it. */
export interface Taken<T> {
  good: { line: number; row: T }[];
  bad: BadRow[];
}

/** A person read from a row. */
export interface PersonRow {
  name: string;
  email: string;
  phone: string | null;
  company: string;
}

/** A deal read from a row. */
export interface DealRow {
  kind: DealKind;
  forWhom: ForWhom;
  address: string;
  city: string;
  status: DealStatus;
  tags: string[];
  facts: Record<string, FactValue>;
  dates: KeyDates;
  people: { side: Side; name: string; email: string }[];
}

/** A table from outside: headings and rows of text. */
export interface Table {
  /** Cells, row by row, without the headings. */
  rows: readonly string[][];
  /** The line each row begins on, from 1. */
  lines: readonly number[];
}

/** Reads cells by their fields, and collects what is wrong with a row. */
class Reading {
  readonly why: string[] = [];
  constructor(
    private readonly cells: readonly string[],
    private readonly map: readonly string[],
  ) {}
  /** Returns the text of a field; empty if it has no column. */
  text(key: string, label: string, most: number): string {
    const at = this.map.indexOf(key);
    const cell = at < 0 ? '' : (this.cells[at] ?? '');
    return this.try(() => textOfCell(cell, label, most)) ?? '';
  }
  try<T>(read: () => T): T | null {
    try {
      return read();
    } catch (error) {
      this.wrong(error instanceof Error ? error.message : 'It cannot be read.');
      return null;
    }
  }
  wrong(sentence: string): void {
    this.why.push(sentence);
  }
}

/** Returns whether all cells are empty. */
const isEmpty = (cells: readonly string[]) => cells.every((c) => !c.trim());

function takeAll<T>(table: Table, map: readonly string[], read: (r: Reading) => T, same: (row: T) => string): Taken<T> {
  const out: Taken<T> = { good: [], bad: [] };
  const seen = new Map<string, number>();
  table.rows.forEach((cells, i) => {
    if (isEmpty(cells)) return;
    const line = table.lines[i] ?? i + 2;
    const r = new Reading(cells, map);
    const row = read(r);
    const before = seen.get(same(row));
    if (!r.why.length && before !== undefined) r.wrong(`The same entry is on line ${before}.`);
    if (r.why.length) out.bad.push({ line, why: r.why });
    else {
      seen.set(same(row), line);
      out.good.push({ line, row });
    }
  });
  return out;
}

/** Returns the people of a table; `map` names the field of each column, empty for none. */
export function peopleOf(table: Table, map: readonly string[]): Taken<PersonRow> {
  return takeAll(
    table,
    map,
    (r): PersonRow => {
      const parts = [r.text('first', 'Given name', 60), r.text('last', 'Family name', 60)].filter(Boolean).join(' ');
      const name = r.text('name', 'Name', 120) || parts;
      if (!name) r.wrong('Name: missing.');
      const email = r.text('email', 'Email', 254);
      if (email && !isEmail(email)) r.wrong(`Email: “${email.slice(0, 60)}” is no address.`);
      const phone = r.text('phone', 'Phone', 40);
      if (phone && !/\d/.test(phone)) r.wrong(`Phone: “${phone}” is no number.`);
      return { name, email, phone: phone || null, company: r.text('company', 'Company or trust', 160) };
    },
    (p) => `${fold(p.name)} ${fold(p.email)}`,
  );
}

/** Returns the deals of a table. */
export function dealsOf(table: Table, map: readonly string[], own: readonly FactDef[] = []): Taken<DealRow> {
  const defs = factsByKey(own);
  return takeAll(
    table,
    map,
    (r) => readDeal(r, map, defs),
    (d) => `${d.kind} ${fold(d.address)} ${fold(d.city)}`,
  );
}

function readDeal(r: Reading, map: readonly string[], defs: ReadonlyMap<string, FactDef>): DealRow {
  const address = r.text('address', 'Address', 160);
  if (!address) r.wrong('Address: missing.');
  const kindText = r.text('kind', 'Kind', 40);
  const found = oneByWords(DEAL_KINDS, KIND_WORDS, kindText);
  if (kindText && !found) r.wrong(`Kind: “${kindText}” is none of ${namesOf(DEAL_KINDS, KIND_WORDS)}.`);
  const kind = found ?? 'sale';
  const statusText = r.text('status', 'Status', 40);
  const status = oneByWords(STATUSES_OF[kind], STATUS_WORDS, statusText);
  if (statusText && !status) r.wrong(`Status: a ${kind} cannot be “${statusText}”.`);
  const whomText = r.text('forWhom', 'For whom we act', 40);
  const whom = FOR_WHOM_OF[kind].find(
    (w) =>
      fold(whomText)
        .replace(/^for |^the /g, '')
        .trim() === w,
  );
  if (whomText && !whom) r.wrong(`For whom we act: in a ${kind} it cannot be “${whomText}”.`);
  return {
    kind,
    forWhom: whom ?? FOR_WHOM_OF[kind][0] ?? 'seller',
    address,
    city: r.text('city', 'City', 120),
    status: status ?? STATUSES_OF[kind][0] ?? 'preparing',
    tags: tagsOf(r),
    facts: factsIn(r, map, kind, defs),
    dates: datesIn(r, kind, defs),
    people: SIDES.flatMap((side) => peopleIn(r, side)),
  };
}

const MOST_TAGS = 20;

function tagsOf(r: Reading): string[] {
  const tags = [...new Set(list(r.text('tags', 'Tags', 900)))];
  if (tags.length > MOST_TAGS) r.wrong(`Tags: there are more than ${MOST_TAGS}.`);
  if (tags.some((t) => t.length > 40)) r.wrong('Tags: one is longer than 40 letters.');
  return tags;
}

const list = (text: string) =>
  text
    .split(';')
    .map((t) => t.trim())
    .filter(Boolean);

const namesOf = <K extends string>(all: readonly K[], words: Record<K, string>) =>
  all.map((k) => `“${words[k].toLowerCase()}”`).join(', ');

function oneByWords<K extends string>(all: readonly K[], words: Record<K, string>, text: string): K | undefined {
  const said = fold(text).trim();
  return all.find((k) => said === fold(words[k]) || said === k.replace(/_/g, ' ') || said === k);
}

function factsIn(
  r: Reading,
  map: readonly string[],
  kind: DealKind,
  defs: ReadonlyMap<string, FactDef>,
): Record<string, FactValue> {
  const facts: Record<string, FactValue> = {};
  for (const key of map) {
    const def = key.startsWith('fact.') ? defs.get(key.slice(5)) : undefined;
    if (!def) continue;
    const text = r.text(key, def.label, 200);
    // A column for another kind of deal says nothing about this one.
    if (!text || !def.kinds.includes(kind)) continue;
    const value = factOfCell(def, text);
    const wrong = wrongWith(def, value);
    if (wrong) r.wrong(wrong);
    else facts[def.key] = value;
  }
  return facts;
}

function datesIn(r: Reading, kind: DealKind, defs: ReadonlyMap<string, FactDef>): KeyDates {
  const dates: KeyDates = {};
  for (const date of KEY_DATES) {
    const def = defs.get(`date.${date}`);
    const label = def?.label ?? date;
    const text = r.text(`date.${date}`, label, 40);
    if (!text || !def?.kinds.includes(kind)) continue;
    const day = dayOfCell(text);
    if (day) dates[date] = day;
    else r.wrong(`${label}: “${text}” is not a date. Write it like 2026-11-30 or 11/30/2026.`);
  }
  return dates;
}

const MOST_OF_A_SIDE = 20;

/** Reads "Wren Alder <wren@example.com>; Callum Alder". */
function peopleIn(r: Reading, side: Side): DealRow['people'] {
  const all = list(r.text(`side.${side}`, 'People', 2_000));
  if (all.length > MOST_OF_A_SIDE) r.wrong(`There are more than ${MOST_OF_A_SIDE} people of one side.`);
  return all.map((text) => {
    const open = text.indexOf('<');
    const name = (open < 0 ? text : text.slice(0, open)).trim();
    const email =
      open < 0
        ? ''
        : text
            .slice(open + 1)
            .replace('>', '')
            .trim();
    if (!name || name.length > 120) r.wrong(`“${text.slice(0, 60)}” has no name that can be saved.`);
    if (email && !isEmail(email)) r.wrong(`“${email.slice(0, 60)}” is no address.`);
    return { side, name, email };
  });
}
