import type { Rule } from '@gatepath/core/deal';
import type { Db } from '../db/pool';
import type { OwnFact } from '../deal-records/queries';

/** Returns the firm's rules in the order in which they were written. */
export async function rulesOfFirm(db: Db): Promise<Rule[]> {
  return (await db.query<{ body: Rule }>('select body from rule order by id')).rows.map((r) => r.body);
}

/** Saves a rule, new or changed. */
export async function saveRule(db: Db, rule: Rule, at: Date): Promise<void> {
  await db.query(
    `insert into rule (id, body, changed_at) values ($1, $2, $3)
     on conflict (id) do update set body = $2, changed_at = $3`,
    [rule.id, JSON.stringify(rule), at],
  );
}

/** Deletes a rule. @returns whether it existed */
export async function deleteRule(db: Db, id: string): Promise<boolean> {
  return ((await db.query('delete from rule where id = $1', [id])).rowCount ?? 0) > 0;
}

/** Saves the facts the firm adds to the built-in ones. */
export async function saveOwnFacts(db: Db, facts: OwnFact[]): Promise<void> {
  await db.query('update firm set own_facts = $1', [JSON.stringify(facts)]);
}
