/** The firm's year before today: deals of all kinds, their packets really sent, signed, and ended, with the clock set back. */
import type { DealView, DocumentPatch, DocumentView, HandBody } from '@gatepath/contract';
import { addDays, dayOf } from '@gatepath/core/calendar';
import type { DealKind, DealStatus, FactValue, ForWhom, KeyDate } from '@gatepath/core/deal';
import type { DraftEdit } from '@gatepath/core/packet';
import type { Side } from '@gatepath/core/text';
import type { Running } from '../server/app';
import type { InProcess } from '../server/http/in-process';
import { settleCalendar } from '../server/jobs/calendar';
import { PaperWriter } from './layout';

type Type = NonNullable<DocumentPatch['type']>;
/** What became of a packet: signed by all, by the first so many, opened only, or ended otherwise. */
type Fate = 'executed' | 'first' | 'opened' | 'asked' | 'draft' | 'declined' | 'withdrawn' | 'lapsed';

interface Paper {
  type: Type;
  title: string;
  /** By their places in the deal's list; nobody for one that is only kept. */
  signers: number[];
  fate: Fate | 'kept';
  /** Days after the deal was opened. */
  after?: number;
}

interface Story {
  /** Days before today on which it was opened. */
  ago: number;
  kind: DealKind;
  forWhom: ForWhom;
  address: string;
  people: [Side, string][];
  facts: Record<string, FactValue>;
  /** Days from today. */
  dates: Partial<Record<KeyDate, number>>;
  status: DealStatus;
  papers: Paper[];
  tags?: string[];
}

const FACES = ['caveat', 'dancing-script', 'la-belle-aurore'] as const;
const handOf = (name: string): HandBody => ({
  form: 'typed',
  face: FACES[name.length % FACES.length] ?? 'caveat',
  signature: name,
  initials: name
    .split(' ')
    .map((w) => w[0])
    .join(''),
});

/** "Nadia Brandt" is written to at nadia.brandt@example.com; letters beyond ASCII lose their marks. */
const addressOf = (name: string) =>
  `${name
    .normalize('NFD')
    .replace(/[^\w ]/g, '')
    .toLowerCase()
    .replace(/ /g, '.')}@example.com`;

const BUYERS_HOUSE = {
  year_built: 1998,
  association: false,
  water: 'town',
  waste: 'sewer',
  tank: false,
  flood_zone: false,
  leased_ground: false,
  owner: 'people',
};
const p = (type: Type, title: string, signers: number[], fate: Paper['fate'], after = 1): Paper => ({
  type,
  title,
  signers,
  fate,
  after,
});
const agreement = (signers: number[], fate: Fate = 'executed') =>
  p('purchase_agreement', 'Purchase agreement', signers, fate);
const disclosure = (signers: number[], fate: Fate = 'executed') =>
  p('seller_disclosure', 'Seller’s disclosure', signers, fate);
const lease = (signers: number[], fate: Fate = 'executed') => p('lease', 'Lease', signers, fate);

