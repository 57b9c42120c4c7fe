/** Amounts, days and counted days of a contract, each with what the words around it say that it is. */
import type { DealKind, KeyDate } from '../deal';
import { AFTER_MONEY_CUES, cuesIn, DAY_CUES, indexOf, MONEY_CUES, type Cue, type Meaning } from './cues';
import { isChange, isFormer, isOfTerm } from './sentence';
import { countAt } from './counts';
import { cueBeside, cueOfCell, isInColumnOf, mapOf, type CueMap, type Near } from './near';
import { dayAt, moneyAt, percentAt, type Found } from './numbers';
import { pieceAt, sourceOf, type Piece } from './pieces';
import type { FieldKey, Source, StatedDay } from './types';

/** A value of a field as one place states it. */
export interface Candidate {
  field: FieldKey;
  value: StatedDay | number;
  source: Source;
  clear: boolean;
  /** Whether it is said to take the place of what was agreed before: "is extended to", "the new rent is". */
  changed?: boolean;
}

/** A day that somebody wrote beside a signature. */
export interface SignedDay {
  day: string;
  /** The position of its first piece. */
  at: number;
  source: Source;
  clear: boolean;
}

/** Maximum number of values of one type that are looked at. */
const MOST_VALUES = 2_000;
/** Maximum number of words between a cue and a value that is clear. */
const CLOSE = 4;

const MONEY = indexOf(MONEY_CUES);
const AFTER_MONEY = indexOf({
  ...MONEY_CUES,
  ...AFTER_MONEY_CUES,
  none: `${MONEY_CUES.none ?? ''}, ${AFTER_MONEY_CUES.none ?? ''}`,
});
const DAYS = indexOf(DAY_CUES);

/** Which field a meaning is in each kind of deal; absent where the kind has no such field. */
const FIELDS: Readonly<Record<DealKind, Partial<Record<Meaning, FieldKey>>>> = {
  sale: {
    price: 'fact.price',
    deposit: 'fact.earnest',
    commission: 'fact.commission',
    closing: 'date.closing',
    inspection: 'date.inspection',
    loan: 'date.loan',
    accepted: 'date.accepted',
    disclosed: 'date.disclosed',
  },
  listing: { price: 'fact.price', commission: 'fact.commission', start: 'date.listed' },
  tenancy: { rent: 'fact.rent', deposit: 'fact.deposit', start: 'date.move_in', end: 'date.end' },
};

/** Meanings that only say something in some kinds of deals: "from" and "until" in a sale limit an offer. */
const counted = (kind: DealKind) => (meaning: Meaning) =>
  meaning === 'start' || meaning === 'end' ? kind !== 'sale' : true;

/** Returns the positions that values occupy. */
function taken(found: readonly Found<unknown>[]): (at: number) => boolean {
  const at = new Set<number>();
  for (const f of found) for (let i = f.from; i < f.to; i++) at.add(i);
  return (i) => at.has(i);
}

/** Returns all values that a function finds, from left to right, without overlap. */
function allIn<V>(pieces: readonly Piece[], at: (i: number) => Found<V> | null): Found<V>[] {
  const out: Found<V>[] = [];
  for (let i = 0; i < pieces.length && out.length < MOST_VALUES; i++) {
    const found = at(i);
    if (!found) continue;
    out.push(found);
    i = found.to - 1;
  }
  return out;
}

/** The cues of a document, by position and by page. */
class Cues {
  readonly map: CueMap;
  private readonly byPage = new Map<number, Cue[]>();
  constructor(
    private readonly pieces: readonly Piece[],
    before: Cue[],
    after = before,
  ) {
    this.map = mapOf(before, after);
    for (const c of before) {
      const page = pieces[c.from]!.page;
      const list = this.byPage.get(page);
      if (list) list.push(c);
      else this.byPage.set(page, [c]);
    }
  }
  /** Returns what a value is: by the words of its sentence, otherwise by the caption of its cell. */
  of(value: Found<unknown>, isValue: (at: number) => boolean, counts: (m: Meaning) => boolean): Near | null {
    const over = isChange(this.pieces, value.from);
    const beside = cueBeside(this.pieces, value, this.map, isValue, counts, over);
    if (beside?.onRow && beside.distance <= CLOSE) return beside;
    // "Closing, which was to take place on May 1, is extended to June 1": the words between say it is closing's.
    if (beside && over) return { ...beside, distance: Math.min(beside.distance, CLOSE) };
    const page = this.byPage.get(this.pieces[value.from]!.page) ?? [];
    if (page.length > MOST_VALUES) return beside;
    return cueOfCell(this.pieces, value, page, counts) ?? beside ?? this.headed(value, page);
  }
  /** Returns that a day in a column of dates is that of a signature. */
  private headed(value: Found<unknown>, page: readonly Cue[]): Near | null {
    return isInColumnOf(this.pieces, value, page, 'signed')
      ? { meaning: 'signed', distance: 0, onRow: false, disputed: false }
      : null;
  }
}

