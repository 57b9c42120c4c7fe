/**
 * The implementation of packets. The core decides a command on the packet's state; its events, the read models and
 * the follow-up work are one transaction. Commands of many people that arrive together share a transaction: a few
 * statements carry all of them.
 */
import { decide, type PacketCommand, type PacketEventType, type Refusal } from '@gatepath/core/routing';
import { CHAIN_START } from '@gatepath/core/proof';
import type { Context } from '../context';
import { gathered } from '../db/gather';
import { inTransaction, outsideTransactions, type Tx } from '../db/tx';
import { topics } from '../live/live';
import { notFound, Problem, refused } from '../problem';
import { followUp } from './follow-up';
import { append, SNAPSHOT_EVERY, stateAt } from './log';
import type { Append, Appended, By, Logged } from './logged';
import type { Done, Now, Packets } from './packets';
import * as q from './queries';
import { actsThere } from './log-queries';
import { itemAt } from '@gatepath/core/sure';

interface Run {
  packetId: string;
  command: PacketCommand;
  by: By;
  resolve(done: Done): void;
  reject(error: unknown): void;
}

/** Events that do not change the status of a deal. */
const QUIET: ReadonlySet<PacketEventType> = new Set([
  'mark_filled',
  'mark_cleared',
  'hand_set',
  'agreed',
  'proved',
  'language_chosen',
  'arrived',
  'revised',
]);

/** Maximum number of commands per transaction. */
const MOST_AT_ONCE = 64;

/** The outcome of a command: done, refused by the core, packet missing, or its id used by another command. */
type Outcome = Done | { refusal: Refusal } | { missing: true } | { foreign: true };

const actorId = ({ actor }: By) => ('id' in actor ? actor.id : '');

/** The only way to change packets; see `Packets`. */
export class PacketStore implements Packets {
  private waiting: Run[] = [];
  private working = false;

  private readonly row = gathered((ids) => q.packetsByIds(this.ctx().database.pool, ids));

  constructor(private readonly ctx: () => Context) {}

  async look(packetId: string): Promise<Logged> {
    const row = await this.row(packetId);
    return row ? stateAt(this.ctx().database.pool, row) : { state: null, hash: CHAIN_START };
  }

  run(packetId: string, command: PacketCommand, by: By): Promise<Done> {
    return new Promise((resolve, reject) => {
      outsideTransactions('A command on a packet');
      this.waiting.push({ packetId, command, by, resolve, reject });
      if (this.working) return;
      this.working = true;
      void this.work();
    });
  }

  alone<T>(packetId: string, work: (now: Now) => Promise<T>): Promise<T> {
    return inTransaction(this.ctx().database.pool, async (tx) => {
      const row = await q.lockPacket(tx.db, packetId);
      if (!row) throw notFound('This packet');
      let logged = await stateAt(tx.db, row);
      const now: Now = {
        tx,
        row,
        state: logged.state,
        run: async (command, by) => {
          const decision = decide(logged.state, command);
          if (!decision.ok) throw refused(decision.refusal);
          if (!decision.events.length) return { state: logged.state!, changed: false, events: [] };
          const [done] = await this.write(tx, [
            { row, item: { packetId, before: logged, bodies: decision.events, by } },
          ]);
          logged = { state: done!.state, hash: done!.hash };
          now.state = done!.state;
          return { state: done!.state, changed: true, events: done!.events };
        },
      };
      return work(now);
    });
  }

  private async work(): Promise<void> {
    // Commands that arrive in the same turn of the event loop are handled together.
    await new Promise((r) => setImmediate(r));
    while (this.waiting.length) await this.commit(this.take());
    // In the same turn as the check of the list: whoever comes a moment later must find no batch running.
    this.working = false;
  }

  /** Takes the next commands, each for another packet. Those of one packet keep their order. */
  private take(): Run[] {
    const seen = new Set<string>();
    const batch: Run[] = [];
    this.waiting = this.waiting.filter((r) => {
      if (batch.length >= MOST_AT_ONCE || seen.has(r.packetId)) {
        seen.add(r.packetId);
        return true;
      }
      seen.add(r.packetId);
      batch.push(r);
      return false;
    });
    return batch;
  }

