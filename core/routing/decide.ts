/**
 * The packet's state machine: a command either becomes events or is refused with a reason.
 * It never looks at a clock: the caller stamps the events it returns.
 */
import { firstName } from '../text/names';
import { isAutomatic, isForClient, takesHand } from '../marks/kinds';
import type { Mark } from '../marks/types';
import { checkValue } from '../marks/values';
import type { AddedFile, FillValue, Hand, PacketEventBody, PacketParty, PacketState, Plan } from './types';

export type PacketCommand =
  | { type: 'send'; plan: Plan }
  | { type: 'open'; partyId: string }
  | { type: 'agree'; partyId: string; agreement: string }
  | { type: 'set_hand'; partyId: string; hand: Hand }
  | { type: 'fill'; partyId: string; markId: string; text?: string; file?: AddedFile; actId: string }
  | { type: 'finish'; partyId: string; actId: string; dateText: string }
  | { type: 'decline'; partyId: string; reason: string }
  | { type: 'withdraw'; reason: string }
  | { type: 'seal'; documents: { documentId: string; sha256: string }[] };

/** Why a command cannot be carried out. `code` is stable; `sentence` is for people. */
export interface Refusal {
  code:
    | 'already_sent'
    | 'not_sent'
    | 'ended'
    | 'unknown_party'
    | 'not_your_turn'
    | 'already_done'
    | 'not_agreed'
    | 'no_hand'
    | 'unknown_mark'
    | 'not_your_mark'
    | 'bad_value'
    | 'marks_left'
    | 'not_executed'
    | 'bad_plan';
  sentence: string;
}

export type Decision = { ok: true; events: PacketEventBody[] } | { ok: false; refusal: Refusal };

const accept = (...events: PacketEventBody[]): Decision => ({ ok: true, events });
const refuse = (code: Refusal['code'], sentence: string): Decision => ({
  ok: false,
  refusal: { code, sentence },
});

/** Whether a party's act keeps its gate closed until it is done. */
export function holdsGate(party: PacketParty): boolean {
  return party.act !== 'copy';
}

/** The marks a party must fill itself and has not filled yet, in reading order. */
export function marksLeft(state: PacketState, partyId: string): Mark[] {
  const mine = inReadingOrder(state.plan).filter((m) => m.partyId === partyId && m.required && isForClient(m));
  const groups = new Set<string>();
  for (const m of mine) if (m.group && state.fills[m.id]) groups.add(m.group);
  return mine.filter((m) => {
    if (state.fills[m.id]) return false;
    if (!m.group) return true;
    // Of a group of choices one is left to do, and none once one is chosen.
    if (groups.has(m.group)) return false;
    groups.add(m.group);
    return true;
  });
}

/** How many places a party has to fill itself; a group of choices is one. */
export function placesOf(plan: Plan, partyId: string): number {
  const mine = plan.marks.filter((m) => m.partyId === partyId && m.required && isForClient(m));
  return new Set(mine.map((m) => m.group ?? m.id)).size;
}

/** The plan's marks document by document, page by page, top to bottom, left to right. */
export function inReadingOrder(plan: Plan): Mark[] {
  const order = new Map(plan.documents.map((d, i) => [d.id, i]));
  return [...plan.marks].sort(
    (a, b) =>
      (order.get(a.documentId) ?? 0) - (order.get(b.documentId) ?? 0) ||
      a.page - b.page ||
      a.rect.y - b.rect.y ||
      a.rect.x - b.rect.x,
  );
}

/** The gate's index that a party stands at; -1 when it stands at none (it gets a copy at the end). */
export function gateOf(plan: Plan, partyId: string): number {
  return plan.gates.findIndex((g) => g.partyIds.includes(partyId));
}

/** Whether the party may act now: the packet is under way and its gate is open. */
export function isTurnOf(state: PacketState, partyId: string): boolean {
  return state.status === 'at_gate' && (state.plan.gates[state.gate]?.partyIds.includes(partyId) ?? false);
}