/** Returns the amounts of a contract that are a field of its deal. */
export function amountsIn(pieces: readonly Piece[], kind: DealKind): Candidate[] {
  const found = allIn(pieces, (i) => moneyAt(pieces, i)).filter((f) => isAmount(pieces, f));
  const cues = new Cues(pieces, cuesIn(pieces, MONEY), cuesIn(pieces, AFTER_MONEY));
  const isValue = taken(found.filter((f) => f.value.marked));
  return found.flatMap((f): Candidate[] => {
    const near = cues.of(f, isValue, () => true);
    const field = near && FIELDS[kind][near.meaning];
    if (!near || !field || near.meaning === 'commission') return [];
    // A bare figure is an amount only right after its caption.
    if (!f.value.marked && near.distance > 0) return [];
    const said = near.distance <= CLOSE && !near.disputed && !isFormer(pieces, f.from);
    const clear = said && f.value.amount >= (near.meaning === 'price' ? 1_000 : 50);
    const changed = isChange(pieces, f.from);
    return [{ field, value: f.value.amount, source: sourceOf(pieces, f.from, f.to), clear, changed }];
  });
}

/** Returns whether a figure may be an amount: no percentage, year, day or clause number. */
function isAmount(pieces: readonly Piece[], { from, to, value }: Found<{ amount: number; marked: boolean }>): boolean {
  if (value.marked) return true;
  if (value.amount < 100) return false;
  return (
    !/^(?:%|percent|days?|dias?|years?|months?|\/|-|square|sq)$/.test(pieceAt(pieces, to)) &&
    !/^(?:[/,.-]|\d.*)$/.test(pieceAt(pieces, from - 1))
  );
}

/** Returns the commission in percent. */
export function percentsIn(pieces: readonly Piece[], kind: DealKind): Candidate[] {
  const field = FIELDS[kind].commission;
  if (!field) return [];
  const index = indexOf({
    commission: 'commission, fee, compensation, broker fee, brokerage fee, comision, honorarios, fee in percent',
    none: 'loan, interest, rate, mortgage, tax, late, prestamo, interes, hipoteca, down, deposit, price',
  });
  const found = allIn(pieces, (i) => percentAt(pieces, i) ?? bareUnderPercent(pieces, i));
  const cues = new Cues(pieces, cuesIn(pieces, index));
  return found.flatMap((f): Candidate[] => {
    const near = cues.of(f, taken(found), () => true);
    if (near?.meaning !== 'commission' || f.value > 20) return [];
    return [{ field, value: f.value, source: sourceOf(pieces, f.from, f.to), clear: near.distance <= CLOSE }];
  });
}

/** Returns a figure whose caption names the percent sign: "FEE IN PERCENT" above "5". */
function bareUnderPercent(pieces: readonly Piece[], at: number): Found<number> | null {
  const p = pieces[at];
  if (!p || !/^\d{1,2}(?:\.\d{1,2})?$/.test(p.text) || p.before === 'none' || p.before === 'space') return null;
  for (let i = at - 1; i >= 0 && i >= at - 40; i--) {
    const above = pieces[i]!;
    if (above.page !== p.page || p.rect.y - above.rect.y > 3 * p.rect.h) return null;
    const over = above.rect.x < p.rect.x + 120 && above.rect.x + above.rect.w > p.rect.x - 4;
    if ((above.text === 'percent' || above.text === '%') && over && above.rect.y < p.rect.y - 0.6 * p.rect.h)
      return { from: at, to: at + 1, value: Number(p.text) };
  }
  return null;
}

/** Days of a contract: those that are key dates, and those beside signatures. */
export interface Days {
  dates: Candidate[];
  signed: SignedDay[];
}

/** Meanings that stand before their day: "unless accepted before" says nothing of the day in front of it. */
const ONLY_BEFORE: ReadonlySet<Meaning> = new Set(['accepted', 'start', 'end']);

