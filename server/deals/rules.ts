/** A firm's rules: view, try, save. A change enqueues recomputing every open deal. */
import {
  dueOf,
  factsByKey,
  factsIn,
  factsOf,
  holds,
  RULE_LIMITS,
  ruleFaults,
  sampleRules,
  type Rule,
} from '@gatepath/core/deal';
import { sure } from '@gatepath/core/sure';
import type { OwnFactsBody, RuleBody, RulesView, RuleTrial, RuleTrialBody } from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { inTransaction } from '../db/tx';
import { newId } from '../ids';
import { topics } from '../live/live';
import { notFound, Problem } from '../problem';
import * as deals from '../deal-records/queries';
import { OPEN_DEALS } from '../jobs/deal-status';
import * as q from './rule-queries';

/** Maximum number of open deals a rule is tried on; the newest are used. */
const MOST_TRIED = 2_000;
/** Maximum number of deals named in a trial. */
const MOST_NAMED = 12;

/** Returns the firm's rules and its own facts. */
export async function rulesView(ctx: Context): Promise<RulesView> {
  const db = ctx.database.pool;
  return { rules: await q.rulesOfFirm(db), ownFacts: await deals.ownFacts(db) };
}

/** Adds the sample rules to a firm that has none. @param on whether they are active at once */
export async function addSampleRules(db: Db, at: Date, on: boolean): Promise<void> {
  for (const rule of sampleRules()) await q.saveRule(db, { ...rule, on }, at);
}

async function requireSound(ctx: Context, body: RuleBody): Promise<void> {
  const facts = factsByKey(await deals.ownFacts(ctx.database.pool));
  const fault = ruleFaults(body, facts)[0];
  if (fault) throw new Problem('bad-rule', fault.words);
}

/**
 * Saves a rule, new or changed. A changed sample becomes the firm's own.
 *
 * @param id of the changed rule; null for a new one
 * @throws Problem `bad-rule`, `over-limits`, `not-found`
 */
export async function saveOneRule(ctx: Context, id: string | null, body: RuleBody): Promise<RulesView> {
  await requireSound(ctx, body);
  await inTransaction(ctx.database.pool, async (tx) => {
    const { db, afterCommit } = tx;
    const all = await q.rulesOfFirm(db);
    if (id && !all.some((r) => r.id === id)) throw notFound('This rule');
    if (!id && all.length >= RULE_LIMITS.rules)
      throw new Problem('over-limits', `A firm has at most ${RULE_LIMITS.rules} rules. Delete one first.`);
    const rule: Rule = { ...body, due: body.due ?? null, on: body.on ?? true, id: id ?? newId(), sample: false };
    await q.saveRule(db, rule, ctx.clock.now());
    await ctx.jobs.queue(tx, 'rules', OPEN_DEALS);
    afterCommit(() => ctx.live.notify(topics.firm()));
  });
  return rulesView(ctx);
}

/** Turns rules on or off. */
export async function turnRules(ctx: Context, ids: string[], on: boolean): Promise<RulesView> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const { db, afterCommit } = tx;
    for (const rule of await q.rulesOfFirm(db))
      if (ids.includes(rule.id) && rule.on !== on) await q.saveRule(db, { ...rule, on }, ctx.clock.now());
    await ctx.jobs.queue(tx, 'rules', OPEN_DEALS);
    afterCommit(() => ctx.live.notify(topics.firm()));
  });
  return rulesView(ctx);
}

/**
 * Deletes a rule. Its waivers stay in the activity of their deals.
 *
 * @throws Problem `not-found`
 */
export async function deleteOneRule(ctx: Context, id: string): Promise<RulesView> {
  await inTransaction(ctx.database.pool, async (tx) => {
    if (!(await q.deleteRule(tx.db, id))) throw notFound('This rule');
    await ctx.jobs.queue(tx, 'rules', OPEN_DEALS);
    tx.afterCommit(() => ctx.live.notify(topics.firm()));
  });
  return rulesView(ctx);
}

/** Returns what a rule would require in the firm's open deals and what is wrong with it, without saving it. */
export async function tryRule(ctx: Context, body: RuleTrialBody): Promise<RuleTrial> {
  const db = ctx.database.pool;
  const facts = factsByKey(await deals.ownFacts(db));
  const faults = ruleFaults({ ...body, when: body.when ?? null }, facts);
  const wrong = faults.some((f) => f.part === 'kinds' || f.part === 'when' || f.part === 'due');
  if (wrong) return { faults, of: 0, asks: 0, unknown: 0, deals: [] };
  const kinds: readonly string[] = body.kinds ?? [];
  const all = (await deals.openDeals(db, MOST_TRIED)).filter((d) => kinds.includes(d.kind));
  const holidays = (await ctx.firm())?.holidays ?? [];
  // Validated just now: input from outside is a condition and a term.
  const when = (body.when ?? null) as Rule['when'];
  const due = (body.due ?? null) as Rule['due'];
  const out: RuleTrial = { faults, of: all.length, asks: 0, unknown: 0, deals: [] };
  for (const deal of all) {
    const t = when ? holds(when, factsOf({ ...deal, forWhom: deal.for_whom })) : { is: true, hangs: [] };
    if (t.is === false) continue;
    if (t.is === null) out.unknown++;
    else out.asks++;
    if (out.deals.length < MOST_NAMED)
      out.deals.push({
        id: deal.id,
        address: deal.address,
        due: t.is ? (dueOf(due, deal.dates, holidays)?.day ?? null) : null,
        hangsOn: t.hangs.map((f) => sure(facts.get(f), 'a fact of a rule').label),
      });
  }
  return out;
}

/**
 * Replaces the firm's own facts. Values of deleted facts stay in their deals, unseen.
 *
 * @throws Problem `in-rule` if a rule uses a fact that would be deleted or change its type
 */
export async function setOwnFacts(ctx: Context, body: OwnFactsBody): Promise<RulesView> {
  await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    const kept = new Map(body.facts.map((f) => [f.key, f]));
    const before = new Map((await deals.ownFacts(db)).map((f) => [f.key, f]));
    for (const rule of await q.rulesOfFirm(db))
      for (const fact of rule.when ? factsIn(rule.when) : []) {
        if (!fact.startsWith('own.')) continue;
        const [was, now] = [before.get(fact), kept.get(fact)];
        // With another type its values would no longer answer the rule.
        if (!now || (was && was.type !== now.type))
          throw new Problem(
            'in-rule',
            `The rule “${rule.title}” asks about “${was?.label ?? fact}”. Change or delete the rule first.`,
          );
      }
    await q.saveOwnFacts(
      db,
      body.facts.map((f) => ({
        key: f.key,
        label: f.label,
        type: f.type,
        kinds: f.kinds,
        ...(f.unit ? { unit: f.unit } : {}),
        ...(f.type === 'choice' ? { options: f.options ?? [] } : {}),
      })),
    );
    afterCommit(() => ctx.live.notify(topics.firm()));
  });
  return rulesView(ctx);
}