/** What a tenancy that runs has beside its lease. */
const movedIn = (tenant = 1): Paper[] => [
  p('condition', 'Condition report', [tenant], 'executed', 3),
  p('receipt', 'Deposit receipt', [], 'kept', 2),
];
const STORIES: Story[] = [
  {
    ago: 330,
    kind: 'sale',
    forWhom: 'seller',
    address: '3 Reed End',
    people: [
      ['seller', 'Nadia Brandt'],
      ['buyer', 'Ivo Castellan'],
    ],
    facts: { ...BUYERS_HOUSE, price: 289_000 },
    dates: { accepted: -322, closing: -290 },
    status: 'closed',
    papers: [agreement([0, 1]), disclosure([0])],
  },
  {
    ago: 312,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: '9 Basin Street',
    people: [
      ['landlord', 'Henrike Osei'],
      ['tenant', 'Noor Haddad'],
    ],
    facts: { rent: 1_420, deposit: 2_840, year_built: 1931, pets: false },
    dates: { lease_signed: -308, move_in: -300, end: 65 },
    status: 'running',
    papers: [p('lead_paint', 'Lead paint disclosure', [0, 1], 'executed'), ...movedIn(), lease([0, 1])],
  },
  {
    ago: 290,
    kind: 'listing',
    forWhom: 'seller',
    address: '21 Towline Road',
    people: [
      ['seller', 'Aurel Pop'],
      ['seller', 'Ioana Pop'],
    ],
    facts: { ...BUYERS_HOUSE, price: 335_000 },
    dates: { listed: -285 },
    status: 'fell_through',
    papers: [p('listing_agreement', 'Listing agreement', [0, 1], 'withdrawn')],
  },
  {
    ago: 268,
    kind: 'sale',
    forWhom: 'buyer',
    address: '2 Cooper’s Wharf',
    people: [
      ['buyer', 'Lena Fischer'],
      ['seller', 'Marguerite Lowe'],
    ],
    facts: { ...BUYERS_HOUSE, price: 512_000, flood_zone: true },
    dates: { accepted: -260, closing: -228 },
    status: 'closed',
    papers: [agreement([0, 1]), p('flood', 'Flood zone notice', [0], 'executed')],
  },
  {
    ago: 244,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: 'Unit 2A, Cooper’s Wharf',
    people: [
      ['landlord', 'Henrike Osei'],
      ['tenant', 'Samir Rahal'],
      ['guarantor', 'Amal Rahal'],
    ],
    facts: { rent: 1_690, deposit: 3_380, year_built: 2004, guaranteed: true, units: 12 },
    dates: { lease_signed: -240, move_in: -232, end: 133 },
    status: 'running',
    papers: [
      p('house_rules', 'House rules', [1], 'executed'),
      ...movedIn(),
      lease([0, 1]),
      p('guaranty', 'Guaranty', [2], 'executed'),
    ],
  },
  {
    ago: 221,
    kind: 'sale',
    forWhom: 'seller',
    address: '40 Weir Terrace',
    people: [
      ['seller', 'Oskar Lindqvist'],
      ['buyer', 'Delia Marsh'],
    ],
    facts: { ...BUYERS_HOUSE, price: 401_500, year_built: 1955 },
    dates: { accepted: -214, closing: -180 },
    status: 'closed',
    papers: [agreement([0, 1]), p('lead_paint', 'Lead paint disclosure', [0, 1], 'executed')],
  },
  {
    ago: 198,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: '11 Mill Cut',
    people: [
      ['landlord', 'Bertil Strand'],
      ['tenant', 'Ruth Okafor'],
    ],
    facts: { rent: 1_150, deposit: 1_150, furnished: true },
    dates: { lease_signed: -195, move_in: -187, end: -4 },
    status: 'ended',
    papers: [lease([0, 1]), p('inventory', 'Inventory', [1], 'executed')],
  },
  {
    ago: 176,
    kind: 'listing',
    forWhom: 'seller',
    address: '6 Lantern Row',
    people: [
      ['seller', 'Greta Halloran'],
      ['listing_broker', 'Tobias Mercer'],
    ],
    facts: { ...BUYERS_HOUSE, price: 378_000, water: 'well' },
    dates: { listed: -170, accepted: -120, closing: -84 },
    status: 'closed',
    papers: [
      p('listing_agreement', 'Listing agreement', [0, 1], 'executed'),
      p('water', 'Well statement', [0], 'executed'),
    ],
  },
  {
    ago: 150,
    kind: 'sale',
    forWhom: 'seller',
    address: '17 Tow Lane',
    people: [
      ['seller', 'Pavel Dvorak'],
      ['buyer', 'Simone Achebe'],
    ],
    facts: { ...BUYERS_HOUSE, price: 266_000 },
    dates: { accepted: -143 },
    status: 'fell_through',
    papers: [agreement([0, 1], 'declined')],
  },
  {
    ago: 131,
    kind: 'tenancy',
    forWhom: 'tenant',
    address: '5 Basin Street',
    people: [
      ['tenant', 'Kofi Mensah'],
      ['landlord', 'Ursula Beck'],
    ],
    facts: { rent: 990, deposit: 990, year_built: 1968 },
    dates: { lease_signed: -128, move_in: -120, end: 245 },
    status: 'running',
    papers: [...movedIn(0), lease([0, 1]), p('lead_paint', 'Lead paint disclosure', [0, 1], 'executed')],
  },
  {
    ago: 112,
    kind: 'sale',
    forWhom: 'buyer',
    address: '8 Quay Cottages',
    people: [
      ['buyer', 'Tamsin Reyes'],
      ['seller', 'Edmund Vale'],
    ],
    facts: { ...BUYERS_HOUSE, price: 229_900, waste: 'septic' },
    dates: { accepted: -104, closing: -70 },
    status: 'closed',
    papers: [agreement([0, 1]), p('septic', 'Septic statement', [1], 'executed')],
  },
  {
    ago: 96,
    kind: 'listing',
    forWhom: 'seller',
    address: '30 Orchard Lane',
    people: [
      ['seller', 'Lotte Verhoeven'],
      ['listing_broker', 'Tobias Mercer'],
    ],
    facts: { ...BUYERS_HOUSE, price: 449_000 },
    dates: { listed: -90 },
    status: 'active',
    papers: [p('listing_agreement', 'Listing agreement', [0, 1], 'executed'), disclosure([0])],
    tags: ['slow'],
  },
  {
    ago: 80,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: 'Unit 5, Cooper’s Wharf',
    people: [
      ['landlord', 'Henrike Osei'],
      ['tenant', 'Hana Sato'],
    ],
    facts: { rent: 1_730, deposit: 3_460, year_built: 2004, pets: true },
    dates: { lease_signed: -76, move_in: -70, end: 295 },
    status: 'running',
    papers: [...movedIn(), lease([0, 1]), p('pets', 'Pet addendum', [0, 1], 'lapsed')],
  },
  {
    ago: 61,
    kind: 'sale',
    forWhom: 'both',
    address: '12 Lock Hill',
    people: [
      ['seller', 'Joan Pritchard'],
      ['buyer', 'Abel Nkosi'],
    ],
    facts: { ...BUYERS_HOUSE, price: 305_000 },
    dates: { accepted: -52, closing: -14 },
    status: 'closed',
    papers: [p('both_sides', 'Consent to act for both sides', [0, 1], 'executed'), agreement([0, 1])],
  },
  {
    ago: 47,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: '2 Mill Cut',
    people: [
      ['landlord', 'Bertil Strand'],
      ['tenant', 'Ellen Ferrars'],
    ],
    facts: { rent: 1_210, deposit: 1_210, year_built: 1974, pets: false, furnished: false },
    dates: { lease_signed: -42, move_in: -35, notice_given: -6, end: 22 },
    status: 'notice_given',
    papers: [...movedIn(), lease([0, 1]), p('lead_paint', 'Lead paint disclosure', [0, 1], 'executed')],
  },
  {
    ago: 38,
    kind: 'sale',
    forWhom: 'seller',
    address: '88 Orchard Lane',
    people: [
      ['seller', 'Marta Silva'],
      ['buyer', 'Ben Whitlock'],
    ],
    facts: { ...BUYERS_HOUSE, price: 397_000, year_built: 1969, earnest: 8_000 },
    dates: { accepted: -30, inspection: -20, loan: -9, closing: 3 },
    status: 'under_contract',
    papers: [
      agreement([0, 1]),
      disclosure([0]),
      p('lead_paint', 'Lead paint disclosure', [0, 1], 'first', 33),
      p('receipt', 'Earnest money receipt', [], 'kept'),
    ],
    tags: ['closing soon'],
  },
  {
    ago: 33,
    kind: 'listing',
    forWhom: 'seller',
    address: '4 Swing Bridge',
    people: [
      ['seller', 'Mina Petrov'],
      ['seller', 'Stefan Petrov'],
      ['listing_broker', 'Tobias Mercer'],
    ],
    facts: { ...BUYERS_HOUSE, price: 520_000, association: true },
    dates: { listed: -25 },
    status: 'active',
    papers: [p('listing_agreement', 'Listing agreement', [0, 1, 2], 'executed'), disclosure([0, 1], 'draft')],
  },
  {
    ago: 27,
    kind: 'sale',
    forWhom: 'buyer',
    address: '5 Tow Lane',
    people: [
      ['buyer', 'Priya Nair'],
      ['seller', 'Walter Kemp'],
    ],
    facts: { ...BUYERS_HOUSE, price: 341_000 },
    dates: { accepted: -21, inspection: -8, loan: 5, closing: 19 },
    status: 'under_contract',
    papers: [agreement([0, 1])],
  },
  {
    ago: 22,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: '14 Basin Street',
    people: [
      ['landlord', 'Henrike Osei'],
      ['tenant', 'Yusuf Demir'],
      ['guarantor', 'Selin Demir'],
    ],
    facts: { rent: 1_480, deposit: 2_960, year_built: 1926, guaranteed: true },
    dates: { lease_signed: 2, move_in: 9, end: 374 },
    status: 'agreed',
    papers: [
      p('guaranty', 'Guaranty', [2], 'asked', 18),
      p('lead_paint', 'Lead paint disclosure', [0, 1], 'opened', 17),
    ],
  },
  {
    ago: 18,
    kind: 'sale',
    forWhom: 'seller',
    address: '9 Mill Cut',
    people: [
      ['seller', 'Dora Lindholm'],
      ['buyer', 'Chidi Eze'],
    ],
    facts: { ...BUYERS_HOUSE, price: 275_500 },
    dates: { accepted: -12, inspection: 0, closing: 26 },
    status: 'under_contract',
    papers: [agreement([0, 1]), disclosure([0], 'opened')],
  },
  {
    ago: 14,
    kind: 'sale',
    forWhom: 'seller',
    address: '26 Lock Hill',
    people: [
      ['seller', 'Orla Byrne'],
      ['buyer', 'Max Adler'],
    ],
    facts: { ...BUYERS_HOUSE, price: 362_000, owner: 'trust' },
    dates: { accepted: -8, inspection: 4, closing: 33 },
    status: 'under_contract',
    papers: [agreement([0, 1], 'asked')],
  },
  {
    ago: 11,
    kind: 'listing',
    forWhom: 'seller',
    address: '1 Lantern Row',
    people: [['seller', 'Felix Amsel']],
    facts: { price: 298_000 },
    dates: { listed: 1 },
    status: 'preparing',
    papers: [p('listing_agreement', 'Listing agreement', [0], 'opened', 7)],
  },
  {
    ago: 9,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: 'Unit 1C, Cooper’s Wharf',
    people: [
      ['landlord', 'Henrike Osei'],
      ['tenant', 'Grace Oduya'],
    ],
    facts: {
      rent: 1_600,
      deposit: 3_200,
      year_built: 2004,
      pets: false,
      furnished: true,
      units: 12,
      guaranteed: false,
    },
    dates: { lease_signed: -1, move_in: 6, end: 371 },
    status: 'agreed',
    papers: [lease([0, 1])],
  },
  {
    ago: 7,
    kind: 'sale',
    forWhom: 'buyer',
    address: '33 Towline Road',
    people: [
      ['buyer', 'Caspian Holt'],
      ['seller', 'Ida Novak'],
    ],
    facts: { price: 318_000, association: true },
    dates: { accepted: -5, closing: 40 },
    status: 'under_contract',
    papers: [agreement([0, 1], 'first')],
  },
  {
    ago: 5,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: '7 Basin Street',
    people: [
      ['landlord', 'Bertil Strand'],
      ['tenant', 'Mia Larsen'],
    ],
    facts: { rent: 1_050 },
    dates: { move_in: 17 },
    status: 'offered',
    papers: [lease([0, 1], 'draft')],
  },
  {
    ago: 3,
    kind: 'listing',
    forWhom: 'seller',
    address: '19 Quay Cottages',
    people: [
      ['seller', 'Viktor Hale'],
      ['seller', 'Anya Hale'],
    ],
    facts: { year_built: 1948 },
    dates: {},
    status: 'preparing',
    papers: [],
  },
  {
    ago: 1,
    kind: 'sale',
    forWhom: 'seller',
    address: '50 Reed End',
    people: [
      ['seller', 'Rosa Whitfield'],
      ['buyer', 'Jun Tanaka'],
    ],
    facts: { ...BUYERS_HOUSE, price: 287_000 },
    dates: { accepted: -1, closing: 44 },
    status: 'under_contract',
    papers: [],
  },
];

