/** SQL about own pages: whose they are, the code that opens them, and the packets sent to their person. */
import type { AnyPacketStatus } from '@gatepath/contract';
import type { Db } from '../db/pool';

/** A person's own page. */
export interface OwnPageRow {
  id: string;
  /** Name and address in lower case: whose packets are shown. */
  called: string;
  mailbox: string;
  name: string;
  email: string;
  phone: string | null;
  language: string;
  code_hash: string | null;
  code_at: Date | null;
  /** The code that opened the page last, and when. */
  used_hash: string | null;
  used_at: Date | null;
  tries: number;
  locked_until: Date | null;
}
const COLUMNS =
  'id, called, mailbox, name, email, phone, language, code_hash, code_at, used_hash, used_at, tries, locked_until';

/**
 * Saves a page under its address, with the tries and the lock of the person's other pages. Of one person the latest few
 * stay.
 */
export async function insertPage(
  db: Db,
  p: Pick<OwnPageRow, 'id' | 'called' | 'mailbox' | 'name' | 'email' | 'phone' | 'language'> & {
    tokenHash: string;
    at: Date;
    keep: number;
  },
): Promise<void> {
  await db.query(
    `delete from own_page where id in
       (select id from own_page where mailbox = $1 and called = $2 order by id desc offset $3)`,
    [p.mailbox, p.called, p.keep - 1],
  );
  await db.query(
    `insert into own_page (id, token_hash, called, mailbox, name, email, phone, language, created_at, tries, locked_until)
     select $1, $2, $3::text, $4::text, $5, $6, $7, $8, $9, coalesce(max(tries), 0), max(locked_until)
     from own_page where mailbox = $4 and called = $3`,
    [p.id, p.tokenHash, p.called, p.mailbox, p.name, p.email, p.phone, p.language, p.at],
  );
}

/** Returns when a page was last made for a person; null if never. */
export async function lastMade(db: Db, mailbox: string, called: string): Promise<Date | null> {
  const r = await db.query<{ at: Date | null }>(
    'select max(created_at) as at from own_page where mailbox = $1 and called = $2',
    [mailbox, called],
  );
  return r.rows[0]?.at ?? null;
}

/** Returns an own page by the hash of its address; null if there is none. */
export async function pageByHash(db: Db, tokenHash: string): Promise<OwnPageRow | null> {
  return (
    (await db.query<OwnPageRow>(`select ${COLUMNS} from own_page where token_hash = $1`, [tokenHash])).rows[0] ?? null
  );
}

/** Returns the page and locks all pages of its person until the transaction ends: tries are counted one after another. */
export async function lockPage(db: Db, id: string): Promise<OwnPageRow | null> {
  const r = await db.query<OwnPageRow>(
    `select ${COLUMNS} from own_page
     where (mailbox, called) = (select mailbox, called from own_page where id = $1) order by id for update`,
    [id],
  );
  return r.rows.find((page) => page.id === id) ?? null;
}

/** Saves the hash of a code, or that it was used. */
export async function saveCode(db: Db, id: string, codeHash: string | null, at: Date): Promise<void> {
  await db.query('update own_page set code_hash = $2, code_at = $3 where id = $1', [id, codeHash, at]);
}

/** Saves which code opened the page last, and when. */
export async function noteUsed(db: Db, id: string, codeHash: string, at: Date): Promise<void> {
  await db.query('update own_page set used_hash = $2, used_at = $3 where id = $1', [id, codeHash, at]);
}

/** Saves a person's number of wrong codes, and until when all their pages are locked. */
export async function saveTries(
  db: Db,
  page: Pick<OwnPageRow, 'mailbox' | 'called'>,
  tries: number,
  lockedUntil: Date | null,
): Promise<void> {
  await db.query('update own_page set tries = $3, locked_until = $4 where mailbox = $1 and called = $2', [
    page.mailbox,
    page.called,
    tries,
    lockedUntil,
  ]);
}

/** Saves the page's language. */
export async function saveLanguage(db: Db, id: string, language: string): Promise<void> {
  await db.query('update own_page set language = $2 where id = $1', [id, language]);
}

/** Saves that a browser gave the code. */
export async function insertProof(
  db: Db,
  p: { tokenHash: string; pageId: string; at: Date; expires: Date },
): Promise<void> {
  await db.query('delete from own_proof where expires_at < $1', [p.at]);
  await db.query('insert into own_proof (token_hash, page_id, expires_at) values ($1, $2, $3)', [
    p.tokenHash,
    p.pageId,
    p.expires,
  ]);
}

/** Returns whether a browser's proof for a page is valid. */
export async function proofHolds(db: Db, tokenHash: string, pageId: string, now: Date): Promise<boolean> {
  const r = await db.query('select 1 from own_proof where token_hash = $1 and page_id = $2 and expires_at > $3', [
    tokenHash,
    pageId,
    now,
  ]);
  return r.rows.length > 0;
}

/** A packet that was sent to the person of an own page. */
export interface OwnPacket {
  packet_id: string;
  party_id: string;
  status: AnyPacketStatus;
  sent_at: Date;
}

/** Returns packets in which the person was asked, was notified or is to receive a copy, newest first. */
export async function packetsOf(
  db: Db,
  o: { mailbox: string; called: string; after: string | null; limit: number },
): Promise<OwnPacket[]> {
  const r = await db.query<OwnPacket>(
    `select pp.packet_id, pp.party_id, p.status, p.sent_at from packet_party pp join packet p on p.id = pp.packet_id
     where pp.mailbox = $1 and pp.called = $2 and pp.status <> 'dropped' and p.status in ('at_gate', 'executed')
       and (pp.asked_at is not null or p.status = 'executed') and ($3::text is null or pp.packet_id < $3)
     order by pp.packet_id desc limit $4`,
    [o.mailbox, o.called, o.after, o.limit],
  );
  return r.rows;
}

/** Returns the parties that a person is in a packet: more than one if they are in it twice. */
export async function partiesIn(db: Db, packetId: string, mailbox: string, called: string): Promise<string[]> {
  const r = await db.query<{ party_id: string }>(
    `select party_id from packet_party where packet_id = $1 and mailbox = $2 and called = $3 and status <> 'dropped'
     order by position`,
    [packetId, mailbox, called],
  );
  return r.rows.map((x) => x.party_id);
}
