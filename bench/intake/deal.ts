/** Made-up deals: who buys what from whom, for how much and when. */
import type { DealKind } from '@gatepath/core/deal';
import { addDays } from '@gatepath/core/calendar';
import type { Random } from '../forms/generator/random';

/** A deal as a contract states it. */
export interface MadeDeal {
  people: Record<string, string[]>;
  street: string;
  town: string;
  amounts: Record<'price' | 'deposit' | 'rent' | 'commission', number>;
  days: Record<'made' | 'closing' | 'inspection' | 'loan' | 'start' | 'end', string>;
  /** The day each side signed, the last one last. */
  signed: string[];
}

const GIVEN =
  'Orla Dermot Maren Agnes Mateo Priya Odile Tobias Wren Callum Perpetua Abel Ngozi Hiroshi Lucía Renée Björn Fatima Joaquín Siobhán Thabo Ines Viktor Leila Anselm Jae-won Beatriz Zofia Kwame Marguerite'.split(
    ' ',
  );
const FAMILY =
  'Byrne|Aalto|Thorvald|Ibarra|Nair|Marchbanks|Vane|Alder|Quill|Lindqvist|Okonjo|O’Halloran|de la Cruz|Van Dyk|Nakamura|Fuentes Rey|St. Clair|Mbeki|Castellanos|Whitcombe-Hale|Sørensen|Haddad|Pereira da Silva|Kowalska|McTavish'.split(
    '|',
  );
const STREETS =
  'Lantern Row|Weir Terrace|Cooper’s Wharf|Lock Hill|Mill Cut|Sluice Lane|Basin Street|Towpath Road|Heron Court|Old Ferry Way|Chandler Avenue|Quay'.split(
    '|',
  );
const CALLES = 'Calle del Muelle|Avenida de la Esclusa|Calle Real|Paseo del Canal'.split('|');
const TOWNS = ['Tern Lock', 'Heron Bridge', 'Millbasin', 'St. Anne', 'Port Alder', 'Upper Weir'];
const COMPANIES = [
  'Alder Holdings LLC',
  'Quayside Partners LP',
  'Tern Lock Properties, Inc.',
  'The Marchbanks Family Trust',
  'Inmobiliaria del Canal S.A.',
];

const name = (r: Random) =>
  `${r.of(GIVEN)}${r.is(0.2) ? ` ${r.of('ABCDEJLMR'.split(''))}.` : ''} ${r.of(FAMILY)}${r.is(0.05) ? ' Jr.' : ''}`;

/** Returns names that all differ. */
function names(r: Random, n: number, used: Set<string>): string[] {
  const out: string[] = [];
  while (out.length < n) {
    const one = name(r);
    const bare = one.replace(/[^\p{L}]/gu, '');
    if (used.has(bare)) continue;
    used.add(bare);
    out.push(one);
  }
  return out;
}

/** Returns a deal by chance. */
export function makeDeal(r: Random, kind: DealKind, spanish: boolean): MadeDeal {
  const used = new Set<string>();
  const [ours, theirs] = kind === 'tenancy' ? ['landlord', 'tenant'] : ['seller', 'buyer'];
  const made = addDays('2026-11-02', r.int(0, 200));
  const price = r.int(180, 980) * 1_000 + r.of([0, 0, 500, 900]);
  const start = addDays(made, r.int(10, 60));
  const signed = [addDays(made, r.int(0, 3))];
  signed.push(addDays(signed[0]!, r.int(0, 4)));
  const street = spanish && r.is(0.5) ? `${r.of(CALLES)} ${r.int(1, 240)}` : `${r.int(1, 480)} ${r.of(STREETS)}`;
  return {
    people: {
      [ours!]: names(r, r.is(0.5) ? 2 : 1, used),
      [theirs!]: names(r, r.is(0.6) ? 2 : 1, used),
      guarantor: names(r, 1, used),
      company: [r.of(COMPANIES), r.of(COMPANIES.slice(0, 3))],
    },
    street: r.is(0.2) ? `${street}, Unit ${r.int(1, 40)}` : street,
    town: r.of(TOWNS),
    amounts: {
      price,
      deposit: kind === 'tenancy' ? r.int(5, 30) * 100 : Math.round(price / 100 / 100) * 100 * r.int(1, 5),
      rent: r.int(70, 420) * 10,
      commission: r.of([2, 2.5, 3, 4, 5, 6]),
    },
    days: {
      made,
      closing: addDays(made, r.int(30, 90)),
      inspection: addDays(made, r.int(8, 16)),
      loan: addDays(made, r.int(18, 28)),
      start,
      end: addDays(start, r.of([181, 364, 365, 729])),
    },
    signed,
  };
}

const MONTHS = {
  en: 'January February March April May June July August September October November December'.split(' '),
  es: 'enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre'.split(' '),
};

/** Returns the name of a day's month. */
export const monthOf = (day: string, spanish: boolean) => MONTHS[spanish ? 'es' : 'en'][Number(day.slice(5, 7)) - 1]!;

/** Returns a day as people write it, in at most so many letters where that is possible. */
export function written(r: Random, day: string, spanish: boolean, most: number): string {
  const [y, m, d] = day.split('-').map(Number) as [number, number, number];
  const ways = spanish
    ? [
        `${d} de ${monthOf(day, true)} de ${y}`,
        `${d}/${m}/${y}`,
        `${String(d).padStart(2, '0')}/${String(m).padStart(2, '0')}/${y}`,
      ]
    : [
        `${monthOf(day, false)} ${d}, ${y}`,
        `${monthOf(day, false).slice(0, 3)}. ${d}, ${y}`,
        `${m}/${d}/${y}`,
        `${String(m).padStart(2, '0')}/${String(d).padStart(2, '0')}/${String(y).slice(2)}`,
        day,
        `${m}-${d}-${y}`,
      ];
  const fit = ways.filter((w) => w.length <= most);
  return fit.length ? r.of(fit) : [...ways].sort((a, b) => a.length - b.length)[0]!;
}
