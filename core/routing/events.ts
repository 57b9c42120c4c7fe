/** What is known of each event besides its effect on the state: one entry each, required by the compiler. */
import { ACT_FACTS } from '../packet/acts';
import { count } from '../text/names';
import type { PacketEvent, PacketEventBody, PacketEventType } from './types';

/** What is known of a kind of event besides its effect on the state. */
export interface EventFacts {
  /** It follows from another act (a gate opens): it is the system's, whoever acted. */
  consequence?: true;
  /** It changes parties, gates, documents or marks of the plan. */
  changesPlan?: true;
  /** It changes which files the packet needs. */
  changesFiles?: true;
}

/** Names as they were when an event happened. */
export interface NamesThen {
  /** Returns a party's name by its id. */
  of(partyId: string): string;
  documents: ReadonlyMap<string, string>;
}

/** Whom an event is about, and who caused it. */
interface Told {
  /** The name of the party it is about. */
  who: string;
  /** The name of the member who did it. */
  by: string;
  names: NamesThen;
}

type BodyOf<T extends PacketEventType> = Extract<PacketEventBody, { type: T }>;

/** An event's facts, and its line in the packet's activity; null if it is not listed by itself. */
type Entry<T extends PacketEventType> = EventFacts & { line: ((told: Told, body: BodyOf<T>) => string) | null };

const STEP_DONE = {
  code: 'gave the access code',
  email: 'gave the code sent by email',
  phone: 'gave the code sent by text message',
} as const;

