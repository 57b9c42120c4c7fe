/** What a party does through its own signing link. */
import { holdsGate, byLink, receives } from '../packet/acts';
import { firstName } from '../text/names';
import { isEmail } from '../text/email';
import { validateValue, filledHow, isAutomatic, isForClient } from '../packet/kinds';
import { decideOpened } from './delivery';
import { advanceGate } from './advance-gate';
import { hasActed, inReadingOrder, isHeld, isTurnOf, marksLeft, partyOf } from './progress';
import { accept, refuse, refuseWith, type Decision } from './refusal';
import type { AddedFile, FillValue, Hand, PacketParty, SecondStep } from '../packet/types';
import type { Contact, PacketEventBody, PacketState } from './types';
import { progressOf } from './progress';

/** A command of a party. */
export type PartyCommand =
  | { type: 'open'; partyId: string }
  | { type: 'prove'; partyId: string; step: SecondStep }
  | { type: 'choose_language'; partyId: string; language: string }
  | { type: 'agree'; partyId: string; agreement: string }
  | { type: 'set_hand'; partyId: string; hand: Hand }
  | { type: 'fill'; partyId: string; markId: string; text?: string; file?: AddedFile; actId: string }
  | { type: 'finish'; partyId: string; actId: string; dateText: string }
  | { type: 'decline'; partyId: string; reason: string }
  | { type: 'hand_over'; partyId: string; contact: Contact; reason: string }
  | { type: 'ask_question'; partyId: string; questionId: string; text: string };

/** Maximum number of open questions per party. */
export const MAX_QUESTIONS = 20;

/** Decides an act of a party. */
export function decidePartyAct(state: PacketState, command: PartyCommand): Decision {
  const party = partyOf(state.plan, command.partyId);
  const progress = state.parties[command.partyId];
  if (!party || !progress) return refuse('unknown_party');
  if (progress.status === 'dropped') return refuse('not_your_turn');
  if (command.type === 'choose_language')
    return (party.language ?? 'en') === command.language
      ? accept()
      : accept({ type: 'language_chosen', partyId: party.id, language: command.language });
  if (command.type === 'ask_question' && progress.askedAt) return decideQuestion(state, command);
  // Opened after the day it counted as delivered: still worth recording.
  if (receives(party) && command.type === 'open' && progress.askedAt) return decideOpened(state, party.id);
  if (progress.status === 'done' || progress.status === 'excused')
    return command.type === 'open' ? accept() : refuse('already_done');
  if (!holdsGate(party)) {
    if (command.type !== 'open' || !progress.askedAt) return refuse('not_your_turn');
    return progress.openedAt ? accept() : accept({ type: 'opened', partyId: party.id });
  }
  if (!isTurnOf(state, party.id)) return refuse('not_your_turn');
  if (progress.locked) return refuse('locked');

  switch (command.type) {
    case 'open':
      return progress.openedAt ? accept() : accept({ type: 'opened', partyId: party.id });
    case 'prove':
      return accept({ type: 'proved', partyId: party.id, step: command.step });
    case 'decline': {
      if (receives(party)) return refuse('not_your_turn');
      const reason = command.reason.trim();
      return reason ? accept({ type: 'declined', partyId: party.id, reason }) : refuse('reason_wanted');
    }
    case 'hand_over':
      return decideHandOver(state, party, command);
    default:
      break;
  }
  if (receives(party)) return refuse('not_your_turn');
  // A person who signs at the desk acts only while a host is named: the record says who it was.
  if (!byLink(party) && !progress.hostName) return refuse('host_wanted');
  if (command.type === 'agree')
    return progress.agreedAt ? accept() : accept({ type: 'agreed', partyId: party.id, agreement: command.agreement });
  if (!progress.agreedAt) return refuse('not_agreed');
  switch (command.type) {
    case 'set_hand':
      return accept({ type: 'hand_set', partyId: party.id, hand: command.hand });
    case 'fill':
      return decideFill(state, party, command);
    case 'finish':
      return decideFinish(state, party, command);
    default:
      return refuse('not_your_turn');
  }
}