/** One page of plain terms with a line for each signer. */
async function shortPaper(title: string, address: string, signers: string[]): Promise<Uint8Array> {
  const w = await PaperWriter.begin(title, null, 0.9);
  w.head(title, `${address}, Tern Lock`);
  w.section('What this paper says');
  w.clause(
    `The people named below have agreed on what stands in this paper about ${address}. It was written by Towpath & Vane Realty for its own use, and each of them keeps a copy.`,
  );
  w.clause('Whoever does not understand a sentence of it asks before signing, and takes the time that is needed.');
  if (signers.length) w.section('Signatures');
  for (const s of signers) w.signature(s);
  return w.finish();
}

export interface YearTools {
  desk: InProcess;
  running: Running;
  signBlock: (doc: string, page: number, captions: string[], partyIds: string[]) => Promise<DraftEdit[]>;
  /** Signs the member in anew: sessions end while the clock goes on. */
  signIn: () => Promise<void>;
}

/** Tells the stories in the order of their days; ends with the clock at today. */
export async function loadYear(tools: YearTools, say: (step: string) => void): Promise<void> {
  const { clock } = tools.running.ctx;
  const now = clock.now().getTime();
  const today = dayOf(new Date(now).toISOString(), 'America/New_York');
  const steps = STORIES.flatMap((story) => [
    { ago: story.ago, run: () => open(tools, story, today) },
    ...[...new Set(story.papers.map((x) => x.after ?? 1))].map((after) => ({
      ago: Math.max(0, story.ago - after),
      run: async () => {
        const deal = deals.get(story.address);
        if (deal)
          for (const x of story.papers.filter((y) => (y.after ?? 1) === after)) await bring(tools, story, deal, x);
      },
    })),
  ]).sort((a, b) => b.ago - a.ago);
  let month = '';
  let signedIn = Infinity;
  for (const step of steps) {
    // At noon of its day, by the clock that everything else goes by.
    const at = now - step.ago * 86_400_000;
    clock.forward(at - clock.now().getTime());
    const name = addDays(today, -step.ago).slice(0, 7);
    if (name !== month) {
      say(`Living through ${name}`);
      await settleCalendar(tools.running.ctx);
    }
    month = name;
    // A session lasts two weeks.
    if (signedIn - step.ago > 10) {
      await tools.signIn();
      signedIn = step.ago;
    }
    await step.run();
  }
  clock.forward(now - clock.now().getTime());
  await tools.signIn();
  await settleCalendar(tools.running.ctx);
  await tools.running.ctx.jobs.idle('deal');
}

