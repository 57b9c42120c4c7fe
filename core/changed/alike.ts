/**
 * Whether two words of two versions are the same word. Print is compared character by character. A word recognized on
 * a scanned page may have been read slightly differently: that is reported, never decided silently, and never applied
 * to a word whose meaning depends on its letters.
 */
import { cutEnd } from '../text/ends';
import type { Token } from './tokens';

/** `slight`: most likely the same word, read slightly differently; reported for review. */
export type Likeness = 'same' | 'slight' | 'differs';

/** Words whose meaning changes with a letter: opposites and quantities. Folded, English and Spanish. */
const GUARDED = new Set(
  (
    'no not non never none nor neither nothing nobody nowhere without cannot cant wont shant mustnt dont doesnt didnt isnt ' +
    'arent wasnt werent hasnt havent hadnt shouldnt wouldnt couldnt except unless until before after if or and ' +
    'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen ' +
    'eighteen nineteen twenty thirty forty fifty sixty seventy eighty ninety hundred hundreds thousand thousands million ' +
    'millions billion first second third fourth fifth sixth seventh eighth ninth tenth eleventh twelfth thirteenth ' +
    'fourteenth fifteenth sixteenth seventeenth eighteenth nineteenth twentieth thirtieth half halves quarter quarters ' +
    'thirds double triple once twice thrice both either dozen single each every all any ' +
    'january february march april may june july august september october november december ' +
    'monday tuesday wednesday thursday friday saturday sunday ' +
    'ni nunca jamas sin ningun ninguno ninguna ninguno nada nadie tampoco excepto salvo antes despues si y o e u ' +
    'cero un uno una dos tres cuatro cinco seis siete ocho nueve diez once doce trece catorce quince dieciseis diecisiete ' +
    'dieciocho diecinueve veinte veintiuno veintiun treinta cuarenta cincuenta sesenta setenta ochenta noventa cien ciento ' +
    'cientos doscientos trescientos cuatrocientos quinientos seiscientos setecientos ochocientos novecientos mil millon ' +
    'millones primer primero primera segundo segunda tercer tercero tercera cuarto cuarta quinto quinta sexto sexta ' +
    'septimo septima octavo octava noveno novena decimo decima medio media mitad doble triple ambos ambas cada todo toda ' +
    'todos todas enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre ' +
    'lunes martes miercoles jueves viernes sabado domingo'
  ).split(' '),
);

const folded = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
const lettersOf = (text: string) => folded(text).replace(/[^\p{L}]/gu, '');

/** Returns whether a word contains a digit. */
export const hasFigure = (text: string) => /\p{N}/u.test(text);

/** Returns whether another letter could change a word's meaning: negations, number words, days, figures, names. */
export function isGuarded(t: Token): boolean {
  return hasFigure(t.text) || GUARDED.has(lettersOf(t.text)) || isName(t);
}

/** Returns whether a word looks like a name: capitalized where no sentence, item or heading line begins. */
function isName({ text, begins }: Token): boolean {
  const word = text.replace(/^[^\p{L}]+/u, '');
  if (!/^\p{Lu}/u.test(word)) return false;
  // A word in capitals is in a heading; one letter is an initial.
  return !begins && (/\p{Ll}/u.test(word) || word.replace(/[^\p{L}]/gu, '').length === 1);
}

/** Removes punctuation that sentences put around a word. */
const bare = (text: string) => cutEnd(text.replace(/^["'([]+/u, ''), /["')\],.;:]/);

/** Pairs of letters that one printed letter may be read as; both spellings are mapped to one. */
const LOOKALIKES: readonly [RegExp, string][] = [
  [/rn/g, 'm'],
  [/vv/g, 'w'],
  [/[il1|!]/g, 'i'],
  [/[ce]/g, 'c'],
  [/[nu]/g, 'n'],
  [/[gq]/g, 'g'],
];
const shapeOf = (letters: string) => LOOKALIKES.reduce((s, [from, to]) => s.replace(from, to), letters);

/** Minimum length of a word that may have been read with wrong letters. */
const SHORTEST = 5;
const LONG = 9;
/** Longer words are compared character by character. */
const LONGEST = 60;

/** Compares two words. */
export function likeness(a: Token, b: Token): Likeness {
  if (a.exact === b.exact) return 'same';
  if (!a.scan && !b.scan) return 'differs';
  if (hasFigure(a.exact) || hasFigure(b.exact)) return bare(a.exact) === bare(b.exact) ? 'slight' : 'differs';
  const [x, y] = [lettersOf(a.exact), lettersOf(b.exact)];
  // Signs alone: a tick, a cross, an empty box.
  if (!x || !y) return 'differs';
  const sameLetters =
    a.exact.toLowerCase().replace(/[^\p{L}]/gu, '') === b.exact.toLowerCase().replace(/[^\p{L}]/gu, '');
  // Only its height or the signs around it differ.
  if (sameLetters && bare(a.exact).toLowerCase() === bare(b.exact).toLowerCase()) return 'slight';
  if (isGuarded(a) || isGuarded(b)) return 'differs';
  if (sameLetters) return 'slight';
  const n = Math.min(x.length, y.length);
  if (n < SHORTEST || Math.max(x.length, y.length) > LONGEST) return 'differs';
  return nearlyAlike(x, y, n < LONG ? 1 : 2) ? 'slight' : 'differs';
}

/** Returns whether look-alike letters explain at most `most` differences between two words of equal length. */
function nearlyAlike(x: string, y: string, most: number): boolean {
  if (shapeOf(x) !== shapeOf(y)) return false;
  // "rn" for "m" counts once.
  const [p, q] = [x.replace(/rn/g, 'm').replace(/vv/g, 'w'), y.replace(/rn/g, 'm').replace(/vv/g, 'w')];
  if (p.length !== q.length) return false;
  let wrong = Math.abs(x.length - p.length - (y.length - q.length));
  for (let i = 0; i < p.length; i++) if (p[i] !== q[i]) wrong++;
  return wrong <= most;
}

/**
 * Returns whether some words have the same letters, only divided differently: by spaces, or by a hyphen at the end of a
 * line.
 */
export function onlyDivided(a: readonly Token[], b: readonly Token[]): boolean {
  if ([...a, ...b].some(isGuarded)) return false;
  const joined = (tokens: readonly Token[]) =>
    tokens.map((t, i) => (t.ends && i < tokens.length - 1 ? t.exact.replace(/-$/, '') : t.exact)).join('');
  const [x, y] = [joined(a), joined(b)];
  if (x === y) return true;
  return [...a, ...b].some((t) => t.scan) && x.toLowerCase() === y.toLowerCase();
}
