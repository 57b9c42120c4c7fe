/** A packet's event log: computing its state and appending to it. */
import { gunzip, gzip } from 'node:zlib';
import { promisify } from 'node:util';
import { LRUCache } from 'lru-cache';
import { CHAIN_START, chainHash } from '@gatepath/core/proof';
import { EVENTS, type Fill, type PacketEvent, type PacketState, evolve, replay } from '@gatepath/core/routing';
import type { Db } from '../db/pool';
import { sha256 } from '../ids';
import type { Append, Appended, Logged } from './logged';
import { project } from './projections';
import * as q from './queries';
import { type EventRow, eventsAfter, hashAt, insertEvents, saveSnapshot, snapshotOf } from './log-queries';
import { clearReadModel } from './read-model-queries';
import { lastOf } from '@gatepath/core/sure';

/** Cached states by packet, weighed by their size. A state is valid only while its hash is the log's. */
const kept = new LRUCache<string, { state: PacketState; hash: string }>({
  maxSize: 400_000,
  sizeCalculation: ({ state }) => 200 + state.plan.marks.length + state.fills.size,
});
/** Cached events of packets that are read again and again. */
const cachedEvents = new LRUCache<string, { events: PacketEvent[]; hash: string }>({
  maxSize: 200_000,
  sizeCalculation: ({ events }) => 20 + events.length,
});

/** The format of stored snapshots. Raise it when the reducer makes different states. */
const SNAPSHOT_FORM = 1;
type StoredState = Omit<PacketState, 'fills'> & { fills: Record<string, Fill> };
/** Number of events after which a new snapshot is taken. */
export const SNAPSHOT_EVERY = 500;

const pack = promisify(gzip);
const unpack = promisify(gunzip);

function eventOf(row: EventRow): PacketEvent {
  return { packetId: row.packet_id, seq: row.seq, at: row.at, actor: row.actor, origin: row.origin, body: row.body };
}

/** Returns the state of a packet as of the end of its log. */
export async function loadState(db: Db, packetId: string): Promise<Logged> {
  const row = await q.packetById(db, packetId);
  return row ? stateAt(db, row) : { state: null, hash: CHAIN_START };
}

/** Returns the state of a packet whose row is at hand. */
export async function stateAt(db: Db, row: Pick<q.PacketRow, 'id' | 'seq' | 'last_hash'>): Promise<Logged> {
  if (!row.last_hash) return { state: null, hash: CHAIN_START };
  const known = kept.get(row.id);
  if (known?.hash === row.last_hash) return known;
  const from = (await stillGood(db, row.id, known)) ?? (await fromSnapshot(db, row.id));
  const rows = await eventsAfter(db, row.id, from?.state.seq ?? 0);
  const state = replay(rows.map(eventOf), from?.state ?? null);
  const hash = rows[rows.length - 1]?.hash ?? from?.hash ?? CHAIN_START;
  if (state) kept.set(row.id, { state, hash });
  return { state, hash };
}

/** Returns a cached state only if it was committed: the transaction that made it may have been rolled back. */
async function stillGood<T extends { state: PacketState; hash: string }>(
  db: Db,
  packetId: string,
  known: T | undefined,
): Promise<T | null> {
  return known && (await hashAt(db, packetId, known.state.seq)) === known.hash ? known : null;
}

async function fromSnapshot(db: Db, packetId: string): Promise<{ state: PacketState; hash: string } | null> {
  const snapshot = await snapshotOf(db, packetId, SNAPSHOT_FORM);
  if (!snapshot) return null;
  const kept: StoredState = JSON.parse((await unpack(new Uint8Array(snapshot.state))).toString('utf8'));
  const state: PacketState = { ...kept, fills: new Map(Object.entries(kept.fills)) };
  return stillGood(db, packetId, { state, hash: snapshot.hash });
}

/** Saves the current state of a packet as a snapshot, so that its log is not replayed from the start. */
export async function takeSnapshot(db: Db, packetId: string): Promise<void> {
  const { state, hash } = await loadState(db, packetId);
  if (!state) return;
  const asStored: StoredState = { ...state, fills: Object.fromEntries(state.fills) };
  const packed = await pack(JSON.stringify(asStored));
  await saveSnapshot(db, { packet_id: packetId, seq: state.seq, hash, form: SNAPSHOT_FORM, state: packed });
}

/** Returns all events of a packet, in order. */
export async function loadEvents(db: Db, packetId: string): Promise<PacketEvent[]> {
  const known = cachedEvents.get(packetId);
  const good = known && (await hashAt(db, packetId, known.events.length)) === known.hash;
  const rows = await eventsAfter(db, packetId, good ? known.events.length : 0);
  if (good && !rows.length) return known.events;
  const events = [...(good ? known.events : []), ...rows.map(eventOf)];
  if (rows.length) cachedEvents.set(packetId, { events, hash: lastOf(rows).hash });
  return events;
}

/**
 * Appends events to packets, with time and hash chain, and updates the read models: a few statements, however many
 * packets. Runs in the caller's transaction.
 */
export async function append(db: Db, items: Append[], at: Date): Promise<Appended[]> {
  const rows: (EventRow & { act_id: string | null })[] = [];
  const done = items.map((item): Appended => {
    let { state, hash } = item.before;
    const events: PacketEvent[] = [];
    // If the clock was set back, the log must not show an effect before its cause.
    const stamp = state && lastAt(state) > at.toISOString() ? lastAt(state) : at.toISOString();
    for (const [i, body] of item.bodies.entries()) {
      const follows = !!EVENTS[body.type].consequence;
      const event: PacketEvent = {
        packetId: item.packetId,
        seq: (state?.seq ?? 0) + 1,
        at: stamp,
        // What follows from an act automatically (a gate opening) is attributed to the system.
        actor: follows ? { kind: 'system' } : item.by.actor,
        origin: follows ? null : item.by.origin,
        body,
      };
      const next = chainHash(hash, event, sha256);
      rows.push({
        packet_id: item.packetId,
        seq: event.seq,
        at: event.at,
        actor: event.actor,
        origin: event.origin,
        body,
        // The command's own id goes on its first event; the others follow from it.
        act_id: i === 0 ? (item.by.actId ?? null) : null,
        prev_hash: hash,
        hash: next,
      });
      state = evolve(state, event);
      hash = next;
      events.push(event);
    }
    if (!state) throw new Error('nothing to append to an unsent packet');
    lasts.set(state, stamp);
    return { state, hash, events };
  });
  await insertEvents(db, rows);
  await project(db, done);
  for (const { state, hash } of done) kept.set(state.packetId, { state, hash });
  return done;
}

/** Time of the last event of a state, where it is known without reading the log. */
const lasts = new WeakMap<PacketState, string>();

function lastAt(state: PacketState): string {
  const known = lasts.get(state);
  if (known) return known;
  const times = Object.values(state.parties).flatMap((p) => [p.askedAt, p.openedAt, p.doneAt, p.lastActAt]);
  return [state.sentAt, state.endedAt, ...times, ...state.due.map((d) => d.at)].reduce<string>(
    (last, t) => (t && t > last ? t : last),
    state.sentAt,
  );
}

/** Deletes a packet's read models and rebuilds them from its events. */
export async function rebuild(db: Db, packetId: string): Promise<void> {
  const rows = await eventsAfter(db, packetId, 0);
  const events = rows.map(eventOf);
  const state = replay(events);
  await clearReadModel(db, packetId);
  if (state) await project(db, [{ state, hash: lastOf(rows).hash, events }]);
}