/** What each event changes, and its line in the activity; adding an event is one entry here. */
export const EVENTS: { [T in PacketEventType]: Entry<T> } = {
  sent: { changesPlan: true, changesFiles: true, line: ({ by }) => `${by} sent the packet.` },
  gate_opened: { consequence: true, line: (_told, b) => `Gate ${b.gate + 1} opened.` },
  asked: { consequence: true, line: ({ who }) => `${who} was asked.` },
  opened: { line: ({ who }) => `${who} opened the packet.` },
  agreed: { line: ({ who }) => `${who} agreed to sign electronically.` },
  hand_set: { changesFiles: true, line: null },
  mark_filled: { changesFiles: true, line: null },
  mark_cleared: { changesFiles: true, line: null },
  party_done: { line: ({ who }) => `${who} finished.` },
  arrived: { line: ({ who }, b) => `The message reached ${who}’s ${b.channel === 'phone' ? 'phone' : 'mail server'}.` },
  letter_went: {
    line: ({ who, by }, b) =>
      b.way === 'post' ? `${by} posted the letter to ${who}, ${b.day}.` : `${by} handed ${who} the letter, ${b.day}.`,
  },
  delivered: {
    consequence: true,
    line: ({ who }, b) => `It counts as delivered to ${who}${b.day ? ` on ${b.day}` : ''}.`,
  },
  gate_passed: { consequence: true, line: (_told, b) => `Gate ${b.gate + 1} passed.` },
  excused: { consequence: true, line: ({ who }) => `${who} is no longer needed: one person at this gate was enough.` },
  executed: { consequence: true, line: () => 'Everyone is done: the packet is executed.' },
  declined: { line: ({ who }, b) => `${who} declined: “${b.reason}”` },
  withdrawn: {
    line: ({ by }, b) =>
      b.newVersion
        ? `${by} recalled the packet for a new version: “${b.reason}”`
        : `${by} withdrew the packet: “${b.reason}”`,
  },
  lapsed: { line: () => 'The last day for signing passed: the packet has lapsed.' },
  proved: { line: ({ who }, b) => `${who} ${STEP_DONE[b.step]}.` },
  locked: { line: ({ who }) => `${who} was locked out after too many wrong codes.` },
  unlocked: { line: ({ who, by }) => `${by} let ${who} try again.` },
  language_chosen: { line: null },
  hosted: { line: ({ who }, b) => `${b.hostName} opened the packet for ${who} at the desk.` },
  link_renewed: { line: ({ who, by }) => `${by} sent ${who} a new link.` },
  bounced: { line: ({ who }, b) => `The message to ${who} came back: ${b.why}` },
  question_asked: { line: ({ who }, b) => `${who} asked: “${b.text}”` },
  question_answered: { line: ({ who, by }, b) => `${by} answered ${who}: “${b.text}”` },
  party_corrected: {
    changesPlan: true,
    line: ({ who, by }, b) =>
      who === b.contact.name
        ? `${by} corrected how ${who} is reached; the old link ended.`
        : `${by} corrected ${who} to ${b.contact.name}; the old link ended.`,
  },
  handed_over: { changesPlan: true, line: ({ who }, b) => `${who} handed over to ${b.contact.name}: “${b.reason}”` },
  path_changed: { changesPlan: true, line: ({ by }) => `${by} changed the gates ahead.` },
  party_added: { changesPlan: true, line: ({ by }, b) => `${by} added ${b.party.name}.` },
  document_added: {
    changesPlan: true,
    changesFiles: true,
    line: ({ by }, b) => `${by} added “${b.document.name}” for people at later gates.`,
  },
  party_dropped: {
    changesPlan: true,
    line: ({ who, by }, b) => `${by} removed ${who} from the packet: “${b.reason}”`,
  },
  act_changed: {
    changesPlan: true,
    line: ({ who, by }, b) => `${by} changed what ${who} does: ${ACT_FACTS[b.act].does}.`,
  },
  marks_changed: {
    changesPlan: true,
    line: ({ who, by }, b) => {
      const gone = b.dropped.length - b.put.length;
      return gone > 0
        ? `${by} took ${count(gone, 'mark')} of ${who}’s away${b.put.length ? ', and changed others' : ''}.`
        : gone < 0 && b.dropped.length === 0
          ? `${by} put ${count(b.put.length, 'mark')} for ${who} on the pages.`
          : `${by} changed where ${who} signs.`;
    },
  },
  reading_changed: {
    changesPlan: true,
    line: ({ by }, b) =>
      b.allowed
        ? `${by} lets people at later gates read along.`
        : `${by} no longer lets people read before their gate.`,
  },
  shown: { consequence: true, line: ({ who }) => `${who} may read along.` },
  corrected: {
    changesPlan: true,
    line: ({ by, names }, b) =>
      `${by} changed “${names.documents.get(b.redline.documentId) ?? 'a document'}”, page ${b.redline.page}: ${
        b.redline.kind === 'strike' ? 'struck' : 'inserted'
      } “${b.redline.text.slice(0, 120)}”.`,
  },
  asked_again: { consequence: true, line: ({ who }) => `${who} was asked to initial the change.` },
  extended: { line: ({ by }, b) => `${by} extended the last day to ${b.lastDay}.` },
  nudged: { line: ({ who }, b) => `${who} was reminded${b.n > 1 ? ` (${b.n} times by now)` : ''}.` },
  warned: { line: () => 'Those who are waited for were warned of the last day.' },
  revised: { changesFiles: true, line: null },
  sealed: {
    changesFiles: true,
    line: (_told, b) =>
      `The sealed ${b.documents.filter((d) => !d.recordOf).length === 1 ? 'copy is' : 'copies are'} ready.`,
  },
};

/** Returns an event as a sentence for members. */
export function sentenceOf({ body, actor }: Pick<PacketEvent, 'body' | 'actor'>, names: NamesThen): string | null {
  const told: Told = {
    names,
    who: 'partyId' in body && body.partyId ? names.of(body.partyId) : '',
    by: actor.kind === 'member' ? `${actor.name}${actor.for ? ` for ${actor.for.name}` : ''}` : 'The sender',
  };
  return lineOf(body, told);
}

function lineOf<T extends PacketEventType>(body: BodyOf<T>, told: Told): string | null {
  const { line }: Entry<T> = EVENTS[body.type];
  return line && line(told, body);
}
