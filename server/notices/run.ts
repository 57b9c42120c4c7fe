/** Preparing and sending a notice, household by household: in the background, in slices, each step once. */
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

/** How long one slice runs, in milliseconds; another follows as long as there is work. */
const SLICE_MS = 15_000;
/** Households processed at the same time: while one waits for its paper, others are saved and sent. */
const AT_ONCE = 6;
/** How often preparing a row may fail for reasons of our own before a member must look at it. */
const MOST_FAILURES = 3;
const NOT_NOW = 'This row could not be prepared. Check it, then try again.';

/** Does what is due for a notice. Idempotent. */
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
  // Reported, and tried again, after everything else: one row's problem does not delay others.
  if (errors.error !== null) throw errors.error;
}

/** Errors of a run that are not the rows' fault. */
interface RunErrors {
  /** Ids of rows that this run skips and the next run tries again. */
  failed: Set<string>;
  error: unknown;
}

/** The result of evaluating a row. */
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

  /**
   * Does one step of one row. What is wrong with a row is saved with it; transient problems and our own errors are
   * retried.
   */
  async step(row: q.HomeOfNotice): Promise<void> {
    if (this.ctx.jobs.stopping) return;
    try {
      if (row.state === 'new') await this.workOut(row);
      else await this.send(row);
    } catch (error) {
      if (this.ctx.jobs.stopping) throw error;
      if (error instanceof Problem && !isTransient(error)) return await this.failed(row, error.message);
      this.errors.failed.add(row.id);
      // A permanent problem is reported rather than a transient one.
      if (this.errors.error === null || isTransient(this.errors.error)) this.errors.error = error;
      if (!isTransient(error) && (await q.countFailure(this.ctx.database.pool, row.id)) >= MOST_FAILURES)
        await this.failed(row, NOT_NOW);
    }
  }

  /** Marks a row as wrong, with the reason; its unsent packet is deleted. */
  private async failed(row: q.HomeOfNotice, problem: string): Promise<void> {
    const { pool } = this.ctx.database;
    const now = await q.homeById(pool, row.notice_id, row.id);
    const packet = now?.packet_id ? await packetById(pool, now.packet_id) : null;
    if (packet && packet.status !== 'drafting') return q.setGone(pool, row.id, this.ctx.clock.now());
    if (packet) await deleteDraft(this.ctx, packet.id);
    await q.setWrong(pool, row.id, [problem]);
  }

  /**
   * Evaluates a row: its home, the values of its papers, the gate check, the rule. Its papers are typeset and saved.
   */
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

  /** Evaluates a row again, if it changed. @param papers where typeset papers are stored and found again */
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

  /** Returns what is wrong by the firm's rule; null if nothing. */
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

  /**
   * Sends a row: its packet is saved with the row, then sent. If interrupted in between, the same packet is sent
   * later.
   */
  private async send(row: q.HomeOfNotice): Promise<void> {
    const { pool } = this.ctx.database;
    const packetId = row.packet_id ?? (await this.makePacket(row));
    if (!packetId) return;
    const packet = await packetById(pool, packetId);
    if (packet?.status === 'drafting')
      // Problems were reported when the row was computed.
      await sendPacket(this.ctx, packetId, { version: 1, despiteWarnings: true }, this.member, { isDue: true });
    await q.setGone(pool, row.id, this.ctx.clock.now());
  }

  /** Makes and sends the packet of a row. @returns null if the row is not sent after all */
  private async makePacket(row: q.HomeOfNotice): Promise<string | null> {
    const { pool } = this.ctx.database;
    // Evaluated again: what was valid yesterday, or before the deal changed, may not be now.
    const { worked, problems } = await this.look(row, {});
    if (!worked || problems.length) {
      await q.setWrong(pool, row.id, problems);
      return null;
    }
    return inTransaction(pool, async (tx) => {
      const now = await q.lockHome(tx.db, row.id);
      // Stopped meanwhile, or sent by another server.
      if (now?.state !== 'going') return null;
      if (now.packet_id) return now.packet_id;
      const of = { noticeId: this.notice.id, ...(this.notice.rule ? { delivery: this.notice.rule.delivery } : {}) };
      const id = await savePacketOfKit(this.ctx, tx, worked, this.member, of);
      await q.setPacket(tx.db, row.id, id);
      return id;
    });
  }
}

/** Returns what the deal itself says about a date. */
function known(deal: DealRow, key: string): FactValue | undefined {
  const date = dateOfKey(key);
  return date ? deal.dates[date] : deal.facts[key];
}
