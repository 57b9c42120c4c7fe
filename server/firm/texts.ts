/** Message texts: recurring parts of messages, a member's own and those the firm shares. */
import type { MessageTextBody, MessageTexts } from '@gatepath/contract';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { newId } from '../ids';
import { notFound, Problem } from '../problem';
import type { Member } from './queries';

/** Maximum number of a member's own texts. */
const MOST_TEXTS = 100;

interface TextRow {
  id: string;
  name: string;
  text: string;
  shared: boolean;
  own: boolean;
  by: string;
}

/** Returns the texts of a member and those the firm shares, by name. */
export async function messageTexts(ctx: Context, member: Member): Promise<MessageTexts> {
  const r = await ctx.database.pool.query<TextRow>(
    `select t.id, t.name, t.text, t.shared, t.member_id = $1 as own, m.name as by
     from message_text t join member m on m.id = t.member_id
     where t.shared or t.member_id = $1 order by lower(t.name), t.id limit 1000`,
    [member.id],
  );
  return { items: r.rows };
}

/**
 * Saves a text, replacing the member's own text of the same name.
 *
 * @throws Problem `over-limits`
 */
export async function saveText(ctx: Context, body: MessageTextBody, member: Member): Promise<MessageTexts> {
  await inTransaction(ctx.database.pool, async ({ db }) => {
    // Two screens of one member are served one after the other, so that neither exceeds the limit.
    await db.query('select 1 from member where id = $1 for update', [member.id]);
    await db.query('delete from message_text where member_id = $1 and lower(name) = lower($2)', [member.id, body.name]);
    const r = await db.query<{ n: number }>('select count(*)::int as n from message_text where member_id = $1', [
      member.id,
    ]);
    if ((r.rows[0]?.n ?? 0) >= MOST_TEXTS)
      throw new Problem(
        'over-limits',
        `You have saved ${MOST_TEXTS} texts already. Delete one first, on the Firm screen.`,
      );
    await db.query(
      'insert into message_text (id, member_id, name, shared, text, created_at) values ($1, $2, $3, $4, $5, $6)',
      [newId(), member.id, body.name, body.shared, body.text, ctx.clock.now()],
    );
  });
  return messageTexts(ctx, member);
}

/**
 * Deletes one of the member's own texts.
 *
 * @throws Problem `not-found`, also for another member's text
 */
export async function deleteText(ctx: Context, id: string, member: Member): Promise<MessageTexts> {
  const r = await ctx.database.pool.query('delete from message_text where id = $1 and member_id = $2', [id, member.id]);
  if (!r.rowCount) throw notFound('This text');
  return messageTexts(ctx, member);
}
