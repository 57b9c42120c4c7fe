/** What happened and what holds up, in plain sentences for the coordinator. */
import { count, firstName, listWords } from '../text/names';
import { holdsGate, marksLeft } from './decide';
import type { PacketEvent, PacketState, Plan } from './types';

/** Several acts of one party in a row, told as one line. */
export interface ActivityLine {
  seq: number;
  at: string;
  partyId: string | null;
  sentence: string;
}

/** The log as sentences, newest first; runs of initials and signatures become one line. */
export function activity(events: PacketEvent[]): ActivityLine[] {
  const sent = events.find((e) => e.body.type === 'sent');
  if (!sent || sent.body.type !== 'sent') return [];
  const plan = sent.body.plan;
  const out: ActivityLine[] = [];
  let run: { partyId: string; kinds: Map<string, number>; seq: number; at: string } | null = null;
  const flush = () => {
    if (!run) return;
    const what = [...run.kinds].map(([k, n]) => kindCount(k, n));
    out.push({
      seq: run.seq,
      at: run.at,
      partyId: run.partyId,
      sentence: `${nameOf(plan, run.partyId)} gave ${listWords(what)}.`,
    });
    run = null;
  };
  const kinds = new Map(plan.marks.map((m) => [m.id, m.kind]));
  for (const e of events) {
    if (e.body.type === 'mark_cleared') continue;
    if (e.body.type === 'mark_filled') {
      if (run && run.partyId !== e.body.partyId) flush();
      run ??= { partyId: e.body.partyId, kinds: new Map(), seq: e.seq, at: e.at };
      const kind = kinds.get(e.body.markId) ?? 'text';
      run.kinds.set(kind, (run.kinds.get(kind) ?? 0) + 1);
      run.seq = e.seq;
      run.at = e.at;
      continue;
    }
    flush();
    const sentence = sentenceOf(e, plan);
    if (sentence) out.push({ seq: e.seq, at: e.at, partyId: 'partyId' in e.body ? e.body.partyId : null, sentence });
  }
  flush();
  return out.reverse();
}

function kindCount(kind: string, n: number): string {
  if (kind === 'initials') return n === 1 ? '1 set of initials' : `${n} sets of initials`;
  if (kind === 'signature') return count(n, 'signature');
  if (kind === 'date_signed') return count(n, 'date');
  if (kind === 'printed_name') return count(n, 'printed name');
  if (kind === 'tick' || kind === 'choice') return count(n, 'tick');
  if (kind === 'file') return count(n, 'file');
  return count(n, 'text');
}

function nameOf(plan: Plan, partyId: string): string {
  return plan.parties.find((p) => p.id === partyId)?.name ?? 'Somebody';
}

function sentenceOf(e: PacketEvent, plan: Plan): string | null {
  const b = e.body;
  switch (b.type) {
    case 'sent':
      return `${e.actor.kind === 'member' ? e.actor.name : 'The sender'} sent the packet.`;
    case 'gate_opened':
      return `Gate ${b.gate + 1} opened.`;
    case 'asked':
      return `${nameOf(plan, b.partyId)} was asked.`;
    case 'opened':
      return `${nameOf(plan, b.partyId)} opened the packet.`;
    case 'agreed':
      return `${nameOf(plan, b.partyId)} agreed to sign electronically.`;
    case 'hand_set':
      return null;
    case 'party_done':
      return `${nameOf(plan, b.partyId)} finished.`;
    case 'gate_passed':
      return `Gate ${b.gate + 1} passed.`;
    case 'executed':
      return 'Everyone is done: the packet is executed.';
    case 'declined':
      return `${nameOf(plan, b.partyId)} declined: “${b.reason}”`;
    case 'withdrawn':
      return `${e.actor.kind === 'member' ? e.actor.name : 'The sender'} withdrew the packet: “${b.reason}”`;
    case 'sealed':
      return `The sealed ${b.documents.length === 1 ? 'copy is' : 'copies are'} ready.`;
    case 'mark_filled':
    case 'mark_cleared':
      return null;
  }
}

/** Who keeps the packet from moving, in words: "Callum still has 3 places to go." */
export function holdUp(state: PacketState): { partyIds: string[]; sentence: string } {
  if (state.status === 'executed') return { partyIds: [], sentence: 'Everyone is done. Nothing is missing.' };
  if (state.status === 'declined') {
    const who = state.plan.parties.find((p) => state.parties[p.id]!.status === 'declined');
    return { partyIds: who ? [who.id] : [], sentence: `${who ? firstName(who.name) : 'Somebody'} declined.` };
  }
  if (state.status !== 'at_gate') return { partyIds: [], sentence: 'The packet was withdrawn.' };
  const open = (state.plan.gates[state.gate]?.partyIds ?? [])
    .map((id) => state.plan.parties.find((p) => p.id === id)!)
    .filter((p) => holdsGate(p) && state.parties[p.id]!.status !== 'done');
  if (open.length === 1) {
    const p = open[0]!;
    const left = marksLeft(state, p.id).length;
    const opened = state.parties[p.id]!.openedAt !== null;
    const sentence = !opened
      ? `${firstName(p.name)} has not opened it yet.`
      : left
        ? `${firstName(p.name)} still has ${count(left, 'place')} to go.`
        : `${firstName(p.name)} has only to finish.`;
    return { partyIds: [p.id], sentence };
  }
  return {
    partyIds: open.map((p) => p.id),
    sentence: `Waiting for ${listWords(open.map((p) => firstName(p.name)))}.`,
  };
}
