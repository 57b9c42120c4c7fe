import { NO_SCHEDULE } from '../calendar';
import { itemAt } from '../sure';
import { withAct, withContact, withDocument, withMarks, without } from './plan-changes';
import { progressOf } from './progress';
import type { PacketEvent, PacketState, PartyProgress } from './types';

const FRESH: PartyProgress = {
  status: 'waiting',
  askedAt: null,
  openedAt: null,
  agreedAt: null,
  doneAt: null,
  lastActAt: null,
  hand: null,
  reason: null,
  again: false,
  proved: null,
  locked: false,
  hostName: null,
  bounced: null,
  nudges: { n: 0, lastAt: null },
  before: [],
};

/**
 * Tracks which parts of a state belong to this replay and may be changed in place. A part is copied when it is first
 * changed, so replaying takes time linear in the log.
 */
class Own {
  private readonly parts = new Set<string>();
  private readonly people = new Map<string, PartyProgress>();

  part<K extends 'hands' | 'parties'>(state: PacketState, name: K): PacketState[K] {
    if (!this.parts.has(name)) {
      state[name] = { ...state[name] };
      this.parts.add(name);
    }
    return state[name];
  }

  fills(state: PacketState): PacketState['fills'] {
    if (!this.parts.has('fills')) {
      state.fills = new Map(state.fills);
      this.parts.add('fills');
    }
    return state.fills;
  }

  /**
   * Returns a party's progress for changing: a copy the first time, that copy afterwards.
   *
   * @throws if the packet has no such party: then the log is damaged
   */
  party(state: PacketState, id: string): PartyProgress {
    const was = state.parties[id];
    if (!was) throw new Error(`event ${state.seq} names a party that is not in the packet`);
    if (this.people.get(id) === was) return was;
    const mine = { ...was };
    this.people.set(id, mine);
    this.part(state, 'parties')[id] = mine;
    return mine;
  }

  list<K extends 'questions' | 'corrections' | 'revisions' | 'due'>(state: PacketState, name: K): PacketState[K] {
    if (!this.parts.has(name)) {
      state[name] = [...state[name]] as PacketState[K];
      this.parts.add(name);
    }
    return state[name];
  }
}

/**
 * Returns the state after one more event. Pure: unchanged parts are shared.
 *
 * @throws if the events are out of order, or the first is not `sent`: then the log is damaged
 */
export function evolve(state: PacketState | null, event: PacketEvent): PacketState {
  return step(state && { ...state }, event, new Own());
}

