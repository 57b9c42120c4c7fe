/** Facts that a contract answers with yes or no, and the year a home was built. */
import type { DealKind, FactValue } from '../deal';
import { pieceAt, sourceOf, type Piece } from './pieces';
import type { FieldKey, Source } from './types';

/** A fact as one place states it. */
interface FactCandidate {
  field: FieldKey;
  value: FactValue;
  source: Source;
  clear: boolean;
}

/** Captions of facts that are answered with yes or no, by fact. */
const FLAGS: Readonly<Record<string, string>> = {
  association:
    "association,homeowners association,home owners association,owners association,owners' association,homeowners' association,hoa,asociacion de propietarios,asociacion",
  flood_zone: 'in a flood zone,flood zone,zona de inundacion',
  tank: 'buried tank,underground tank,oil tank,tanque enterrado',
  pets: 'pets,pets allowed,mascotas',
  furnished: 'furnished,amueblado,amueblada',
};
const CAPTIONS = Object.entries(FLAGS)
  .flatMap(([fact, list]) => list.split(',').map((c) => ({ fact, words: c.split(' ') })))
  .sort((a, b) => b.words.length - a.words.length);
const TENANCY_ONLY = new Set(['pets', 'furnished']);
const CHECKED = /^[x✓✔☒☑⊠■●]$/u;
const EMPTY = /^[☐□○◯]$/u;

const BUILT = [
  'built in',
  'year built',
  'constructed in',
  'built',
  'year of construction',
  'construido en',
  'construida en',
  'ano de construccion',
].map((p) => p.split(' '));

/** Returns the facts that a contract states. */
export function flagsIn(pieces: readonly Piece[], kind: DealKind): FactCandidate[] {
  const out: FactCandidate[] = [];
  for (let i = 0; i < pieces.length && out.length < MOST_FACTS; i++) {
    const built = yearAt(pieces, i);
    if (built) out.push(built);
    const caption = CAPTIONS.find((c) => c.words.every((w, n) => pieceAt(pieces, i + n) === w));
    if (!caption) continue;
    const end = i + caption.words.length;
    const answer = answerAt(pieces, end);
    if (answer && (kind === 'tenancy' || !TENANCY_ONLY.has(caption.fact)))
      out.push({
        field: `fact.${caption.fact}`,
        value: answer.value,
        source: sourceOf(pieces, i, answer.to),
        clear: true,
      });
    i = end - 1;
  }
  return out;
}
const MOST_FACTS = 200;

function yearAt(pieces: readonly Piece[], at: number): FactCandidate | null {
  const phrase = BUILT.find((words) => words.every((w, n) => pieceAt(pieces, at + n) === w));
  if (!phrase) return null;
  let i = at + phrase.length;
  if (pieceAt(pieces, i) === ':') i++;
  const text = pieceAt(pieces, i);
  if (!/^1[6-9]\d\d$|^20\d\d$/.test(text)) return null;
  return { field: 'fact.year_built', value: Number(text), source: sourceOf(pieces, at, i + 1), clear: true };
}

const isYes = (t: string) => t === 'yes' || t === 'si';

/** Returns the answer after a caption: "yes", or the one of two boxes that is checked. */
function answerAt(pieces: readonly Piece[], at: number): { value: boolean; to: number } | null {
  let i = pieceAt(pieces, at) === ':' || pieceAt(pieces, at) === '?' ? at + 1 : at;
  const answers: { value: boolean; checked: boolean | null }[] = [];
  for (let n = 0; n < 2; n++) {
    let checked: boolean | null = null;
    if (pieceAt(pieces, i) === '[' || pieceAt(pieces, i) === '(') {
      const inside = pieceAt(pieces, i + 1);
      if (inside === ']' || inside === ')') {
        checked = false;
        i += 2;
      } else if (CHECKED.test(inside) && /^[\])]$/.test(pieceAt(pieces, i + 2))) {
        checked = true;
        i += 3;
      }
    } else if (CHECKED.test(pieces[i]?.raw ?? '')) {
      checked = true;
      i++;
    } else if (EMPTY.test(pieces[i]?.raw ?? '')) {
      checked = false;
      i++;
    }
    const word = pieceAt(pieces, i);
    if (!isYes(word) && word !== 'no') break;
    answers.push({ value: isYes(word), checked });
    i++;
    if (pieceAt(pieces, i) === ',' || pieceAt(pieces, i) === '/') i++;
  }
  if (answers.length === 1) return answers[0]!.checked === false ? null : { value: answers[0]!.value, to: i };
  const chosen = answers.filter((a) => a.checked);
  return chosen.length === 1 ? { value: chosen[0]!.value, to: i } : null;
}
