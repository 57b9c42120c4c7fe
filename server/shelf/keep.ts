/** What went well, kept: forms of the documents of a packet, and a kit of the whole of it. */
import { type Draft, type PacketParty } from '@gatepath/core/packet';
import { newSlot, sameSlot, withDocuments, type Slot } from '@gatepath/core/shelf';
import { clip } from '@gatepath/core/text';
import { sure } from '@gatepath/core/sure';
import type { KeepBody, ShelfItemView } from '@gatepath/contract';
import { NO_SCHEDULE } from '@gatepath/core/calendar';
import { emptyDraft } from '@gatepath/core/packet';
import type { Context } from '../context';
import { inTransaction, type Tx } from '../db/tx';
import { documentsByIds, documentsOnShelf, insertDocument, type DocumentRow } from '../documents/queries';
import type { Member } from '../firm/queries';
import { newId } from '../ids';
import { draftOf } from '../packets/queries';
import { packetOr404 } from '../packets/service';
import { Problem } from '../problem';
import * as q from './queries';
import { itemOr404, itemView } from './service';

/**
 * Makes a form of one document of a packet, or a kit of all of it with a form for each of its documents. People become
 * the slots they stood in; who is of no side stays the same person.
 *
 * @throws Problem `unknown-document`, `reading`, `sealed`
 */
export async function keepOnShelf(ctx: Context, body: KeepBody, member: Member): Promise<ShelfItemView> {
  const db = ctx.database.pool;
  const packet = await packetOr404(db, body.packetId);
  const { draft } = await draftOf(db, packet.id);
  const rows = new Map(
    (
      await documentsByIds(
        db,
        draft.documents.map((d) => d.id),
      )
    ).map((d) => [d.id, d]),
  );
  const wanted = draft.documents.map((d) => d.id).filter((id) => !body.documentId || id === body.documentId);
  const documents = wanted.map((id) => {
    const row = rows.get(id);
    if (!row?.facts_sha256)
      throw new Problem('reading', 'A paper of this packet is not read yet. It is ready in a moment.');
    if (row.sealed)
      throw new Problem('sealed', `“${row.name}” is sealed already. Make the form of the paper it was before.`);
    return row;
  });
  if (!documents.length) throw new Problem('unknown-document', 'This paper is not in the packet any more.');
  const people = new Map(draft.parties.map((p) => [p.id, slotOf(p)]));
  const id = await inTransaction(ctx.database.pool, async (tx) => {
    const formIds: string[] = [];
    for (const d of documents) {
      const name = body.documentId ? body.name : d.name;
      formIds.push(await keepForm(ctx, tx, { document: d, draft, people, name, member, shelve: !body.documentId }));
    }
    if (body.documentId) return sure(formIds[0], 'a form');
    return keepKit(ctx, tx, { draft, people, formIds, name: body.name, member });
  });
  return itemView(ctx, id, member);
}

/** A copy of a form or a kit as it is prepared, which is the member's to change. */
export async function copyItem(ctx: Context, id: string, member: Member): Promise<ShelfItemView> {
  const db = ctx.database.pool;
  const row = await itemOr404(db, id, member);
  const copy = newId();
  const at = ctx.clock.now();
  await inTransaction(db, async (tx) => {
    const draft = { ...row.draft, name: clip(`${row.name} (copy)`, 120) };
    await q.insertItem(tx.db, { id: copy, what: row.what, draft, by: member.id, at });
    if (row.what === 'kit') return;
    const papers = new Map((await documentsOnShelf(tx.db, [id])).map((d) => [d.id, d]));
    const ids = new Map<string, string>();
    for (const { id: documentId } of row.draft.documents) {
      const paper = papers.get(documentId);
      if (!paper) continue;
      const own = newId();
      ids.set(documentId, own);
      await insertDocument(tx.db, { ...paper, id: own, shelf_id: copy, bytes: Number(paper.bytes), created_at: at });
    }
    await q.saveItemDraft(
      tx.db,
      copy,
      withDocuments(draft, (of) => ids.get(of) ?? of),
      1,
    );
  });
  return itemView(ctx, copy, member);
}

/** The slot a person stood in. */
function slotOf(p: PacketParty): Slot {
  const { accessCode: _told, codeKept: _kept, only: _only, memberId: _member, ...rest } = p;
  if (p.side === 'other') return { ...rest, id: newId(), slot: 'person' };
  const slot = newSlot('one', p.side, p.ordinal, newId(), p.ink);
  return { ...slot, act: p.act, ...(p.note ? { note: p.note } : {}), ...(p.copyAt ? { copyAt: p.copyAt } : {}) };
}

