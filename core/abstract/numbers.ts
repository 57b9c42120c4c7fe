/** Numbers, amounts and days as contracts write them. */
import { isDay } from '../calendar';
import { pieceAt, type Piece } from './pieces';

/** A value found in a run of pieces; `to` is exclusive. */
export interface Found<V> {
  from: number;
  to: number;
  value: V;
}

/** Number words in English and Spanish, to a hundred. */
const SMALL: Readonly<Record<string, number>> = {
  ...Object.fromEntries(
    'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen'
      .split(' ')
      .map((word, n) => [word, n]),
  ),
  ...Object.fromEntries(
    'cero uno dos tres cuatro cinco seis siete ocho nueve diez once doce trece catorce quince dieciseis diecisiete dieciocho diecinueve veinte veintiuno veintidos veintitres veinticuatro veinticinco'
      .split(' ')
      .map((word, n) => [word, n]),
  ),
  ...Object.fromEntries(
    'twenty thirty forty fifty sixty seventy eighty ninety'.split(' ').map((word, n) => [word, 20 + 10 * n]),
  ),
  ...Object.fromEntries(
    'treinta cuarenta cincuenta sesenta setenta ochenta noventa'.split(' ').map((word, n) => [word, 30 + 10 * n]),
  ),
};

/**
 * Returns the small number that begins at a piece, in figures or words: "10", "ten (10)", "forty-five".
 *
 * @returns null if there is none
 */
export function numberAt(pieces: readonly Piece[], at: number): Found<number> | null {
  const text = pieceAt(pieces, at);
  if (/^\d{1,4}$/.test(text)) return { from: at, to: at + 1, value: Number(text) };
  const value = smallOf(text);
  if (value === null) return null;
  const next = smallOf(pieceAt(pieces, at + 1));
  if (value >= 20 && value % 10 === 0 && next !== null && next > 0 && next < 10)
    return withFigures(pieces, { from: at, to: at + 2, value: value + next });
  return withFigures(pieces, { from: at, to: at + 1, value });
}

function smallOf(word: string): number | null {
  const [tens = '', unit] = word.split('-');
  const a = Object.hasOwn(SMALL, tens) ? SMALL[tens] : undefined;
  if (a === undefined) return null;
  if (unit === undefined) return a;
  const b = Object.hasOwn(SMALL, unit) ? SMALL[unit] : undefined;
  return b === undefined ? null : a + b;
}

/** Returns a number in words together with its figures in brackets, if they say the same; null if they do not. */
function withFigures(pieces: readonly Piece[], found: Found<number>): Found<number> | null {
  const { to, value } = found;
  if (pieceAt(pieces, to) !== '(' || pieceAt(pieces, to + 2) !== ')') return found;
  const figures = pieceAt(pieces, to + 1);
  if (!/^\d{1,4}$/.test(figures)) return found;
  return Number(figures) === value ? { ...found, to: to + 3 } : null;
}

/** Figures of an amount: with thousands apart by commas, or by dots as in Spanish; with cents or without. */
const COMMAS = /^\d{1,3}(?:,\d{3}){1,3}(?:\.\d{2})?$/;
const DOTS = /^\d{1,3}(?:\.\d{3}){1,3}(?:,\d{2})?$/;
const PLAIN = /^\d{1,10}(?:\.\d{2})?$/;

/** Returns the number that figures write; null if they write none. */
export function amountOf(text: string): number | null {
  if (COMMAS.test(text) || PLAIN.test(text)) return Number(text.replaceAll(',', ''));
  if (DOTS.test(text)) return Number(text.replaceAll('.', '').replace(',', '.'));
  return null;
}

/** An amount of money; `marked` if a currency sign or word says so. */
export interface Money {
  amount: number;
  marked: boolean;
}

