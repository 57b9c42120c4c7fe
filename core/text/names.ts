/** Names of people as they are shown. */
import { itemAt, lastOf } from '../sure';

/** Returns the given name, as far as a name shows it: the first word. */
export function firstName(name: string): string {
  return name.trim().split(/\s+/)[0] ?? name;
}

/**
 * Returns the initials of a name: the first letters of its words, at most three. Small particles (de, van, la …)
 * count only if they are capitalized.
 */
export function initialsOf(name: string): string {
  const words = name
    .trim()
    .split(/[\s\-‐]+/u)
    .filter(Boolean);
  const strong = words.filter((w) => /^\p{L}/u.test(w));
  const capital = strong.filter((w) => /^\p{Lu}/u.test(w));
  const used = capital.length ? capital : strong;
  const letters = used.map((w) => itemAt(Array.from(w), 0).toLocaleUpperCase('en'));
  if (letters.length <= 3) return letters.join('');
  return itemAt(letters, 0) + itemAt(letters, letters.length - 2) + lastOf(letters);
}

/** Returns a list in words: "Wren", "Wren and Callum", "Wren, Callum and Priya". */
export function listWords(items: string[]): string {
  if (items.length < 2) return items[0] ?? '';
  return `${items.slice(0, -1).join(', ')} and ${items[items.length - 1]}`;
}

/** Returns a number with its noun: "1 page", "3 pages". */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

/** Returns "One person who has signed", "3 people who have signed". */
export function doneWords(n: number): string {
  return n === 1 ? 'One person who has signed' : `${n} people who have signed`;
}

const NUMBER_WORDS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten'];

/** Returns a number as it begins a sentence: "Three"; from eleven on in digits. */
export const numberWord = (n: number) => NUMBER_WORDS[n] ?? String(n);

/** Returns a text as it is searched: without accents, in lower case. */
export const fold = (text: string) =>
  text
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[\u2018\u2019]/g, "'")
    .toLowerCase();