interface Keep {
  document: DocumentRow;
  draft: Draft;
  people: ReadonlyMap<string, Slot>;
  name: string;
  member: Member;
  /** Whether it goes on the shelf at once: a kit takes nothing else. */
  shelve: boolean;
}

async function keepForm(
  ctx: Context,
  tx: Tx,
  { document, draft, people, name, member, shelve }: Keep,
): Promise<string> {
  const id = newId();
  const at = ctx.clock.now();
  const documentId = newId();
  const form: Draft = { ...formOf(draft, document.id, documentId, people), name };
  await q.insertItem(tx.db, { id, what: 'form', draft: form, by: member.id, at });
  await insertDocument(tx.db, {
    ...document,
    id: documentId,
    deal_id: null,
    shelf_id: id,
    bytes: Number(document.bytes),
    created_at: at,
    replaced_by: null,
    form_id: null,
    form_edition: null,
  });
  if (shelve) await q.insertEdition(tx.db, { itemId: id, edition: 1, draft: form, by: member.id, at });
  return id;
}

/** What stands on one document of a draft, with slots in the place of people and their names as tags. */
function formOf(draft: Draft, documentId: string, to: string, people: ReadonlyMap<string, Slot>): Draft {
  const as = (partyId: string) => people.get(partyId)?.id ?? partyId;
  const rules = draft.rules.filter((r) => r.documentId === documentId);
  const marks = draft.marks.filter((m) => m.documentId === documentId);
  const there = new Set([...marks.map((m) => m.partyId), ...rules.flatMap((r) => r.partyIds)]);
  const slots = [...people].filter(([id]) => there.has(id)).map(([, slot]) => slot);
  const place = (id: string) => (id.startsWith(`${documentId}.`) ? `${to}${id.slice(documentId.length)}` : id);
  return {
    ...emptyDraft(''),
    parties: slots,
    documents: [{ id: to }],
    marks: marks.map((m) => ({
      ...m,
      id: newId(),
      documentId: to,
      partyId: as(m.partyId),
      ...(m.placeId ? { placeId: place(m.placeId) } : {}),
      ...(m.value ? { value: withTags(m.value, draft.parties) } : {}),
    })),
    rules: rules.map((r) => ({
      ...r,
      id: `rule-${to}`,
      documentId: to,
      partyIds: r.partyIds.map(as),
      except: r.except.map((e) => ({ ...e, partyId: as(e.partyId) })),
      moved: r.moved.map((x) => ({ ...x, partyId: as(x.partyId) })),
    })),
    passed: draft.passed.filter((p) => p.id.startsWith(`${documentId}.`)).map((p) => ({ id: place(p.id) })),
  };
}

const TAG_OF: Partial<Record<PacketParty['side'], string>> = {
  seller: 'seller',
  buyer: 'buyer',
  landlord: 'landlord',
  tenant: 'tenant',
  guarantor: 'guarantor',
  listing_broker: 'broker',
  manager: 'manager',
};

/** A name that stands alone becomes the tag of who it is: the next deal has other people. */
function withTags(value: string, parties: readonly PacketParty[]): string {
  const who = parties.find((p) => p.name === value.trim());
  const tag = who && TAG_OF[who.side];
  return tag ? `{${tag} ${who.ordinal}}` : value;
}

async function keepKit(
  ctx: Context,
  tx: Tx,
  o: { draft: Draft; people: ReadonlyMap<string, Slot>; formIds: string[]; name: string; member: Member },
): Promise<string> {
  const id = newId();
  const slots: Slot[] = [];
  for (const s of o.people.values()) if (!slots.some((x) => sameSlot(x, s))) slots.push(s);
  const kit: Draft = {
    ...emptyDraft(o.name),
    subject: o.draft.subject,
    message: o.draft.message,
    // The last day was that packet's alone.
    schedule: { ...NO_SCHEDULE, ...o.draft.schedule, lastDay: null },
    handOver: o.draft.handOver,
    readAlong: o.draft.readAlong ?? false,
    parties: slots,
    documents: o.formIds.map((formId) => ({ id: formId })),
    gates: o.draft.gates.map((g) => ({
      ...g,
      id: newId(),
      partyIds: g.partyIds.flatMap((p) => o.people.get(p)?.id ?? []),
    })),
  };
  await q.insertItem(tx.db, { id, what: 'kit', draft: kit, by: o.member.id, at: ctx.clock.now() });
  return id;
}
