/** Changes that look like a reading mistake, or hide in figures, signs and small words: each of 300 is told. */
import { emptyGrid, inkRect } from '../paper/ink';
import type { Rect } from '../paper/types';
import { compareVersions, type Change, type VersionPage } from './index';

function page(lines: string[], scan: boolean): VersionPage {
  const [width, height] = [612, 792];
  const ink = emptyGrid(width, height);
  const [words, print]: [string[], Rect[]] = [[], []];
  lines.forEach((line, i) => {
    let x = scan ? 63 : 60;
    for (const word of line.split(' ').filter(Boolean)) {
      const rect = { x, y: (scan ? 104 : 100) + i * 16, w: word.length * 5.5, h: 10 };
      words.push(word);
      print.push(rect);
      inkRect(ink, rect);
      x += rect.w + 4;
    }
  });
  return { width, height, ink, words, print, ...(scan ? { scan } : {}) };
}

/** A text in which one place is filled in two ways. */
const ENGLISH = (x: string) => [
  'AGREEMENT OF BOTH SIDES',
  'The house on the corner is given over on the day that both sides named above.',
  `It is agreed that ${x} as both sides have said to each other.`,
  'All other terms of the paper stay as they were before this day came.',
];
const SPANISH = (x: string) => [
  'ACUERDO DE AMBAS PARTES',
  'La casa de la esquina se entrega en el plazo que las partes indicaron arriba.',
  `Se acuerda que ${x} tal como las partes lo dijeron entre ellas.`,
  'Los demás términos del documento siguen como estaban antes de este acuerdo.',
];

const IN_ENGLISH: [string, string][] = [
  // The opposite, by a prefix or a small word.
  ['the flat is furnished', 'the flat is unfurnished'],
  ['the offer is conditional', 'the offer is unconditional'],
  ['the deposit is refundable', 'the deposit is unrefundable'],
  ['the clause is enforceable', 'the clause is unenforceable'],
  ['the use is restricted', 'the use is unrestricted'],
  ['the defect was disclosed', 'the defect was undisclosed'],
  ['the damage is visible', 'the damage is invisible'],
  ['the notice is valid', 'the notice is invalid'],
  ['the transfer is reversible', 'the transfer is irreversible'],
  ['the seller shall pay', 'the seller shall not pay'],
  ['the tenant may sublet', 'the tenant may not sublet'],
  ['the buyer cannot withdraw', 'the buyer can withdraw'],
  ['there is no well', 'there is a well'],
  ['nothing is owed', 'something is owed'],
  ['he is not able to sell', 'he is notable to sell'],
  ['either may end it', 'neither may end it'],
  ['ever since', 'never since'],
  ['with repairs', 'without repairs'],
  ['all but one', 'all and one'],
  ['before closing', 'after closing'],
  ['if asked', 'unless asked'],
  ['seller or buyer pays', 'seller and buyer pays'],
  // Number words.
  ['within eight days', 'within eighty days'],
  ['within six days', 'within sixty days'],
  ['within seven days', 'within seventy days'],
  ['the sixth day', 'the sixty day'],
  ['the fourth day', 'the fourteenth day'],
  ['nine months', 'ninety months'],
  ['thirteen months', 'thirty months'],
  ['once a year', 'twice a year'],
  ['one third of it', 'two thirds of it'],
  ['half of it', 'all of it'],
  // Figures and the signs in them.
  ['$1,200.50 a month', '$1.200,50 a month'],
  ['$1,200 a month', '$1.200 a month'],
  ['$410,000 in all', '$4,100.00 in all'],
  ['$410,000 in all', '$410.000 in all'],
  ['11 0 units', '1 10 units'],
  ['3.5% a year', '35% a year'],
  ['5 % a year', '5 a year'],
  ['lot 10 of', 'lot 1O of'],
  ['unit 5 there', 'unit S there'],
  ['$100 each', '$l00 each'],
  ['2026-11-30 at noon', '2026-11-80 at noon'],
  ['(4) of them', '(5) of them'],
  ['not later than May 4. It', 'not later than May 5. It'],
  // Names and words whose letters are the meaning.
  ['signed by Marn', 'signed by Mam'],
  ['signed by Aiden Carl', 'signed by Aiden Cari'],
  ['signed by Alder', 'signed by Elder'],
  ['signed by O’Brien', 'signed by OBrien'],
  ['the party waives it', 'the party waived it'],
];
const IN_SPANISH: [string, string][] = [
  ['el piso está amueblado', 'el piso está desamueblado'],
  ['la oferta es condicional', 'la oferta es incondicional'],
  ['el aviso es válido', 'el aviso es inválido'],
  ['el daño es visible', 'el daño es invisible'],
  ['el pago es reversible', 'el pago es irreversible'],
  ['el uso es limitado', 'el uso es ilimitado'],
  ['el vendedor debe pagar', 'el vendedor no debe pagar'],
  ['el inquilino puede', 'el inquilino nunca puede'],
  ['hay algún pozo', 'hay ningún pozo'],
  ['algo se debe', 'nada se debe'],
  ['alguien responde', 'nadie responde'],
  ['con reparaciones', 'sin reparaciones'],
  ['antes del cierre', 'después del cierre'],
  ['si se pide', 'salvo se pide'],
  ['vendedor o comprador paga', 'vendedor y comprador paga'],
  ['vendedor e inquilino', 'vendedor o inquilino'],
  ['dentro de seis días', 'dentro de siete días'],
  ['dentro de sesenta días', 'dentro de setenta días'],
  ['dentro de dos días', 'dentro de doce días'],
  ['dentro de tres días', 'dentro de trece días'],
  ['dentro de cuatro días', 'dentro de catorce días'],
  ['cuarenta meses', 'cuatro meses'],
  ['cincuenta meses', 'cinco meses'],
  ['el tercer mes', 'el primer mes'],
  ['el sexto mes', 'el séptimo mes'],
  ['mil dólares', 'cien dólares'],
  ['doscientos dólares', 'trescientos dólares'],
  ['la mitad de ello', 'todo de ello'],
  ['el doble de ello', 'el triple de ello'],
  ['una vez al año', 'dos veces al año'],
  ['$1.200,50 al mes', '$1,200.50 al mes'],
  ['$1.200 al mes', '$1,200 al mes'],
  ['410.000 en total', '4.100,00 en total'],
  ['11 0 unidades', '1 10 unidades'],
  ['3,5% al año', '35% al año'],
  ['el lote 10 de', 'el lote 1O de'],
  ['la unidad 5 de', 'la unidad S de'],
  ['30/11/2026 a mediodía', '80/11/2026 a mediodía'],
  ['(4) de ellas', '(5) de ellas'],
  ['el día lunes', 'el día martes'],
  ['en enero', 'en febrero'],
  ['en junio', 'en julio'],
  ['firmado por Marn', 'firmado por Mam'],
  ['firmado por Ibarra', 'firmado por Ibarro'],
  ['firmado por Peña', 'firmado por Pena'],
  ['firmado por Luisa', 'firmado por Luis'],
  ['la parte renuncia', 'la parte renunció'],
  ['ambos pagan', 'uno paga'],
  ['cada año', 'ese año'],
  ['nunca más', 'siempre más'],
];

