/** Working a notice out, household by household, and letting it go: in the background, in slices, each step once. */
import { dayOf } from '@gatepath/core/calendar';
import { dateOfKey, isOver, STATUS_WORDS, type FactValue } from '@gatepath/core/deal';
import { sameHomes, termOf, type NoticeRule } from '@gatepath/core/notices';
import type { Context } from '../context';
import { breathe } from '../db/breathe';
import { inTransaction } from '../db/tx';
import type { DealRow } from '../deal-records/queries';
import { memberById, type Member } from '../firm/queries';
import { topics } from '../live/live';
import { deleteDraft } from '../packets/draft-service';
import { sendPacket } from '../packets/service';
import { packetById } from '../packets/queries';
import { Problem } from '../problem';
import { isTransient } from '../transient';
import { savePacketOfKit } from '../shelf/use';
import { workOut, type Worked } from '../shelf/work-out';
import type { SettledPapers } from '../shelf/written';
import * as q from './queries';

/** How long one slice goes on; another follows as long as there is something to do. */
const SLICE_MS = 15_000;
/** Households that are worked on at the same time: while one waits for its paper, others are kept and sent. */
const AT_ONCE = 6;
/** How often working a row out may fail for reasons of our own before the row waits for somebody to look at it. */
const MOST_FAILURES = 3;
const NOT_NOW = 'This row could not be prepared. Check it, then try again.';

/** Does what is due of a notice. Called twice for the same one it does nothing twice. */
export async function runNotice(ctx: Context, id: string): Promise<void> {
  const until = performance.now() + SLICE_MS;
  const db = ctx.database.pool;
  let same: { version: number; homes: ReadonlyMap<string, string> } | undefined;
  const errors: RunErrors = { failed: new Set(), error: null };
  for (;;) {
    const notice = await q.noticeById(db, id);
    const member = notice && (await memberById(db, notice.created_by));
    if (!notice || !member) return;
    const rows = await q.dueHomes(db, id, AT_ONCE * 4, [...errors.failed]);
    if (!rows.length || ctx.jobs.stopping) break;
    if (same?.version !== notice.version)
      same = { version: notice.version, homes: sameHomes(await q.placedHomes(db, id)) };
    const run = new Run(ctx, notice, member, same.homes, errors);
    const next = rows[Symbol.iterator]();
    const hand = async () => {
      for (const row of next) await run.step(row);
    };
    await Promise.all(Array.from({ length: AT_ONCE }, hand));
    ctx.live.notify(topics.notice(id));
    await breathe();
    if (performance.now() > until) {
      await ctx.jobs.queueNow('notice', id);
      break;
    }
  }
  ctx.live.notify(topics.notice(id));
  // Told, and tried again, once everything else was done: what happens to one row keeps no other waiting.
  if (errors.error !== null) throw errors.error;
}

/** What went wrong in a run for no fault of the rows. */
interface RunErrors {
  /** Ids of rows that this run skips and the next run tries again. */
  failed: Set<string>;
  error: unknown;
}

/** What comes of looking at a row. */
interface EvaluatedRow {
  worked: Worked | null;
  problems: string[];
  notes: string[];
}

class Run {
  constructor(
    private readonly ctx: Context,
    private readonly notice: q.NoticeRow,
    private readonly member: Member,
    private readonly same: ReadonlyMap<string, string>,
    private readonly errors: RunErrors,
  ) {}

  /** One step of one row. What is wrong with a row stays with it; what passes, or is our fault, is tried again. */
  async step(row: q.HomeOfNotice): Promise<void> {
    if (this.ctx.jobs.stopping) return;
    try {
      if (row.state === 'new') await this.workOut(row);
      else await this.send(row);
    } catch (error) {
      if (this.ctx.jobs.stopping) throw error;
      if (error instanceof Problem && !isTransient(error)) return await this.failed(row, error.message);
      this.errors.failed.add(row.id);
      // One that is not passing is told, rather than another that is.
      if (this.errors.error === null || isTransient(this.errors.error)) this.errors.error = error;
      if (!isTransient(error) && (await q.countFailure(this.ctx.database.pool, row.id)) >= MOST_FAILURES)
        await this.failed(row, NOT_NOW);
    }
  }

  /** A row that cannot go on is wrong, and says why; a packet of it that was not sent is thrown away. */
  private async failed(row: q.HomeOfNotice, problem: string): Promise<void> {
    const { pool } = this.ctx.database;
    const now = await q.homeById(pool, row.notice_id, row.id);
    const packet = now?.packet_id ? await packetById(pool, now.packet_id) : null;
    if (packet && packet.status !== 'drafting') return q.setGone(pool, row.id, this.ctx.clock.now());
    if (packet) await deleteDraft(this.ctx, packet.id);
    await q.setWrong(pool, row.id, [problem]);
  }

