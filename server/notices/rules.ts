/** The firm's rules for notices. */
import { SAMPLE_NOTICE_RULES, type NoticeRule } from '@gatepath/core/notices';
import { tagDefs } from '@gatepath/core/writing';
import type { NoticeRulesBody, NoticeRulesView } from '@gatepath/contract';
import type { Context } from '../context';
import { ownFacts } from '../deal-records/queries';
import { Problem } from '../problem';
import * as q from './queries';

/** Returns the rules in force: the firm's own, or the samples while it has none. */
export async function rulesOfFirm(ctx: Context): Promise<readonly NoticeRule[]> {
  return (await q.firmRules(ctx.database.pool)) ?? SAMPLE_NOTICE_RULES;
}

/** Returns tags that are dates, from which rules can count back. */
async function dayTags(ctx: Context): Promise<NoticeRulesView['days']> {
  const tags = tagDefs(await ownFacts(ctx.database.pool));
  return tags.filter((t) => t.type === 'day' && t.key !== 'today').map(({ key, label }) => ({ key, label }));
}

/** Returns the firm's rules for notices, and the dates they can count from. */
export async function rulesView(ctx: Context): Promise<NoticeRulesView> {
  return { rules: [...(await rulesOfFirm(ctx))], days: await dayTags(ctx) };
}

/**
 * Saves the firm's rules. Notices that were started keep their rule.
 *
 * @throws Problem `bad-fact` for a day that is not a tag
 */
export async function setRules(ctx: Context, body: NoticeRulesBody): Promise<NoticeRulesView> {
  const days = new Set((await dayTags(ctx)).map((d) => d.key));
  for (const r of body.rules)
    if (r.day !== null && !days.has(r.day))
      throw new Problem('bad-fact', `“${r.name}” counts from a day that is not a tag.`);
  if (new Set(body.rules.map((r) => r.id)).size !== body.rules.length)
    throw new Problem('bad-fact', 'Two rules have the same id.');
  await q.saveFirmRules(ctx.database.pool, body.rules);
  return rulesView(ctx);
}
