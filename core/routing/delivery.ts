/** Delivery: the day something counts as delivered, and what follows when that day comes or it is opened. */
import { dayOf, dueDay, shortDay, type DueDay } from '../calendar';
import { receives } from '../packet/acts';
import type { DeemedAfter, Delivery, Plan } from '../packet/types';
import { isHeld, partyOf, progressOf, waitingFor } from './progress';
import { advanceGate } from './advance-gate';
import { accept, refuse, type Decision } from './refusal';
import type { PacketEventBody, PacketState } from './types';

/** How days are counted if no rule says otherwise. */
export const USUAL_DELIVERY: Delivery = {
  link: { n: 1, unit: 'business_days' },
  post: { n: 3, unit: 'business_days' },
  hand: { n: 0, unit: 'days' },
};

/** Returns the day something counts as delivered, given the day it was sent. */
export function deliveredAfter(after: DeemedAfter, from: string, holidays: readonly string[]): DueDay {
  return dueDay({ ...after, way: 'after', roll: after.unit === 'business_days' }, from, holidays);
}

/**
 * Returns the day on which what was sent to a party counts as delivered.
 *
 * @returns null while there is none: nothing was sent yet, or the message came back and no letter was mailed
 */
export function countsFrom(state: PacketState, partyId: string): DueDay | null {
  const { plan } = state;
  const party = partyOf(plan, partyId);
  const s = state.parties[partyId];
  if (!party || !s?.askedAt) return null;
  const rule = plan.delivery ?? USUAL_DELIVERY;
  const off = plan.holidays ?? [];
  if (s.letter) return deliveredAfter(rule[s.letter.way], s.letter.day, off);
  const opened = s.openedAt && dayOf(s.openedAt, plan.timeZone);
  // Whoever opened it has it, whatever happened to a message.
  if (opened && (s.bounced || !isWrittenTo(plan, partyId)))
    return { day: opened, why: `${shortDay(opened)}: it was opened` };
  if (s.bounced || !isWrittenTo(plan, partyId)) return null;
  return deliveredAfter(rule.link, dayOf(s.writtenAt ?? s.askedAt, plan.timeZone), off);
}

/** Returns whether messages can be sent to a party. A member is notified in the application. */
export function isWrittenTo(plan: Plan, partyId: string): boolean {
  const p = partyOf(plan, partyId);
  return !!p && (!!p.email || !!p.phone || !!p.memberId);
}

/** Returns whether a party is to get a letter on paper that was not sent yet. */
export function wantsLetter(state: PacketState, partyId: string): boolean {
  const p = partyOf(state.plan, partyId);
  const s = state.parties[partyId];
  if (!p || !s?.askedAt || !receives(p) || s.letter || s.status === 'done' || s.status === 'dropped') return false;
  return !!s.bounced || !isWrittenTo(state.plan, partyId);
}

/** Decides that a party opened it, which delivers it. */
export function decideOpened(state: PacketState, partyId: string): Decision {
  const s = progressOf(state, partyId);
  const opened: PacketEventBody[] = s.openedAt ? [] : [{ type: 'opened', partyId }];
  if (s.status === 'done' || state.status !== 'at_gate') return accept(...opened);
  const today = countsFrom(state, partyId)?.day;
  return accept(
    ...opened,
    { type: 'delivered', partyId, how: 'opened', day: today ?? null },
    ...passing(state, [partyId]),
  );
}

/** Returns the events for people of the open gate for whom it counts as delivered by a day. */
export function deliveredBy(state: PacketState, today: string): PacketEventBody[] {
  const due = waitingFor(state).flatMap((p) => {
    const day = receives(p) ? countsFrom(state, p.id)?.day : undefined;
    return day && day <= today ? [{ partyId: p.id, day }] : [];
  });
  if (!due.length) return [];
  return [
    ...due.map(({ partyId, day }): PacketEventBody => ({ type: 'delivered', partyId, how: 'deemed', day })),
    ...passing(
      state,
      due.map((d) => d.partyId),
    ),
  ];
}

const passing = (state: PacketState, done: string[]): PacketEventBody[] =>
  isHeld(state, done) ? [] : advanceGate(state, done);

/** Decides that a letter was mailed or handed over. */
export function decideLetter(
  state: PacketState,
  { partyId, day, way, today }: { partyId: string; day: string; way: 'post' | 'hand'; today: string },
): Decision {
  const party = partyOf(state.plan, partyId);
  const s = state.parties[partyId];
  if (!party || !s || s.status === 'dropped') return refuse('unknown_party');
  if (!receives(party) || !s.askedAt) return refuse('not_your_turn');
  if (s.status === 'done') return refuse('already_done');
  if (day > today || day < dayOf(s.askedAt, state.plan.timeZone)) return refuse('bad_letter_day');
  if (s.letter?.day === day && s.letter.way === way) return accept();
  return accept({ type: 'letter_went', partyId, day, way });
}
