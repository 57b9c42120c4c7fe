/** Forms and kits: made, prepared at the desk, put on the shelf in editions, retired. */
import {
  DRAFT_LISTS,
  PACKET_LIMITS,
  applyEdits,
  emptyDraft,
  gatesOfPattern,
  type Draft,
  type DraftEdit,
} from '@gatepath/core/packet';
import { keysOf } from '@gatepath/core/sure';
import {
  changesBetween,
  mayMake,
  mayUse,
  sameSlot,
  slotLetters,
  slotsOf,
  type Locks,
  type Slot,
} from '@gatepath/core/shelf';
import type {
  AgainView,
  DocumentView,
  EditionBody,
  EditsBody,
  KitBody,
  Page,
  SavedDraft,
  ShelfItemView,
  ShelfPatch,
  ShelfSummary,
  SlotView,
} from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { anywhere } from '../db/like';
import { inTransaction } from '../db/tx';
import { broughtIn, insertPaper } from '../documents/bring-in';
import { documentsOnShelf, type DocumentRow } from '../documents/queries';
import { documentView, factsFiles } from '../documents/service';
import { listMembers, type Member } from '../firm/queries';
import type { Upload } from '../http/upload';
import { newId } from '../ids';
import { topics } from '../live/live';
import { notFound, Problem } from '../problem';
import * as q from './queries';

/**
 * A form or a kit that a member may use, by its id; what they may not is not there for them.
 *
 * @throws Problem `not-found`
 */
export async function itemOr404(db: Db, id: string, member: Member): Promise<q.ShelfRow> {
  const row = await q.itemById(db, id);
  if (!row || !mayUse(q.sharingOf(row), member.id)) throw notFound('This form or kit');
  return row;
}

/** The same, locked, for a member who changes it. */
async function toChange(db: Db, id: string, member: Member): Promise<q.ShelfRow> {
  const row = await q.lockItem(db, id);
  if (!row || !mayUse(q.sharingOf(row), member.id)) throw notFound('This form or kit');
  if (!mayMake(q.sharingOf(row), member.id))
    throw new Problem(
      'not-maker',
      `“${row.name}” is yours to use, and not to change. Ask whoever made it, or make a copy.`,
    );
  return row;
}

/** Slots as screens show them. */
export const slotView = (s: Slot): SlotView => ({
  id: s.id,
  name: s.name,
  letters: s.slot === 'person' ? '' : slotLetters(s),
  ink: s.ink,
  kind: s.slot,
});

/** The papers of forms by the form: of each the one that stands in it as it is prepared. */
async function papersOf(db: Db, formIds: string[]): Promise<Map<string, DocumentRow>> {
  const forms = new Map((await q.itemsByIds(db, formIds)).map((f) => [f.id, f.draft.documents[0]?.id]));
  const out = new Map<string, DocumentRow>();
  for (const d of await documentsOnShelf(db, formIds))
    if (d.shelf_id && forms.get(d.shelf_id) === d.id) out.set(d.shelf_id, d);
  return out;
}

const formIdsOf = (row: Pick<q.ShelfRow, 'what' | 'id' | 'draft'>) =>
  row.what === 'form' ? [row.id] : row.draft.documents.map((d) => d.id);

/** A page of the shelf. */
export async function listShelf(
  ctx: Context,
  member: Member,
  query: {
    what: 'form' | 'kit';
    search?: string | undefined;
    retired: boolean;
    after?: string | undefined;
    limit: number;
  },
): Promise<Page<ShelfSummary>> {
  const db = ctx.database.pool;
  const rows = await q.listItems(db, {
    what: query.what,
    memberId: member.id,
    search: query.search ? anywhere(query.search) : null,
    retired: query.retired,
    after: query.after ?? null,
    limit: query.limit + 1,
  });
  const shown = rows.slice(0, query.limit);
  const ids = [...new Set(shown.flatMap(formIdsOf))];
  const papers = await papersOf(db, ids);
  const names = new Map((await q.itemsByIds(db, ids)).map((f) => [f.id, f.name]));
  return {
    items: shown.map((row) => {
      const first = formIdsOf(row).map((id) => papers.get(id))[0];
      return {
        ...headOf(row, papers, member),
        documentId: first?.id ?? null,
        type: row.what === 'form' ? (first?.type ?? null) : null,
        forms: row.what === 'kit' ? row.draft.documents.flatMap((d) => names.get(d.id) ?? []) : [],
      };
    }),
    next: rows.length > query.limit ? (shown[shown.length - 1]?.id ?? null) : null,
  };
}

