/** What happens by itself: seals, the passing of time, messages that come back, locks. */
import { byLink, receives } from '../packet/acts';
import { dayOf, endOfDay, morningOf, nudgeDays, warnDay } from '../calendar';
import { countsFrom, deliveredBy } from './delivery';
import { partyOf, waitingFor } from './progress';
import { accept, refuse, type Decision } from './refusal';
import type { PacketEventBody, PacketState, SealedFile } from './types';
import { lastOf } from '../sure';
import { progressOf } from './progress';
import { isOneOf } from '../sure';

/** A command of the system: time, seals, delivery, returned mail. */
export type SystemCommand =
  /** `today` is the day in the deal's time zone; `working` whether its morning hour has come. */
  | { type: 'tick'; today: string; working: boolean }
  | { type: 'lock'; partyId: string }
  /** A message reached the party's mail server or phone. */
  | { type: 'arrive'; partyId: string; channel: 'email' | 'phone' }
  | { type: 'bounce'; partyId: string; channel: 'email' | 'phone'; why: string }
  | { type: 'revise'; forSeq: number; documents: SealedFile[] }
  | { type: 'seal'; documents: SealedFile[] };

const SYSTEM: SystemCommand['type'][] = ['tick', 'lock', 'arrive', 'bounce', 'revise', 'seal'];

/** Returns whether a command comes from the clock, the sealing or returned mail, and not from a person. */
export function isSystem(command: { type: string }): command is SystemCommand {
  return isOneOf(SYSTEM, command.type);
}

/**
 * Decides a command of the system.
 *
 * @returns its events, or a refusal if it is too late, as the second of two seals
 */
export function decideSystem(state: PacketState, command: SystemCommand): Decision {
  switch (command.type) {
    case 'revise': {
      const due = state.due[0];
      if (!due || due.seq !== command.forSeq) return accept();
      return accept({ type: 'revised', forSeq: due.seq, partyId: due.partyId, documents: command.documents });
    }
    case 'seal':
      if (state.status !== 'executed') return refuse('not_executed');
      if (state.sealed) return refuse('already_sealed');
      return accept({ type: 'sealed', documents: command.documents });
    case 'arrive': {
      const party = partyOf(state.plan, command.partyId);
      if (!party) return refuse('unknown_party');
      if (!receives(party) || progressOf(state, party.id).arrivedAt || state.status !== 'at_gate') return accept();
      return accept({ type: 'arrived', partyId: party.id, channel: command.channel });
    }
    case 'bounce':
      if (!partyOf(state.plan, command.partyId)) return refuse('unknown_party');
      if (progressOf(state, command.partyId).bounced === command.why) return accept();
      return accept({ type: 'bounced', partyId: command.partyId, channel: command.channel, why: command.why });
    case 'lock':
      if (!state.parties[command.partyId]) return refuse('unknown_party');
      if (state.status !== 'at_gate' || progressOf(state, command.partyId).locked) return accept();
      return accept({ type: 'locked', partyId: command.partyId });
    case 'tick':
      return decideTick(state, command);
  }
}

/** Returns the days on which a party asked at an instant is nudged. */
export function nudgesOf(state: PacketState, askedAt: string): string[] {
  const { schedule, timeZone, holidays } = state.plan;
  return schedule ? nudgeDays(schedule, askedAt, timeZone, holidays ?? []) : [];
}

/** Decides what is due on a day: the lapse, otherwise the warning and the nudges. */
function decideTick(state: PacketState, { today, working }: { today: string; working: boolean }): Decision {
  const { schedule, timeZone } = state.plan;
  if (state.status !== 'at_gate') return accept();
  const delivered = working ? deliveredBy(state, today) : [];
  // Other gates that are due are examined once the gate after it is open.
  if (delivered.length || !schedule) return accept(...delivered);
  const { lastDay } = schedule;
  // The last day lasts until its end; a delivery has none.
  if (lastDay && today > lastDay && signersWait(state)) return accept({ type: 'lapsed', lastDay });
  if (!working) return accept();
  const out: PacketEventBody[] = [];
  const warning = warnDay(schedule);
  const warned = lastDay && warning && today >= warning && state.warnedFor !== lastDay;
  if (warned) out.push({ type: 'warned', lastDay });
  for (const p of waitingFor(state)) {
    const s = progressOf(state, p.id);
    // A person who signs at the desk is called in, not written to.
    if (!s.askedAt || !byLink(p)) continue;
    const passed = nudgesOf(state, s.askedAt).filter((d) => d <= today);
    // Several nudges missed while the server was down become one.
    const due = passed.length > 0 && (!s.nudges.lastAt || dayOf(s.nudges.lastAt, timeZone) < lastOf(passed));
    if (due && s.nudges.n < (schedule.nudge?.most ?? 0)) out.push({ type: 'nudged', partyId: p.id, n: s.nudges.n + 1 });
  }
  return accept(...out);
}

/** Returns whether a party that has to act is waited for. */
const signersWait = (state: PacketState) => waitingFor(state).some((p) => !receives(p));

/** Returns the next instant at which the calendar has something to do with a packet; null for never. */
export function nextTick(state: PacketState): string | null {
  const { schedule, timeZone } = state.plan;
  if (state.status !== 'at_gate') return null;
  const times = waitingFor(state).flatMap((p) => {
    const counted = receives(p) ? countsFrom(state, p.id) : null;
    return counted ? [morningOf(counted.day, timeZone)] : [];
  });
  if (!schedule) return times.sort()[0] ?? null;
  const { lastDay } = schedule;
  if (lastDay && signersWait(state)) times.push(endOfDay(lastDay, timeZone));
  const warning = warnDay(schedule);
  if (warning && state.warnedFor !== lastDay) times.push(morningOf(warning, timeZone));
  for (const p of waitingFor(state)) {
    const s = progressOf(state, p.id);
    if (!s.askedAt || !byLink(p) || s.nudges.n >= (schedule.nudge?.most ?? 0)) continue;
    const last = s.nudges.lastAt && dayOf(s.nudges.lastAt, timeZone);
    const next = nudgesOf(state, s.askedAt).find((d) => !last || d > last);
    if (next) times.push(morningOf(next, timeZone));
  }
  return times.sort()[0] ?? null;
}
