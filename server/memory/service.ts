/** What a packet's document had on it the last time it was sent. */
import { likeness, keysOf, withoutDeal } from '@gatepath/core/memory';
import { tagValues } from '@gatepath/core/merge';
import type { Draft } from '@gatepath/core/packet';
import { formFrom, slotsOfPeople } from '@gatepath/core/shelf';
import type { RememberedView } from '@gatepath/contract';
import type { Context } from '../context';
import { dealOr404, factsOfDeal } from '../deal-records/deals';
import { documentById, type DocumentRow } from '../documents/queries';
import { documentOr404, factsFiles } from '../documents/service';
import type { Member } from '../firm/queries';
import { newId } from '../ids';
import { draftOf } from '../packets/queries';
import { packetOr404 } from '../packets/service';
import { notFound, Problem } from '../problem';
import { mayUseItem } from '../sharing/queries';
import { itemById, lastEditions } from '../shelf/queries';
import * as q from './queries';
import { isComparable, MOST_COMPARED, orNull, rememberDocument } from './remember';

/** Least estimated likeness of two editions of a document. */
const EDITION = 0.3;

/** Where what is remembered of a document comes from. */
interface Source {
  knownId: string;
  /** The earlier document. */
  document: DocumentRow;
  /** What was on it, by role. */
  form: Draft;
  from: NonNullable<RememberedView['remembered']>['from'];
}

/**
 * Returns what a document of a packet had on it the last time, placed for the people of the packet: null if it is a new
 * document, or was never sent.
 *
 * @throws Problem `not-found`, `reading`
 */
export async function rememberedOf(
  ctx: Context,
  packetId: string,
  documentId: string,
  member: Member,
): Promise<RememberedView> {
  const db = ctx.database.pool;
  const { row, known } = await lookedUp(ctx, packetId, documentId);
  const { draft } = await draftOf(db, packetId);
  const atOnce = (await ctx.firm())?.place_remembered ?? false;
  if (known[0]?.offered === false) return { atOnce, remembered: null };
  for (const { id, offered } of known) {
    if (!offered) continue;
    const source = (await formSource(ctx, id, member)) ?? (await sentSource(ctx, id, packetId));
    const [before, after] = source ? factsFiles(ctx, [source.document, row]) : [];
    if (!source || !before || !after) continue;
    const found = await orNull(
      ctx.work.run('recall', { form: source.form, before, after, draft }, row.deal_id ?? row.id),
    );
    if (!found) continue;
    const { relation, ...recalled } = found;
    return {
      atOnce,
      remembered: { ...relation, ...recalled, from: source.from, times: await q.timesSent(db, source.knownId) },
    };
  }
  return { atOnce, remembered: null };
}

/**
 * Stops offering what was on a document: for the document itself, and for other editions of it.
 *
 * @throws Problem `not-found`, `reading`
 */
export async function stopOffering(ctx: Context, packetId: string, documentId: string): Promise<void> {
  const { known } = await lookedUp(ctx, packetId, documentId);
  // Those that are merely alike, or were the source of an offer, are other documents.
  const [own] = known;
  if (own) await q.stopOffering(ctx.database.pool, own.id, ctx.clock.now());
}

/** Returns a document of a packet's deal and the known documents it may be, the most likely first. */
async function lookedUp(ctx: Context, packetId: string, documentId: string) {
  const db = ctx.database.pool;
  const packet = await packetOr404(db, packetId);
  const asked = await documentOr404(db, documentId);
  if (asked.deal_id !== packet.deal_id) throw notFound('This document');
  if (asked.status === 'reading')
    throw new Problem('reading', `“${asked.name}” is still being read. It is ready in a moment.`);
  if (!isComparable(asked)) return { row: asked, known: [] };
  // The job that compares it may not have had its turn.
  if (!asked.known_id) await rememberDocument(ctx, documentId);
  const row = await documentOr404(db, documentId);
  const own = row.known_id ? await q.knownById(db, row.known_id) : null;
  if (!own) return { row, known: [] };
  const others = (await q.knownByKeys(db, keysOf(own.print), MOST_COMPARED))
    .filter((k) => k.id !== own.id && likeness(k.print, own.print) >= EDITION)
    .sort((a, b) => likeness(b.print, own.print) - likeness(a.print, own.print));
  return { row, known: [own, ...others] };
}

/** Returns a form of the shelf that the member may use, as it was put there last. */
async function formSource(ctx: Context, knownId: string, member: Member): Promise<Source | null> {
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

/** Returns the packet in which the document went best, as a form: nobody of that deal is in it. */
async function sentSource(ctx: Context, knownId: string, packetId: string): Promise<Source | null> {
  const db = ctx.database.pool;
  const sent = await q.lastSent(db, knownId, packetId);
  const document = sent && (await documentById(db, sent.document_id));
  if (!sent || !document) return null;
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
