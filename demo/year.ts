/** The firm's year before today: deals of all kinds, their packets really sent, signed, and ended, with the clock set back. */
import type { DealView, DocumentPatch, DocumentView, HandBody } from '@gatepath/contract';
import { addDays, dayOf } from '@gatepath/core/calendar';
import type { DraftEdit } from '@gatepath/core/packet';
import type { Running } from '../server/app';
import type { InProcess } from '../server/in-process';
import { waitForDueWork } from '../server/schedule/calendar';
import { PaperWriter } from './layout';
import { STORIES, type Fate, type Paper, type Story } from './stories';

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

/**
 * Returns an email address for a name: "Nadia Brandt" is nadia.brandt@example.com; letters beyond ASCII lose their
 * accents.
 */
const addressOf = (name: string) =>
  `${name
    .normalize('NFD')
    .replace(/[^\w ]/g, '')
    .toLowerCase()
    .replace(/ /g, '.')}@example.com`;

/** Returns one page of plain terms with a line for each signer. */
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
    // At noon of its day, by the server's clock.
    const at = now - step.ago * 86_400_000;
    clock.forward(at - clock.now().getTime());
    const name = addDays(today, -step.ago).slice(0, 7);
    if (name !== month) {
      say(`Living through ${name}`);
      await waitForDueWork(tools.running.ctx);
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
  await waitForDueWork(tools.running.ctx);
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

/** Hours people take, one after another: some sign at once, some after a weekend. */
const TAKES = [3, 20, 5, 44, 1, 27, 9, 70, 15, 2, 31, 52];
let turn = 0;

async function follow({ desk, running }: YearTools, fate: Fate, packetId: string, names: string[]): Promise<void> {
  const { clock } = running.ctx;
  const sign = async (name: string) => {
    const later = (TAKES[turn++ % TAKES.length] ?? 1) * 3_600_000;
    // Nobody signs in days to come.
    if (clock.now().getTime() + later < Date.now()) clock.forward(later);
    return desk.sign(await desk.tokenFor(packetId, name), handOf(name));
  };
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
