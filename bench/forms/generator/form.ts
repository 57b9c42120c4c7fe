/** A grammar that writes labeled forms at random from a seed. */
import type { PlaceKind } from '@gatepath/core/reading';
import {
  answers,
  asking,
  comb,
  detailTable,
  feeTable,
  filledLine,
  itemTable,
  marginOf,
  numberedLines,
  partiesTable,
  preamble,
  sums,
  ticks,
  writtenLines,
} from './asking';
import { dated, outsider } from './attesting';
import { blank, type Drawn } from './blanks';
import { CLAUSE_INITIALS, FEET, footOf, initialedClauses, type Foot } from './initialing';
import { randomOf, type Random } from './random';
import type { Manner } from './manner';
import { phases, SIGNING, signingBlock, type Signing } from './signing';
import { answerTable, certificate, headFacts, personCards, writtenTable } from './tables';
import { CLAUSES, FILL_INS, ROLE_NAMES, TITLES, type Role } from './wording';

/** A form as it was written: HTML whose links are labels. */
export interface Written {
  name: string;
  html: string;
  size: { width: string; height: string };
  margin: { top: string; bottom: string; left: string; right: string };
  /** Layouts it uses, to leave one at a time out of training. */
  signing: Signing[];
  foot: Foot;
}

const SIZES = [
  { width: '8.5in', height: '11in' },
  { width: '8.5in', height: '11in' },
  { width: '8.5in', height: '14in' },
  { width: '210mm', height: '297mm' },
  { width: '8.5in', height: '11in' },
  { width: '11in', height: '8.5in' },
  { width: '148mm', height: '210mm' },
] as const;

const inches = (points: number) => `${points / 72}in`;

const FONTS = [
  '"DejaVu Serif",serif',
  '"DejaVu Sans",sans-serif',
  '"Liberation Serif",serif',
  '"Liberation Sans",sans-serif',
  '"Liberation Mono",monospace',
  'serif',
  'sans-serif',
];

/** Agreements with a broker or manager, who is called by a bare name in them. */
const AGENCIES: readonly {
  title: readonly string[];
  client: Role;
  agent: Role;
  called: readonly (readonly [string, string])[];
}[] = [
  {
    title: ['Buyer representation agreement', 'Agency agreement with buyer', 'Right to represent the buyer'],
    client: 'buyer',
    agent: 'buyer_broker',
    called: [
      ['Broker', 'Brokers'],
      ['Agent', 'Agents'],
      ['Buyer’s broker', 'Buyer’s brokers'],
    ],
  },
  {
    title: ['Listing agreement', 'Exclusive right to sell', 'Listing amendment'],
    client: 'seller',
    agent: 'broker',
    called: [
      ['Broker', 'Brokers'],
      ['Agent', 'Agents'],
      ['Listing broker', 'Listing brokers'],
    ],
  },
  {
    title: ['Agreement about the fee', 'Cooperation of two brokers', 'Referral agreement'],
    client: 'broker',
    agent: 'buyer_broker',
    called: [
      ['Buyer’s broker', 'Buyer’s brokers'],
      ['Buyer’s agent', 'Buyer’s agents'],
      ['Cooperating broker', 'Cooperating brokers'],
    ],
  },
  {
    title: ['Management agreement', 'Agreement with the manager'],
    client: 'landlord',
    agent: 'manager',
    called: [
      ['Manager', 'Managers'],
      ['Property manager', 'Property managers'],
    ],
  },
];

function mannerOf(r: Random): {
  m: Manner;
  sides: [Role, Role];
  others: Role[];
  isSale: boolean;
  titles: readonly string[];
} {
  const language = r.is(0.22) ? 'es' : 'en';
  const isSale = r.is(0.55);
  const sides: [Role, Role] = isSale ? ['seller', 'buyer'] : ['landlord', 'tenant'];
  if (r.is(0.4)) sides.reverse();
  const others: Role[] = r
    .shuffled<Role>(isSale ? ['broker', 'buyer_broker'] : ['manager', 'guarantor', 'broker'])
    .filter(() => r.is(0.3));
  // An agreement between a client and the one who acts for them, who is called by a bare name there.
  const agency = language === 'en' && r.is(0.16) ? r.of(AGENCIES) : null;
  if (agency) {
    sides.splice(0, 2, agency.client, agency.agent);
    others.splice(0, others.length);
  }
  const people: Manner['people'] = {};
  for (const side of sides)
    people[side] = r.weighted([
      // A client is a person or several; who acts for a client, or for the other side, is one firm.
      [1, side === agency?.agent || side === 'broker' ? 40 : 4],
      [2, 6],
      [3, 1.5],
      [4, 1],
    ] as const);
  for (const role of others) people[role] = r.is(0.85) ? 1 : 2;
  const called = Object.fromEntries(
    Object.entries(ROLE_NAMES[language]).map(([role, names]) => [role, r.of(names)]),
  ) as unknown as Manner['called'];
  if (agency) called[agency.agent] = r.of(agency.called);
  // "Owner" is one side only.
  if (called.seller[0] === 'Owner' && !isSale) called.seller = ['Seller', 'Sellers'];
  if (called.landlord[0] === 'Owner' && isSale) called.landlord = ['Landlord', 'Landlords'];
  const lines = r.weighted<Drawn>([
    ['underscores', 6],
    ['rule', 7],
    ['frame', 1],
    ['dots', 1],
    ['tint', 0.7],
    ['dashes', 0.7],
  ]);
  const short = r.weighted<Drawn>([
    ['underscores', 6],
    ['rule', 4],
    ['brackets', 2],
    ['frame', 3],
  ]);
  const numbering = r.weighted<Manner['numbering']>([
    ['after', 5],
    ['none', 4],
    ['hash', 1],
    ['word', 1],
    ['co', 1],
    ['letter', 1],
  ]);
  return {
    m: { r, language, lines, short, called, people, numbering, capitals: r.is(0.3), colon: r.is(0.6) },
    sides,
    others,
    isSale,
    titles: agency?.title ?? TITLES[language][isSale ? 'sale' : 'tenancy'],
  };
}