/** Decides a command against the state so far (`null`: the packet has not been sent). */
export function decide(state: PacketState | null, command: PacketCommand): Decision {
  if (command.type === 'send') {
    if (state) return refuse('already_sent', 'This packet has already been sent.');
    return decideSend(command.plan);
  }
  if (!state) return refuse('not_sent', 'This packet has not been sent yet.');
  if (command.type === 'seal') {
    if (state.status !== 'executed') return refuse('not_executed', 'Only an executed packet can be sealed.');
    if (state.sealed) return refuse('already_done', 'This packet is already sealed.');
    return accept({ type: 'sealed', documents: command.documents });
  }
  if (state.status !== 'at_gate') return refuse('ended', endedSentence(state));
  if (command.type === 'withdraw') return accept({ type: 'withdrawn', reason: command.reason });

  const party = state.plan.parties.find((p) => p.id === command.partyId);
  const progress = state.parties[command.partyId];
  if (!party || !progress) return refuse('unknown_party', 'This person is not part of the packet.');
  if (progress.status === 'done') {
    return command.type === 'open' ? accept() : refuse('already_done', 'You have already finished here.');
  }
  if (!isTurnOf(state, party.id))
    return refuse('not_your_turn', 'It is not your turn yet. We will write to you when it is.');

  switch (command.type) {
    case 'open':
      return progress.openedAt ? accept() : accept({ type: 'opened', partyId: party.id });
    case 'agree':
      return progress.agreedAt ? accept() : accept({ type: 'agreed', partyId: party.id, agreement: command.agreement });
    case 'decline': {
      const reason = command.reason.trim();
      if (!reason) return refuse('bad_value', 'Please say in a few words why you decline.');
      return accept({ type: 'declined', partyId: party.id, reason });
    }
    case 'set_hand':
      if (!progress.agreedAt) return notAgreed();
      return accept({ type: 'hand_set', partyId: party.id, hand: command.hand });
    case 'fill':
      if (!progress.agreedAt) return notAgreed();
      return decideFill(state, party, command);
    case 'finish':
      if (!progress.agreedAt) return notAgreed();
      return decideFinish(state, party, command);
  }
}

function notAgreed(): Decision {
  return refuse('not_agreed', 'Please agree to sign electronically first.');
}

function endedSentence(state: PacketState): string {
  if (state.status === 'executed') return 'Everything in this packet is already signed.';
  if (state.status === 'withdrawn') return 'The sender has withdrawn this packet.';
  if (state.status === 'declined') return 'This packet was declined and has ended.';
  return 'The last day for signing this packet has passed.';
}

function decideSend(plan: Plan): Decision {
  const known = new Set(plan.parties.map((p) => p.id));
  const seen = new Set<string>();
  for (const gate of plan.gates) {
    if (!gate.partyIds.length) return refuse('bad_plan', 'A gate on the path has nobody at it.');
    for (const id of gate.partyIds) {
      if (!known.has(id)) return refuse('bad_plan', 'A gate names somebody who is not in the packet.');
      if (seen.has(id)) return refuse('bad_plan', 'Somebody stands at two gates.');
      seen.add(id);
    }
  }
  const holding = plan.parties.filter(holdsGate);
  if (!holding.length) return refuse('bad_plan', 'Nobody has to sign or approve anything in this packet.');
  const lost = holding.find((p) => !seen.has(p.id));
  if (lost) return refuse('bad_plan', `${lost.name} stands at no gate.`);
  return accept({ type: 'sent', plan }, ...openFrom(plan, 0));
}

/**
 * Opens gate `index`, asks its parties, and goes on through every gate that nobody holds
 * (copies only); after the last gate the packet is executed.
 */
