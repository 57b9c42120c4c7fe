/** Drafts: starting, editing and deleting them. */
import {
  type Draft,
  type DraftEdit,
  PACKET_LIMITS,
  type PacketParty,
  applyEdits,
  emptyDraft,
  gatesOfPattern,
  overLimit,
} from '@gatepath/core/packet';
import { brokenLock, lockedWords } from '@gatepath/core/shelf';
import type { EditsBody, NewPacketBody, SavedDraft } from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { inTransaction } from '../db/tx';
import { partiesOfDeal, type PartyRow } from '../deal-records/party-queries';
import { dealOr404 } from '../deal-records/deals';
import { queueDealStatus } from '../jobs/deal-status';
import { clearReplaced, documentsByIds } from '../documents/queries';
import type { Member } from '../firm/queries';
import { newId } from '../ids';
import { topics } from '../live/live';
import { notFound, Problem } from '../problem';
import { accessFor, accessHash } from '../links/access-codes';
import { saveAccessCode } from '../links/queries';
import * as q from './queries';

/**
 * Returns a packet, locked until the transaction ends.
 *
 * @throws Problem `not-found`
 */
export async function lockedOr404(db: Db, id: string): Promise<q.PacketRow> {
  const row = await q.lockPacket(db, id);
  if (!row) throw notFound('This packet');
  return row;
}

/** Returns a person of a deal as a party of a packet. */
export const asPacketParty = (p: PartyRow, ink: number): PacketParty => ({
  id: p.id,
  name: p.name,
  email: p.email,
  phone: p.phone,
  side: p.side,
  ordinal: p.ordinal,
  act: p.side === 'other' ? 'copy' : 'sign',
  ink,
  ...(p.company ? { company: p.company } : {}),
  ...(p.capacity ? { capacity: p.capacity } : {}),
});

/**
 * Starts a draft with the deal's parties on a usual path.
 *
 * @throws Problem `unknown-document`
 */
export async function startPacket(ctx: Context, dealId: string, body: NewPacketBody, member: Member): Promise<string> {
  const id = newId();
  await inTransaction(ctx.database.pool, async (tx) => {
    const { db, afterCommit } = tx;
    await dealOr404(db, dealId);
    await queueDealStatus(ctx, tx, dealId);
    const documentIds = body.documentIds ?? [];
    await requireDocuments(db, dealId, documentIds);
    const parties = (await partiesOfDeal(db, dealId)).map(asPacketParty);
    const draft: Draft = {
      ...emptyDraft(body.name),
      subject: `Please sign: ${body.name}`,
      parties,
      documents: documentIds.map((d) => ({ id: d })),
      gates: gatesOfPattern('by_side', parties, newId),
    };
    await q.insertPacket(db, {
      id,
      deal_id: dealId,
      name: body.name,
      draft,
      created_by: member.id,
      at: ctx.clock.now(),
    });
    afterCommit(() => ctx.live.notify(topics.deal(dealId)));
  });
  return id;
}

async function requireDocuments(db: Db, dealId: string, ids: string[]): Promise<void> {
  const found = await documentsByIds(db, ids);
  if (found.length !== new Set(ids).size || found.some((d) => d.deal_id !== dealId))
    throw new Problem('unknown-document', 'A document of this packet is no longer in the deal. Load the page again.');
}

/**
 * Applies edits to a draft. Edits of several members are applied one after another.
 *
 * @throws Problem `already-sent`, `locked-setting`, `over-limits`, `no-name`, `not-found`, `unknown-document`
 */
