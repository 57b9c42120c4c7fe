/**
 * Words that occur on forms: what recognition nearly read as one of them most likely was one. This only helps to find
 * what is printed for whom; the text that is stored, searched, compared and read aloud stays as recognized.
 */

const WORDS = (
  'seller sellers buyer buyers landlord landlords tenant tenants lessor lessors lessee lessees owner owners purchaser ' +
  'purchasers broker brokers brokerage agent agents manager guarantor guarantors initials initial initialed signature ' +
  'signatures signed signing date dated name names printed print title phone telephone email address license licensee ' +
  'company listing selling property premises witness between office tenancy landlord’s tenant’s seller’s buyer’s ' +
  'vendedor vendedora vendedores comprador compradora compradores arrendador arrendadora arrendatario arrendataria ' +
  'inquilino inquilina propietario propietaria corredor corredora fiador fiadora firma firmas firmado fecha nombre ' +
  'iniciales domicilio teléfono correo página'
).split(' ');
/** Other words that are as similar. */
const OTHERS = (
  'purchase purchased agency lease leased sealed initially owned tended dates title nombres properly promises promise ' +
  'broken guarantee guarantees guaranteed officer officers manages managed manage signer signers sealing sealer singed ' +
  'signal addressed addresses named naming owing titled lender lenders sender senders agencies premise prints printing ' +
  'printer emails witnessed witnesses licensed licenses company companies occupancy seniors buyout'
).split(' ');
const KNOWN = new Set([...WORDS, ...OTHERS]);
/** By length, so that only words of about the same length are compared. */
const BY_LENGTH = new Map<number, string[]>();
for (const w of WORDS) BY_LENGTH.set(w.length, [...(BY_LENGTH.get(w.length) ?? []), w]);

/** Returns the maximum number of wrong letters that are accepted in a word of a length. */
const wrongIn = (letters: number) => (letters < 5 ? 0 : letters < 9 ? 1 : 2);

const isLetter = (ch: string) => /[\p{L}\p{N}]/u.test(ch);

/** Returns a word without the signs around it, and the signs. */
function bared(text: string): [before: string, word: string, after: string] {
  const chars = Array.from(text);
  const from = chars.findIndex(isLetter);
  if (from < 0) return [text, '', ''];
  let to = chars.length;
  while (to > from && !isLetter(chars[to - 1] ?? '')) to--;
  return [chars.slice(0, from).join(''), chars.slice(from, to).join(''), chars.slice(to).join('')];
}

/**
 * Returns a recognized word as it was most likely printed: "lnitiale:" becomes "Initials:". Known words stay.
 *
 * @example asPrinted('Iandlord’s') // 'Landlord’s'
 */
export function asPrinted(text: string): string {
  if (text.length < 5 || text.length > 24) return text;
  const [before, word, after] = bared(text);
  const bare = word.toLowerCase().replace(/'/g, '\u2019');
  if (isKnown(bare) || wrongIn(bare.length) === 0) return text;
  const parted = partedAt(bare);
  if (parted) return `${before}${word.slice(0, parted)} ${word.slice(parted)}${after}`;
  const possessive = /\u2019s$/.test(bare) ? word.slice(-2) : '';
  const stem = possessive ? bare.slice(0, -2) : bare;
  if (possessive && KNOWN.has(stem)) return text;
  const most = wrongIn(stem.length);
  for (let off = 0; off <= most; off++)
    for (const length of off ? [stem.length - off, stem.length + off] : [stem.length])
      for (const known of BY_LENGTH.get(length) ?? [])
        if (isNear(stem, known, most)) return before + inCaseOf(word, known) + possessive + after;
  return text;
}

const isKnown = (word: string) => KNOWN.has(word) || (/\u2019s$/.test(word) && KNOWN.has(word.slice(0, -2)));

/** Returns where two words were joined by recognition; 0 if they were not. */
function partedAt(word: string): number {
  for (let i = 4; i <= word.length - 4; i++) if (isKnown(word.slice(0, i)) && isKnown(word.slice(i))) return i;
  return 0;
}

function inCaseOf(was: string, word: string): string {
  if (was.length > 3 && was.slice(1) === was.slice(1).toUpperCase()) return word.toUpperCase();
  const first = was[0] ?? '';
  const lower = first === first.toLowerCase() && first !== first.toUpperCase() && first !== 'l';
  return lower ? word : word.charAt(0).toUpperCase() + word.slice(1);
}

/** Returns whether two words differ by at most a number of letters changed, left out or added (Levenshtein 1966). */
function isNear(a: string, b: string, most: number): boolean {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next.push(
        Math.min((row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1, (row[j - 1] ?? 0) + (a[i - 1] === b[j - 1] ? 0 : 1)),
      );
    if (Math.min(...next) > most) return false;
    row = next;
  }
  return (row[b.length] ?? most + 1) <= most;
}