/** Applies one more event to a state that belongs to the caller. */
// eslint-disable-next-line max-lines-per-function -- one case for each event; the compiler sees that none is missing
function step(state: PacketState | null, event: PacketEvent, own: Own): PacketState {
  const { body, at, seq } = event;
  if (seq !== (state?.seq ?? 0) + 1) throw new Error(`event ${seq} cannot follow event ${state?.seq ?? 0}`);
  if (body.type === 'sent') {
    if (state) throw new Error('a packet is sent once');
    return {
      packetId: event.packetId,
      seq,
      status: 'at_gate',
      gate: -1,
      plan: body.plan,
      sentAt: at,
      endedAt: null,
      parties: Object.fromEntries(body.plan.parties.map((p) => [p.id, FRESH])),
      fills: new Map(),
      hands: {},
      sealed: null,
      questions: [],
      corrections: [],
      revisions: [],
      due: [],
      warnedFor: null,
    };
  }
  if (!state) throw new Error(`a packet begins with "sent", not with "${body.type}"`);
  const next = state;
  next.seq = seq;
  const party = (id: string, change: Partial<PartyProgress>) => Object.assign(own.party(next, id), change);
  switch (body.type) {
    case 'gate_opened':
      next.gate = body.gate;
      return next;
    case 'asked':
      party(body.partyId, { status: 'asked', askedAt: at, nudges: { n: 0, lastAt: null } });
      return next;
    case 'opened':
      // What counted as delivered before it was opened stays delivered.
      if (own.party(next, body.partyId).status === 'done') party(body.partyId, { openedAt: at, lastActAt: at });
      else party(body.partyId, { status: 'opened', openedAt: at, lastActAt: at });
      return next;
    case 'arrived':
      party(body.partyId, { arrivedAt: at });
      return next;
    case 'letter_went':
      party(body.partyId, { letter: { day: body.day, way: body.way } });
      return next;
    case 'delivered':
      party(body.partyId, { status: 'done', doneAt: at, delivered: { how: body.how, day: body.day } });
      return next;
    case 'agreed':
      party(body.partyId, { status: 'in_progress', agreedAt: at, lastActAt: at });
      return next;
    case 'hand_set':
      party(body.partyId, { hand: { seq, hand: body.hand }, lastActAt: at });
      own.part(next, 'hands')[seq] = { partyId: body.partyId, hand: body.hand };
      return next;
    case 'mark_filled': {
      // By far the most frequent event: nothing is allocated but the fill.
      const filler = own.party(next, body.partyId);
      filler.status = 'in_progress';
      filler.lastActAt = at;
      own.fills(next).set(body.markId, { value: body.value, at, seq, partyId: body.partyId });
      return next;
    }
    case 'mark_cleared':
      party(body.partyId, { status: 'in_progress', lastActAt: at });
      own.fills(next).delete(body.markId);
      return next;
    case 'party_done':
      party(body.partyId, { status: 'done', doneAt: at, lastActAt: at, again: false });
      own.list(next, 'due').push({ seq, at, partyId: body.partyId });
      return next;
    case 'excused':
      party(body.partyId, { status: 'excused' });
      return next;
    case 'gate_passed':
      next.gate = body.gate + 1;
      return next;
    case 'executed':
      return Object.assign(next, { status: 'executed', endedAt: at });
    case 'declined':
      party(body.partyId, { status: 'declined', lastActAt: at, reason: body.reason });
      return Object.assign(next, { status: 'declined', endedAt: at });
    case 'withdrawn':
      return Object.assign(next, { status: 'withdrawn', endedAt: at });
    case 'lapsed':
      return Object.assign(next, { status: 'lapsed', endedAt: at });
    case 'proved':
      party(body.partyId, { proved: { at, step: body.step }, lastActAt: at });
      return next;
    case 'locked':
      party(body.partyId, { locked: true });
      return next;
    case 'unlocked':
      party(body.partyId, { locked: false });
      return next;
    case 'language_chosen':
      next.plan = {
        ...state.plan,
        parties: state.plan.parties.map((p) => (p.id === body.partyId ? { ...p, language: body.language } : p)),
      };
      return next;
    case 'hosted':
      party(body.partyId, { hostName: body.hostName });
      return next;
    case 'link_renewed':
      party(body.partyId, { bounced: null, ...writtenAnew(own.party(next, body.partyId), at) });
      return next;
    case 'bounced':
      party(body.partyId, { bounced: body.why, arrivedAt: null });
      return next;
    case 'question_asked': {
      party(body.partyId, { lastActAt: at });
      const { questionId: id, partyId, text } = body;
      own.list(next, 'questions').push({ id, partyId, text, at, answer: null });
      return next;
    }
    case 'question_answered': {
      const by = event.actor.kind === 'member' ? event.actor.name : '';
      const asked = own.list(next, 'questions');
      const i = asked.findIndex((q) => q.id === body.questionId);
      if (i >= 0) asked[i] = { ...itemAt(asked, i), answer: { text: body.text, at, by } };
      return next;
    }
    case 'party_corrected': {
      const was = state.plan.parties.find((p) => p.id === body.partyId)!;
      // A new name needs a new signature: the one set under the old name is cleared.
      const anew = writtenAnew(own.party(next, body.partyId), at);
      party(body.partyId, { bounced: null, ...anew, ...(was.name === body.contact.name ? {} : { hand: null }) });
      next.plan = withContact(state.plan, body.partyId, body.contact);
      return next;
    }
    case 'handed_over': {
      const was = state.plan.parties.find((p) => p.id === body.partyId)!;
      const before = [
        ...progressOf(state, body.partyId).before,
        { name: was.name, email: was.email, at, reason: body.reason },
      ];
      party(body.partyId, {
        ...FRESH,
        again: progressOf(state, body.partyId).again,
        status: 'asked',
        askedAt: at,
        lastActAt: at,
        before,
      });
      next.plan = withContact(state.plan, body.partyId, body.contact);
      return next;
    }
    case 'path_changed':
      next.plan = { ...state.plan, gates: body.gates };
      return next;
    case 'party_added':
      own.part(next, 'parties')[body.party.id] = FRESH;
      next.plan = {
        ...state.plan,
        parties: [...state.plan.parties, body.party],
        gates: body.gates,
        marks: [...state.plan.marks, ...body.marks],
      };
      return next;
    case 'document_added':
      next.plan = withDocument(state, body);
      return next;
    case 'party_dropped':
      party(body.partyId, { status: 'dropped', reason: body.reason });
      next.plan = without(state, body.partyId);
      return next;
    case 'act_changed':
      next.plan = withAct(state.plan, body);
      return next;
    case 'marks_changed':
      next.plan = withMarks(state.plan, body);
      return next;
    case 'reading_changed':
      next.plan = { ...state.plan, readAlong: body.allowed };
      return next;
    case 'shown':
      party(body.partyId, { shownAt: at });
      return next;
    case 'corrected':
      next.plan = {
        ...state.plan,
        redlines: [...(state.plan.redlines ?? []), body.redline],
        marks: [...state.plan.marks, ...body.marks],
      };
      own.list(next, 'corrections').push({
        redline: body.redline,
        seq,
        at,
        by: event.actor.kind === 'member' ? event.actor.name : '',
        askedAgain: [],
      });
      own.list(next, 'due').push({ seq, at, partyId: null });
      return next;
    case 'asked_again': {
      party(body.partyId, {
        status: 'asked',
        again: true,
        askedAt: at,
        openedAt: null,
        doneAt: null,
        nudges: { n: 0, lastAt: null },
      });
      const changes = own.list(next, 'corrections');
      const i = changes.findIndex((c) => c.redline.id === body.redlineId);
      if (i >= 0) changes[i] = { ...itemAt(changes, i), askedAgain: [...itemAt(changes, i).askedAgain, body.partyId] };
      return next;
    }
    case 'extended':
      next.plan = { ...state.plan, schedule: { ...(state.plan.schedule ?? NO_SCHEDULE), lastDay: body.lastDay } };
      return Object.assign(next, { status: 'at_gate', endedAt: null });
    case 'nudged':
      party(body.partyId, { nudges: { n: body.n, lastAt: at } });
      return next;
    case 'warned':
      next.warnedFor = body.lastDay;
      return next;
    case 'revised': {
      const due = own.list(next, 'due');
      const i = due.findIndex((d) => d.seq === body.forSeq);
      if (i >= 0) due.splice(i, 1);
      own.list(next, 'revisions').push({ forSeq: body.forSeq, partyId: body.partyId, at, documents: body.documents });
      return next;
    }
    case 'sealed':
      return Object.assign(next, { sealed: body.documents, due: [] });
  }
}

/** Returns a new time of writing if the message before came back: days of delivery are then counted from this one. */
const writtenAnew = (s: PartyProgress, at: string) => (s.bounced ? { writtenAt: at } : {});

/**
 * Returns the state of a whole log, or of what follows a state; null for an empty log. Takes time linear in the
 * events.
 */
export function replay(events: PacketEvent[], from: PacketState | null = null): PacketState | null {
  const own = new Own();
  let state = from && events.length ? { ...from } : from;
  for (const event of events) state = step(state, event, own);
  return state;
}
