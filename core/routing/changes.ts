/** Changes by the sender after sending. */
import { byLink, ACT_FACTS } from '../packet/acts';
import { isDay } from '../calendar';
import { isEmail } from '../text/email';
import { signsDocument } from '../packet/place-party';
import type { Act, Mark, Redline, Gate, PacketParty, PlanDocument } from '../packet/types';
import { decideLetter } from './delivery';
import { aheadOnly, pathProblem, readersOf, same } from './gates';
import { decideAct, decideRemove, decideMarks } from './people-changes';
import { doneWith, gateOf, hasActed, isNeeded, isTurnOf, partyOf, stillIn, waitingFor } from './progress';
import { accept, refuse, refuseWith, type Decision } from './refusal';
import type { Contact, PacketEventBody, PacketState } from './types';
import { progressOf } from './progress';
import { isOneOf } from '../sure';

/** A change by the sender after sending. */
export type ChangeCommand =
  | { type: 'withdraw'; reason: string; newVersion?: string }
  | { type: 'correct_party'; partyId: string; contact: Contact }
  | { type: 'set_path'; gates: Gate[] }
  | { type: 'add_party'; party: PacketParty; gates: Gate[]; marks: Mark[] }
  | { type: 'add_document'; document: PlanDocument; marks: Mark[] }
  | { type: 'drop_party'; partyId: string; reason: string }
  /** `marks` are those to add, for a person who had nothing to fill. */
  | { type: 'change_act'; partyId: string; act: Act; only?: string[]; gates: Gate[]; marks: Mark[] }
  /** A mark that moves gets a new id: a sealed file may have reserved room for the old one. */
  | { type: 'change_marks'; partyId: string; put: Mark[]; drop: string[] }
  | { type: 'set_reading'; allowed: boolean }
  | { type: 'correct'; redline: Redline; marks: Mark[] }
  /** `today` is the day in the deal's time zone. */
  | { type: 'extend'; lastDay: string; today: string }
  | { type: 'nudge'; partyIds?: string[]; words?: string }
  | { type: 'answer'; questionId: string; text: string }
  | { type: 'unlock'; partyId: string }
  | { type: 'renew_link'; partyId: string }
  | { type: 'host'; partyId: string; hostName: string }
  /** `day` is the day it was sent, `today` the day in the deal's time zone. */
  | { type: 'letter'; partyId: string; day: string; way: 'post' | 'hand'; today: string };

const CHANGES: ChangeCommand['type'][] = [
  'withdraw',
  'correct_party',
  'set_path',
  'add_party',
  'add_document',
  'drop_party',
  'change_act',
  'change_marks',
  'set_reading',
  'correct',
  'extend',
  'nudge',
  'answer',
  'unlock',
  'renew_link',
  'host',
  'letter',
];

/** Returns whether a command is a change by the sender. */
export function isChange(command: { type: string }): command is ChangeCommand {
  return isOneOf(CHANGES, command.type);
}

/** Decides a change by the sender. A lapsed packet can only be extended. */
export function decideChange(state: PacketState, command: ChangeCommand): Decision {
  if (command.type === 'extend') return decideExtend(state, command);
  // A late answer still reaches the person who asked.
  if (state.status !== 'at_gate' && command.type !== 'answer') return refuse(`ended_${state.status}`);
  switch (command.type) {
    case 'withdraw':
      return command.reason.trim()
        ? accept({
            type: 'withdrawn',
            reason: command.reason.trim(),
            ...(command.newVersion ? { newVersion: command.newVersion } : {}),
          })
        : refuse('reason_wanted');
    case 'answer': {
      if (!state.questions.some((q) => q.id === command.questionId)) return refuse('unknown_question');
      const question = state.questions.find((q) => q.id === command.questionId)!;
      const text = command.text.trim();
      if (!text) return refuse('question_wanted');
      return accept({
        type: 'question_answered',
        partyId: question.partyId,
        questionId: question.id,
        text,
      });
    }
    case 'set_path':
      return decidePath(state, command.gates);
    case 'add_party':
      return decideAddParty(state, command);
    case 'add_document':
      return decideAddDocument(state, command);
    case 'correct':
      return decideCorrection(state, command);
    case 'set_reading':
      return decideReading(state, command.allowed);
    case 'letter':
      return decideLetter(state, command);
    case 'nudge':
      return decideNudge(state, command);
    default:
      return decideAboutParty(state, command);
  }
}

