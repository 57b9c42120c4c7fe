/** A one-page disclosure and its variants, for tests that compare documents. */
import type { DocumentFacts } from '../packet/resolve';
import type { PrintedPlace } from '../reading/types';
import { facts, page, printedPlace } from './support';

/** Returns a document of lines 24 points apart; each letter is 6 points wide. */
export function paper(pages: string[][], places: PrintedPlace[] = [], id = 'doc'): DocumentFacts {
  const made = pages.map((lines) => {
    const words = lines.map((line) => line.split(' '));
    const rects = words.flatMap((row, i) => {
      let x = 60;
      return row.map((w) => {
        const rect = { x, y: 60 + 24 * i, w: 6 * w.length, h: 10 };
        x += 6 * w.length + 5;
        return rect;
      });
    });
    return { ...page(rects), words: words.flat() };
  });
  return facts(made, id, 'Paper', places);
}

/** The lines of the disclosure. */
export const CLAUSES = [
  'Disclosure of lead based paint for one home',
  'The seller tells what is known about old paint in the rooms of this home',
  'Children who swallow flakes of it can fall ill and stay so for many years',
  'The buyer has received the booklet about it before any offer was written',
  'Whoever buys may have the walls inspected within ten days at their own cost',
  'Seller signs here ________________',
  'Buyer signs here ________________',
  'Price agreed ________ dollars in all',
];
/** Returns the blank of a line, by the line's index. */
export const blank = (line: number, kind: PrintedPlace['kind'], role: PrintedPlace['role'], x = 170): PrintedPlace =>
  printedPlace({ kind, role, ordinal: role === 'unknown' ? null : 1, rect: { x, y: 56 + 24 * line, w: 110, h: 16 } });
/** The printed places of the disclosure. */
export const PLACES = [
  blank(5, 'signature', 'seller'),
  blank(6, 'signature', 'buyer'),
  blank(7, 'text', 'unknown', 135),
];
/** Returns the disclosure with its lines changed. */
export const form = (change: (lines: string[]) => string[] = (l) => l, places = PLACES) =>
  paper([change([...CLAUSES])], places);
/** Returns a change of lines that replaces text in each of them. */
export const replaced = (from: string, to: string) => (lines: string[]) => lines.map((l) => l.replace(from, to));
