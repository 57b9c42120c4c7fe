/**
 * Fingerprints of documents, by which one is found among a hundred thousand: MinHash over rows of printed words. Words in
 * blanks and numbers do not count, because they differ each time a form is filled in.
 */
import type { DocumentFacts } from '../packet/resolve';
import type { Rect } from '../paper/types';
import { plain } from '../reading/words';
import { groupBy } from '../sure';

/** Number of words in a row that are hashed together. */
const ROW = 3;
/** Number of hashes of a fingerprint. */
const HASHES = 64;
/** Number of hashes that must be equal for two documents to share a key. */
const HASHES_OF_KEY = 2;
/** Fewest printed words by which a document can be recognized. */
export const FEWEST_WORDS = 30;
/** Number of printed words that are hashed at most: those of about a hundred pages. */
const MOST_WORDS = 50_000;

/** A document's fingerprint: signed 32-bit numbers. */
export type Fingerprint = readonly number[];

const inside = ({ x, y, w, h }: Rect, r: Rect) =>
  x + w / 2 > r.x && x + w / 2 < r.x + r.w && y + h / 2 > r.y && y + h / 2 < r.y + r.h;

/** Returns the printed words of a document outside its blanks, in lower case, without those that contain digits. */
function printedWords(doc: DocumentFacts): string[] {
  const blanks = groupBy(doc.places, (p) => p.page);
  const out: string[] = [];
  for (const [i, page] of doc.pages.entries()) {
    const here = [...(blanks.get(i + 1) ?? []).map((p) => p.rect), ...(page.filled ?? [])];
    for (const [n, rect] of page.print.entries()) {
      if (out.length >= MOST_WORDS) return out;
      const word = plain(page.words[n] ?? '');
      if (/\d/.test(word) || here.some((r) => inside(rect, r))) continue;
      const letters = word.replace(/[^\p{L}]+/gu, '');
      if (letters.length > 1) out.push(letters);
    }
  }
  return out;
}

/** Mixes the bits of a 32-bit number, so that each of them depends on all others. */
function mixed(n: number): number {
  let h = n ^ (n >>> 16);
  h = Math.imul(h, 0x85ebca6b);
  h ^= h >>> 13;
  h = Math.imul(h, 0xc2b2ae35);
  return h ^ (h >>> 16);
}

const FNV = { start: 0x811c9dc5, prime: 0x01000193 };

function hashOf(word: string): number {
  let h = FNV.start;
  for (let i = 0; i < word.length; i++) h = Math.imul(h ^ word.charCodeAt(i), FNV.prime);
  return mixed(h);
}

const SEEDS = Int32Array.from({ length: HASHES }, (_, k) => mixed(0x9e3779b9 * (k + 1)));

/** Returns the fingerprint of a document; null if the document has fewer than `FEWEST_WORDS` printed words. */
export function fingerprintOf(doc: DocumentFacts): Fingerprint | null {
  const words = printedWords(doc).map(hashOf);
  if (words.length < FEWEST_WORDS) return null;
  const least = new Int32Array(HASHES).fill(0x7fffffff);
  const seen = new Set<number>();
  for (let i = 0; i + ROW <= words.length; i++) {
    let row = 0;
    for (let k = 0; k < ROW; k++) row = mixed(Math.imul(row, 31) + (words[i + k] ?? 0));
    if (seen.has(row)) continue;
    seen.add(row);
    for (let k = 0; k < HASHES; k++) {
      const h = mixed(row ^ (SEEDS[k] ?? 0));
      if (h < (least[k] ?? 0)) least[k] = h;
    }
  }
  return Array.from(least);
}

/** Returns the keys under which a fingerprint is stored. The more alike two documents are, the more keys they share. */
export function keysOf(print: Fingerprint): number[] {
  const keys: number[] = [];
  for (let at = 0; at + HASHES_OF_KEY <= print.length; at += HASHES_OF_KEY) {
    let key = at;
    for (let k = 0; k < HASHES_OF_KEY; k++) key = mixed(Math.imul(key, 31) + (print[at + k] ?? 0));
    keys.push(key);
  }
  return [...new Set(keys)];
}

/** Returns the share of rows of words that two documents have in common, estimated within about a tenth; 0 to 1. */
export function likeness(a: Fingerprint, b: Fingerprint): number {
  const same = a.filter((h, i) => h === b[i]).length;
  return same / Math.max(a.length, b.length, 1);
}
