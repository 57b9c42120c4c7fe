import type { Rule } from '@gatepath/core/deal';
import type { Db } from '../db/pool';
import type { OwnFact } from '../deal-records/queries';

/** The firm's rules, in the order in which they were written. */
export async function rulesOfFirm(db: Db): Promise<Rule[]> {
  return (await db.query<{ body: Rule }>('select body from rule order by id')).rows.map((r) => r.body);
}

/** Keeps a rule, new or changed. */
export async function saveRule(db: Db, rule: Rule, at: Date): Promise<void> {
  await db.query(
    `insert into rule (id, body, changed_at) values ($1, $2, $3)
     on conflict (id) do update set body = $2, changed_at = $3`,
    [rule.id, JSON.stringify(rule), at],
  );
}

/** Takes a rule away. @returns whether there was one */
export async function deleteRule(db: Db, id: string): Promise<boolean> {
  return ((await db.query('delete from rule where id = $1', [id])).rowCount ?? 0) > 0;
}

/** Keeps the facts the firm adds to those of the house. */
export async function saveOwnFacts(db: Db, facts: OwnFact[]): Promise<void> {
  await db.query('update firm set own_facts = $1', [JSON.stringify(facts)]);
}