  private async commit(batch: Run[]): Promise<void> {
    let outcomes: Outcome[];
    try {
      outcomes = await inTransaction(this.ctx().database.pool, (tx) => this.apply(tx, batch));
    } catch (error) {
      if (batch.length === 1) itemAt(batch, 0).reject(error);
      // A failing one must not fail the others.
      else for (const r of batch) await this.commit([r]);
      return;
    }
    // Committed: from here on nothing may run a command of the batch again.
    batch.forEach((r, i) => {
      const o = itemAt(outcomes, i);
      if ('refusal' in o) r.reject(refused(o.refusal));
      else if ('missing' in o) r.reject(notFound('This packet'));
      else if ('foreign' in o)
        r.reject(new Problem('invalid', 'This act carries the id of another one. Load the page again.'));
      else r.resolve(o);
    });
  }

  private async apply(tx: Tx, batch: Run[]): Promise<Outcome[]> {
    const rows = new Map(
      (
        await q.lockPackets(
          tx.db,
          batch.map((r) => r.packetId),
        )
      ).map((r) => [r.id, r]),
    );
    const there = await actsThere(
      tx.db,
      batch.flatMap((r) => (r.by.actId ? [{ packetId: r.packetId, actId: r.by.actId }] : [])),
    );
    const items: { row: q.PacketRow; item: Append; at: number }[] = [];
    const outcomes: Outcome[] = [];
    for (const [i, r] of batch.entries()) {
      const row = rows.get(r.packetId);
      if (!row) {
        outcomes[i] = { missing: true };
        continue;
      }
      const before: Logged = await stateAt(tx.db, row);
      const earlier = r.by.actId ? there.get(`${r.packetId} ${r.by.actId}`) : undefined;
      if (before.state && earlier !== undefined) {
        // An id counts for the person who made it: another person's act is not theirs.
        if (earlier && earlier !== actorId(r.by)) {
          outcomes[i] = { foreign: true };
          continue;
        }
        outcomes[i] = { state: before.state, changed: false, events: [] };
        continue;
      }
      const decision = decide(before.state, r.command);
      if (!decision.ok) outcomes[i] = { refusal: decision.refusal };
      else if (!decision.events.length) outcomes[i] = { state: before.state!, changed: false, events: [] };
      else items.push({ row, item: { packetId: r.packetId, before, bodies: decision.events, by: r.by }, at: i });
    }
    const done = await this.write(tx, items);
    items.forEach(
      (x, k) => (outcomes[x.at] = { state: itemAt(done, k).state, changed: true, events: itemAt(done, k).events }),
    );
    return outcomes;
  }

  /** Appends, follows up, and notifies the screens after the commit. */
  private async write(tx: Tx, items: { row: q.PacketRow; item: Append }[]): Promise<Appended[]> {
    if (!items.length) return [];
    const ctx = this.ctx();
    const done = await append(
      tx.db,
      items.map((x) => x.item),
      ctx.clock.now(),
    );
    for (const [i, { row, item }] of items.entries()) {
      const { state, events } = itemAt(done, i);
      await followUp(ctx, tx, row, state, events);
      // Marks come by the dozen; the deal is computed again when their party is done.
      if (events.some((e) => !QUIET.has(e.body.type))) await ctx.jobs.queue(tx, 'deal', row.deal_id);
      const before = item.before.state?.seq ?? 0;
      if (Math.floor(before / SNAPSHOT_EVERY) !== Math.floor(state.seq / SNAPSHOT_EVERY))
        await ctx.jobs.queue(tx, 'snapshot', row.id);
      tx.afterCommit(() => {
        ctx.live.notify(topics.packet(row.id), state.seq);
        ctx.live.notify(topics.deal(row.deal_id));
      });
    }
    return done;
  }
}
