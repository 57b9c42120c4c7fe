/** Saved lists of deals. */
import type { SavedViews, ViewBody } from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { inTransaction } from '../db/tx';
import type { Member } from '../firm/queries';
import { newId } from '../ids';
import { notFound, Problem } from '../problem';

const MOST_VIEWS = 40;

interface ViewRow {
  id: string;
  name: string;
  shared: boolean;
  member_id: string;
  by: string;
  query: Record<string, string | number | boolean>;
}

async function viewsFor(db: Db, memberId: string): Promise<ViewRow[]> {
  const r = await db.query<ViewRow>(
    `select v.id, v.name, v.shared, v.member_id, m.name as by, v.query from saved_view v join member m on m.id = v.member_id
     where v.shared or v.member_id = $1 order by lower(v.name), v.id`,
    [memberId],
  );
  return r.rows;
}

/** Returns a member's own views and those the firm shares. */
export async function savedViews(ctx: Context, member: Member): Promise<SavedViews> {
  const rows = await viewsFor(ctx.database.pool, member.id);
  return {
    items: rows.map(({ id, name, shared, by, query, member_id }) => ({
      id,
      name,
      shared,
      by,
      query,
      own: member_id === member.id,
    })),
  };
}

/**
 * Saves a view. It replaces the member's own view of the same name.
 *
 * @throws Problem `over-limits`
 */
export async function saveView(ctx: Context, { name, shared, query }: ViewBody, member: Member): Promise<SavedViews> {
  await inTransaction(ctx.database.pool, async ({ db }) => {
    await db.query('delete from saved_view where member_id = $1 and lower(name) = lower($2)', [member.id, name]);
    const r = await db.query<{ n: number }>('select count(*)::int as n from saved_view where member_id = $1', [
      member.id,
    ]);
    if ((r.rows[0]?.n ?? 0) >= MOST_VIEWS)
      throw new Problem('over-limits', `You have saved ${MOST_VIEWS} lists already. Delete one first.`);
    await db.query(
      'insert into saved_view (id, member_id, name, shared, query, created_at) values ($1, $2, $3, $4, $5, $6)',
      [newId(), member.id, name, shared, JSON.stringify(query), ctx.clock.now()],
    );
  });
  return savedViews(ctx, member);
}

/**
 * Deletes one of the member's own views.
 *
 * @throws Problem `not-found`, also for another member's view
 */
export async function deleteView(ctx: Context, id: string, member: Member): Promise<SavedViews> {
  const r = await ctx.database.pool.query('delete from saved_view where id = $1 and member_id = $2', [id, member.id]);
  if (!r.rowCount) throw notFound('This list');
  return savedViews(ctx, member);
}