  /** Looks at a row whole: its home, what its papers say, the gate check, the rule. Its papers are set, and kept. */
  private async workOut(row: q.HomeOfNotice): Promise<void> {
    const papers: q.HomeOfNotice['papers'] = {};
    const { problems, notes } = await this.look(row, papers);
    await q.saveWorked(this.ctx.database.pool, {
      id: row.id,
      state: problems.length ? 'wrong' : 'ready',
      problems,
      notes,
      papers,
      version: this.notice.version,
    });
  }

  /** @param papers  where papers are kept that are set, and found that were */
  private async look(row: q.HomeOfNotice, papers: q.HomeOfNotice['papers']): Promise<EvaluatedRow> {
    const problems = [...row.unread];
    const same = this.same.get(row.id);
    if (same) problems.push(same);
    if (!row.deal_id) {
      if (!problems.length) problems.push('The home is gone. Choose another, or leave this row out.');
      return { worked: null, problems, notes: [] };
    }
    const store: SettledPapers = {
      ofMany: true,
      get: (key) => {
        const known = papers[key] ?? row.papers[key];
        if (known) papers[key] = known;
        return known;
      },
      set: (key, paper) => void (papers[key] = paper),
    };
    const values = { ...this.notice.said, ...row.said };
    let worked: Worked;
    try {
      const changes = { name: this.notice.name, values };
      worked = await workOut(this.ctx, row.deal_id, this.notice.kit_id, changes, this.member, {
        before: store,
        isNotice: true,
      });
    } catch (error) {
      if (!(error instanceof Problem) || isTransient(error)) throw error;
      return { worked: null, problems: [...problems, error.message], notes: [] };
    }
    const { deal, findings } = worked;
    if (isOver(deal.status)) problems.push(`This tenancy is over: ${STATUS_WORDS[deal.status]}.`);
    for (const f of findings) if (f.severity === 'stops') problems.push(f.sentence);
    const term = this.notice.rule && (await this.term(this.notice.rule, worked, values));
    if (term) problems.push(term);
    return { worked, problems, notes: findings.filter((f) => f.severity !== 'stops').map((f) => f.sentence) };
  }

  /** What is wrong by the firm's rule; null when nothing is. */
  private async term(
    rule: NoticeRule,
    { deal, made }: Worked,
    values: Record<string, FactValue>,
  ): Promise<string | null> {
    const byPost = made.draft.parties.some((p) => p.act === 'receive' && !p.email && !p.phone && !p.memberId);
    const from = rule.day === null ? undefined : (values[rule.day] ?? known(deal, rule.day));
    const holidays = (await this.ctx.firm())?.holidays ?? [];
    return (
      termOf(rule, {
        goes: dayOf(this.ctx.clock.now().toISOString(), deal.time_zone),
        way: byPost ? 'post' : 'link',
        from,
        holidays,
      })?.sentence ?? null
    );
  }

  /** Lets a row go: its packet is kept with the row, then sent. Cut off in between, the same packet is sent later. */
  private async send(row: q.HomeOfNotice): Promise<void> {
    const { pool } = this.ctx.database;
    const packetId = row.packet_id ?? (await this.makePacket(row));
    if (!packetId) return;
    const packet = await packetById(pool, packetId);
    if (packet?.status === 'drafting')
      // What there was to say was said when the row was worked out.
      await sendPacket(this.ctx, packetId, { version: 1, despiteWarnings: true }, this.member, { isDue: true });
    await q.setGone(pool, row.id, this.ctx.clock.now());
  }

  /** @returns null where the row does not go after all */
  private async makePacket(row: q.HomeOfNotice): Promise<string | null> {
    const { pool } = this.ctx.database;
    // EvaluatedRow at once more: what held yesterday, or before somebody changed the deal, may not hold now.
    const { worked, problems } = await this.look(row, {});
    if (!worked || problems.length) {
      await q.setWrong(pool, row.id, problems);
      return null;
    }
    return inTransaction(pool, async (tx) => {
      const now = await q.lockHome(tx.db, row.id);
      // Stopped meanwhile, or let go by another server.
      if (now?.state !== 'going') return null;
      if (now.packet_id) return now.packet_id;
      const of = { noticeId: this.notice.id, ...(this.notice.rule ? { delivery: this.notice.rule.delivery } : {}) };
      const id = await savePacketOfKit(this.ctx, tx, worked, this.member, of);
      await q.setPacket(tx.db, row.id, id);
      return id;
    });
  }
}

/** What a deal itself knows of a day. */
function known(deal: DealRow, key: string): FactValue | undefined {
  const date = dateOfKey(key);
  return date ? deal.dates[date] : deal.facts[key];
}