/** Returns the days of a contract that are a field of its deal, and those beside signatures. */
export function daysIn(pieces: readonly Piece[], kind: DealKind, spanish: boolean): Days {
  const found = allIn(pieces, (i) => dayAt(pieces, i, spanish));
  const before = cuesIn(pieces, DAYS);
  const cues = new Cues(
    pieces,
    before,
    before.filter((c) => !ONLY_BEFORE.has(c.meaning)),
  );
  const isValue = taken(found);
  const out: Days = { dates: [], signed: [] };
  for (const f of found) {
    const near = cues.of(f, isValue, counted(kind));
    if (!near) continue;
    const source = sourceOf(pieces, f.from, f.to);
    const { day } = f.value;
    if (near.meaning === 'signed') out.signed.push({ day, at: f.from, source, clear: f.value.clear });
    const field = FIELDS[kind][near.meaning];
    const loose = near.meaning === 'start' || near.meaning === 'end';
    const said = f.value.clear && near.distance <= CLOSE && !isFormer(pieces, f.from);
    const clear = said && (!loose || !near.onRow || isOfTerm(pieces, f.from));
    if (field) out.dates.push({ field, value: { day }, source, clear, changed: isChange(pieces, f.from) });
  }
  out.dates.push(...countedIn(pieces, kind, cues, isValue));
  return out;
}

/** Meanings of days that are counted: the term of a lease begins and ends on days that are stated. */
const isCountable = (m: Meaning) => !['signed', 'accepted', 'start', 'end'].includes(m);

/** The key date that a count starts from. */
const ANCHOR_DATES: Readonly<Record<DealKind, Partial<Record<Meaning, KeyDate>>>> = {
  sale: { accepted: 'accepted', closing: 'closing' },
  listing: { start: 'listed', closing: 'closing' },
  tenancy: { accepted: 'lease_signed', start: 'move_in' },
};

function countedIn(pieces: readonly Piece[], kind: DealKind, cues: Cues, isDay: (at: number) => boolean): Candidate[] {
  const found = allIn(pieces, (i) => countAt(pieces, i));
  const isCount = taken(found);
  return found.flatMap((f): Candidate[] => {
    const near = cues.of(f, (i) => isCount(i) || isDay(i), isCountable);
    const field = near && FIELDS[kind][near.meaning];
    const from = ANCHOR_DATES[kind][f.value.anchor];
    if (!near || !field?.startsWith('date.') || !from || field === `date.${from}`) return [];
    return [
      {
        field,
        value: { count: f.value.count, from },
        source: sourceOf(pieces, f.from, f.to),
        clear: near.distance <= CLOSE,
      },
    ];
  });
}

/** Returns which field of its deal a blank asks for, by the words around it; null for none, or if they are not clear. */
export function fieldOfBlank(
  pieces: readonly Piece[],
  at: number,
  isBlank: (at: number) => boolean,
  kind: DealKind,
  what: 'amount' | 'day',
): FieldKey | null {
  const found = { from: at, to: at + 1, value: null };
  const cues =
    what === 'day'
      ? new Cues(pieces, cuesIn(pieces, DAYS))
      : new Cues(pieces, cuesIn(pieces, MONEY), cuesIn(pieces, AFTER_MONEY));
  const near = cues.of(found, isBlank, what === 'day' ? counted(kind) : () => true);
  if (!near || near.disputed || near.distance > CLOSE || near.meaning === 'commission') return null;
  // Without a currency sign only what stands right after its caption is an amount.
  if (what === 'amount' && pieceAt(pieces, at - 1) !== '$' && near.distance > 0) return null;
  if (what === 'day' && (near.meaning === 'start' || near.meaning === 'end') && near.onRow && !isOfTerm(pieces, at))
    return null;
  return FIELDS[kind][near.meaning] ?? null;
}

/** How far to the right of a caption its value is shown, in points. */
const BESIDE = 220;

/** Returns the first caption of each field: words that are followed by a blank, a colon or a currency sign. */
export function captionsIn(pieces: readonly Piece[], kind: DealKind): Map<FieldKey, Source> {
  const out = new Map<FieldKey, Source>();
  for (const index of [MONEY, DAYS])
    for (const cue of cuesIn(pieces, index)) {
      const field = FIELDS[kind][cue.meaning];
      const next = pieces[cue.to];
      const asks = !next || /^(?:row|part|gap)$/.test(next.before) || next.text === ':' || next.text === '$';
      if (!field || !asks || out.has(field) || cue.meaning === 'start' || cue.meaning === 'end') continue;
      const source = sourceOf(pieces, cue.from, cue.to);
      out.set(field, { ...source, rect: { ...source.rect, w: source.rect.w + BESIDE } });
    }
  return out;
}
