/** Compares the values read from filled-in contracts with the values that were filled in. */
import { abstractOf, type Abstract, type AbstractPage } from '@gatepath/core/abstract';
import { dayOfStated } from '@gatepath/core/abstract';
import type { KeyDates } from '@gatepath/core/deal';
import { linesOf, wordsOf } from '@gatepath/core/reading';
import { contentsOf } from '../../server/reading/inspect';
import { stopRecognising } from '../../server/scan/recognise';
import { readWhole } from '../../server/scan/whole';
import { scanOf } from '../../server/test/scan';
import { fillForm, type Filled } from './fill';
import { INTAKE_FORMS } from './forms';

/** Counts of one field. */
export interface FieldTally {
  /** Number of values in the contracts, and of those that were read correctly. */
  printed: number;
  found: number;
  /** Number of values offered as certain, and of those that are right. */
  certain: number;
  right: number;
}

/** Returns the pages of a file as an abstract reads them. */
export async function abstractPages(bytes: Uint8Array): Promise<AbstractPage[]> {
  const came = await contentsOf(bytes);
  const bare = came.contents.flatMap((c, i) => (c.scan === 'bare' ? [i + 1] : []));
  const { contents } = bare.length ? await contentsOf((await readWhole(bytes, bare)).bytes) : came;
  return contents.map((c, i) => ({
    words: wordsOf(linesOf(c.glyphs)).map((w) => ({ ...w, text: w.text.replace(/\s+/g, '') })),
    scanned: bare.includes(i + 1),
  }));
}

const alike = (text: string) =>
  text
    .normalize('NFD')
    .replace(/[^\p{L}\d]+/gu, ' ')
    .trim()
    .toLowerCase();

/** Returns what an abstract says for a field: its value and whether it is certain. */
function saidOf(a: Abstract, field: string): { value: string | number; certain: boolean } | null {
  const read = a.fields.find((f) => f.field === field);
  const value = read?.readings[0]?.value;
  if (!read || value === undefined) return null;
  if (typeof value !== 'object') return { value: value as string | number, certain: read.certain };
  const dates: KeyDates = {};
  for (const key of ['accepted', 'closing'] as const) {
    const v = a.fields.find((f) => f.field === `date.${key}`)?.readings[0]?.value;
    if (typeof v === 'object' && 'day' in v) dates[key] = v.day;
  }
  // Closing itself may be counted, and others from it.
  const closing = a.fields.find((f) => f.field === 'date.closing')?.readings[0]?.value;
  if (typeof closing === 'object' && !dates.closing) {
    const day = dayOfStated(closing, dates, [])?.day;
    if (day) dates.closing = day;
  }
  const day = dayOfStated(value, dates, []);
  const base = 'count' in value ? a.fields.find((f) => f.field === `date.${value.from}`) : null;
  return day && { value: day.day, certain: read.certain && (base?.certain ?? true) };
}

/** Compares an abstract with what a contract says. */
export function compare(
  a: Abstract,
  filled: Filled,
  tallies: Map<string, FieldTally>,
  say: (text: string) => void,
): void {
  const of = (field: string) => {
    const t = tallies.get(field) ?? { printed: 0, found: 0, certain: 0, right: 0 };
    tallies.set(field, t);
    return t;
  };
  const same = (x: string | number, y: string | number) => alike(String(x)) === alike(String(y));
  for (const [field, value] of filled.fields) {
    const t = of(field);
    t.printed++;
    const said = saidOf(a, field);
    const right = said !== null && same(said.value, value);
    if (right) t.found++;
    if (said?.certain) {
      t.certain++;
      if (right) t.right++;
    }
    if (!right)
      say(`  ${field}: “${value}”, read ${said ? `“${said.value}”${said.certain ? ' CERTAIN' : ''}` : 'nothing'}`);
  }
  for (const f of a.fields)
    if (f.certain && !filled.fields.has(f.field)) {
      of(f.field).certain++;
      say(
        `  ${f.field}: nothing, read ${JSON.stringify(f.readings[0]?.value)} CERTAIN from “${f.readings[0]?.sources[0]?.words}”`,
      );
    }
  const sides = new Set([...filled.people.keys(), ...a.people.map((p) => p.side)]);
  for (const side of sides) {
    if (side === 'listing_broker' || side === 'buyer_broker' || side === 'manager') continue;
    const t = of('people');
    const names = filled.people.get(side) ?? [];
    const read = a.people.filter((p) => p.side === side);
    for (const name of names) {
      t.printed++;
      if (read.some((p) => alike(p.name) === alike(name))) t.found++;
      else say(`  ${side} “${name}” not read`);
    }
    for (const p of read.filter((x) => x.certain)) {
      t.certain++;
      if (names.some((n) => alike(n) === alike(p.name))) t.right++;
      else say(`  ${side}: read “${p.name}” CERTAIN from “${p.sources[0]?.words}”`);
    }
  }
}

/** Measures all contracts, filled `times` times each; every fifth is scanned. */
export async function measureIntake(
  say: (text: string) => void,
  { times = 3, scanned = true, seed = 1, only = '', forms = INTAKE_FORMS } = {},
): Promise<Map<string, FieldTally>> {
  const tallies = new Map<string, FieldTally>();
  let n = 0;
  for (const form of forms)
    for (let k = 0; k < times; k++) {
      n++;
      if (only && form.name !== only) continue;
      const filled = await fillForm(form, 1_000 * seed + n);
      const scan = n % 5 === 0;
      if (scan && !scanned) continue;
      const bytes = scan ? (await scanOf(filled.bytes, undefined, n)).bytes : filled.bytes;
      const a = abstractOf(await abstractPages(bytes));
      say(`${form.name}${scan ? ' (scanned)' : ''} ${k}${a.kind === form.kind ? '' : ` KIND ${a.kind}`}`);
      const t = tallies.get('kind') ?? { printed: 0, found: 0, certain: 0, right: 0 };
      tallies.set('kind', t);
      t.printed++;
      if (a.kind === form.kind) t.found++;
      if (a.kindCertain) t.certain++;
      if (a.kindCertain && a.kind === form.kind) t.right++;
      compare(a, filled, tallies, say);
    }
  await stopRecognising();
  return tallies;
}