function openFrom(plan: Plan, index: number): PacketEventBody[] {
  const out: PacketEventBody[] = [];
  for (let gate = index; gate < plan.gates.length; gate++) {
    const here = plan.gates[gate]!.partyIds.map((id) => plan.parties.find((p) => p.id === id)!);
    out.push({ type: 'gate_opened', gate });
    for (const p of here) out.push({ type: 'asked', partyId: p.id });
    if (here.some(holdsGate)) return out;
    out.push({ type: 'gate_passed', gate });
  }
  out.push({ type: 'executed' });
  return out;
}

function decideFill(
  state: PacketState,
  party: PacketParty,
  command: { markId: string; text?: string; file?: AddedFile; actId: string },
): Decision {
  const { markId, actId } = command;
  const mark = state.plan.marks.find((m) => m.id === markId);
  if (!mark) return refuse('unknown_mark', 'This place is not part of the packet.');
  if (mark.partyId !== party.id) return refuse('not_your_mark', 'This place belongs to somebody else.');
  if (isAutomatic(mark.kind)) return refuse('bad_value', 'This place is filled by itself when you finish.');
  if (!isForClient(mark)) return refuse('bad_value', 'This place was filled by the sender and cannot be changed.');
  const filled = (value: FillValue): PacketEventBody => ({
    type: 'mark_filled',
    partyId: party.id,
    markId,
    value,
    actId,
  });
  const cleared = (id: string, act: string): PacketEventBody => ({
    type: 'mark_cleared',
    partyId: party.id,
    markId: id,
    actId: act,
  });
  if (takesHand(mark.kind)) {
    const hand = state.parties[party.id]!.hand;
    if (!hand) return refuse('no_hand', 'Please set your signature and initials first.');
    // Signed is signed: the same act again changes nothing.
    if (state.fills[mark.id]) return accept();
    return accept(filled({ hand: hand.seq }));
  }
  const text = command.text ?? '';
  if (mark.kind === 'file') {
    if (command.file) return accept(filled({ file: command.file }));
    return state.fills[mark.id]
      ? accept(cleared(markId, actId))
      : refuse('bad_value', 'Please add a photo or a PDF here.');
  }
  // Writing nothing takes back what was written.
  if (!text.trim() && state.fills[mark.id]) return accept(cleared(markId, actId));
  if (mark.kind === 'tick' || mark.kind === 'choice') {
    if (!text.trim()) return accept();
    if (state.fills[mark.id]) return accept();
    const others = state.plan.marks.filter(
      (m) => mark.group && m.group === mark.group && m.id !== markId && m.partyId === party.id && state.fills[m.id],
    );
    return accept(...others.map((m) => cleared(m.id, `${actId}.${m.id}`)), filled({ tick: true }));
  }
  const checked = checkValue(mark, text);
  return checked.ok ? accept(filled({ text: checked.value })) : refuse('bad_value', checked.sentence);
}

function decideFinish(state: PacketState, party: PacketParty, command: { actId: string; dateText: string }): Decision {
  const left = marksLeft(state, party.id);
  if (left.length) {
    const pages = left.length === 1 ? '1 place is' : `${left.length} places are`;
    return refuse('marks_left', `${firstName(party.name)}, ${pages} still open.`);
  }
  const out: PacketEventBody[] = [];
  for (const m of inReadingOrder(state.plan)) {
    if (m.partyId !== party.id || !isAutomatic(m.kind) || state.fills[m.id]) continue;
    const text = m.kind === 'date_signed' ? command.dateText : party.name;
    out.push({
      type: 'mark_filled',
      partyId: party.id,
      markId: m.id,
      value: { text },
      actId: `${command.actId}.${m.id}`,
    });
  }
  out.push({ type: 'party_done', partyId: party.id, actId: command.actId });
  const others = state.plan.gates[state.gate]!.partyIds.filter((id) => id !== party.id);
  const held = others.some((id) => {
    const p = state.plan.parties.find((q) => q.id === id)!;
    return holdsGate(p) && state.parties[id]!.status !== 'done';
  });
  if (!held) {
    out.push({ type: 'gate_passed', gate: state.gate }, ...openFrom(state.plan, state.gate + 1));
  }
  return accept(...out);
}
