/** Forms and kits in preparation: made, edited, put on the shelf in editions, shared, retired. */
import {
  PACKET_LIMITS,
  applyEdits,
  emptyDraft,
  gatesOfPattern,
  overLimit,
  type Draft,
  type DraftEdit,
} from '@gatepath/core/packet';
import { keysOf } from '@gatepath/core/sure';
import { slotsTogether, type Locks } from '@gatepath/core/shelf';
import type { EditionBody, EditsBody, KitBody, SavedDraft, ShelfItemView, ShelfPatch } from '@gatepath/contract';
import type { Context } from '../context';
import { queueFileDeletionIn } from '../files/tidy';
import type { Db } from '../db/pool';
import { inTransaction, type Tx } from '../db/tx';
import { documentsOnShelf, type DocumentRow } from '../documents/queries';
import { listMembers, type Member } from '../firm/queries';
import { newId } from '../ids';
import { topics } from '../live/live';
import { Problem } from '../problem';
import { requireForms, toChange, usableForms } from './access';
import * as q from './queries';
import { changesSince, itemView, viewOf } from './views';

/**
 * Makes a kit of forms that are on the shelf, with the usual path.
 *
 * @throws Problem `not-found`, `unknown-document`, `not-on-shelf`
 */
export async function newKit(ctx: Context, body: KitBody, member: Member): Promise<ShelfItemView> {
  const db = ctx.database.pool;
  const ids = [...new Set(body.formIds)];
  await requireForms(db, ids, member);
  const editions = await usableForms(db, ids);
  const slots = slotsTogether(ids.flatMap((id) => editions.get(id)?.draft ?? [])).map((s) => ({ ...s, id: newId() }));
  const draft: Draft = {
    ...emptyDraft(body.name),
    subject: `Please sign: ${body.name}`,
    parties: slots,
    documents: ids.map((id) => ({ id })),
    gates: gatesOfPattern('by_side', slots, newId),
  };
  const id = newId();
  await q.insertItem(db, { id, what: 'kit', draft, by: member.id, at: ctx.clock.now() });
  return itemView(ctx, id, member);
}

/**
 * Applies edits to a form or kit in preparation; edits of several people are applied one after another.
 *
 * @throws Problem `over-limits`, `no-name`, `unknown-document`
 */
export async function editItem(ctx: Context, id: string, body: EditsBody, member: Member): Promise<SavedDraft> {
  return inTransaction(ctx.database.pool, async (tx) => {
    const row = await toChange(tx.db, id, member);
    const draft = applyEdits(row.draft, body.edits.map(withoutCode));
    const full = overLimit(draft);
    if (full) throw new Problem('over-limits', `A form or a kit takes at most ${PACKET_LIMITS[full]} ${full}.`);
    if (!draft.name.trim()) throw new Problem('no-name', 'It needs a name.');
    await requirePapers(tx.db, row, draft, member);
    const version = row.version + 1;
    await q.saveItemDraft(tx.db, id, draft, version);
    tx.afterCommit(() => ctx.live.notify(topics.shelf(id)));
    return { draft, version, over: [] };
  });
}

/** Returns an edit without an access code: codes told to one person are never stored on the shelf. */
function withoutCode(edit: DraftEdit): DraftEdit {
  if (edit.op !== 'put' || edit.list !== 'parties') return edit;
  const { accessCode: _told, codeKept: _kept, ...item } = edit.item;
  return { ...edit, item };
}

/** Requires that a form contains only papers of its own, and a kit only forms. */
async function requirePapers(db: Db, row: q.ShelfRow, draft: Draft, member: Member): Promise<void> {
  const added = draft.documents.filter((d) => !row.draft.documents.some((x) => x.id === d.id)).map((d) => d.id);
  if (!added.length) return;
  if (row.what === 'kit') return requireForms(db, added, member);
  const own = new Set((await documentsOnShelf(db, row.id)).map((d) => d.id));
  if (added.some((id) => !own.has(id)))
    throw new Problem('unknown-document', 'A paper of this form is not there any more. Load the page again.');
}

/**
 * Changes settings outside the draft: the last day, locks, whether it is retired.
 *
 * @throws Problem `unknown-member`
 */
