import type { ReviewedPlaceView } from '@gatepath/contract';
import type { Db } from '../db/pool';

/** The review of a returned paper. */
export interface ReviewRow {
  document_id: string;
  /** The empty form it is compared with; null for none. */
  blank_id: string | null;
  status: 'checking' | 'ready' | 'failed';
  problem: string | null;
  places: ReviewedPlaceView[];
  made_at: Date;
  ended: 'meets' | 'kept' | 'sent_back' | null;
  reason: string | null;
  packet_id: string | null;
}

/** Returns the review of a returned paper; null if there is none. */
export async function reviewOf(db: Db, documentId: string, lock = false): Promise<ReviewRow | null> {
  const sql = `select * from paper_review where document_id = $1${lock ? ' for update' : ''}`;
  return (await db.query<ReviewRow>(sql, [documentId])).rows[0] ?? null;
}

/** Begins a check, or begins it anew; what was said of places stays until the places are found again. */
export async function beginReview(db: Db, documentId: string, blankId: string | null, now: Date): Promise<void> {
  await db.query(
    `insert into paper_review (document_id, blank_id, status, made_at) values ($1, $2, 'checking', $3)
     on conflict (document_id) do update set blank_id = $2, status = 'checking', problem = null,
       made_at = $3, ended = null, reason = null, packet_id = null`,
    [documentId, blankId, now],
  );
}

/** Keeps a check as it stands. */
export async function saveReview(db: Db, c: ReviewRow): Promise<void> {
  await db.query(
    `update paper_review set status = $2, problem = $3, places = $4, ended = $5, reason = $6, packet_id = $7
     where document_id = $1`,
    [c.document_id, c.status, c.problem, JSON.stringify(c.places), c.ended, c.reason, c.packet_id],
  );
}

/** Checks of a deal's papers that somebody has ended: what they say of the places was looked at. */
export async function endedReviewsOf(db: Db, dealId: string): Promise<ReviewRow[]> {
  const r = await db.query<ReviewRow>(
    `select c.* from paper_review c join document d on d.id = c.document_id
     where d.deal_id = $1 and c.status = 'ready' and c.ended is not null`,
    [dealId],
  );
  return r.rows;
}