/** Returns the amount that begins at a piece: "$412,000", "$ 1,250.50", "412,000 dollars"; a bare figure is not marked. */
export function moneyAt(pieces: readonly Piece[], at: number): Found<Money> | null {
  const sign = ['$', 'usd', 'us$'].includes(pieceAt(pieces, at));
  const i = sign ? at + 1 : at;
  const amount = amountOf(pieceAt(pieces, i).replace(/[.,]$/, ''));
  if (amount === null) return null;
  // "$ 412 ,000" was misread or broken: half a figure is no amount.
  const after = pieces[i + 1];
  if (after && /^[,.]?\d/.test(after.text) && after.before === 'none') return null;
  if (
    /^[,.]$/.test(pieceAt(pieces, i + 1)) &&
    /^\d{2,3}(?:\D|$)/.test(pieceAt(pieces, i + 2)) &&
    pieces[i + 2]!.before === 'none'
  )
    return null;
  const word = /^(?:dollars?|dolares|usd|pesos)$/.test(pieceAt(pieces, i + 1));
  return { from: at, to: i + 1 + (word ? 1 : 0), value: { amount, marked: sign || word } };
}

/** Returns a percentage that begins at a piece: "5%", "2.5 percent", "5 por ciento". */
export function percentAt(pieces: readonly Piece[], at: number): Found<number> | null {
  const text = pieceAt(pieces, at);
  if (!/^\d{1,2}(?:[.,]\d{1,3})?$/.test(text)) return null;
  const next = pieceAt(pieces, at + 1);
  const value = Number(text.replace(',', '.'));
  if (next === '%' || next === 'percent') return { from: at, to: at + 2, value };
  return next === 'por' && pieceAt(pieces, at + 2) === 'ciento' ? { from: at, to: at + 3, value } : null;
}

const MONTHS: Readonly<Record<string, number>> = Object.fromEntries(
  [
    'january february march april may june july august september october november december',
    'enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre',
    'jan feb mar apr may jun jul aug sep oct nov dec',
    'ene feb mar abr may jun jul ago set oct nov dic',
    '- - - - - - - - sept - - -',
    '- - - - - - - - setiembre - - -',
  ].flatMap((names) => names.split(' ').flatMap((name, n) => (name === '-' ? [] : [[name, n + 1] as const]))),
);
const monthAt = (pieces: readonly Piece[], at: number) => {
  const text = pieceAt(pieces, at);
  return Object.hasOwn(MONTHS, text) ? (MONTHS[text] ?? null) : null;
};

/** A day as written; `clear` unless day and month could be meant the other way around. */
export interface WrittenDay {
  day: string;
  clear: boolean;
}

