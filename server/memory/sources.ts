/** The form or the sent packet from which marks are offered again. */
import { withoutDeal } from '@gatepath/core/memory';
import { tagValues } from '@gatepath/core/merge';
import type { Draft } from '@gatepath/core/packet';
import { formFrom, slotsOfPeople } from '@gatepath/core/shelf';
import type { RememberedView } from '@gatepath/contract';
import type { Context } from '../context';
import { dealOr404, factsOfDeal } from '../deal-records/deals';
import { documentById, type DocumentRow } from '../documents/queries';
import { factsFiles } from '../documents/service';
import type { Member } from '../firm/queries';
import { itemAt } from '@gatepath/core/sure';
import { newId } from '../ids';
import { draftOf } from '../packets/queries';
import { mayUseItem } from '../sharing/queries';
import { itemById, lastEditions } from '../shelf/queries';
import * as q from './queries';
import { orNull } from './remember';

/** A form of the shelf, or a sent packet as a form. */
export interface Source {
  knownId: string;
  /** The earlier document. */
  document: DocumentRow;
  /** What was on it, by role. */
  form: Draft;
  from: NonNullable<RememberedView['remembered']>['from'];
}

/** Returns a form of the shelf that the member may use, as it was put there last. */
export async function formSource(ctx: Context, knownId: string, member: Member): Promise<Source | null> {
  const db = ctx.database.pool;
  for (const { id, document_id } of await q.formsOfKnown(db, knownId)) {
    if (!(await mayUseItem(db, id, member.id))) continue;
    const edition = (await lastEditions(db, [id])).get(id);
    const [item, document] = [await itemById(db, id), await documentById(db, document_id)];
    if (!edition || !item || !document?.facts_sha256 || edition.draft.documents[0]?.id !== document_id) continue;
    return {
      knownId,
      document,
      form: edition.draft,
      from: { kind: 'form', name: item.name, address: null, sentAt: null, executed: false },
    };
  }
  return null;
}

/** Number of executed packets, and of the last ones, among which the one to repeat is chosen. */
const MOST_SENT = 2;

/** A packet that was sent with a known document. */
interface Sent {
  row: q.SentRow;
  draft: Draft;
  document: DocumentRow;
}

/**
 * Returns the sent packet with a known document that is to be repeated: one in which people have corrected what was read
 * first, then an executed one, then the last one that was sent. Null if there is none.
 *
 * @param exceptPacketId a packet that is not considered
 */
export async function bestSent(ctx: Context, knownId: string, exceptPacketId: string | null): Promise<Sent | null> {
  const db = ctx.database.pool;
  const rows = await q.sentWith(db, knownId, exceptPacketId, MOST_SENT);
  const went = rows.some((row) => !row.went_wrong) ? rows.filter((row) => !row.went_wrong) : rows;
  const sent: Sent[] = [];
  for (const row of went) {
    const document = await documentById(db, row.document_id);
    if (document) sent.push({ row, document, draft: (await draftOf(db, row.packet_id)).draft });
  }
  if (sent.length < 2) return sent[0] ?? null;
  const files = factsFiles(
    ctx,
    sent.map((s) => s.document),
  );
  const asked = sent.map(({ draft }, i) => ({ draft, document: itemAt(files, i) }));
  const counts = await orNull(ctx.work.run('corrections', { sent: asked }, knownId));
  return sent[Math.max(0, counts?.findIndex((n) => n > 0) ?? 0)] ?? null;
}

/** Returns the best sent packet as a form: slots in place of people, and nothing that names the deal; null if nothing is on the document. */
export async function sentSource(ctx: Context, knownId: string, exceptPacketId: string): Promise<Source | null> {
  const best = await bestSent(ctx, knownId, exceptPacketId);
  if (!best) return null;
  const { row, draft, document } = best;
  const tags = tagValues(factsOfDeal(await dealOr404(ctx.database.pool, row.deal_id)), draft.parties);
  const people = slotsOfPeople(draft.parties, newId);
  const form = formFrom({ draft, people, tags, newId }, document.id, document.id, document.name);
  const gates = draft.gates.map((g) => ({ ...g, partyIds: g.partyIds.flatMap((p) => people.get(p)?.id ?? []) }));
  if (!form.marks.length && !form.rules.length) return null;
  return {
    knownId,
    document,
    form: withoutDeal({ ...form, gates }, draft.parties, tags),
    from: {
      kind: 'packet',
      name: document.name,
      address: row.address,
      sentAt: row.sent_at.toISOString(),
      executed: row.executed,
    },
  };
}