const pairOf = (r: Random, [a, b]: [Role, Role]): [Role, Role] => (r.is(0.5) ? [a, b] : [b, a]);

/** Returns a form. The same seed writes the same form. */
export function writeForm(seed: number): Written {
  const r = randomOf(seed);
  const { m, sides, others, titles } = mannerOf(r);
  const [a, b] = sides;
  const named = (text: string) => text.replaceAll('%A', m.called[a][0]).replaceAll('%B', m.called[b][0]);
  const clause = () => named(r.of(CLAUSES[m.language]));
  const inText: Drawn = m.lines === 'rule' || m.lines === 'underscores' || m.lines === 'dots' ? m.lines : 'underscores';
  const fill = (kind: PlaceKind, w: number, who: Parameters<typeof blank>[3] = null) => blank(r, inText, kind, who, w);
  const fillIn = () =>
    named(r.of(FILL_INS[m.language]))
      .replaceAll('{date}', () => fill('date', r.int(60, 110)))
      .replaceAll('{money}', () => `$${fill('text', r.int(45, 90))}`)
      .replaceAll('{text}', () => fill('text', r.int(40, 170)));
  const title = r.of(titles);

  const blocks: string[] = [];
  // A title, and a preamble that says who is who.
  blocks.push(`<h1 style="text-align:${r.of(['left', 'center'])}">${r.is(0.3) ? title.toUpperCase() : title}</h1>`);
  if (r.is(0.12))
    blocks.push(
      `<p style="text-align:right">${m.language === 'en' ? r.of(['No.', 'Addendum no.', 'File no.']) : 'N.º'} ${fill('text', r.int(25, 60))}</p>`,
    );
  if (r.is(0.2)) blocks.push(headFacts(m, sides));
  if (r.is(0.65)) blocks.push(preamble(m, sides, fill));
  if (r.is(0.07)) blocks.push(personCards(m, r.of(sides)));
  if (r.is(0.35)) blocks.push(partiesTable(m, r.is(0.8) ? sides : [...sides, ...others]));
  const clauses = r.int(2, 16);
  let n = 0;
  const numbered = r.is(0.6);
  for (let i = 0; i < clauses; i++) {
    const text = r.is(0.45) ? fillIn() : Array.from({ length: r.int(1, 4) }, clause).join(' ');
    blocks.push(`<p>${numbered ? `${++n}. ` : ''}${text}</p>`);
    if (r.is(0.1)) blocks.push(ticks(m));
    if (r.is(0.06)) blocks.push(detailTable(m, [a, b]));
    if (r.is(0.12)) blocks.push(asking(m, sides));
    if (r.is(0.05)) blocks.push(writtenLines(m));
    if (r.is(0.07)) blocks.push(answers(m));
    if (r.is(0.04)) blocks.push(numberedLines(m));
    if (r.is(0.04)) blocks.push(comb(m));
    if (r.is(0.05)) blocks.push(sums(m));
    if (r.is(0.07)) blocks.push(itemTable(m));
    if (r.is(0.04)) blocks.push(filledLine(m, sides));
    if (r.is(0.05)) blocks.push(feeTable(r));
    if (r.is(0.025)) blocks.push(answerTable(m, pairOf(r, sides)));
    if (r.is(0.025)) blocks.push(writtenTable(m, r.of(sides)));
    if (r.is(0.04))
      blocks.push(
        `<p style="margin:12pt 0 4pt"><b>${numbered ? `${++n}. ` : ''}${r.of(['Notices', 'Condition', 'Payment', 'Access', 'Remedies'])}</b></p>`,
      );
  }
  if (r.is(0.35))
    blocks.splice(
      r.int(2, blocks.length),
      0,
      initialedClauses(m, r.of(CLAUSE_INITIALS), ...pairOf(r, sides), Array.from({ length: r.int(1, 5) }, clause)),
    );
  // Who signs: both sides mostly, one alone often, others behind them.
  const signing: Signing[] = [];
  const block = (roles: readonly Role[]) => {
    const layout = r.of(SIGNING);
    const day = () => dated(m, roles.length === 1 ? roles[0]! : null);
    const at = r.weighted([
      ['none', 86],
      ['before', 9],
      ['after', 5],
    ] as const);
    if (at === 'before') blocks.push(day());
    signing.push(layout);
    // Some blocks go on over the end of a page, some begin on one of their own.
    const begins = r.is(0.07) ? 'break-before:page;' : '';
    blocks.push(
      `<div style="${begins}break-inside:${r.is(0.7) ? 'avoid' : 'auto'}">${signingBlock(m, layout, roles)}</div>`,
    );
    if (at === 'after') blocks.push(day());
  };
  if (r.is(0.3))
    blocks.push(
      `<p>${m.language === 'en' ? r.of(['By signing below, the parties agree to the terms above.', 'In witness whereof the parties have signed on the dates below.', 'Read before you sign. If you do not understand it, ask a lawyer.']) : 'En prueba de conformidad, las partes firman abajo.'}</p>`,
    );
  const first = r.weighted<readonly Role[]>([
    [sides, 6],
    [[a], 2],
    [[b], 2],
  ]);
  block(first);
  if (others.length) {
    if (r.is(0.6)) block(others);
    else for (const role of others) block([role]);
  }
  if (r.is(0.15)) {
    blocks.push(
      `<p style="margin:14pt 0 4pt"><b>${m.language === 'en' ? r.of(['Acceptance', 'Receipt', 'Answer of the other party']) : 'Aceptación'}</b></p><p>${clause()}</p>`,
    );
    block(r.is(0.5) ? [b] : [a]);
  }
  // The same people sign a second time, for something else.
  if (r.is(0.05)) {
    blocks.push(
      `<p style="margin:14pt 0 4pt">${r.is(0.5) ? `<b>${m.language === 'en' ? 'SELECTION' : 'ELECCIÓN'}.</b> ` : ''}${clause()} ${clause()}</p>`,
    );
    block([first[0]!]);
  }
  if (r.is(0.03)) blocks.push(phases(m, r.of(sides)));
  if (r.is(0.08) && m.language === 'en')
    blocks.push(
      `<p style="margin:14pt 0 0">${r.of(['Witness', 'Notary public'])}: ${blank(r, m.lines, 'signature', null, 180)} Date: ${blank(r, m.lines, 'date', null, 80)}</p>`,
    );
  if (r.is(0.06)) blocks.push(outsider(m));
  if (r.is(0.08)) blocks.push(certificate(m, r.of(sides)));
  const foot = r.is(0.55) ? r.of(FEET.filter((f) => f !== 'none')) : 'none';
  const footed = r.weighted<readonly Role[]>([
    [sides, 6],
    [[a], 1],
    [[b], 2],
    [[...sides, ...others], 1.5],
  ]);
  const margin = r.is(0.06) ? marginOf(m, r.of(sides)) : '';
  const footer = foot === 'none' ? '' : footOf(m, foot, footed, r.is(0.1) ? r.int(50, 110) : r.int(20, 42));
  const page = r.is(0.7)
    ? `${m.language === 'en' ? 'Page' : 'Página'} 1 ${r.is(0.5) ? 'of 3' : ''}${r.is(0.05) ? ' ________' : ''}`
    : '';
  const parts = r
    .shuffled([`<span>${footer}</span>`, `<span>${page}</span>`, r.is(0.4) ? `<span>${title}</span>` : ''])
    .join('&nbsp;&nbsp;&nbsp;&nbsp;');
  const size = r.of(SIZES);
  const pt = r.of([8.5, 9, 9.5, 10, 10.5, 11, 12]);
  const css = `body{font:${pt}pt ${r.of(FONTS)};margin:0;color:#111}a{color:inherit;text-decoration:none}p{margin:0 0 ${r.int(3, 8)}pt;line-height:${r.of([1.25, 1.4, 1.6])}}
h1{font-size:${pt + r.int(3, 7)}pt;margin:0 0 8pt}table{border-collapse:collapse;width:${r.of(['100%', '100%', 'auto'])}}td,th{border:${r.of(['0.7pt', '1pt'])} solid #333;padding:4pt 5pt;text-align:left;font-size:${Math.min(pt, 10)}pt}small{font-size:${Math.max(6.5, pt - 2)}pt}
.whole{width:100%}.whole>*>tr>td{border:0;padding:0;font-size:inherit}.room{height:${footer ? 62 : 24}pt}
.foot{position:fixed;bottom:0;left:0;right:0;font-size:${r.of([7.5, 8, 9])}pt;text-align:${r.of(['left', 'left', 'center', 'right'])};${r.is(0.3) ? 'border-top:0.7pt solid #444;padding-top:3pt;' : ''}}`;
  const side = inches(r.int(40, 72));
  return {
    name: `made-${seed}`,
    html: `<!doctype html><meta charset="utf-8"><style>${css}</style><div class="foot">${parts}</div>${margin}<table class="whole"><tbody><tr><td>${blocks.join('\n')}</td></tr></tbody><tfoot><tr><td><div class="room"></div></td></tr></tfoot></table>`,
    size,
    margin: { top: inches(r.int(36, 60)), bottom: inches(r.int(36, 62)), left: side, right: side },
    signing,
    foot,
  };
}
