/** A packet's event log: loading its state, appending to it, and keeping the read models in step. */
import { requiredPlaces, type Mark } from '@gatepath/core/marks';
import { CHAIN_START, chainHash } from '@gatepath/core/proof';
import {
  evolve,
  holdUp,
  replay,
  gateOf,
  marksThatCount,
  nextTick,
  type Actor,
  type Origin,
  type PacketEvent,
  type PacketEventBody,
  type PacketState,
} from '@gatepath/core/routing';
import type { Db } from '../db/pool';
import { sha256 } from '../ids';
import * as q from './queries';

/** A state together with the hash its last event has. */
export interface Logged {
  state: PacketState | null;
  hash: string;
}

/** States kept in memory by packet; each is good only as long as its last hash is in the log. */
const kept = new Map<string, Logged & { seq: number }>();
const KEEP = 200;

function eventOf(row: q.EventRow): PacketEvent {
  return { packetId: row.packet_id, seq: row.seq, at: row.at, actor: row.actor, origin: row.origin, body: row.body };
}

/** The state that a packet's events make, from the log; only what is new since last time is read. */
export async function loadState(db: Db, packetId: string): Promise<Logged> {
  let from = kept.get(packetId);
  // A transaction that was rolled back may have left a state that never came to be.
  if (from && (await q.hashAt(db, packetId, from.seq)) !== from.hash) from = undefined;
  const rows = await q.eventsAfter(db, packetId, from?.seq ?? 0);
  const state = replay(rows.map(eventOf), from?.state ?? null);
  const hash = rows[rows.length - 1]?.hash ?? from?.hash ?? CHAIN_START;
  if (state) keep(packetId, { state, hash, seq: state.seq });
  return { state, hash };
}

function keep(packetId: string, entry: Logged & { seq: number }): void {
  kept.delete(packetId);
  kept.set(packetId, entry);
  if (kept.size > KEEP) kept.delete(kept.keys().next().value!);
}

export async function loadEvents(db: Db, packetId: string): Promise<PacketEvent[]> {
  return (await q.eventsAfter(db, packetId, 0)).map(eventOf);
}

/** Appends events, stamps and chains them, and brings the read models up to them. One transaction. */
export async function append(
  db: Db,
  packetId: string,
  before: Logged,
  bodies: PacketEventBody[],
  by: { actor: Actor; origin: Origin | null; at: Date; actId?: string },
): Promise<{ state: PacketState; hash: string; events: PacketEvent[] }> {
  let { state, hash } = before;
  const events: PacketEvent[] = [];
  const rows: (q.EventRow & { act_id: string | null })[] = [];
  for (const body of bodies) {
    const event: PacketEvent = {
      packetId,
      seq: (state?.seq ?? 0) + 1,
      at: by.at.toISOString(),
      // What follows from an act by itself (a gate opening) is the system's doing.
      actor: isConsequence(body) ? { kind: 'system' } : by.actor,
      origin: isConsequence(body) ? null : by.origin,
      body,
    };
    const next = chainHash(hash, event, sha256);
    rows.push({
      packet_id: packetId,
      seq: event.seq,
      at: event.at,
      actor: event.actor,
      origin: event.origin,
      body,
      // The command's own id goes on its first event; the others follow from it.
      act_id: rows.length === 0 ? (by.actId ?? null) : null,
      prev_hash: hash,
      hash: next,
    });
    state = evolve(state, event);
    hash = next;
    events.push(event);
  }
  if (!state) throw new Error('nothing to append to an unsent packet');
  if (rows.length) {
    await q.insertEvents(db, rows);
    await project(db, state, events);
  }
  return { state, hash, events };
}

function isConsequence(body: PacketEventBody): boolean {
  return ['gate_opened', 'asked', 'asked_again', 'excused', 'gate_passed', 'executed'].includes(body.type);
}

/** Events after which parties, gates or marks of the plan are others. */
const CHANGES_PLAN = new Set<PacketEventBody['type']>([
  'sent',
  'path_changed',
  'party_added',
  'party_corrected',
  'handed_over',
  'corrected',
  'document_added',
]);

/** Writes into the read models what `events` changed, given the state after them. */
async function project(db: Db, state: PacketState, events: PacketEvent[]): Promise<void> {
  const touched = new Set<string>();
  const fills = new Map<string, q.FillRow>();
  const cleared = new Set<string>();
  for (const { body, at, seq } of events) {
    // A change of the plan moves gates and counts for everybody.
    if (CHANGES_PLAN.has(body.type)) for (const p of state.plan.parties) touched.add(p.id);
    if ('partyId' in body && body.partyId) touched.add(body.partyId);
    if (body.type === 'mark_cleared') {
      fills.delete(body.markId);
      cleared.add(body.markId);
    }
    if (body.type === 'mark_filled') cleared.delete(body.markId);
    if (body.type === 'mark_filled')
      fills.set(body.markId, {
        packet_id: state.packetId,
        mark_id: body.markId,
        party_id: body.partyId,
        value: body.value,
        at,
        seq,
      });
    if (body.type === 'sealed') await q.saveSealed(db, state.packetId, body.documents);
  }
  await q.dropFills(db, state.packetId, [...cleared]);
  await q.saveFills(db, [...fills.values()]);
  await q.savePacketParties(
    db,
    [...touched].map((id) => partyRow(state, id)),
  );
  const places = requiredPlaces(marksThatCount(state));
  await q.savePacketProgress(db, {
    id: state.packetId,
    status: state.status,
    seq: state.seq,
    gate: state.gate,
    gate_count: state.plan.gates.length,
    marks_total: places.length,
    marks_done: doneOf(state, places),
    hold_up: holdUp(state).sentence,
    sent_at: state.sentAt,
    ended_at: state.endedAt,
    next_tick_at: nextTick(state),
    seals_due: state.sealed ? 0 : state.due.length + (state.status === 'executed' ? 1 : 0),
    path: events.some((e) => CHANGES_PLAN.has(e.body.type))
      ? {
          parties: state.plan.parties.map(({ id, name, ink, act }) => ({ id, name, ink, act })),
          gates: state.plan.gates,
        }
      : null,
  });
}

/** How many of the required places are filled; a group of choices is one place. */
function doneOf(state: PacketState, places: Mark[][]): number {
  return places.filter((p) => p.some((m) => state.fills[m.id])).length;
}

function partyRow(state: PacketState, partyId: string): q.PacketPartyRow {
  const p = state.parties[partyId]!;
  const own = requiredPlaces(state.plan.marks.filter((m) => m.partyId === partyId));
  return {
    packet_id: state.packetId,
    party_id: partyId,
    position: state.plan.parties.findIndex((x) => x.id === partyId),
    gate: gateOf(state.plan, partyId),
    status: p.status,
    asked_at: p.askedAt,
    opened_at: p.openedAt,
    agreed_at: p.agreedAt,
    done_at: p.doneAt,
    last_act_at: p.lastActAt,
    marks_total: own.length,
    marks_done: doneOf(state, own),
  };
}

/** Throws the read models of a packet away and makes them again from its events. */
export async function rebuild(db: Db, packetId: string): Promise<void> {
  const events = await loadEvents(db, packetId);
  const state = replay(events);
  await q.clearReadModel(db, packetId);
  if (state) await project(db, state, events);
}
