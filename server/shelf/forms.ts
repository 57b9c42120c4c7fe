/** Forms: made from a file, their slots, and a changed paper that replaces theirs. */
import { emptyDraft, gatesOfPattern, type Draft } from '@gatepath/core/packet';
import type { AgainView, DocumentView, ShelfItemView } from '@gatepath/contract';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { broughtIn, insertPaper } from '../documents/bring-in';
import { documentById, documentsOnShelf } from '../documents/queries';
import { documentView, factsFiles } from '../documents/service';
import type { Member } from '../firm/queries';
import type { Upload } from '../http/upload';
import { newId } from '../ids';
import { topics } from '../live/live';
import { notFound, Problem } from '../problem';
import { itemOr404, toChange } from './access';
import * as q from './queries';
import { itemView } from './views';

/** Makes a form from a file; its slots come from its printed places, once they are read. */
export async function newForm(ctx: Context, file: Upload, member: Member): Promise<ShelfItemView> {
  const id = newId();
  const paper = await broughtIn(ctx, file, id);
  await inTransaction(ctx.database.pool, async (tx) => {
    await q.insertItem(tx.db, { id, what: 'form', draft: emptyDraft(paper.name), by: member.id, at: ctx.clock.now() });
    const kept = await insertPaper(ctx, tx, paper, { deal_id: null, shelf_id: id });
    const draft = { ...emptyDraft(paper.name), documents: [{ id: kept.id }] };
    await q.saveItemDraft(tx.db, id, draft, 1);
  });
  return itemView(ctx, id, member);
}

/**
 * Adds a changed paper of a form: it is read, and replaces nothing before a member approves it.
 *
 * @throws Problem `not-found`
 */
export async function bringChanged(ctx: Context, id: string, file: Upload, member: Member): Promise<DocumentView> {
  // A member who may not is refused before the file is processed, and checked again when it is saved.
  const mine = (db: Parameters<typeof toChange>[0]) => toChange(db, id, member);
  await inTransaction(ctx.database.pool, (tx) => mine(tx.db));
  const paper = await broughtIn(ctx, file, id);
  const kept = await inTransaction(ctx.database.pool, async (tx) => {
    if ((await mine(tx.db)).what !== 'form') throw notFound('This form');
    return insertPaper(ctx, tx, paper, { deal_id: null, shelf_id: id });
  });
  return documentView(kept);
}

/**
 * Returns where the marks of a form are on its changed paper.
 *
 * @throws Problem `unknown-document`, `reading`
 */
export async function findAgain(ctx: Context, id: string, documentId: string, member: Member): Promise<AgainView> {
  const db = ctx.database.pool;
  const row = await itemOr404(db, id, member);
  const papers = await documentsOnShelf(db, id);
  const before = papers.find((d) => d.id === row.draft.documents[0]?.id);
  const after = papers.find((d) => d.id === documentId);
  if (!before || !after || before === after)
    throw new Problem('unknown-document', 'This paper is not there any more. Bring it in once more.');
  const [was, now] = factsFiles(ctx, [before, after]);
  if (!was || !now) return { items: [] };
  const marks = row.draft.marks.filter((m) => m.documentId === before.id);
  return { items: await ctx.work.run('again', { before: was, after: now, marks }, id) };
}

/** Gives a form that was just read the slots its printed places name, unless it has slots already. */
export async function slotsOfForm(ctx: Context, id: string): Promise<void> {
  const row = await q.itemById(ctx.database.pool, id);
  const paper = row && (await documentById(ctx.database.pool, row.draft.documents[0]?.id ?? ''));
  // The author of a written form names its roles.
  if (!row || row.written || !paper?.facts_sha256 || row.draft.parties.length) return;
  const slots = await ctx.work.run('slots', { documents: factsFiles(ctx, [paper]) }, id);
  await inTransaction(ctx.database.pool, async (tx) => {
    const now = await q.lockItem(tx.db, id);
    if (!now || now.draft.parties.length || !slots.length) return;
    const draft: Draft = { ...now.draft, parties: slots, gates: gatesOfPattern('by_side', slots, newId) };
    await q.saveItemDraft(tx.db, id, draft, now.version + 1);
    tx.afterCommit(() => ctx.live.notify(topics.shelf(id)));
  });
}
