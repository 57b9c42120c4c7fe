/** Reasons for which a command is refused. */
import { ENGLISH, say, type WordParams } from '../words';
import type { PacketEventBody } from './types';

/** Codes of all refusals; their words are in the language files. */
export const REFUSALS = [
  'already_sent',
  'not_sent',
  'ended_executed',
  'ended_withdrawn',
  'ended_declined',
  'ended_lapsed',
  'unknown_party',
  'not_your_turn',
  'already_done',
  'not_agreed',
  'no_hand',
  'unknown_mark',
  'not_your_mark',
  'fills_itself',
  'filled_by_sender',
  'file_wanted',
  'bad_value',
  'marks_left',
  'not_executed',
  'already_sealed',
  'bad_plan',
  'reason_wanted',
  'has_acted',
  'no_handing_over',
  'bad_contact',
  'host_wanted',
  'locked',
  'question_wanted',
  'too_many_questions',
  'unknown_question',
  'nobody_to_nudge',
  'bad_day',
  'bad_letter_day',
] as const;
/** One of `REFUSALS`. */
export type RefusalCode = (typeof REFUSALS)[number];

/** `code` is stable and names the sentence in every language; `sentence` is the English one. */
export interface Refusal {
  code: RefusalCode;
  params: WordParams;
  sentence: string;
}

/** The decision on a command: events, or a refusal. */
export type Decision = { ok: true; events: PacketEventBody[] } | { ok: false; refusal: Refusal };

/**
 * Accepts a command: the events it makes, in order; none if it changes nothing.
 *
 * @example accept({ type: 'gate_opened', gate: 0 })
 */
export const accept = (...events: PacketEventBody[]): Decision => ({ ok: true, events });
/**
 * Refuses a command: a stable code, its parameters, and the sentence in English.
 *
 * @example refuse('reason_wanted')
 */
export const refuse = (code: RefusalCode, params: WordParams = {}): Decision => ({
  ok: false,
  refusal: { code, params, sentence: say(ENGLISH, `refusal.${code}`, params) },
});
/** Refuses with given words: for members only, or with words that were already found. */
export const refuseWith = (code: RefusalCode, sentence: string, params: WordParams = {}): Decision => ({
  ok: false,
  refusal: { code, params, sentence },
});