export async function setItem(ctx: Context, id: string, body: ShelfPatch, member: Member): Promise<ShelfItemView> {
  const now = await inTransaction(ctx.database.pool, async (tx) => {
    const was = await toChange(tx.db, id, member);
    const locks: Locks = {};
    for (const lock of body.locks ?? keysOf(was.locks))
      locks[lock] = was.locks[lock] ?? { memberId: member.id, name: member.name };
    const known = new Set((await listMembers(tx.db)).map((m) => m.id));
    const named = [...(body.users ?? []), ...(body.makers ?? []), ...(body.ownerId ? [body.ownerId] : [])];
    if (named.some((x) => !known.has(x)))
      throw new Problem(
        'unknown-member',
        'One of these people is not a member of the firm any more. Load the page again.',
      );
    const row: q.ShelfRow = {
      ...was,
      owner_id: body.ownerId ?? was.owner_id,
      users: body.users === undefined ? was.users : body.users,
      makers: body.makers === undefined ? was.makers : body.makers,
      ends_on: body.endsOn === undefined ? was.ends_on : body.endsOn,
      locks,
      last_in: body.lastIn === undefined ? was.last_in : body.lastIn,
      retired_at:
        body.retired === undefined ? was.retired_at : body.retired ? (was.retired_at ?? ctx.clock.now()) : null,
    };
    await q.saveItem(tx.db, row);
    tx.afterCommit(() => ctx.live.notify(topics.shelf(id)));
    return row;
  });
  // The person who handed it over gets its status once more.
  return viewOf(ctx, now, member);
}

/**
 * Puts a form or kit on the shelf as its next edition; packets made from earlier ones keep them.
 *
 * @throws Problem `changed-meanwhile`, `reading`, `no-document`, `not-on-shelf`
 */
export async function putOnShelf(ctx: Context, id: string, body: EditionBody, member: Member): Promise<ShelfItemView> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await toChange(tx.db, id, member);
    if (row.version !== body.version)
      throw new Problem(
        'changed-meanwhile',
        'It has changed since you opened it. Check it again, then put it on the shelf.',
      );
    await requireReady(tx.db, row);
    if (row.edition && !row.changed) return;
    const last = (await q.lastEditions(tx.db, [id])).get(id);
    const documents = [...(last?.draft.documents ?? []), ...row.draft.documents].map((d) => d.id);
    const forms = row.what === 'kit' ? await q.headsByIds(tx.db, documents) : [];
    await q.insertEdition(tx.db, {
      itemId: id,
      edition: row.edition + 1,
      draft: row.draft,
      written: row.written,
      changes: last ? changesSince(last, row, forms) : [],
      by: member.id,
      at: ctx.clock.now(),
    });
    const before = new Date(ctx.clock.now().getTime() - LEFT_LYING_MS);
    await tidyPapers(ctx, tx, await q.deleteUnusedDocuments(tx.db, id, before));
    tx.afterCommit(() => ctx.live.notify(topics.shelf(id)));
  });
  return itemView(ctx, id, member);
}

/** How long a changed paper that nobody took is stored, in milliseconds. */
const LEFT_LYING_MS = 86_400_000;

/** Requires that an item can be used: its paper is read, or all of its forms are on the shelf. */
async function requireReady(db: Db, row: q.ShelfRow): Promise<void> {
  const ids = row.draft.documents.map((d) => d.id);
  if (!ids.length) throw new Problem('no-document', 'There is no paper in it yet.');
  if (row.what === 'kit') return void (await usableForms(db, ids));
  const reading = (await documentsOnShelf(db, row.id)).find((d) => !d.facts_sha256 && ids.includes(d.id));
  if (reading) throw new Problem('reading', `“${reading.name}” is still being read. It is ready in a moment.`);
}

/**
 * Deletes an item that was never put on the shelf. The files of its paper are deleted when nothing else needs them.
 *
 * @throws Problem `was-sent`
 */
export async function deleteItem(ctx: Context, id: string, member: Member): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await toChange(tx.db, id, member);
    if (row.edition) throw new Problem('was-sent', `“${row.name}” has been on the shelf. Retire it instead.`);
    const papers = await documentsOnShelf(tx.db, id);
    await q.deleteItem(tx.db, id);
    await tidyPapers(ctx, tx, papers);
    tx.afterCommit(() => ctx.live.notify(topics.shelf(id)));
  });
}

/** Enqueues deleting the files of deleted papers, if nothing else needs them. */
export async function tidyPapers(
  ctx: Context,
  tx: Tx,
  papers: Pick<DocumentRow, 'original_sha256' | 'sha256' | 'facts_sha256'>[],
): Promise<void> {
  for (const file of new Set(papers.flatMap((d) => [d.original_sha256, d.sha256, d.facts_sha256])))
    if (file) await queueFileDeletionIn(ctx, tx, file);
}
