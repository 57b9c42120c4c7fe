/**
 * Computing a deal's status from its facts, people, documents and packets. It is a read model for the deal's page,
 * lists and first screens, and does not depend on the day on which it is read.
 */
import { dayOf, isDay } from '@gatepath/core/calendar';
import {
  figuresOf,
  isOver,
  KIND_WORDS,
  needsOf,
  nextActs,
  type Next,
  type PacketNow,
  signersIn,
  type DealDocument,
  type Person,
} from '@gatepath/core/deal';
import { byLink, receives, requiredPlaces, type Mark } from '@gatepath/core/packet';
import { ofRole } from '@gatepath/core/reading';
import { stateOf } from '@gatepath/core/returned';
import {
  type PacketState,
  marksThatCount,
  marksLeft,
  progressOf,
  waitingFor,
  documentsOf,
  hasFilled,
  holdUp,
} from '@gatepath/core/routing';
import { count } from '@gatepath/core/text';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { endedReviewsOf, type ReviewRow } from '../returned/queries';
import { documentsOfDeal, type DocumentRow } from '../documents/queries';
import { findFirm } from '../firm/queries';
import { saveDealEntries, type Entry } from '../find/queries';
import { topics } from '../live/live';
import { documentsOfDrafts, packetsOfDeals, type PacketListRow } from '../packets/queries';
import { partiesOfDeal, type PartyRow } from '../deal-records/party-queries';
import * as q from '../deal-records/queries';
import { rulesOfFirm } from './rule-queries';
import { statedIn, statingOf } from './stated-of';

/** What a deal shows before its status was computed. */
export const NOTHING_COMPUTED: q.ComputedDeal = {
  needs: { requirements: [], asked: [] },
  papers: [],
  packets: [],
  signatures: { done: 0, of: 0 },
  initials: { done: 0, of: 0 },
};

const NO_DAY = '9999-12-31';

/**
 * Computes and saves a deal's status. Of two concurrent computations the one that started later is saved.
 *
 * @returns whether the deal exists
 */
export async function computeDealStatus(ctx: Context, dealId: string): Promise<boolean> {
  const db = ctx.database.pool;
  const look = await q.nextComputation(db);
  const deal = await q.dealById(db, dealId);
  if (!deal) return false;
  // Not from memory: another server may have changed its holidays a moment ago.
  const firm = await findFirm(db);
  const parties = await partiesOfDeal(db, dealId);
  const documents = (await documentsOfDeal(db, dealId)).filter((d) => !d.replaced_by);
  const rows = await packetsOfDeals(db, [dealId]);
  const drafts = await documentsOfDrafts(db, dealId);
  const packets: PacketNow[] = [];
  const found: DealDocument[] = [];
  const states: PacketState[] = [];
  const signatures = { done: 0, of: 0 };
  const initials = { done: 0, of: 0 };
  for (const row of rows) {
    const { state } = row.status === 'drafting' ? { state: null } : await ctx.packets.look(row.id);
    packets.push(packetNow(row, state, deal.time_zone, drafts.get(row.id)?.length ?? 0));
    if (state) {
      states.push(state);
      found.push(...papersOf(state, documents, deal.time_zone));
      if (state.status === 'at_gate' || state.status === 'executed') countMarks(state, signatures, initials);
    } else
      for (const id of drafts.get(row.id) ?? []) {
        const d = documents.find((x) => x.id === id);
        if (d) found.push({ ...lying(d), status: 'draft', packetId: row.id });
      }
  }
  for (const d of documents) if (!found.some((p) => p.documentId === d.id)) found.push(lying(d));
  const signers = signersByDocument(documents, states, await endedReviewsOf(db, dealId), parties);
  const needsDeal = { kind: deal.kind, forWhom: deal.for_whom, facts: deal.facts, dates: deal.dates, parties };
  const needs = needsOf({
    deal: needsDeal,
    rules: await rulesOfFirm(db),
    papers: found.map((p) => (p.status === 'executed' ? { ...p, ...signersIn(signers(p.documentId), parties) } : p)),
    waivers: await q.waiversOf(db, dealId),
    holidays: firm?.holidays ?? [],
  });
  const holidays = firm?.holidays ?? [];
  const stated = await statedIn(db, deal, { documents, found, parties, holidays });
  const computed: q.ComputedDeal = { needs, papers: found, packets, signatures, initials, stated };
  const members = await q.membersOfDeal(db, dealId);
  const addresses = await q.addressesOf(db, members);
  const own = await q.ownFacts(db);
  const over = isOver(deal.status) || deal.archived_at !== null;
  const items = over ? [] : itemsOf(deal, computed, documents, members, addresses, own);
  const entries = entriesOf(deal, documents, rows);
  await inTransaction(db, async (tx) => {
    if (!(await q.claimComputation(tx.db, dealId, look))) return;
    await saveDealEntries(tx.db, dealId, entries);
    await q.saveComputed(tx.db, { dealId, computed, figures: figuresOf(needs), items });
  });
  ctx.live.notify(topics.deal(dealId));
  ctx.live.notify(topics.today());
  return true;
}

