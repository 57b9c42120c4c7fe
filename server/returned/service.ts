/** Papers that came back filled in elsewhere: checked for gaps, confirmed, and what is made of it. */
import { dayOf } from '@gatepath/core/calendar';
import type { PrintedPlace } from '@gatepath/core/reading';
import { isOfHand, stateOf } from '@gatepath/core/returned';
import { clip, count } from '@gatepath/core/text';
import type { ReviewBody, ReviewEndBody, ReviewSaidBody, PaperReviewView } from '@gatepath/contract';
import type { Context } from '../context';
import { inTransaction, type Tx } from '../db/tx';
import { dealOr404 } from '../deal-records/deals';
import type { Member } from '../firm/queries';
import { newId } from '../ids';
import { deleteDraft, editDraft, startPacket } from '../packets/draft-service';
import { notFound, Problem } from '../problem';
import { WorkFailure } from '../work/failure';
import { packetView } from '../packets/service';
import * as c from './queries';
import { documentChanged, notifyAbout } from '../documents/place';
import { whyUnread } from '../documents/problems';
import * as q from '../documents/queries';
import { documentFor, factsFiles } from '../documents/service';

/** Returns the signatures, initials and days of signing that are not certainly filled. */
const openIn = (row: c.ReviewRow) => row.places.filter((p) => isOfHand(p) && stateOf(p) !== 'yes');

const isSentBack = (row: c.ReviewRow) => row.ended === 'sent_back';

function viewOf(row: c.ReviewRow): PaperReviewView {
  return {
    documentId: row.document_id,
    blankId: row.blank_id,
    status: row.status,
    problem: row.problem,
    places: row.places,
    // A packet that was deleted asks for nothing: the gaps are open again.
    ended: isSentBack(row) && !row.packet_id ? null : row.ended,
    reason: row.reason,
    packetId: row.packet_id,
  };
}

/** Returns a paper of a deal whose pages are read. */
async function readyOr(ctx: Context, id: string, member: Member): Promise<q.DocumentRow> {
  const row = await documentFor(ctx.database.pool, id, member);
  if (row.status !== 'ready')
    throw new Problem('reading', `“${row.name}” is still being read. It is ready in a moment.`);
  return row;
}

/**
 * Begins to look for the gaps of a paper, against an empty form where there is one.
 *
 * @throws Problem `not-found`, `sent-back`, `reading`
 */
export async function beginReview(
  ctx: Context,
  id: string,
  body: ReviewBody,
  member: Member,
): Promise<PaperReviewView> {
  const row = await readyOr(ctx, id, member);
  if (!row.deal_id) throw notFound('This document');
  if (body.blankId) {
    const blank = await readyOr(ctx, body.blankId, member);
    if (blank.id === row.id || (blank.deal_id && blank.deal_id !== row.deal_id)) throw notFound('The empty form');
  }
  await inTransaction(ctx.database.pool, async (tx) => {
    await q.lockDocument(tx.db, id);
    const before = await c.reviewOf(tx.db, id, true);
    if (before && isSentBack(before) && before.packet_id)
      throw new Problem(
        'sent-back',
        `“${row.name}” has been sent back for what is missing. Discard that draft or withdraw that packet first.`,
      );
    await c.beginReview(tx.db, id, body.blankId, ctx.clock.now());
    await ctx.jobs.queue(tx, 'gaps', id);
  });
  notifyAbout(ctx, row);
  return check(ctx, id, member);
}

/** Returns the review of a returned paper in its current state. @throws Problem `not-found` */
export async function check(ctx: Context, id: string, member: Member): Promise<PaperReviewView> {
  await documentFor(ctx.database.pool, id, member);
  const row = await c.reviewOf(ctx.database.pool, id);
  if (!row) throw notFound('A check of this paper');
  return viewOf(row);
}

/** Looks for the gaps; bears being called twice. */
export async function findGaps(ctx: Context, id: string): Promise<void> {
  const db = ctx.database.pool;
  const [row, was] = [await q.documentById(db, id), await c.reviewOf(db, id)];
  if (!row || was?.status !== 'checking') return;
  const blank = was.blank_id ? await q.documentById(db, was.blank_id) : null;
  let result: Pick<c.ReviewRow, 'status' | 'problem' | 'places'>;
  try {
    const found = await ctx.work.run(
      'gaps',
      { back: paperOf(ctx, row), blank: blank && paperOf(ctx, blank) },
      row.deal_id ?? '',
    );
    const places = found.map(({ place, page, rect, filled }) => ({
      id: newId(),
      page,
      formPage: place.page,
      kind: place.kind,
      role: place.role,
      ordinal: place.ordinal,
      label: place.label,
      rect,
      filled,
      said: saidBefore(was.places, place, page),
      ...(place.signed === undefined ? {} : { signed: place.signed }),
    }));
    result = { status: 'ready', problem: null, places };
  } catch (error) {
    if (!(error instanceof WorkFailure) || error.reason === 'stopped') throw error;
    result = { status: 'failed', problem: whyUnread(row.name, error), places: [] };
  }
  await inTransaction(db, async (tx) => {
    const now = await c.reviewOf(tx.db, id, true);
    if (now?.status === 'checking' && now.blank_id === was.blank_id) await c.saveReview(tx.db, { ...now, ...result });
  });
  notifyAbout(ctx, row);
}

/** Returns what a member said about a place in an earlier review. It applies to the place at the same position. */
function saidBefore(
  before: c.ReviewRow['places'],
  { page: formPage, kind, label }: PrintedPlace,
  page: number | null,
): c.ReviewRow['places'][number]['said'] {
  const alike = before.filter(
    (p) => p.formPage === formPage && p.page === page && p.kind === kind && p.label === label && p.said !== null,
  );
  return alike.length === 1 ? (alike[0]?.said ?? null) : null;
}

