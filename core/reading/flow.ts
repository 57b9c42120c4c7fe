/** The running text around a blank across line breaks: what the sentence says before and after it. */
import { lastOf } from '../sure';
import type { Blank, PageScan } from './blanks';

/** The running text around a blank. */
export interface Flow {
  /** The text before and after the blank, with other blanks as `BLANK`; empty if there is none. */
  before: string;
  after: string;
  /** The blank before this one in the text. */
  last: Blank | null;
  /** A blank at the end of the line above, if this one begins its line; and one that begins the line below. */
  from: Blank | null;
  to: Blank | null;
}

/** What stands for a blank in running text. */
export const BLANK = '____';

interface Item {
  x0: number;
  x1: number;
  y: number;
  size: number;
  text: string;
  blank: Blank | null;
}
type Run = Item[];

/** Maximum gap between words and blanks of one run, as a share of the type size. */
const GAP = 1.6;
/** Maximum distance of two lines of a paragraph, as a share of the type size. */
const PITCH = 2.1;
/** Maximum number of runs of a page whose flow is followed; a page of text has hundreds. */
const MANY = 4_000;
/** Number of characters of a flow on each side; a name's explanation is no further away. */
const REACH = 240;

const NONE: Flow = { before: '', after: '', last: null, from: null, to: null };
const kept = new WeakMap<PageScan, { blanks: Blank[]; flows: Map<Blank, Flow> }>();

/** Returns the flow around a blank; a page is examined once for all of them. */
export function flowOf(scan: PageScan, b: Blank): Flow {
  let known = kept.get(scan);
  if (known?.blanks !== scan.blanks) {
    known = { blanks: scan.blanks, flows: flowsOf(scan) };
    kept.set(scan, known);
  }
  return known.flows.get(b) ?? NONE;
}

function flowsOf(scan: PageScan): Map<Blank, Flow> {
  const out = new Map<Blank, Flow>();
  for (const runs of paragraphs(scan, runsOf(scan))) {
    const items = runs.flat();
    const text = (list: Item[]) => list.map((x) => x.text).join(' ');
    // Which line an item begins or ends.
    const begin = new Map(runs.map((r, n) => [r[0], n]));
    const end = new Map(runs.map((r, n) => [r[r.length - 1], n]));
    let last: Blank | null = null;
    items.forEach((item, i) => {
      if (!item.blank) return;
      // Each run is a line: a blank that begins one may go on from a blank that ends the line before.
      const begins = begin.get(item) ?? -1;
      const ends = end.get(item) ?? -1;
      out.set(item.blank, {
        before: text(items.slice(Math.max(0, i - 24), i)).slice(-REACH),
        after: text(items.slice(i + 1, i + 25)).slice(0, REACH),
        last,
        from: begins > 0 ? (runs[begins - 1]?.at(-1)?.blank ?? null) : null,
        to: ends >= 0 ? (runs[ends + 1]?.[0]?.blank ?? null) : null,
      });
      last = item.blank;
    });
  }
  return out;
}

/** Returns words and blanks that follow each other on a line. */
function runsOf(scan: PageScan): Run[] {
  const items: Item[] = scan.phrases.map((p) => ({ ...p, blank: null }));
  const sizes = scan.phrases.map((p) => p.size).sort((a, b) => a - b);
  const usual = sizes[Math.floor(sizes.length / 2)] ?? 11;
  for (const b of scan.blanks) {
    if (b.made === 'cell' || b.made === 'box') continue;
    const near = scan.phrases.filter((p) => Math.abs(p.y - b.y) < 0.5 * p.size && p.x0 < b.x1 + 40 && p.x1 > b.x0 - 40);
    const y = near[0]?.y ?? b.y - 0.16 * usual;
    items.push({ x0: b.x0, x1: b.x1, y, size: near[0]?.size ?? usual, text: BLANK, blank: b });
  }
  items.sort((a, b) => a.y - b.y || a.x0 - b.x0);
  const rows: Item[][] = [];
  for (const item of items) {
    const row = rows[rows.length - 1];
    if (row && Math.abs(item.y - (row[0]?.y ?? 0)) < 0.35 * item.size) row.push(item);
    else rows.push([item]);
  }
  return rows.flatMap((row) => {
    row.sort((a, b) => a.x0 - b.x0);
    const runs: Run[] = [];
    for (const item of row) {
      const run = runs[runs.length - 1];
      if (run && item.x0 - lastOf(run).x1 < GAP * item.size) run.push(item);
      else runs.push([item]);
    }
    return runs;
  });
}

/** Returns runs that continue on the next line as one: such a line ends near the right edge of the text. */
function paragraphs(scan: PageScan, runs: Run[]): Run[][] {
  if (runs.length > MANY) return [];
  const edge = scan.left + 0.72 * (scan.right - scan.left);
  const out: Run[][] = [];
  let open: { runs: Run[]; x0: number }[] = [];
  for (const run of runs) {
    const first = run[0];
    if (!first) continue;
    open = open.filter((o) => first.y - lastOf(lastOf(o.runs)).y < PITCH * 2 * first.size);
    const goesOn = open.find(({ runs: lines, x0 }) => {
      const last = lastOf(lines);
      const end = lastOf(last);
      const down = first.y - end.y;
      // What did not fit on a line is on the next, however much space the line had left.
      const full = end.x1 > edge || end.x1 + (first.x1 - first.x0) > scan.right - 2;
      return full && down > 0.6 * first.size && down < PITCH * first.size && Math.abs(first.x0 - x0) < 26;
    });
    if (goesOn) {
      goesOn.runs.push(run);
      goesOn.x0 = Math.min(goesOn.x0, first.x0);
    } else {
      const lines = [run];
      out.push(lines);
      open.push({ runs: lines, x0: first.x0 });
    }
  }
  return out;
}
