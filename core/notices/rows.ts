/** A table with one row per household: its home, and the values of its notice. */
import type { FactValue } from '../deal';
import { wrongWith } from '../deal';
import { factOfCell, textOfCell, type IntakeField, type Table } from '../intake';
import { fold } from '../text/names';
import type { TagDef } from '../writing/tags';

/** Maximum number of households of one notice. */
export const MOST_HOMES = 2_000;

/** A row of the table. */
export interface HomeRow {
  /** Its line in the file, from 1. */
  line: number;
  home: string;
  values: Record<string, FactValue>;
  /** What is wrong with it, in words. */
  why: string[];
}

/** Returns what a column can be: the home, or a tag of the notice's papers. */
export function homeFields(tags: readonly TagDef[]): IntakeField[] {
  return [
    {
      key: 'home',
      label: 'Home',
      needed: true,
      also: ['address', 'unit', 'household', 'tenancy', 'property', 'street address', 'deal'],
    },
    ...tags.map((t) => ({
      key: t.key,
      label: t.label,
      also: [(t.key.split('.').at(-1) ?? t.key).replace(/_/g, ' ')],
    })),
  ];
}

/** Returns the rows of a table; `map` names the field of each column, empty for none. Empty rows are skipped. */
export function homesOf(table: Table, map: readonly string[], tags: readonly TagDef[]): HomeRow[] {
  const at = new Map(map.map((key, i) => [key, i]));
  const rows = table.rows.flatMap((cells, i): HomeRow[] => {
    if (cells.every((c) => !c.trim())) return [];
    const row: HomeRow = { line: table.lines[i] ?? i + 2, home: '', values: {}, why: [] };
    const read = (key: string, label: string, most: number) => {
      const column = at.get(key);
      try {
        return column === undefined ? '' : textOfCell(cells[column] ?? '', label, most);
      } catch (error) {
        row.why.push(error instanceof Error ? error.message : `${label}: it cannot be read.`);
        return '';
      }
    };
    row.home = read('home', 'Home', 160);
    if (!row.home && !row.why.length) row.why.push('Home: missing.');
    for (const def of tags) {
      const text = at.has(def.key) ? read(def.key, def.label, 200) : '';
      if (!text || def.type === 'names') continue;
      const fact = { ...def, type: def.type, kinds: [] };
      const value = factOfCell(fact, text);
      const wrong = wrongWith(fact, value);
      if (wrong) row.why.push(wrong);
      else row.values[def.key] = value;
    }
    return [row];
  });
  return rows;
}

/** Returns an address for comparing: letters and digits only. */
export const homeKey = (home: string) =>
  fold(home)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** A row with its home. */
export interface Placed {
  id: string;
  /** Its position: line in the file, or place in the list. */
  n: number;
  dealId: string | null;
  values: Record<string, FactValue>;
}

/**
 * Finds rows for the same home. Of equal rows the first is kept; of different ones all are reported.
 *
 * @returns what is wrong with a row, by its id
 */
export function sameHomes(rows: readonly Placed[]): Map<string, string> {
  const byHome = new Map<string, Placed[]>();
  for (const r of rows) {
    if (!r.dealId) continue;
    const all = byHome.get(r.dealId);
    if (all) all.push(r);
    else byHome.set(r.dealId, [r]);
  }
  const out = new Map<string, string>();
  for (const all of byHome.values()) {
    const [first, ...more] = all;
    if (!first || !more.length) continue;
    const said = (r: Placed) => JSON.stringify(Object.entries(r.values).sort(([a], [b]) => a.localeCompare(b)));
    if (more.every((r) => said(r) === said(first)))
      for (const r of more) out.set(r.id, `The same entry is in row ${first.n}. Leave this one out.`);
    else
      for (const r of all) {
        const others = all.filter((x) => x !== r).map((x) => x.n);
        out.set(
          r.id,
          `Row ${others.slice(0, 3).join(', ')} is for the same home and says something different. Leave out the wrong one.`,
        );
      }
  }
  return out;
}