function headOf(row: q.ShelfRow, papers: ReadonlyMap<string, DocumentRow>, member: Member) {
  return {
    own: mayMake(q.sharingOf(row), member.id),
    id: row.id,
    what: row.what,
    name: row.name,
    edition: row.edition,
    changed: row.changed,
    retired: row.retired_at !== null,
    endsOn: row.ends_on,
    slots: slotsOf(row.draft.parties).map(slotView),
    gates: row.draft.gates.map((g) => g.partyIds),
    pages: formIdsOf(row).reduce((sum, id) => sum + (papers.get(id)?.pages.length ?? 0), 0),
  };
}

/** Locks as screens show them. */
export const locksView = (locks: Locks) =>
  keysOf(locks).flatMap((lock) => (locks[lock] ? [{ lock, by: locks[lock].name }] : []));

/** A form or a kit as it is prepared. */
export async function itemView(ctx: Context, id: string, member: Member): Promise<ShelfItemView> {
  return viewOf(ctx, await itemOr404(ctx.database.pool, id, member), member);
}

/** As many editions as are told of, with what each changed. */
const MOST_EDITIONS = 6;

async function viewOf(ctx: Context, row: q.ShelfRow, member: Member): Promise<ShelfItemView> {
  const db = ctx.database.pool;
  const { id } = row;
  const owner = (await listMembers(db)).find((m) => m.id === row.owner_id);
  const ids = formIdsOf(row);
  const papers = await papersOf(db, ids);
  // One more than is told of: the oldest is compared too.
  const editions = await q.editionsOf(db, id, MOST_EDITIONS + 1);
  const known = [...editions.map((e) => e.draft), row.draft].flatMap((d) => d.documents.map((x) => x.id));
  const forms = row.what === 'kit' ? await q.itemsByIds(db, [...new Set(known)]) : [];
  const nameOf = (of: string) => forms.find((f) => f.id === of)?.name ?? 'A paper';
  return {
    ...headOf(row, papers, member),
    draft: row.draft,
    version: row.version,
    // A form's desk may have a changed paper beside the one that stands there.
    documents: (row.what === 'form'
      ? await documentsOnShelf(db, [id])
      : ids.flatMap((formId) => papers.get(formId) ?? [])
    ).map(documentView),
    locks: locksView(row.locks),
    owner: { id: row.owner_id, name: owner?.name ?? 'Somebody' },
    users: row.users,
    makers: row.makers,
    lastIn: row.last_in,
    forms: ids.flatMap((formId) => {
      const f = forms.find((x) => x.id === formId);
      return f ? [{ id: f.id, name: f.name, edition: f.edition, retired: f.retired_at !== null }] : [];
    }),
    kits: row.what === 'form' ? await q.kitsWithForm(db, id) : [],
    editions: editions.slice(0, MOST_EDITIONS).map((e, i) => {
      const before = editions[i + 1];
      return {
        edition: e.edition,
        by: e.by,
        at: e.made_at.toISOString(),
        changes: before ? changesBetween(before.draft, e.draft, nameOf) : [],
      };
    }),
    since: row.changed && editions[0] ? changesBetween(editions[0].draft, row.draft, nameOf) : [],
  };
}

/** Makes a form of a paper; its slots come with its printed places, once they are read. */
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

/** Brings in a changed paper of a form: it is read, and takes no place before somebody has looked. */
export async function bringChanged(ctx: Context, id: string, file: Upload, member: Member): Promise<DocumentView> {
  await inTransaction(ctx.database.pool, (tx) => toChange(tx.db, id, member));
  const paper = await broughtIn(ctx, file, id);
  const kept = await inTransaction(ctx.database.pool, async (tx) => {
    const row = await toChange(tx.db, id, member);
    if (row.what !== 'form') throw notFound('This form');
    return insertPaper(ctx, tx, paper, { deal_id: null, shelf_id: id });
  });
  return documentView(kept);
}