const MODES = [
  ['print', false, false],
  ['print, scan', false, true],
  ['scan, scan', true, true],
] as const;

const plain = (text: string) => text.split(' ');
/** Returns words of one text that the other does not have. */
const only = (a: string, b: string) => plain(a).filter((w) => !plain(b).includes(w));
const told = (changes: Change[], side: 'before' | 'after') =>
  changes.filter((c) => !c.aside).flatMap((c) => plain(c[side]?.text ?? ''));

const PAIRS = [
  ...IN_ENGLISH.map(([a, b]) => ['English', ENGLISH, a, b] as const),
  ...IN_SPANISH.map(([a, b]) => ['Spanish', SPANISH, a, b] as const),
];

test('there are 300 of them', () => expect(PAIRS.length * MODES.length).toBe(300));

describe.each(MODES)('%s', (_mode, first, second) => {
  test.each(PAIRS)('%s: %#', (_language, text, was, now) => {
    const { changes, more } = compareVersions([page(text(was), first)], [page(text(now), second)]);
    // What differs is told as a change, and not only among what can be left aside.
    const missed = [
      ...only(was, now).filter((w) => !told(changes, 'before').includes(w)),
      ...only(now, was).filter((w) => !told(changes, 'after').includes(w)),
    ];
    expect([was, now, missed, more]).toEqual([was, now, [], 0]);
    expect(changes.filter((c) => !c.aside).length).toBeGreaterThan(0);
  });
});

test('what is read alike is listed, never left out: a whole page of misread words', () => {
  const misread = ENGLISH('the price is paid').map((l) =>
    l
      .replace('corner', 'comer')
      .replace('house', 'honse')
      .replace('paper', 'Paper')
      .replace('named', 'narned')
      .replace('came.', 'came'),
  );
  const { changes, slight } = compareVersions([page(ENGLISH('the price is paid'), false)], [page(misread, true)]);
  expect(changes.filter((c) => !c.aside)).toEqual([]);
  expect(changes.map((c) => [c.aside, c.before?.text, c.after?.text])).toEqual([
    ['reading', 'house', 'honse'],
    ['reading', 'corner', 'comer'],
    ['reading', 'named', 'narned'],
    ['reading', 'paper', 'Paper'],
    ['reading', 'came.', 'came'],
  ]);
  expect(slight).toBe(5);
});

test('leniency is a page’s own: a printed page beside a scanned one is compared sign by sign', () => {
  const text = ENGLISH('the price is paid');
  const other = ENGLISH('the prioe is paid');
  const scan = page(['A scanned page with words of its own that stand on both sides.'], true);
  const pages = (lines: string[]) => [page(lines, false), scan];
  const { changes } = compareVersions(pages(text), pages(other));
  expect(changes.map((c) => [c.aside, c.before?.text, c.after?.text])).toEqual([[null, 'price', 'prioe']]);
});