const deals = new Map<string, DealView>();

async function open({ desk }: YearTools, s: Story, today: string): Promise<void> {
  const deal = await desk.ok('newDeal', {
    body: {
      kind: s.kind,
      forWhom: s.forWhom,
      address: s.address,
      city: 'Tern Lock',
      parties: s.people.map(([side, name], i) => ({
        side,
        name,
        email: name === 'Tobias Mercer' ? 'tobias@towpath-vane.example.com' : addressOf(name),
        phone: `555-01${String(40 + ((s.ago + i) % 59)).padStart(2, '0')}`,
      })),
    },
  });
  deals.set(s.address, deal);
  const dates = Object.fromEntries(Object.entries(s.dates).map(([k, n]) => [k, addDays(today, n)]));
  await desk.ok('setDeal', {
    params: { dealId: deal.id },
    body: { facts: s.facts, dates, status: s.status, tags: s.tags ?? [] },
  });
}

async function bring(tools: YearTools, s: Story, deal: DealView, x: Paper): Promise<void> {
  const { desk } = tools;
  const people = x.signers.flatMap((i) => deal.parties[i] ?? []);
  const bytes = await shortPaper(
    x.title,
    s.address,
    people.map((q) => q.name),
  );
  const doc = await desk.uploadReady(deal.id, `${x.title}.pdf`, bytes);
  const patch: DocumentPatch = { type: x.type, ...(x.fate === 'kept' ? { unsigned: true } : {}) };
  await desk.ok('setDocument', { params: { documentId: doc.id }, body: patch });
  if (x.fate === 'kept') return;
  const packetId = await prepare(tools, deal, x, doc, people);
  if (x.fate !== 'draft') await desk.send(packetId);
  await follow(
    tools,
    x.fate,
    packetId,
    people.map((q) => q.name),
  );
}

