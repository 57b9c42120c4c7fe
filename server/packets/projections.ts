/** The read models of packets: what lists and other features need without replaying a log. */
import { type Mark, receives, requiredPlaces } from '@gatepath/core/packet';
import { whoOf } from '@gatepath/core/text';
import {
  EVENTS,
  type PacketEvent,
  type PacketEventBody,
  type PacketEventType,
  type PacketState,
  countsFrom,
  documentsOf,
  gateOf,
  holdUp,
  isNeeded,
  marksOfParty,
  marksThatCount,
  nextTick,
  partyOf,
  wantsLetter,
} from '@gatepath/core/routing';
import type { Db } from '../db/pool';
import { currentFile } from '../proof/revisions';
import type { Appended } from './logged';
import * as q from './queries';
import {
  type FillRow,
  type PacketPartyRow,
  type ProgressRow,
  removeFills,
  saveFills,
  savePacketFiles,
  savePacketParties,
  saveProgress,
  saveSealed,
} from './read-model-queries';
import { pathRow } from './queries';
import { sure } from '@gatepath/core/sure';
import { progressOf } from '@gatepath/core/routing';

/** Collects the rows to write for events of several packets. */
class Writing {
  readonly fills = new Map<string, FillRow>();
  readonly cleared = new Map<string, { packetId: string; markId: string }>();
  readonly sealed: { packetId: string; documents: { documentId: string; sha256: string }[] }[] = [];
}

type Body<T extends PacketEventType> = Extract<PacketEventBody, { type: T }>;

/** Events that write rows of their own. What all other events change is in the progress and parties of a state. */
type Written = 'mark_filled' | 'mark_cleared' | 'sealed';

/** The rows that events write. */
const WRITES: { [T in Written]: (w: Writing, event: PacketEvent, body: Body<T>) => void } = {
  mark_filled(w, event, body) {
    const key = `${event.packetId} ${body.markId}`;
    w.cleared.delete(key);
    w.fills.set(key, {
      packet_id: event.packetId,
      mark_id: body.markId,
      party_id: body.partyId,
      value: body.value,
      at: event.at,
      seq: event.seq,
    });
  },
  mark_cleared(w, event, body) {
    const key = `${event.packetId} ${body.markId}`;
    w.fills.delete(key);
    w.cleared.set(key, { packetId: event.packetId, markId: body.markId });
  },
  sealed: (w, event, body) => void w.sealed.push({ packetId: event.packetId, documents: body.documents }),
};

const isWritten = (body: PacketEventBody): body is Body<Written> => body.type in WRITES;

/** Updates the read models for appended events, given the states after them. */
export async function project(db: Db, done: Appended[]): Promise<void> {
  const w = new Writing();
  const parties: PacketPartyRow[] = [];
  const progress: ProgressRow[] = [];
  for (const { state, hash, events } of done) {
    const facts = events.map((e) => EVENTS[e.body.type]);
    const changed = facts.some((f) => f.changesPlan);
    const touched = new Set<string>();
    // A change of the plan moves gates and counts for everybody.
    if (changed) for (const p of state.plan.parties) touched.add(p.id);
    for (const event of events) {
      const { body } = event;
      if ('partyId' in body && body.partyId) touched.add(body.partyId);
      if (isWritten(body))
        (WRITES[body.type] as (w: Writing, event: PacketEvent, body: Body<Written>) => void)(w, event, body);
    }
    for (const id of touched) parties.push(partyRow(state, id));
    progress.push(progressRow(state, hash, changed));
    if (facts.some((f) => f.changesFiles) && needsFiles(events)) {
      await savePacketFiles(db, state.packetId, filesOf(state));
      await q.savePacketDocuments(
        db,
        state.packetId,
        state.plan.documents.map((d) => d.id),
      );
    }
  }
  await removeFills(db, [...w.cleared.values()]);
  await saveFills(db, [...w.fills.values()]);
  for (const s of w.sealed) await saveSealed(db, s.packetId, s.documents);
  await savePacketParties(db, parties);
  await saveProgress(db, progress);
}

/** Returns whether events can change which files a packet needs. Most filled marks and hands bring no file. */
function needsFiles(events: PacketEvent[]): boolean {
  return events.some(({ body }) => {
    if (body.type === 'mark_filled') return 'file' in body.value;
    if (body.type === 'hand_set') return body.hand.form === 'picture';
    return !!EVENTS[body.type].changesFiles;
  });
}

/**
 * Returns every file a packet needs: its documents as sent and as sealed so far, and files and pictures of its
 * people.
 */
export function filesOf(state: PacketState): string[] {
  const out = new Set<string>();
  for (const d of documentsOf(state)) {
    out.add(d.sha256);
    out.add(currentFile(state, d));
  }
  for (const s of state.sealed ?? []) out.add(s.sha256);
  for (const { hand } of Object.values(state.hands))
    if (hand.form === 'picture') out.add(hand.signature.sha256).add(hand.initials.sha256);
  return [...out];
}

function progressRow(state: PacketState, hash: string, planChanged: boolean): ProgressRow {
  const places = placesThatCount(state);
  return {
    id: state.packetId,
    status: state.status,
    seq: state.seq,
    last_hash: hash,
    gate: state.gate,
    gate_count: state.plan.gates.length,
    marks_total: places.length,
    marks_done: doneOf(state, places),
    hold_up: holdUp(state).sentence,
    sent_at: state.sentAt,
    ended_at: state.endedAt,
    next_tick_at: nextTick(state),
    seals_due: state.sealed ? 0 : state.due.length + (state.status === 'executed' ? 1 : 0),
    path: planChanged ? pathRow(state.plan) : null,
  };
}

/** Required places by plan. They change only with the plan, or when somebody is excused. */
const places = new WeakMap<PacketState['plan'], { excused: string; places: Mark[][] }>();

function placesThatCount(state: PacketState): Mark[][] {
  const excused = state.plan.parties
    .filter((p) => !isNeeded(progressOf(state, p.id).status))
    .map((p) => p.id)
    .join(' ');
  const known = places.get(state.plan);
  if (known?.excused === excused) return known.places;
  const found = requiredPlaces(marksThatCount(state));
  places.set(state.plan, { excused, places: found });
  return found;
}

/** Returns how many required places are filled. A group of choices is one place. */
function doneOf(state: PacketState, list: Mark[][]): number {
  return list.filter((p) => p.some((m) => state.fills.has(m.id))).length;
}

function partyRow(state: PacketState, partyId: string): PacketPartyRow {
  const p = progressOf(state, partyId);
  const party = sure(partyOf(state.plan, partyId), 'a party of the packet');
  const { side, act } = party;
  const own = requiredPlaces([...marksOfParty(state.plan, partyId)]);
  return {
    packet_id: state.packetId,
    party_id: partyId,
    position: state.plan.parties.findIndex((x) => x.id === partyId),
    gate: gateOf(state.plan, partyId),
    status: p.status,
    side,
    act,
    asked_at: p.askedAt,
    opened_at: p.openedAt,
    agreed_at: p.agreedAt,
    done_at: p.doneAt,
    last_act_at: p.lastActAt,
    marks_total: own.length,
    marks_done: doneOf(state, own),
    arrived_at: p.arrivedAt ?? null,
    counts_from: receives(party) ? (countsFrom(state, partyId)?.day ?? null) : null,
    bounced: !!p.bounced && !p.letter,
    wants_letter: wantsLetter(state, partyId),
    ...whoOf(party),
  };
}