function decideQuestion(state: PacketState, command: { partyId: string; questionId: string; text: string }): Decision {
  const text = command.text.trim();
  if (!text) return refuse('question_wanted');
  // The same question sent again is the same question.
  if (state.questions.some((q) => q.id === command.questionId)) return accept();
  if (state.questions.filter((q) => q.partyId === command.partyId && !q.answer).length >= MAX_QUESTIONS)
    return refuse('too_many_questions');
  return accept({ type: 'question_asked', partyId: command.partyId, questionId: command.questionId, text });
}

function decideHandOver(
  state: PacketState,
  party: PacketParty,
  command: { contact: Contact; reason: string },
): Decision {
  if (!state.plan.handOver || !byLink(party) || receives(party) || party.memberId) return refuse('no_handing_over');
  if (hasActed(state, party.id)) return refuse('has_acted');
  const contact = { ...command.contact, name: command.contact.name.trim(), email: command.contact.email.trim() };
  if (!contact.name || !isEmail(contact.email)) return refuse('bad_contact');
  if (party.secondStep === 'phone' && !contact.phone) return refuse('bad_contact');
  const reason = command.reason.trim();
  if (!reason) return refuse('reason_wanted');
  return accept({ type: 'handed_over', partyId: party.id, contact, reason });
}

function decideFill(
  state: PacketState,
  party: PacketParty,
  command: { markId: string; text?: string; file?: AddedFile; actId: string },
): Decision {
  const { markId, actId } = command;
  const mark = state.plan.marks.find((m) => m.id === markId);
  if (!mark) return refuse('unknown_mark');
  if (mark.partyId !== party.id) return refuse('not_your_mark');
  if (isAutomatic(mark.kind)) return refuse('fills_itself');
  if (!isForClient(mark)) return refuse('filled_by_sender');
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
  const how = filledHow(mark.kind);
  if (how.by === 'hand') {
    const hand = progressOf(state, party.id).hand;
    if (!hand) return refuse('no_hand');
    // A signature is final: the same act again changes nothing.
    if (state.fills.has(mark.id)) return accept();
    return accept(filled({ hand: hand.seq }));
  }
  // What was written into the documents with an earlier seal stays as signed.
  if (state.fills.has(mark.id) && progressOf(state, party.id).again) return refuse('already_done');
  const text = command.text ?? '';
  if (how.by === 'file') {
    if (command.file) return accept(filled({ file: command.file }));
    return state.fills.has(mark.id) ? accept(cleared(markId, actId)) : refuse('file_wanted');
  }
  // Writing nothing clears the mark.
  if (!text.trim() && state.fills.has(mark.id)) return accept(cleared(markId, actId));
  if (how.by === 'touch') {
    if (!text.trim()) return accept();
    if (state.fills.has(mark.id)) return accept();
    const others = state.plan.marks.filter(
      (m) => mark.group && m.group === mark.group && m.id !== markId && m.partyId === party.id && state.fills.has(m.id),
    );
    return accept(...others.map((m) => cleared(m.id, `${actId}.${m.id}`)), filled({ tick: true }));
  }
  const checked = validateValue(mark, text);
  return checked.ok
    ? accept(filled({ text: checked.value }))
    : refuseWith('bad_value', checked.sentence, { sentence: checked.sentence });
}

function decideFinish(state: PacketState, party: PacketParty, command: { actId: string; dateText: string }): Decision {
  const left = marksLeft(state, party.id);
  if (left.length) return refuse('marks_left', { name: firstName(party.name), n: left.length });
  const out: PacketEventBody[] = [];
  for (const m of inReadingOrder(state.plan)) {
    const how = filledHow(m.kind);
    if (m.partyId !== party.id || how.by !== 'itself' || state.fills.has(m.id)) continue;
    const text = how.text({ party, dateText: command.dateText });
    out.push({
      type: 'mark_filled',
      partyId: party.id,
      markId: m.id,
      value: { text },
      actId: `${command.actId}.${m.id}`,
    });
  }
  out.push({ type: 'party_done', partyId: party.id, actId: command.actId });
  if (!isHeld(state, [party.id])) out.push(...advanceGate(state, [party.id]));
  return accept(...out);
}
