/** The page ledger: pages down, parties across; what each must do, what is done, and gaps. */
import { isAutomatic, isForClient, isSenders } from './kinds';
import type { InitialsRule, LeftOutPage, Mark } from './types';

/** States of a cell of the page ledger. */
export const CELL_STATES = [
  /** Nothing to do here for this party. */
  'none',
  /** Initials are required and not given yet. */
  'initials',
  /** A signature is required and not given yet. */
  'signature',
  /** Other marks are required and not filled yet. */
  'other',
  /** Required by the rule, or by the party's other pages, without a mark for it. */
  'gap',
  /** Excepted from the initials rule by hand. */
  'excepted',
  /** Everything the party has to do here is done. */
  'done',
] as const;
/** One of `CELL_STATES`. */
export type CellState = (typeof CELL_STATES)[number];
/** What a cell of the page ledger asks for; the strongest wins. */
export const CELL_WANTS = ['initials', 'signature', 'other', 'none'] as const;

/** One person's part of one page. */
export interface LedgerCell {
  partyId: string;
  state: CellState;
  /** What the cell asks for, done or not: determines its symbol. */
  wants: (typeof CELL_WANTS)[number];
  markIds: string[];
  total: number;
  done: number;
  /** Whether the missing initials come from a rule (stops sending) or from the pattern (a hint). */
  gapFrom: 'rule' | 'pattern' | null;
}

/** One page of one document, with a cell per party. */
export interface LedgerRow {
  documentId: string;
  page: number;
  cells: LedgerCell[];
}

/** The page ledger: rows per page, columns per party, totals. */
export interface Ledger {
  partyIds: string[];
  rows: LedgerRow[];
  /** Number of required marks, and of those done. */
  total: number;
  done: number;
  gaps: number;
}

/** What the page ledger is computed from. */
export interface LedgerInput {
  /** `ownPages`: pages before a signing record, on which nothing is required. */
  documents: { id: string; pageCount: number; ownPages?: number | undefined }[];
  partyIds: string[];
  marks: Mark[];
  rules: InitialsRule[];
  /** Pages excepted by hand where no rule applies. */
  leftOut?: LeftOutPage[];
  /** Ids of filled marks. */
  filled: ReadonlySet<string>;
}

/**
 * Builds the ledger. A party that initials some pages of a document but not all, without a rule that says so, has a
 * gap of the `pattern` kind on the others.
 */
// eslint-disable-next-line max-lines-per-function -- one walk over pages and parties; rows, sums and gaps come of the same counting
export function buildLedger(input: LedgerInput): Ledger {
  const at = new Map<string, Mark[]>();
  const initialledSomewhere = new Set<string>();
  const printed = new Map<string, Set<number>>();
  const pageCounts = new Map(input.documents.map((d) => [d.id, d.ownPages ?? d.pageCount]));
  for (const m of input.marks) {
    if (isSenders(m.kind)) continue;
    const key = `${m.documentId}:${m.page}:${m.partyId}`;
    const list = at.get(key);
    if (list) list.push(m);
    else at.set(key, [m]);
    if (m.kind !== 'initials' || m.redlineId) continue;
    const who = `${m.documentId}:${m.partyId}`;
    if (!m.placeId) initialledSomewhere.add(who);
    else {
      // Blanks printed beside clauses do not ask for initials on every page; a blank on half of the pages does.
      const pages = printed.get(who) ?? new Set();
      printed.set(who, pages.add(m.page));
      const all = pageCounts.get(m.documentId) ?? 0;
      if (all > 1 && pages.size >= Math.max(2, all / 2)) initialledSomewhere.add(who);
    }
  }
  const leftOut = new Set((input.leftOut ?? []).map((x) => `${x.documentId}:${x.page}:${x.partyId}`));
  const ruled = new Map<string, InitialsRule>();
  for (const r of input.rules) for (const p of r.partyIds) ruled.set(`${r.documentId}:${p}`, r);
  const ledger: Ledger = { partyIds: input.partyIds, rows: [], total: 0, done: 0, gaps: 0 };
  for (const doc of input.documents) {
    for (let page = 1; page <= doc.pageCount; page++) {
      const cells = input.partyIds.map((partyId): LedgerCell => {
        const marks = at.get(`${doc.id}:${page}:${partyId}`) ?? NONE;
        const required = requiredPlaces(marks);
        const done = required.filter((unit) => unit.some((m) => input.filled.has(m.id))).length;
        ledger.total += required.length;
        ledger.done += done;
        const rule = ruled.get(`${doc.id}:${partyId}`);
        const initialled = marks.some((m) => m.kind === 'initials' && !m.redlineId);
        const excepted =
          leftOut.has(`${doc.id}:${page}:${partyId}`) ||
          (rule?.except.some((e) => e.page === page && e.partyId === partyId) ?? false);
        const gapFrom =
          initialled || excepted || page > (doc.ownPages ?? doc.pageCount)
            ? null
            : rule
              ? ('rule' as const)
              : initialledSomewhere.has(`${doc.id}:${partyId}`)
                ? ('pattern' as const)
                : null;
        if (gapFrom) ledger.gaps++;
        const wants = marks.some((m) => m.kind === 'signature')
          ? 'signature'
          : initialled || gapFrom || marks.some((m) => m.kind === 'initials')
            ? 'initials'
            : marks.length
              ? 'other'
              : 'none';
        const state: CellState = gapFrom
          ? 'gap'
          : required.length && done === required.length
            ? 'done'
            : wants !== 'none'
              ? wants
              : excepted
                ? 'excepted'
                : 'none';
        return { partyId, state, wants, markIds: marks.map((m) => m.id), total: required.length, done, gapFrom };
      });
      ledger.rows.push({ documentId: doc.id, page, cells });
    }
  }
  return ledger;
}

/** Joins ledgers of single documents, which are independent of each other. */
export function joinLedgers(partyIds: string[], ledgers: Ledger[]): Ledger {
  const sum = (of: (l: Ledger) => number) => ledgers.reduce((n, l) => n + of(l), 0);
  return {
    partyIds,
    rows: ledgers.flatMap((l) => l.rows),
    total: sum((l) => l.total),
    done: sum((l) => l.done),
    gaps: sum((l) => l.gaps),
  };
}

const NONE: Mark[] = [];

/** Returns the places among marks that must be filled; the choices of a group are one place. */
export function requiredPlaces(marks: Mark[]): Mark[][] {
  const units: Mark[][] = [];
  const groups = new Map<string, Mark[]>();
  for (const m of marks) {
    if (!m.required || !(isForClient(m) || isAutomatic(m.kind))) continue;
    const group = m.group ? groups.get(m.group) : undefined;
    if (group) {
      group.push(m);
      continue;
    }
    const unit = [m];
    units.push(unit);
    if (m.group) groups.set(m.group, unit);
  }
  return units;
}