function paperOf(ctx: Context, row: q.DocumentRow) {
  const [facts] = factsFiles(ctx, [row]);
  return { facts: facts!, file: ctx.files.fileOf(row.sha256) };
}

/** Changes a check under its lock. */
async function change<T>(
  ctx: Context,
  id: string,
  member: Member,
  act: (tx: Tx, check: c.ReviewRow, paper: q.DocumentRow) => Promise<T>,
): Promise<T> {
  await documentFor(ctx.database.pool, id, member);
  return inTransaction(ctx.database.pool, async (tx) => {
    const paper = await q.lockDocument(tx.db, id);
    const row = await c.reviewOf(tx.db, id, true);
    if (!paper || row?.status !== 'ready') throw notFound('A check of this paper');
    const done = await act(tx, row, paper);
    await documentChanged(ctx, tx, paper);
    return done;
  });
}

/** Saves what a member says about places after looking at them. @throws Problem `not-found` */
export async function sayOfPlaces(
  ctx: Context,
  id: string,
  body: ReviewSaidBody,
  member: Member,
): Promise<PaperReviewView> {
  const said = new Map(body.places.map((p) => [p.id, p.said]));
  return change(ctx, id, member, async (tx, row) => {
    const places = row.places.map((p) => (said.has(p.id) ? { ...p, said: said.get(p.id) ?? null } : p));
    await c.saveReview(tx.db, { ...row, places });
    return viewOf({ ...row, places });
  });
}

/**
 * Ends a review: the paper has all it needs, or is accepted as it is with a reason.
 *
 * @throws Problem `gaps-open`, `not-found`
 */
export async function endReview(
  ctx: Context,
  id: string,
  body: ReviewEndBody,
  member: Member,
): Promise<PaperReviewView> {
  return change(ctx, id, member, async (tx, row, paper) => {
    const open = openIn(row).length;
    if (body.how === 'meets' && open)
      throw new Problem(
        'gaps-open',
        `${open} of its places are empty or uncertain. Review them, send the paper back for them, or accept it as it is with a reason.`,
      );
    if (body.how === 'kept' && !body.reason.trim()) throw new Problem('gaps-open', 'Say why it is accepted as it is.');
    const deal = await dealOr404(tx.db, paper.deal_id ?? '');
    const today = dayOf(ctx.clock.now().toISOString(), deal.time_zone);
    await q.updateDocument(tx.db, { ...paper, elsewhere_on: paper.elsewhere_on ?? today });
    const ended = { ...row, ended: body.how, reason: body.reason.trim() || null };
    await c.saveReview(tx.db, ended);
    return viewOf(ended);
  });
}

/** Returns why a paper cannot be sent back in its current state; null if it can. */
function whyNotBack(row: c.ReviewRow): string | null {
  const open = openIn(row);
  const gone = open.find((p) => p.page === null);
  if (gone)
    return `Page ${gone.formPage} of the form did not come back. Add the complete paper, or accept it as it is with a reason.`;
  const doubtful = open.filter((p) => stateOf(p) === 'doubtful').length;
  if (doubtful) return `${count(doubtful, 'place is', 'places are')} uncertain: decide each one first.`;
  return open.length ? null : 'No place is empty: there is nothing to send it back for.';
}

/**
 * Returns a draft for what is missing: marks at the empty places, assigned to their parties; the paper stays as it is
 * otherwise.
 *
 * @throws Problem `not-found`, `gaps-open`
 */
export async function sendBack(ctx: Context, id: string, member: Member): Promise<PaperReviewView> {
  await documentFor(ctx.database.pool, id, member);
  const row = await c.reviewOf(ctx.database.pool, id);
  if (row?.status !== 'ready') throw notFound('A check of this paper');
  if (isSentBack(row) && row.packet_id) return viewOf(row);
  const why = whyNotBack(row);
  if (why) throw new Problem('gaps-open', why);
  const packetId = await draftForMissing(ctx, id, row, member);
  const kept = await change(ctx, id, member, async (tx, now) => {
    // Of two requests at once the first one's draft stays.
    const ended = isSentBack(now) && now.packet_id ? now : { ...now, ended: 'sent_back' as const, packet_id: packetId };
    await c.saveReview(tx.db, ended);
    return ended;
  });
  if (kept.packet_id !== packetId) await deleteDraft(ctx, packetId);
  return viewOf(kept);
}

async function draftForMissing(ctx: Context, id: string, row: c.ReviewRow, member: Member): Promise<string> {
  const paper = await documentFor(ctx.database.pool, id, member);
  const missing = openIn(row).flatMap((p): PrintedPlace[] =>
    p.page === null ? [] : [{ ...p, page: p.page, source: 'print', confidence: 1 }],
  );
  const name = clip(`${paper.name}: what is missing`, 120);
  const packetId = await startPacket(ctx, paper.deal_id ?? '', { name, documentIds: [id] }, member);
  try {
    const { draft } = await packetView(ctx, packetId);
    const task = { draft, document: paperOf(ctx, paper).facts, missing };
    const { edits, strangers } = await ctx.work.run('missingOn', task, paper.deal_id ?? '');
    const [first] = strangers;
    if (first)
      throw new Problem(
        'gaps-open',
        `“${first.label || first.kind}” on page ${first.page} is for someone who is not in this deal (${first.role.replace('_', ' ')} ${first.ordinal ?? 1}). Add them to the deal, or keep the paper with a reason.`,
      );
    await editDraft(ctx, packetId, { edits }, member);
  } catch (error) {
    await deleteDraft(ctx, packetId);
    throw error;
  }
  return packetId;
}
