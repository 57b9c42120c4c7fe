/** Sending in a colleague's name: who permits it to whom. */
import type { Colleagues } from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { inTransaction } from '../db/tx';
import { Problem } from '../problem';
import { listMembers, type Member } from './queries';

/** Returns who may send in a member's name, and in whose name the member may send. */
export async function colleagues(ctx: Context, member: Member): Promise<Colleagues> {
  const db = ctx.database.pool;
  const r = await db.query<{ member_id: string; sender_id: string }>(
    'select member_id, sender_id from send_for where member_id = $1 or sender_id = $1',
    [member.id],
  );
  const all = await listMembers(db);
  const others = all.filter((m) => m.id !== member.id).map(({ id, name }) => ({ id, name }));
  const lets = new Set(r.rows.filter((x) => x.member_id === member.id).map((x) => x.sender_id));
  const may = new Set(r.rows.filter((x) => x.sender_id === member.id).map((x) => x.member_id));
  return { others, lets: [...lets], mayFor: others.filter((m) => may.has(m.id)) };
}

/** Replaces the list of who may send in a member's name. @throws Problem `unknown-member` */
export async function setLets(ctx: Context, member: Member, ids: string[]): Promise<Colleagues> {
  const known = new Set((await listMembers(ctx.database.pool)).map((m) => m.id));
  const wanted = [...new Set(ids)].filter((id) => id !== member.id);
  if (wanted.some((id) => !known.has(id))) throw new Problem('unknown-member', 'Choose colleagues of this firm.');
  await inTransaction(ctx.database.pool, async ({ db }) => {
    await db.query('delete from send_for where member_id = $1', [member.id]);
    await db.query('insert into send_for (member_id, sender_id) select $1, unnest($2::text[])', [member.id, wanted]);
  });
  return colleagues(ctx, member);
}

/** Returns whether a member permits a colleague to send in their name. */
export async function letsSend(db: Db, memberId: string, senderId: string): Promise<boolean> {
  const r = await db.query('select 1 from send_for where member_id = $1 and sender_id = $2', [memberId, senderId]);
  return r.rows.length > 0;
}