/**
 * Where the marks of a form stand on a changed paper of it.
 *
 * @throws Problem `unknown-document`, `reading`
 */
export async function findAgain(ctx: Context, id: string, documentId: string, member: Member): Promise<AgainView> {
  const db = ctx.database.pool;
  const row = await itemOr404(db, id, member);
  const papers = await documentsOnShelf(db, [id]);
  const before = papers.find((d) => d.id === row.draft.documents[0]?.id);
  const after = papers.find((d) => d.id === documentId);
  if (!before || !after || before === after)
    throw new Problem('unknown-document', 'This paper is not there any more. Bring it in once more.');
  const [was, now] = factsFiles(ctx, [before, after]);
  if (!was || !now) return { items: [] };
  const marks = row.draft.marks.filter((m) => m.documentId === before.id);
  return { items: await ctx.work.run('again', { before: was, after: now, marks }, id) };
}

/** Gives a form that was just read the slots its printed places name; one that has any already stays as it is. */
export async function slotsOfForm(ctx: Context, id: string): Promise<void> {
  const row = await q.itemById(ctx.database.pool, id);
  const paper = (await papersOf(ctx.database.pool, [id])).get(id);
  if (!row || !paper?.facts_sha256 || row.draft.parties.length) return;
  const slots = await ctx.work.run('slots', { documents: factsFiles(ctx, [paper]) }, id);
  await inTransaction(ctx.database.pool, async (tx) => {
    const now = await q.lockItem(tx.db, id);
    if (!now || now.draft.parties.length || !slots.length) return;
    const draft: Draft = { ...now.draft, parties: slots, gates: gatesOfPattern('by_side', slots, newId) };
    await q.saveItemDraft(tx.db, id, draft, now.version + 1);
    tx.afterCommit(() => ctx.live.tell(topics.shelf(id)));
  });
}

/** The slots of several forms as one kit has them: each place once, in the order they are met. */
export function slotsTogether(drafts: readonly Pick<Draft, 'parties'>[]): Slot[] {
  const out: Slot[] = [];
  for (const slot of drafts.flatMap((d) => slotsOf(d.parties)))
    if (!out.some((s) => sameSlot(s, slot))) out.push({ ...slot, id: newId(), ink: out.length });
  return out;
}