async function prepare(
  { desk, running, signBlock }: YearTools,
  deal: DealView,
  x: Paper,
  doc: DocumentView,
  people: DealView['parties'],
): Promise<string> {
  const packet = await desk.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: x.title, documentIds: [doc.id] },
  });
  const ids = people.map((q) => q.id);
  const sentOn = dayOf(running.ctx.clock.now().toISOString(), deal.timeZone);
  const others = packet.draft.parties.filter((q) => !ids.includes(q.id));
  await desk.edit(packet.id, [
    ...packet.draft.gates.map((g): DraftEdit => ({ op: 'drop', list: 'gates', id: g.id })),
    ...others.map((q): DraftEdit => ({ op: 'drop', list: 'parties', id: q.id })),
    ...ids.map((id, i): DraftEdit => ({ op: 'put', list: 'gates', item: { id: `g${i}`, partyIds: [id] } })),
    ...(x.fate === 'lapsed'
      ? [{ op: 'set', field: 'schedule', value: { lastDay: addDays(sentOn, 9), warnDays: 1, nudge: null } } as const]
      : []),
    ...(await signBlock(
      doc.id,
      doc.pages.length,
      people.map((q) => q.name),
      ids,
    )),
  ]);
  return packet.id;
}

async function follow({ desk }: YearTools, fate: Fate, packetId: string, names: string[]): Promise<void> {
  const sign = async (name: string) => desk.sign(await desk.tokenFor(packetId, name), handOf(name));
  const [first = ''] = names;
  switch (fate) {
    case 'draft':
    case 'asked':
      return;
    case 'opened':
      await desk.ok('signing', { params: { token: await desk.tokenFor(packetId, first) }, as: 'nobody' });
      return;
    case 'first':
      await sign(first);
      return;
    case 'executed':
      for (const name of names) await sign(name);
      await desk.until(packetId, (q) => !!q.sent?.sealed);
      return;
    case 'declined':
      await desk.ok('decline', {
        params: { token: await desk.tokenFor(packetId, first) },
        body: { reason: 'We have found another way.' },
        as: 'nobody',
      });
      return;
    case 'withdrawn':
      await desk.ok('withdrawPacket', {
        params: { packetId },
        body: { reason: 'The house is not for sale any more.' },
      });
      return;
    case 'lapsed':
      // Its last day comes, and nobody has signed.
      return;
  }
}