function decideAboutParty(
  state: PacketState,
  command: Extract<
    ChangeCommand,
    {
      type: 'correct_party' | 'unlock' | 'renew_link' | 'host' | 'drop_party' | 'change_act' | 'change_marks';
    }
  >,
): Decision {
  const party = partyOf(state.plan, command.partyId);
  const progress = state.parties[command.partyId];
  if (!party || !progress) return refuse('unknown_party');
  const { partyId } = command;
  if (progress.status === 'dropped') return command.type === 'drop_party' ? accept() : refuse('unknown_party');
  switch (command.type) {
    case 'drop_party':
      return decideRemove(state, party, command.reason.trim());
    case 'change_act':
      return decideAct(state, party, command);
    case 'change_marks':
      return decideMarks(state, party, command);
    case 'correct_party': {
      const contact = { ...command.contact, name: command.contact.name.trim(), email: command.contact.email.trim() };
      if (!contact.name) return refuse('bad_contact');
      // A person who signs at the desk, or is a member, needs no address.
      if (contact.email ? !isEmail(contact.email) : byLink(party)) return refuse('bad_contact');
      if (contact.name !== party.name && hasActed(state, partyId)) return refuse('has_acted');
      return accept({ type: 'party_corrected', partyId, contact });
    }
    case 'unlock':
      return progress.locked ? accept({ type: 'unlocked', partyId }) : accept();
    case 'renew_link':
      return progress.askedAt ? accept({ type: 'link_renewed', partyId }) : refuse('not_your_turn');
    case 'host':
      if (!isTurnOf(state, partyId)) return refuse('not_your_turn');
      return progress.hostName === command.hostName
        ? accept()
        : accept({ type: 'hosted', partyId, hostName: command.hostName });
  }
}

function decidePath(state: PacketState, gates: Gate[]): Decision {
  const wrong = aheadOnly(state, gates) ?? pathProblem({ parties: stillIn(state), gates });
  if (wrong) return refuseWith('bad_plan', wrong);
  return same(gates, state.plan.gates) ? accept() : accept({ type: 'path_changed', gates });
}

function decideAddParty(
  state: PacketState,
  { party, gates, marks }: { party: PacketParty; gates: Gate[]; marks: Mark[] },
): Decision {
  if (partyOf(state.plan, party.id)) return refuseWith('bad_plan', `${party.name} is in this packet already.`);
  if (party.email ? !isEmail(party.email) : byLink(party) && !party.memberId) return refuse('bad_contact');
  const wrong = aheadOnly(state, gates) ?? pathProblem({ parties: [...stillIn(state), party], gates });
  if (wrong) return refuseWith('bad_plan', wrong);
  const stray = marks.find(
    (m) =>
      m.partyId !== party.id ||
      !state.plan.documents.some((d) => d.id === m.documentId && m.page <= d.pages.length) ||
      state.plan.marks.some((x) => x.id === m.id),
  );
  if (stray) return refuseWith('bad_plan', 'A new mark is not the new person’s, or not on a page of this packet.');
  if (ACT_FACTS[party.act].signs && !marks.some((m) => m.kind === 'signature' || m.kind === 'initials'))
    return refuseWith('bad_plan', `${party.name} would have nothing to sign. Choose where they sign.`);
  const reads = state.plan.readAlong && gates.slice(state.gate + 1).some((g) => g.partyIds.includes(party.id));
  return accept(
    { type: 'party_added', party, gates, marks },
    ...(reads ? readersOf({ ...state.plan, parties: [party], gates }, state.gate) : []),
  );
}