/** Makes a kit of forms that are on the shelf, on a usual path. */
export async function newKit(ctx: Context, body: KitBody, member: Member): Promise<ShelfItemView> {
  const db = ctx.database.pool;
  const ids = [...new Set(body.formIds)];
  await requireVisible(db, ids, member);
  const editions = await usableForms(db, ids);
  const slots = slotsTogether(ids.flatMap((id) => editions.get(id)?.draft ?? []));
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

/** Whoever makes a kit takes forms they may use; whoever uses it later takes what is in it. */
async function requireVisible(db: Db, formIds: string[], member: Member): Promise<void> {
  const rows = await q.itemsByIds(db, formIds);
  if (rows.some((r) => !mayUse(q.sharingOf(r), member.id))) throw notFound('A form of this kit');
}

/**
 * The last editions of forms that may go into packets.
 *
 * @throws Problem `not-on-shelf` for one that has none, or was retired
 */
export async function usableForms(db: Db, ids: string[]): Promise<Map<string, q.EditionRow>> {
  const rows = await q.itemsByIds(db, ids);
  for (const id of ids) {
    const row = rows.find((r) => r.id === id);
    if (!row || row.what !== 'form')
      throw new Problem('not-on-shelf', 'A form of this kit is gone. Take it out of the kit.');
    if (row.retired_at)
      throw new Problem(
        'not-on-shelf',
        `The form “${row.name}” was retired. Take it out of the kit, or bring it back.`,
      );
    if (!row.edition)
      throw new Problem(
        'not-on-shelf',
        `The form “${row.name}” is not on the shelf yet. Finish it and put it there first.`,
      );
  }
  return q.lastEditions(db, ids);
}

/** Applies edits to what is prepared; edits of several people are applied one after another. */
export async function editItem(ctx: Context, id: string, body: EditsBody, member: Member): Promise<SavedDraft> {
  return inTransaction(ctx.database.pool, async (tx) => {
    const row = await toChange(tx.db, id, member);
    const draft = applyEdits(row.draft, body.edits.map(withoutCode));
    for (const list of DRAFT_LISTS)
      if (draft[list].length > PACKET_LIMITS[list])
        throw new Problem('over-limits', `A form or a kit takes at most ${PACKET_LIMITS[list]} ${list}.`);
    if (!draft.name.trim()) throw new Problem('no-name', 'It needs a name.');
    await requirePapers(tx.db, row, draft, member);
    const version = row.version + 1;
    await q.saveItemDraft(tx.db, id, draft, version);
    tx.afterCommit(() => ctx.live.tell(topics.shelf(id)));
    return { draft, version, over: [] };
  });
}

/** No code that is told to one person stands on the shelf. */
function withoutCode(edit: DraftEdit): DraftEdit {
  if (edit.op !== 'put' || edit.list !== 'parties') return edit;
  const { accessCode: _told, codeKept: _kept, ...item } = edit.item;
  return { ...edit, item };
}

/** A form has papers of its own, a kit forms: nothing else can be put among its documents. */
async function requirePapers(db: Db, row: q.ShelfRow, draft: Draft, member: Member): Promise<void> {
  const added = draft.documents.filter((d) => !row.draft.documents.some((x) => x.id === d.id)).map((d) => d.id);
  if (!added.length) return;
  if (row.what === 'kit') await requireVisible(db, added, member);
  const known =
    row.what === 'form'
      ? (await documentsOnShelf(db, [row.id])).map((d) => d.id)
      : (await q.itemsByIds(db, added)).filter((f) => f.what === 'form').map((f) => f.id);
  if (added.some((id) => !known.includes(id)))
    throw new Problem('unknown-document', 'A paper of this is not on the shelf any more. Load the page again.');
}

/** Sets what stands beside the draft: the last day, what is locked, whether it is retired. */
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
    tx.afterCommit(() => ctx.live.tell(topics.shelf(id)));
    return row;
  });
  // Whoever handed it over is told how it stands, once more.
  return viewOf(ctx, now, member);
}

/**
 * Puts what is prepared on the shelf as the next edition; packets that were made of earlier ones keep them.
 *
 * @throws Problem `changed-meanwhile`, `reading`, `no-document`, `not-on-shelf`
 */
export async function putOnShelf(ctx: Context, id: string, body: EditionBody, member: Member): Promise<ShelfItemView> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await toChange(tx.db, id, member);
    if (row.version !== body.version)
      throw new Problem(
        'changed-meanwhile',
        'It was changed since you looked at it. Look again, then put it on the shelf.',
      );
    if (!row.draft.documents.length) throw new Problem('no-document', 'There is no paper in it yet.');
    if (row.what === 'form') {
      const papers = await documentsOnShelf(tx.db, [id]);
      const reading = papers.find((d) => !d.facts_sha256 && row.draft.documents.some((x) => x.id === d.id));
      if (reading) throw new Problem('reading', `“${reading.name}” is still being read. It is ready in a moment.`);
    } else
      await usableForms(
        tx.db,
        row.draft.documents.map((d) => d.id),
      );
    if (row.edition && !row.changed) return;
    await q.insertEdition(tx.db, {
      itemId: id,
      edition: row.edition + 1,
      draft: row.draft,
      by: member.id,
      at: ctx.clock.now(),
    });
    tx.afterCommit(() => ctx.live.tell(topics.shelf(id)));
  });
  return itemView(ctx, id, member);
}

/** Throws away what was never put on the shelf; the files of its paper go when nothing else needs them. */
export async function dropItem(ctx: Context, id: string, member: Member): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await toChange(tx.db, id, member);
    if (row.edition) throw new Problem('was-sent', `“${row.name}” has been on the shelf. Retire it instead.`);
    const papers = await documentsOnShelf(tx.db, [id]);
    await q.deleteItem(tx.db, id);
    for (const file of new Set(papers.flatMap((d) => [d.original_sha256, d.sha256, d.facts_sha256])))
      if (file) await ctx.jobs.queue(tx, 'tidy', file);
    tx.afterCommit(() => ctx.live.tell(topics.shelf(id)));
  });
}
