/** Where what is remembered of a document comes from: a form of the shelf, or the packet in which it went best. */
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
import { newId } from '../ids';
import { draftOf } from '../packets/queries';
import { mayUseItem } from '../sharing/queries';
import { itemById, lastEditions } from '../shelf/queries';
import * as q from './queries';
import { orNull } from './remember';

/** Where what is remembered of a document comes from. */
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

/** Number of packets that went best, and of the last ones, among which people's corrections are searched. */
const MOST_SENT = 4;

/**
 * Returns the packet with a known document that is repeated, as a form without anybody of that deal: one in which people have
 * corrected what was read first, then an executed one, then the last one that was sent.
 *
 * @param exceptPacketId a packet that does not count, if it has the document itself
 */
export async function sentSource(ctx: Context, knownId: string, exceptPacketId: string | null): Promise<Source | null> {
  const sent = await q.sentWith(ctx.database.pool, knownId, exceptPacketId, MOST_SENT);
  const went = sent.some((row) => !row.went_wrong) ? sent.filter((row) => !row.went_wrong) : sent;
  const sources: Source[] = [];
  for (const row of went) {
    const source = await asForm(ctx, knownId, row);
    if (source) sources.push(source);
  }
  if (sources.length < 2) return sources[0] ?? null;
  const files = sources.map(({ form, document }) => ({ form, before: factsFiles(ctx, [document])[0] }));
  const asked = files.flatMap(({ form, before }) => (before ? [{ form, before }] : []));
  const counts = await orNull(ctx.work.run('corrections', { sent: asked }, knownId));
  return sources[Math.max(0, counts?.findIndex((n) => n > 0) ?? 0)] ?? null;
}

/** Returns a document of a packet as a form: slots in place of people, and nothing that names the deal; null if nothing is on it. */
async function asForm(ctx: Context, knownId: string, sent: q.SentRow): Promise<Source | null> {
  const db = ctx.database.pool;
  const document = await documentById(db, sent.document_id);
  if (!document) return null;
  const { draft } = await draftOf(db, sent.packet_id);
  const tags = tagValues(factsOfDeal(await dealOr404(db, sent.deal_id)), draft.parties);
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
      address: sent.address,
      sentAt: sent.sent_at.toISOString(),
      executed: sent.executed,
    },
  };
}