/** Returns the parties at later gates: only they get a document that is added now. */
export function ahead(state: PacketState): PacketParty[] {
  return stillIn(state).filter((p) => gateOf(state.plan, p.id) > state.gate);
}

function decideAddDocument(
  state: PacketState,
  { document, marks }: { document: PlanDocument; marks: Mark[] },
): Decision {
  if (state.plan.documents.some((d) => d.id === document.id))
    return refuseWith('bad_plan', `“${document.name}” is in this packet already.`);
  const later = new Set(ahead(state).map((p) => p.id));
  if (!later.size)
    return refuseWith('bad_plan', 'No one is after the open gate. Start a new packet for this document.');
  if (marks.some((m) => m.documentId !== document.id || !later.has(m.partyId)))
    return refuseWith('bad_plan', 'A document that is added now can be signed only by people whose gate is ahead.');
  return accept({ type: 'document_added', document, marks });
}

function decideCorrection(state: PacketState, { redline, marks }: { redline: Redline; marks: Mark[] }): Decision {
  const doc = state.plan.documents.find((d) => d.id === redline.documentId);
  if (!doc || redline.page < 1 || redline.page > doc.pages.length)
    return refuseWith('bad_plan', 'The change is not on a page of this packet.');
  if ((state.plan.redlines ?? []).some((r) => r.id === redline.id)) return accept();
  const signers = initialsOfChange(state, doc.id);
  const wrong = marks.find(
    (m) =>
      m.kind !== 'initials' ||
      !m.required ||
      m.redlineId !== redline.id ||
      !signers.some((p) => p.id === m.partyId) ||
      m.documentId !== doc.id ||
      state.plan.marks.some((x) => x.id === m.id),
  );
  if (wrong) return refuseWith('bad_plan', 'A change calls for initials beside it, and for nothing else.');
  const without = signers.find((p) => !marks.some((m) => m.partyId === p.id));
  if (without)
    return refuseWith(
      'bad_plan',
      `There is no room for ${without.name}’s initials beside the change. Move it a little.`,
    );
  return accept(
    { type: 'corrected', redline, marks },
    ...doneWith(state, doc.id).map((p): PacketEventBody => ({
      type: 'asked_again',
      partyId: p.id,
      redlineId: redline.id,
    })),
  );
}

function decideReading(state: PacketState, allowed: boolean): Decision {
  if (!!state.plan.readAlong === allowed) return accept();
  const told = allowed ? readersOf(state.plan, state.gate) : [];
  return accept(
    { type: 'reading_changed', allowed },
    // A person notified once is not notified again when it is permitted again.
    ...told.filter((e) => !('partyId' in e) || !progressOf(state, e.partyId ?? '').shownAt),
  );
}

function decideExtend(state: PacketState, { lastDay, today }: { lastDay: string; today: string }): Decision {
  if (state.status !== 'at_gate' && state.status !== 'lapsed') return refuse(`ended_${state.status}`);
  if (!isDay(lastDay) || lastDay < today) return refuse('bad_day');
  if (state.status === 'at_gate' && state.plan.schedule?.lastDay === lastDay) return accept();
  return accept({ type: 'extended', lastDay });
}

function decideNudge(state: PacketState, { partyIds, words }: { partyIds?: string[]; words?: string }): Decision {
  const waited = waitingFor(state).filter((p) => !partyIds || partyIds.includes(p.id));
  if (!waited.length) return refuse('nobody_to_nudge');
  return accept(
    ...waited.map((p): PacketEventBody => ({
      type: 'nudged',
      partyId: p.id,
      n: progressOf(state, p.id).nudges.n + 1,
      ...(words ? { words } : {}),
    })),
  );
}

/** Returns who must initial a change of a document: those who sign it and were not excused. */
export function initialsOfChange(state: PacketState, documentId: string): PacketParty[] {
  return state.plan.parties.filter((p) => signsDocument(p, documentId) && isNeeded(progressOf(state, p.id).status));
}
