/** What happened and what holds up, in plain sentences for the coordinator. */
import { holdsGate, byLink, receives } from '../packet/acts';
import { shortDay } from '../calendar';
import { count, firstName, listWords } from '../text/names';
import { sentenceOf } from './events';
import { countsFrom, wantsLetter } from './delivery';
import { marksLeft, partyOf, waitingFor } from './progress';
import type { PacketEvent, PacketState } from './types';
import { KINDS } from '../packet/kinds';
import type { MarkKind, Plan } from '../packet/types';
import { itemAt } from '../sure';
import { progressOf } from './progress';

/** Several acts of one party in a row, told as one line. */
export interface ActivityLine {
  seq: number;
  at: string;
  partyId: string | null;
  sentence: string;
}

/** Returns the log as sentences, newest first. Consecutive initials and signatures become one line. */
export function activity(events: PacketEvent[]): ActivityLine[] {
  const sent = events.find((e) => e.body.type === 'sent');
  if (!sent || sent.body.type !== 'sent') return [];
  const names = new Names(sent.body.plan);
  const out: ActivityLine[] = [];
  let run: { partyId: string; kinds: Map<MarkKind, number>; seq: number; at: string } | null = null;
  const flush = () => {
    if (!run) return;
    const what = [...run.kinds].map(([k, n]) => KINDS[k].several(n));
    out.push({
      seq: run.seq,
      at: run.at,
      partyId: run.partyId,
      sentence: `${names.of(run.partyId)} gave ${listWords(what)}.`,
    });
    run = null;
  };
  for (const e of events) {
    if (e.body.type === 'mark_cleared') continue;
    if (e.body.type === 'mark_filled') {
      if (run && run.partyId !== e.body.partyId) flush();
      run ??= { partyId: e.body.partyId, kinds: new Map(), seq: e.seq, at: e.at };
      const kind = names.kinds.get(e.body.markId) ?? 'text';
      run.kinds.set(kind, (run.kinds.get(kind) ?? 0) + 1);
      run.seq = e.seq;
      run.at = e.at;
      continue;
    }
    flush();
    const sentence = sentenceOf(e, names);
    names.follow(e);
    if (sentence) out.push({ seq: e.seq, at: e.at, partyId: 'partyId' in e.body ? e.body.partyId : null, sentence });
  }
  flush();
  return out.reverse();
}

/** Names as they were at each point of the log: a party may be corrected, added or handed over. */
class Names {
  private readonly names: Map<string, string>;
  readonly kinds: Map<string, MarkKind>;
  readonly documents: Map<string, string>;
  constructor(plan: Plan) {
    this.names = new Map(plan.parties.map((p) => [p.id, p.name]));
    this.kinds = new Map(plan.marks.map((m) => [m.id, m.kind]));
    this.documents = new Map(plan.documents.map((d) => [d.id, d.name]));
  }
  of(id: string | null): string {
    return (id && this.names.get(id)) || 'Someone';
  }
  follow({ body }: PacketEvent): void {
    if (body.type === 'party_added') this.names.set(body.party.id, body.party.name);
    if (body.type === 'party_corrected' || body.type === 'handed_over') this.names.set(body.partyId, body.contact.name);
    if ('marks' in body) for (const m of body.marks) this.kinds.set(m.id, m.kind);
    if (body.type === 'document_added') this.documents.set(body.document.id, body.document.name);
  }
}

/** Returns who holds up the packet, in words: "Callum still has 3 places to go." */
export function holdUp(state: PacketState): { partyIds: string[]; sentence: string } {
  if (state.status === 'executed') return { partyIds: [], sentence: 'Everyone is done. Nothing is missing.' };
  if (state.status === 'declined') {
    const who = state.plan.parties.find((p) => progressOf(state, p.id).status === 'declined');
    return { partyIds: who ? [who.id] : [], sentence: `${who ? firstName(who.name) : 'Someone'} declined.` };
  }
  if (state.status === 'withdrawn') return { partyIds: [], sentence: 'The packet was withdrawn.' };
  if (state.status === 'lapsed') {
    const who = openAtEnd(state);
    return {
      partyIds: who.map((p) => p.id),
      sentence: `The last day passed before ${listWords(who.map((p) => firstName(p.name))) || 'all'} signed.`,
    };
  }
  const open = waitingFor(state);
  const told = open.map((p) => ({ p, sentence: statusSentence(state, p.id) }));
  if (told.length === 1) return { partyIds: [itemAt(open, 0).id], sentence: itemAt(told, 0).sentence };
  // Something is wrong with one of them: that comes first.
  const stuck = told.filter(
    ({ p }) => (progressOf(state, p.id).bounced && !progressOf(state, p.id).letter) || progressOf(state, p.id).locked,
  );
  if (stuck.length) return { partyIds: open.map((p) => p.id), sentence: itemAt(stuck, 0).sentence };
  const gate = state.plan.gates[state.gate];
  const names = open.map((p) => firstName(p.name));
  return {
    partyIds: open.map((p) => p.id),
    sentence: gate?.need === 'any' ? `Waiting for any one of ${listWords(names)}.` : `Waiting for ${listWords(names)}.`,
  };
}

function openAtEnd(state: PacketState) {
  return (state.plan.gates[state.gate]?.partyIds ?? [])
    .map((id) => partyOf(state.plan, id)!)
    .filter((p) => holdsGate(p) && progressOf(state, p.id).status !== 'done');
}

/** Returns the status of a party that is waited for, in words. */
function statusSentence(state: PacketState, partyId: string): string {
  const p = partyOf(state.plan, partyId)!;
  const s = progressOf(state, partyId);
  const first = firstName(p.name);
  const left = marksLeft(state, partyId).length;
  if (receives(p)) {
    if (s.bounced && !s.letter) return `The message to ${first} came back. Mail the letter, or correct the address.`;
    if (wantsLetter(state, partyId)) return `The letter to ${first} must be mailed.`;
    const counted = countsFrom(state, partyId);
    if (counted) return `It counts as delivered to ${first} on ${shortDay(counted.day)}.`;
  }
  if (s.bounced) return `The message to ${first} came back. Correct the address.`;
  if (s.locked) return `${first} is locked out after too many wrong codes.`;
  if (s.again)
    return left ? `${first} has to initial a change: ${count(left, 'place')}.` : `${first} has to read a change.`;
  if (!byLink(p) && !s.openedAt) return `${first} is to sign at the desk.`;
  if (!s.openedAt) return `${first} has not opened it yet.`;
  return left ? `${first} still has ${count(left, 'place')} to go.` : `${first} has only to finish.`;
}
