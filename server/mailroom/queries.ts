import type { Db } from '../db/pool';

/** A message. */
export interface MessageRow {
  id: string;
  packet_id: string | null;
  deal_id: string | null;
  party_id: string | null;
  kind: string;
  to_name: string;
  to_email: string;
  to_phone: string | null;
  channel: 'email' | 'text';
  subject: string;
  body_text: string;
  body_html: string;
  link: string | null;
  status: 'queued' | 'kept' | 'sent' | 'failed' | 'returned';
  problem: string | null;
  created_at: Date;
  sent_at: Date | null;
}

/** What lists show of a message: everything but its text. */
export type MessageListRow = Omit<MessageRow, 'body_text' | 'body_html'>;

/** Saves a message before it is sent. */
export async function insertMessage(
  db: Db,
  m: Omit<MessageRow, 'status' | 'problem' | 'created_at' | 'sent_at'> & { at: Date },
): Promise<void> {
  await db.query(
    `insert into message (id, packet_id, deal_id, party_id, kind, to_name, to_email, subject, body_text, body_html, link, status, created_at, channel, to_phone)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, 'queued', $12, $13, $14)`,
    [
      m.id,
      m.packet_id,
      m.deal_id,
      m.party_id,
      m.kind,
      m.to_name,
      m.to_email,
      m.subject,
      m.body_text,
      m.body_html,
      m.link,
      m.at,
      m.channel,
      m.to_phone,
    ],
  );
}

/** Returns a message; null if there is none. */
export async function messageById(db: Db, id: string): Promise<MessageRow | null> {
  return (await db.query<MessageRow>('select * from message where id = $1', [id])).rows[0] ?? null;
}

/** Returns a page of messages, newest first. */
export async function listMessages(
  db: Db,
  o: { after: string | null; packetId: string | null; search: string | null; limit: number },
): Promise<MessageListRow[]> {
  const r = await db.query<MessageListRow>(
    `select id, packet_id, deal_id, party_id, kind, to_name, to_email, to_phone, channel, subject, link, status, problem,
            created_at, sent_at from message
     where ($1::text is null or id < $1) and ($2::text is null or packet_id = $2)
       and ($3::text is null or to_name ilike $3 or to_email ilike $3 or subject ilike $3)
     order by id desc limit $4`,
    [o.after, o.packetId, o.search, o.limit],
  );
  return r.rows;
}

/** Returns the messages to a person of the address book, in all deals, newest first. */
export async function messagesTo(db: Db, personId: string, limit: number): Promise<MessageListRow[]> {
  const r = await db.query<MessageListRow>(
    `select id, packet_id, deal_id, party_id, kind, to_name, to_email, to_phone, channel, subject, link, status, problem,
            created_at, sent_at from message
     where party_id in (select id from party where person_id = $1)
     order by id desc limit $2`,
    [personId, limit],
  );
  return r.rows;
}

/** Claims a message for sending. @returns false if another server has claimed it */
export async function claimMessage(db: Db, id: string, seconds: number): Promise<boolean> {
  const r = await db.query(
    `update message set sending_at = now() where id = $1 and status in ('queued', 'failed')
       and (sending_at is null or sending_at < now() - $2 * interval '1 second')`,
    [id, seconds],
  );
  return (r.rowCount ?? 0) > 0;
}

/** Records that a message stays in the mailroom. */
export async function setMessageInMailroom(db: Db, id: string): Promise<void> {
  await db.query(`update message set status = 'kept' where id = $1`, [id]);
}

/** Records that a mail server accepted a message, and deletes its secret link. */
export async function setMessageSent(db: Db, id: string, at: Date): Promise<void> {
  await db.query(
    `update message set status = 'sent', sent_at = $2, problem = null,
       body_text = case when link is null then body_text else replace(body_text, link, '(the link went out with the message)') end,
       body_html = case when link is null then body_html else replace(body_html, link, '#') end, link = null
     where id = $1`,
    [id, at],
  );
}

/** Records that a message was returned, and why. */
export async function setMessageReturned(db: Db, id: string, problem: string): Promise<void> {
  await db.query(`update message set status = 'returned', problem = $2 where id = $1`, [id, problem]);
}

/** Records why a message was not accepted; it is tried again. */
export async function setMessageFailed(db: Db, id: string, problem: string): Promise<void> {
  await db.query(`update message set status = 'failed', problem = $2, sending_at = null where id = $1`, [id, problem]);
}