export async function editDraft(ctx: Context, packetId: string, body: EditsBody, member: Member): Promise<SavedDraft> {
  return inTransaction(ctx.database.pool, async (tx) => {
    const { db, afterCommit } = tx;
    const row = await lockedOr404(db, packetId);
    if (row.status !== 'drafting')
      throw new Problem('already-sent', 'This packet has been sent, so it can no longer be edited.');
    // Only its papers and its name show in the deal.
    if (body.edits.some((e) => (e.op === 'set' ? e.field === 'name' : e.list === 'documents')))
      await queueDealStatus(ctx, tx, row.deal_id);
    const was = await q.draftOf(db, packetId);
    const broken = brokenLock(body.edits, was.locks, was.draft);
    if (broken) throw new Problem('locked-setting', lockedWords(broken));
    const draft = applyEdits(was.draft, await withoutCodes(ctx, db, packetId, body.edits));
    const full = overLimit(draft);
    if (full)
      throw new Problem(
        'over-limits',
        `A packet takes at most ${PACKET_LIMITS[full]} ${full}. Make a second packet for the rest.`,
      );
    const added = body.edits.flatMap((e) => (e.op === 'put' && e.list === 'documents' ? [e.item.id] : []));
    if (added.length) await requireDocuments(db, row.deal_id, added);
    if (!draft.name.trim()) throw new Problem('no-name', 'The packet needs a name.');
    const version = was.version + 1;
    await q.saveDraft(db, packetId, draft, version);
    // A document that is in a packet again, by undoing a page change, belongs to the deal again too.
    const before = new Set(was.draft.documents.map((d) => d.id));
    const back = await clearReplaced(
      db,
      added.filter((id) => !before.has(id)),
    );
    const over = await overlaps(db, packetId, version, body, member);
    afterCommit(() => {
      ctx.live.notify(topics.packet(packetId));
      if (back) ctx.live.notify(topics.deal(row.deal_id));
    });
    return { draft, version, over };
  });
}

/** Replaces codes told in person by keyed hashes as they are set, so that no draft contains them; removes slots. */
async function withoutCodes(ctx: Context, db: Db, packetId: string, edits: DraftEdit[]): Promise<DraftEdit[]> {
  const out: DraftEdit[] = [];
  for (const edit of edits) {
    if (edit.op !== 'put' || edit.list !== 'parties') {
      out.push(edit);
      continue;
    }
    // A packet contains people; slots belong to the shelf.
    const { slot: _slot, ...person } = edit.item;
    if (person.accessCode === undefined) {
      out.push({ ...edit, item: person });
      continue;
    }
    const { accessCode, codeKept: _before, ...item } = person;
    const of = accessFor(packetId, item.id);
    const given = accessCode.trim();
    if (given) await saveAccessCode(db, packetId, item.id, accessHash(ctx, of, given), of);
    out.push({ ...edit, item: given ? { ...item, codeKept: true } : item });
  }
  return out;
}

/** How many versions back an edit may be based and still be compared; older changes are deleted. */
const REMEMBERED = 500;

/** Records what was touched, and returns whose changes of the same items came after the edits' base. */
async function overlaps(db: Db, packetId: string, version: number, body: EditsBody, member: Member): Promise<string[]> {
  const touched = [
    ...new Set(
      body.edits.map((e) => (e.op === 'set' ? `field:${e.field}` : `${e.list}:${e.op === 'put' ? e.item.id : e.id}`)),
    ),
  ];
  const client = body.client ?? member.id;
  const since = await q.changesSince(db, packetId, body.base ?? version, client);
  await q.insertChange(db, { packet_id: packetId, version, client, member_name: member.name, touched });
  await q.deleteChanges(db, packetId, version - REMEMBERED);
  const mine = new Set(touched);
  return [...new Set(since.filter((c) => c.touched.some((t) => mine.has(t))).map((c) => c.member_name))];
}

/**
 * Deletes a draft.
 *
 * @throws Problem `already-sent` for a packet that was sent, `not-found`
 */
export async function deleteDraft(ctx: Context, packetId: string): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const { db, afterCommit } = tx;
    const row = await lockedOr404(db, packetId);
    if (row.status !== 'drafting')
      throw new Problem('already-sent', 'A packet that was sent stays in the deal. Withdraw it instead.');
    await q.deletePacket(db, packetId);
    await queueDealStatus(ctx, tx, row.deal_id);
    afterCommit(() => ctx.live.notify(topics.deal(row.deal_id)));
  });
}
