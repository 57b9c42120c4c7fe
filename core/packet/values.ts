/** What may stand in a mark: checking what a client writes, and how it is shown. */
import { isEmail } from '../text/email';
import { patternOf } from '../text/pattern';
import type { WordKey, WordParams } from '../words';
import type { Mark } from './types';
import { itemAt } from '../sure';

/** Longest text a mark takes, in characters. */
export const MAX_TEXT = 500;
/** Maximum length of a text of several lines, in UTF-16 units. */
export const MAX_TEXT_LINES = 4000;

/** The validated value, or the sentence that says what is wrong. */
export type ValueResult = { ok: true; value: string } | Wrong;
type Wrong = { ok: false; sentence: string };

const wrong = (sentence: string): Wrong => ({ ok: false, sentence });
/** Says what is wrong in the language of who writes. */
export type Say = (key: WordKey, params?: WordParams) => string;
const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** What was written, tidied, with the mark it is for. */
export interface Wanted {
  mark: Pick<Mark, 'check' | 'options' | 'lines'>;
  text: string;
  tell: Say;
}

/** Takes what cannot matter out of what was written, and holds it to the length that is asked for. */
export function tidied(
  mark: Wanted['mark'],
  raw: string,
  tell: Say,
): { ok: true; value: string; wanted: Wanted } | Wrong {
  const text = mark.lines === 'several' ? raw.replace(/\r\n?/g, '\n').trim() : raw.replace(/\s+/g, ' ').trim();
  if (!text) return wrong(tell('value.empty'));
  const most = mark.check?.maxLength ?? (mark.lines === 'several' ? MAX_TEXT_LINES : MAX_TEXT);
  if (text.length > most) return wrong(tell('value.too_long', { n: most + 1 }));
  if (mark.check?.minLength && text.length < mark.check.minLength)
    return wrong(mark.check.message || tell('value.too_short', { n: mark.check.minLength }));
  return { ok: true, value: text, wanted: { mark, text, tell } };
}

/** Validates a value that must be one of a list. */
export function validateListed({ mark, text, tell }: Wanted): ValueResult {
  return mark.options?.includes(text) ? { ok: true, value: text } : wrong(tell('value.list'));
}