/** Returns the search entries of a deal, its documents and its packets. */
function entriesOf(deal: q.DealRow, documents: DocumentRow[], packets: PacketListRow[]): Entry[] {
  const of = { deal_id: deal.id, open: !isOver(deal.status) && deal.archived_at === null };
  const out: Entry[] = [
    {
      ...of,
      kind: 'deal',
      id: deal.id,
      title: deal.address,
      detail: [KIND_WORDS[deal.kind], deal.city, ...deal.tags].filter(Boolean).join(', '),
      inside: '',
    },
    ...packets.map((p): Entry => ({
      ...of,
      kind: 'packet',
      id: p.id,
      title: p.name,
      detail: deal.address,
      inside: p.parties.map((x) => x.name).join(' '),
    })),
  ];
  for (const d of documents)
    out.push({ ...of, kind: 'paper', id: d.id, title: d.name, detail: deal.address, inside: d.words ?? '' });
  return out;
}

/** Returns the status of a document that is in no packet. */
function lying(d: DocumentRow): DealDocument {
  return {
    documentId: d.id,
    name: d.name,
    type: d.type,
    status: d.elsewhere_on ? 'elsewhere' : 'here',
    packetId: null,
    gaps: 0,
    signedBy: [],
    signedFor: [],
    waits: '',
    on: d.elsewhere_on,
  };
}

/**
 * Collects who signed each document of a deal: in every executed packet it went out in, in late rounds on its sealed
 * copy, and by hand on sheets of it that came back and were looked at.
 *
 * @returns the signers of a document, by its id
 */
function signersByDocument(
  documents: DocumentRow[],
  states: PacketState[],
  checks: ReviewRow[],
  parties: PartyRow[],
): (documentId: string) => Person[] {
  const sealedAs = new Map(states.flatMap((s) => (s.sealed ?? []).map((x) => [x.sha256, x.documentId] as const)));
  const before = new Map(documents.flatMap((d) => (d.sealed ? [[d.id, sealedAs.get(d.sha256)] as const] : [])));
  for (const { document_id: id, blank_id: blank } of checks) if (blank) before.set(id, blank);
  const firstOf = (id: string) => {
    const seen = new Set([id]);
    for (let next = before.get(id); next && !seen.has(next); next = before.get(id)) seen.add((id = next));
    return id;
  };
  const signers = new Map<string, Person[]>();
  const add = (documentId: string, people: Person[]) => {
    const first = firstOf(documentId);
    signers.set(first, [...(signers.get(first) ?? []), ...people]);
  };
  for (const state of states)
    if (state.status === 'executed') for (const [id, people] of signedIn(state)) add(id, people);
  for (const check of checks) {
    const signed = check.places.filter((place) => place.kind === 'signature' && stateOf(place) === 'yes');
    add(
      check.document_id,
      signed.flatMap(({ role, ordinal }) => ofRole(role, parties)[(ordinal ?? 1) - 1] ?? []),
    );
  }
  return (documentId) => signers.get(firstOf(documentId)) ?? [];
}