const isoOf = (year: number, month: number, day: number): string | null => {
  const text = `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
  return isDay(text) ? text : null;
};

/** Returns a year of two or four figures; those of two are of this century. */
const yearOf = (text: string): number | null =>
  /^\d{4}$/.test(text) ? Number(text) : /^\d{2}$/.test(text) ? 2000 + Number(text) : null;

/** Skips pieces that only join the parts of a day. */
function skip(pieces: readonly Piece[], at: number, words: readonly string[]): number {
  let i = at;
  while (i < at + 5 && words.includes(pieceAt(pieces, i))) i++;
  return i;
}

const JOINING = ['day', 'days', 'of', 'de', 'del', 'dia', 'dias', 'mes', 'ano', ',', '.', 'the', 'in', 'year'];
const ORDINAL = ['st', 'nd', 'rd', 'th', 'o', 'º', '°'];

/**
 * Returns the day that begins at a piece, in any of the usual ways of writing one: "January 15, 2027", "15th day of
 * January, 2027", "1/15/2027", "2027-01-15", "15 de enero de 2027".
 *
 * @param spanish  whether the document is in Spanish, where the day comes before the month
 */
export function dayAt(pieces: readonly Piece[], at: number, spanish: boolean): Found<WrittenDay> | null {
  return figuresDayAt(pieces, at, spanish) ?? wordsDayAt(pieces, at);
}

function figuresDayAt(pieces: readonly Piece[], at: number, spanish: boolean): Found<WrittenDay> | null {
  const text = pieceAt(pieces, at);
  const iso = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (iso) {
    const day = isoOf(Number(iso[1]), Number(iso[2]), Number(iso[3]));
    return day ? { from: at, to: at + 1, value: { day, clear: true } } : null;
  }
  const joined = /^(\d{1,2})([/.-])(\d{1,2})\2(\d{4}|\d{2})$/.exec(text);
  const [parts, to] = joined
    ? [[itemText(joined, 1), itemText(joined, 3), itemText(joined, 4)], at + 1]
    : [apartAt(pieces, at), at + 5];
  if (!parts) return null;
  const [a, b] = [Number(parts[0]), Number(parts[1])];
  const year = yearOf(parts[2]);
  if (year === null) return null;
  // US forms write the month first; where only one way is a day, that is meant.
  const [usual, other] = spanish ? [isoOf(year, b, a), isoOf(year, a, b)] : [isoOf(year, a, b), isoOf(year, b, a)];
  const day = usual ?? other;
  // Written with dots, a day comes first nearly everywhere.
  const dotted = joined?.[2] === '.';
  const clear = a === b || !usual || !other || (!spanish && !dotted);
  return day ? { from: at, to, value: { day, clear } } : null;
}

/** Returns the three parts of a day written over blanks that are joined by slashes: "11 / 28 / 2026". */
function apartAt(pieces: readonly Piece[], at: number): [string, string, string] | null {
  const t = [0, 1, 2, 3, 4].map((n) => pieceAt(pieces, at + n));
  const [a = '', s = '', b = '', u = '', c = ''] = t;
  return /^\d{1,2}$/.test(a) && s === '/' && /^\d{1,2}$/.test(b) && u === '/' && /^(?:\d{4}|\d{2})$/.test(c)
    ? [a, b, c]
    : null;
}

const itemText = (m: RegExpExecArray, n: number): string => m[n] ?? '';

function wordsDayAt(pieces: readonly Piece[], at: number): Found<WrittenDay> | null {
  const first = monthAt(pieces, at);
  if (first !== null) {
    const i = skip(pieces, at + 1, ['.']);
    const n = /^(\d{1,2})$/.exec(pieceAt(pieces, i));
    if (!n) return null;
    const y = skip(pieces, skip(pieces, i + 1, ORDINAL), [',', 'of', 'del', 'de']);
    return ended(pieces, at, y, first, Number(n[1]));
  }
  const text = pieceAt(pieces, at);
  const number = /^\d{1,2}$/.test(text) ? { to: at + 1, value: Number(text) } : ordinalWordAt(pieces, at);
  if (!number) return null;
  const m = skip(pieces, skip(pieces, number.to, ORDINAL), JOINING);
  const month = monthAt(pieces, m);
  if (month === null) return null;
  return ended(pieces, at, skip(pieces, skip(pieces, m + 1, ['.']), JOINING), month, number.value);
}

/** Days that contracts write out in words: "the first day of". */
const ORDINAL_WORDS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'];
function ordinalWordAt(pieces: readonly Piece[], at: number): { to: number; value: number } | null {
  const n = ORDINAL_WORDS.indexOf(pieceAt(pieces, at));
  if (n >= 0) return { to: at + 1, value: n + 1 };
  return /^(?:primero|uno)$/.test(pieceAt(pieces, at)) ? { to: at + 1, value: 1 } : null;
}

/** Returns the day once its year is read, also from "20 27": the century is often printed. */
function ended(pieces: readonly Piece[], from: number, at: number, month: number, n: number): Found<WrittenDay> | null {
  const text = pieceAt(pieces, at).replace(/[.,]$/, '');
  const next = pieceAt(pieces, at + 1);
  const split = text === '20' && /^\d{2}$/.test(next);
  const year = split ? 2000 + Number(next) : /^\d{4}$/.test(text) ? Number(text) : null;
  const day = year === null ? null : isoOf(year, month, n);
  return day ? { from, to: at + (split ? 2 : 1), value: { day, clear: true } } : null;
}
