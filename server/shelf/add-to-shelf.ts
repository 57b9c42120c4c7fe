/** Adding to the shelf from a packet that went well: forms of its documents, and a kit of the whole. */
import type { Draft } from '@gatepath/core/packet';
import { tagValues } from '@gatepath/core/merge';
import { formFrom, kitFrom, slotsOfPeople, withDocuments, type Slot, type Tags } from '@gatepath/core/shelf';
import { clip } from '@gatepath/core/text';
import { sure } from '@gatepath/core/sure';
import type { SaveToShelfBody, ShelfItemView } from '@gatepath/contract';
import type { Context } from '../context';
import { inTransaction, type Tx } from '../db/tx';
import { factsOfDeal } from '../deal-records/deals';
import { dealOr404 } from '../deal-records/deals';
import { documentsByIds, documentsOnShelf, insertDocument, type DocumentRow } from '../documents/queries';
import type { Member } from '../firm/queries';
import { newId } from '../ids';
import { draftOf } from '../packets/queries';
import { packetOr404 } from '../packets/service';
import { Problem } from '../problem';
import { itemOr404 } from './access';
import * as q from './queries';
import { itemView } from './views';

/**
 * Makes a form of one document of a packet, or a kit of the packet with a form for each document. People become
 * slots; a person of no side stays the same person.
 *
 * @throws Problem `unknown-document`, `reading`, `sealed`
 */
export async function addToShelf(ctx: Context, body: SaveToShelfBody, member: Member): Promise<ShelfItemView> {
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
  const deal = await dealOr404(db, packet.deal_id);
  const from: ReuseFrom = {
    draft,
    people: slotsOfPeople(draft.parties, newId),
    tags: tagValues(factsOfDeal(deal), draft.parties),
    newId,
  };
  const shelve = !body.documentId;
  const id = await inTransaction(ctx.database.pool, async (tx) => {
    const formIds: string[] = [];
    for (const document of documents)
      formIds.push(
        await saveForm(ctx, tx, { from, document, name: shelve ? document.name : body.name, member, shelve }),
      );
    if (!shelve) return sure(formIds[0], 'a form');
    const kitId = newId();
    const kit = kitFrom(from, formIds, body.name);
    await q.insertItem(tx.db, { id: kitId, what: 'kit', draft: kit, by: member.id, at: ctx.clock.now() });
    return kitId;
  });
  return itemView(ctx, id, member);
}

/** Makes a copy of a form or kit that belongs to the member. */
export async function copyItem(ctx: Context, id: string, member: Member): Promise<ShelfItemView> {
  const db = ctx.database.pool;
  const row = await itemOr404(db, id, member);
  const copy = newId();
  const at = ctx.clock.now();
  await inTransaction(db, async (tx) => {
    const draft = { ...row.draft, name: clip(`${row.name} (copy)`, 120) };
    await q.insertItem(tx.db, { id: copy, what: row.what, draft, by: member.id, at });
    if (row.what === 'kit') return;
    const papers = new Map((await documentsOnShelf(tx.db, id)).map((d) => [d.id, d]));
    const ids = new Map<string, string>();
    for (const { id: documentId } of row.draft.documents) {
      const paper = papers.get(documentId);
      if (!paper) continue;
      const own = newId();
      ids.set(documentId, own);
      await insertDocument(tx.db, { ...paper, id: own, shelf_id: copy, bytes: Number(paper.bytes), created_at: at });
    }
    const own = withDocuments(draft, (of) => ids.get(of) ?? of);
    if (!row.written) return q.saveItemDraft(tx.db, copy, own, 1);
    await q.saveWritten(tx.db, { id: copy, written: row.written, writtenVersion: 1, draft: own, version: 1 });
  });
  return itemView(ctx, copy, member);
}

interface ReuseFrom {
  draft: Draft;
  people: ReadonlyMap<string, Slot>;
  tags: Tags;
  newId: typeof newId;
}

/** Saves a form. @param shelve whether it is put on the shelf at once, as a kit requires */
async function saveForm(
  ctx: Context,
  tx: Tx,
  o: { from: ReuseFrom; document: DocumentRow; name: string; member: Member; shelve: boolean },
): Promise<string> {
  const id = newId();
  const at = ctx.clock.now();
  const documentId = newId();
  const form = formFrom(o.from, o.document.id, documentId, o.name);
  await q.insertItem(tx.db, { id, what: 'form', draft: form, by: o.member.id, at });
  await insertDocument(tx.db, {
    ...o.document,
    id: documentId,
    deal_id: null,
    shelf_id: id,
    bytes: Number(o.document.bytes),
    created_at: at,
    replaced_by: null,
    form_id: null,
    form_edition: null,
  });
  if (o.shelve)
    await q.insertEdition(tx.db, {
      itemId: id,
      edition: 1,
      draft: form,
      written: null,
      changes: [],
      by: o.member.id,
      at,
    });
  return id;
}