/** Validates text of a given format: digits, an email address, a phone number, or the preparer's pattern. */
export function validateForm({ mark, text, tell }: Wanted): ValueResult {
  const c = mark.check;
  if (!c?.form) return { ok: true, value: text };
  const no = (key: WordKey) => wrong(c.message || tell(key));
  if (c.form === 'digits') return /^\d+$/.test(text) ? { ok: true, value: text } : no('value.digits');
  if (c.form === 'email') return isEmail(text) ? { ok: true, value: text } : no('value.email');
  if (c.form === 'phone') {
    const digits = text.replace(/\D/g, '');
    return digits.length >= 7 && digits.length <= 15 && /^[+(\d][\d\s().\-/x]*$/i.test(text)
      ? { ok: true, value: text }
      : no('value.phone');
  }
  // A pattern that cannot be used stops nobody: who fills the mark can do nothing about it.
  const fits = patternOf(c.pattern ?? '');
  return !fits || fits(text) ? { ok: true, value: text } : no('value.pattern');
}

/** Validates a number, with or without thousands separators. */
export const validateNumber = (wanted: Wanted): ValueResult => validateFigure(wanted, false);
/** Validates an amount of money, with or without currency sign and cents. */
export const validateMoney = (wanted: Wanted): ValueResult => validateFigure(wanted, true);

/** Decimal digits that a number of 64 bits holds exactly. */
const EXACT_DIGITS = 15;

function validateFigure({ mark, text, tell }: Wanted, money: boolean): ValueResult {
  const bare = text.replace(/[$\s\u00a0]/g, '');
  const no = () => wrong(mark.check?.message || tell(money ? 'value.money' : 'value.number'));
  if (!/^[-+]?(?:\d{1,3}(?:,\d{3})+|\d+)(?:\.\d+)?$/.test(bare)) return no();
  const n = Number(bare.replace(/,/g, ''));
  if (Math.abs(n) >= 10 ** EXACT_DIGITS) return no();
  const shown = showNumber(n, money, bare.split('.')[1]?.length ?? 0);
  // What is shown is what was written: more digits than these would come out as others.
  if (shown.replace(/\D/g, '').length > EXACT_DIGITS) return no();
  const { min, max } = mark.check ?? {};
  if (min !== undefined && n < min)
    return wrong(mark.check?.message || tell('value.at_least', { limit: showNumber(min, money) }));
  if (max !== undefined && n > max)
    return wrong(mark.check?.message || tell('value.at_most', { limit: showNumber(max, money) }));
  if (money && Math.abs(n * 100 - Math.round(n * 100)) > 1e-6) return wrong(tell('value.cents'));
  return { ok: true, value: shown };
}

/** Returns a number with thousands separators; an amount of money with its sign and two decimals. */
export function showNumber(n: number, money: boolean, digits = 0): string {
  const fixed = Math.abs(n).toFixed(money ? 2 : Math.min(digits, 6));
  const [whole, part] = fixed.split('.');
  let grouped = whole!.slice(0, whole!.length % 3);
  for (let i = grouped.length; i < whole!.length; i += 3) grouped += `${grouped ? ',' : ''}${whole!.slice(i, i + 3)}`;
  const shown = part && (!money || part !== undefined) ? `${grouped}.${part}` : grouped;
  return `${n < 0 && Number(fixed) !== 0 ? '-' : ''}${money ? '$' : ''}${shown}`;
}

/** Validates a day in one of the spellings of `isoDay`. */
export function validateDay({ mark, text, tell }: Wanted): ValueResult {
  const day = isoDay(text);
  if (!day) return wrong(mark.check?.message || tell('value.day'));
  const { from, to } = mark.check ?? {};
  if (from && day < from) return wrong(mark.check?.message || tell('value.day_from', { limit: showDay(from) }));
  if (to && day > to) return wrong(mark.check?.message || tell('value.day_to', { limit: showDay(to) }));
  return { ok: true, value: showDay(day) };
}

/** Returns the ISO day of a text, or null: 2026-11-23, 11/23/2026, 11-23-26, November 23, 2026. */
export function isoDay(text: string): string | null {
  const iso = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  const us = /^(\d{1,2})[/.-](\d{1,2})[/.-](\d{4}|\d{2})$/.exec(text);
  const words = /^([A-Za-z]{3,9})\.? (\d{1,2}),? (\d{4})$/.exec(text);
  let y: number;
  let m: number;
  let d: number;
  if (iso) [y, m, d] = [Number(iso[1]), Number(iso[2]), Number(iso[3])];
  else if (us)
    [y, m, d] = [itemAt(us, 3).length === 2 ? 2000 + Number(us[3]) : Number(us[3]), Number(us[1]), Number(us[2])];
  else if (words) {
    const at = MONTHS.findIndex((name) => name.toLowerCase().startsWith(itemAt(words, 1).toLowerCase().slice(0, 3)));
    if (at < 0 || !itemAt(MONTHS, at).toLowerCase().startsWith(itemAt(words, 1).toLowerCase())) return null;
    [y, m, d] = [Number(words[3]), at + 1, Number(words[2])];
  } else return null;
  const when = new Date(Date.UTC(y, m - 1, d));
  if (when.getUTCFullYear() !== y || when.getUTCMonth() !== m - 1 || when.getUTCDate() !== d) return null;
  return `${String(y).padStart(4, '0')}-${String(m).padStart(2, '0')}-${String(d).padStart(2, '0')}`;
}

/** Returns a day as dates of signing are written: "Nov 23, 2026". */
export function showDay(iso: string): string {
  const [y, m, d] = iso.split('-').map(Number);
  return `${itemAt(MONTHS, m! - 1).slice(0, 3)} ${d}, ${y}`;
}
