/** Reading cells as people and other programs write them. */
import { isDay } from '../calendar';
import type { FactDef, FactValue } from '../deal';
import { isClean, oneLine } from '../text/hygiene';
import { fold } from '../text/names';

/** Characters that start a formula in a spreadsheet; exporters put an apostrophe before them. */
const FORMULA = /^'(?=[=+\-@\t\r])/;

/**
 * Returns a cell as a line of text, without the apostrophe that keeps a spreadsheet from running it as a formula.
 *
 * @throws Error with a sentence if it is too long or contains unusable characters
 */
export function textOfCell(cell: string, label: string, most: number): string {
  const text = oneLine(cell).replace(FORMULA, '').trim();
  if (!isClean(text)) throw new Error(`${label}: it contains characters that cannot be saved.`);
  if (text.length > most) throw new Error(`${label}: it is longer than ${most} letters.`);
  return text;
}

const two = (n: string) => n.padStart(2, '0');

/** Returns a day written in a table: "2026-11-30", "11/30/2026", "30.11.2026"; null if it is not one. */
export function dayOfCell(text: string): string | null {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ].*)?$/.exec(text);
  const us = /^(\d{1,2})\/(\d{1,2})\/(\d{4})$/.exec(text);
  const dotted = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(text);
  const [year, month, day] = iso
    ? [iso[1], iso[2], iso[3]]
    : us
      ? [us[3], us[1], us[2]]
      : dotted
        ? [dotted[3], dotted[2], dotted[1]]
        : [];
  if (!year || !month || !day) return null;
  const out = `${year}-${two(month)}-${two(day)}`;
  return isDay(out) ? out : null;
}

/**
 * Returns a number: "412000", "$412,000.50", "3 %"; null if it is not one. Three digits after a dot are refused:
 * where dots separate thousands, "1.190" is 1,190.
 */
export function figureOfCell(text: string): number | null {
  const plain = text.trim();
  const unmarked = plain.endsWith('%') ? plain.slice(0, -1) : plain;
  const bare = (unmarked.startsWith('$') ? unmarked.slice(1) : unmarked).trim();
  const grouped = /^\d{1,3}(?:,\d{3})+(?:\.\d+)?$/.test(bare);
  if (!grouped && !/^\d+(?:\.\d+)?$/.test(bare)) return null;
  if (/^\d{1,3}\.\d{3}$/.test(bare) && !bare.startsWith('0.')) return null;
  const n = Number(bare.replace(/,/g, ''));
  return Number.isFinite(n) ? n : null;
}

const YES = new Set(['yes', 'y', 'true', '1', 'x']);
const NO = new Set(['no', 'n', 'false', '0']);

/** Returns a fact's value from a cell. What cannot be read stays text, and validating the fact reports it. */
export function factOfCell(def: FactDef, text: string): FactValue {
  const word = fold(text).trim();
  switch (def.type) {
    case 'flag':
      return YES.has(word) ? true : NO.has(word) ? false : text;
    case 'money': {
      // Nobody writes thousandths of a dollar: these are separators.
      const figure = figureOfCell(text);
      return figure === null || /\.\d{3,}\D*$/.test(text) ? text : figure;
    }
    case 'number':
    case 'year':
      return figureOfCell(text) ?? text;
    case 'choice':
      return (def.options ?? []).find((o) => fold(o.value) === word || fold(o.label) === word)?.value ?? text;
    case 'day':
      return dayOfCell(text) ?? text;
    case 'text':
      return text;
  }
}