/** Returns who signed each document of a packet. */
function signedIn(state: PacketState): Map<string, Person[]> {
  const out = new Map<string, Person[]>();
  for (const place of requiredPlaces(marksThatCount(state))) {
    const mark = place.find((m) => m.kind === 'signature' && state.fills.has(m.id));
    const person = mark && state.plan.parties.find((p) => p.id === mark.partyId);
    if (person) out.set(mark.documentId, [...(out.get(mark.documentId) ?? []), person]);
  }
  return out;
}

/** Returns the status of a packet's documents; nothing for a packet that ended without being executed. */
function papersOf(state: PacketState, documents: DocumentRow[], zone: string): DealDocument[] {
  if (state.status !== 'at_gate' && state.status !== 'executed') return [];
  const places = requiredPlaces(marksThatCount(state));
  const filled = (p: Mark[]) => p.some((m) => state.fills.has(m.id));
  return documentsOf(state).flatMap((doc) => {
    const d = documents.find((x) => x.id === doc.id);
    if (!d) return [];
    const own = places.filter((p) => p.some((m) => m.documentId === doc.id));
    const executed = state.status === 'executed';
    return [
      {
        documentId: doc.id,
        name: d.name,
        type: d.type,
        status: executed ? ('executed' as const) : ('out' as const),
        packetId: state.packetId,
        gaps: own.filter((p) => !filled(p)).length,
        signedBy: [],
        signedFor: [],
        waits: executed ? '' : holdUp(state).sentence.replace(/\.$/, ''),
        on: executed && state.endedAt ? dayOf(state.endedAt, zone) : null,
      },
    ];
  });
}

function countMarks(state: PacketState, signatures: q.Tally, initials: q.Tally): void {
  for (const place of requiredPlaces(marksThatCount(state))) {
    const kind = place[0]?.kind;
    const tally = kind === 'signature' ? signatures : kind === 'initials' ? initials : null;
    if (!tally) continue;
    tally.of++;
    if (place.some((m) => state.fills.has(m.id))) tally.done++;
  }
}

function packetNow(row: PacketListRow, state: PacketState | null, zone: string, documents: number): PacketNow {
  const open = state?.status === 'at_gate';
  return {
    id: row.id,
    name: row.name,
    status: row.status,
    waits:
      state && open
        ? waitingFor(state)
            .filter((p) => wantsAct(state, p))
            .map((p) => waitOf(state, p, zone))
        : [],
    questions:
      state && (open || state.status === 'executed')
        ? state.questions
            .filter((x) => !x.answer)
            .map((x) => ({
              id: x.id,
              partyId: x.partyId,
              name: state.plan.parties.find((p) => p.id === x.partyId)?.name ?? 'Someone',
              day: dayOf(x.at, zone),
              text: x.text,
            }))
        : [],
    lastDay: (open && state.plan.schedule?.lastDay) || null,
    since: dayOf((row.sent_at ?? row.created_at).toISOString(), zone),
    documents: state ? state.plan.documents.length : documents,
    path: {
      gates: row.gates.map((g) => g.partyIds),
      gate: row.gate,
      parties: row.parties.map((p) => ({ ...p, done: row.done.includes(p.id) })),
    },
  };
}

/**
 * Returns whether a party is waited for. A party that only receives is not, unless its message came back and it got no
 * letter yet.
 */
const wantsAct = (state: PacketState, p: PacketState['plan']['parties'][number]) => {
  const { bounced, letter } = progressOf(state, p.id);
  return !receives(p) || (!!bounced && !letter);
};

