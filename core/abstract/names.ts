/** Names of people and companies in running text. */
import { pieceAt, textOf, type Piece } from './pieces';

/** Words that no name of a person contains: they begin clauses, captions and signatures. */
export const NOT_A_NAME = new Set(
  "en in on by made at a agreement property buyer buyers seller sellers landlord tenant tenants lessor lessee owner owners broker agent date price deposit closing signature signatures initials name names printed print address phone email rent lease contract offer the this that and or of to by between hereinafter called known as whose which is are in at for from on with if when where terms party parties page section clause vendedor comprador arrendador arrendatario inquilino propietario fecha precio firma firmas iniciales nombre domicilio renta contrato direccion telefono correo entre una uno el la los las y del adelante que por para con article exhibit addendum total amount sum purchase sale sales listing residential state county city town unit street home house time title company firm number no yes si license licence security months month days day term begins ends guarantor manager fiador corredor agente owner's seller's buyer's tenant's landlord's undersigned witness notary both all each any other none n/a na tbd fee percent firm vivienda inmueble propiedad parties: accepted approved received acknowledged".split(
    ' ',
  ),
);
/** Small words within a name: "Maria de la Cruz", "Jan van Dyk". */
const PARTICLES = new Set('de la del los las van von der den di da dos das du le y e bin al st'.split(' '));
/** Endings of a company's name. */
const COMPANY =
  /^(?:llc|l\.l\.c|inc|incorporated|ltd|limited|corp|corporation|lp|llp|plc|company|co|trust|fund|holdings|partners|partnership|properties|group|bank|associates|association|realty|estates|s\.?a|s\.?l|sociedad|fideicomiso|inmobiliaria)$/;
/** Words and signs between the names of a list. */
export const JOINING = new Set(['and', '&', 'y', 'e', ',', '/', ';']);
/** What follows a name and is no part of it: "husband and wife", "a married couple". */
export const STATUS =
  /^(?:husband|wife|spouses?|married|unmarried|single|individual|individually|joint|tenants|couple|widow|widower|conyuges|esposos|casados|solter[oa]s?|casad[oa]|viud[oa]|mayor|mayores)$/;

/** A name in a run of pieces; `to` is exclusive. */
export interface Named {
  from: number;
  to: number;
  name: string;
  company: boolean;
}

/** Returns whether a word begins with a capital letter. */
export const isCapital = (raw: string) => /^\p{Lu}/u.test(raw);

/** Returns the name that begins at a piece; null if none does. Names stay on one row, except where a list goes on. */
export function nameAt(pieces: readonly Piece[], from: number): Named | null {
  let i = from;
  let words = 0;
  let company = false;
  for (; i < pieces.length && i - from < 14; i++) {
    const p = pieces[i]!;
    if (i > from && p.before !== 'space' && p.before !== 'none') break;
    if (/^\p{L}/u.test(p.raw)) {
      if (COMPANY.test(p.text) && words) {
        company = true;
        words++;
        continue;
      }
      const initial = words > 0 && /^\p{Lu}$/u.test(p.raw) && pieceAt(pieces, i + 1) === '.';
      if (isCapital(p.raw) && (initial || !NOT_A_NAME.has(p.text)) && !STATUS.test(p.text)) words++;
      else if (words && PARTICLES.has(p.text) && goesOn(pieces, i)) continue;
      else break;
    } else if (
      p.text === '.' &&
      (p.before === 'none' || (/^[a-z]$/.test(pieceAt(pieces, i - 1)) && isCapital(pieces[i + 1]?.raw ?? ''))) &&
      /^(?:[a-z]|jr|sr|st|dr|inc|ltd|co|corp|mr|mrs|ms)$/.test(pieceAt(pieces, i - 1))
    )
      continue;
    else if (p.text === ',' && /^(?:llc|inc|ltd|jr|sr|lp|corp|l|ii|iii)$/.test(pieceAt(pieces, i + 1))) continue;
    else if (p.text === '&' && words && company === false && companyAhead(pieces, i)) continue;
    else break;
  }
  // A particle or sign at the end belongs to what follows.
  while (i > from + 1 && !isCapital(pieces[i - 1]!.raw) && /^(?:[,&]|\p{L}+)$/u.test(pieces[i - 1]!.raw)) i--;
  if (words < (company ? 1 : 2) || words > 7) return null;
  return { from, to: i, name: textOf(pieces.slice(from, i)), company };
}

/** Returns whether a capitalized word follows particles: "de la Cruz". */
function goesOn(pieces: readonly Piece[], at: number): boolean {
  for (let i = at + 1; i < at + 4; i++) {
    const p = pieces[i];
    if (!p || p.before === 'row' || p.before === 'part' || p.before === 'gap') return false;
    if (isCapital(p.raw)) {
      // "Ana Ruiz y Luis Vega" are two people; "Ortega y Gasset" is decided for two as well.
      return !['y', 'e'].includes(pieceAt(pieces, at)) && !NOT_A_NAME.has(p.text);
    }
    if (!PARTICLES.has(p.text)) return false;
  }
  return false;
}

/** Returns whether "&" is within a company's name: "Towpath & Vane Realty". */
function companyAhead(pieces: readonly Piece[], at: number): boolean {
  for (let i = at + 1; i < at + 5; i++) {
    const p = pieces[i];
    if (!p || (p.before !== 'space' && p.before !== 'none')) return false;
    if (COMPANY.test(p.text)) return true;
    if (!isCapital(p.raw)) return false;
  }
  return false;
}

/** Maximum number of names in one list; a longer one is read in parts. */
const MOST_LISTED = 40;

/** Returns the names that are listed from a piece on: "Orla Byrne, Dermot Byrne and Alder Ltd". */
export function listAt(pieces: readonly Piece[], from: number, across: boolean): { names: Named[]; to: number } {
  const names: Named[] = [];
  let i = from;
  while (names.length < MOST_LISTED) {
    const named = nameAt(pieces, i);
    if (!named) break;
    names.push(named);
    i = named.to;
    let next = i;
    while (next < i + 3 && JOINING.has(pieceAt(pieces, next))) next++;
    if (next === i) break;
    const p = pieces[next];
    if (!p || p.before === 'part' || (!across && (p.before === 'row' || p.before === 'gap'))) break;
    i = next;
  }
  return { names, to: names.at(-1)?.to ?? from };
}