function waitOf(
  state: PacketState,
  p: PacketState['plan']['parties'][number],
  zone: string,
): PacketNow['waits'][number] {
  const s = progressOf(state, p.id);
  const left = marksLeft(state, p.id).length;
  const words = s.locked
    ? 'is locked out'
    : s.again
      ? 'has a change to initial'
      : !s.openedAt
        ? byLink(p)
          ? 'has not opened it'
          : 'is to sign at the desk'
        : left
          ? `has ${count(left, 'place')} to go`
          : 'has only to finish';
  return {
    partyId: p.id,
    name: p.name,
    since: dayOf(s.lastActAt ?? s.openedAt ?? s.askedAt ?? state.sentAt, zone),
    words,
    bounced: !!s.bounced,
    email: p.email.toLowerCase(),
    phone: p.phone,
    desk: !byLink(p) && !hasFilled(state, p.id) && p.act === 'desk',
  };
}

/** Returns the entries of the first screens of everyone who works on a deal. */
function itemsOf(
  deal: q.DealRow,
  computed: q.ComputedDeal,
  documents: DocumentRow[],
  members: string[],
  addresses: Map<string, string>,
  own: q.OwnFact[],
): q.ItemRow[] {
  const out: q.ItemRow[] = [];
  const seers = members.length ? members : [''];
  const put = (member_id: string, list: q.ItemRow['list'], ref: string, day: string, item: object) =>
    out.push({ deal_id: deal.id, member_id, list, ref, day, item });
  for (const seer of seers) {
    for (const r of computed.needs.requirements)
      if (r.state === 'open' && r.due)
        put(seer, 'due', `paper ${r.ruleId}`, r.due.day, { what: 'paper', title: r.title, packetId: r.packetId });
    put(seer, 'deal', '', NO_DAY, {});
    // Days from before they were bounded stay on the deal, and stand in no list.
    for (const [date, day] of Object.entries(deal.dates)) if (isDay(day)) put(seer, 'date', date, day, {});
    for (const p of computed.packets) {
      if (p.lastDay) put(seer, 'due', `last ${p.id}`, p.lastDay, { what: 'last_day', title: p.name, packetId: p.id });
      const first = [...p.waits].sort((a, b) => a.since.localeCompare(b.since))[0];
      if (first) put(seer, 'still', p.id, first.since, { name: p.name, wait: first, path: p.path });
    }
    for (const d of documents) if (d.ends_on) put(seer, 'term', d.id, d.ends_on, { title: d.name });
    // By a day that every act is old on: which of them there are does not depend on the day, only how they are weighed.
    const acts = nextActs({
      kind: deal.kind,
      ...computed,
      stated: statingOf(computed.stated ?? []),
      own,
      me: '',
      today: '9000-01-01',
    });
    for (const a of acts) if (!OWN_LISTS.includes(a.act.do)) put(seer, 'do', a.id, dayOfAct(a), a);
  }
  // A person who has to sign is told so, whether or not the deal is theirs.
  for (const p of computed.packets)
    for (const w of p.waits)
      for (const [member, email] of addresses)
        if (w.email && w.email === email && !w.bounced)
          for (const a of nextActs({
            kind: deal.kind,
            needs: NOTHING_COMPUTED.needs,
            packets: [p],
            own: [],
            me: email,
            today: w.since,
          }))
            if (a.act.do === 'sign' && a.act.partyId === w.partyId) put(member, 'do', a.id, w.since, a);
  return out;
}

/** Acts that have a list of their own on the first screen. */
const OWN_LISTS: readonly Next['act']['do'][] = ['nudge', 'sign', 'host', 'address'];

/** Returns the day by which an act is ordered: that of a question or statement, or a document's due day; none otherwise. */
function dayOfAct(a: Next): string {
  if (a.act.do === 'answer' || a.act.do === 'stated') return a.since ?? NO_DAY;
  // Before what is only not known yet.
  return a.due ?? (a.act.do === 'send' ? '9999-12-30' : NO_DAY);
}
