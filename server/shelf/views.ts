/** The shelf as screens show it: its lists, and a form or kit in preparation. */
import { lastOf, keysOf } from '@gatepath/core/sure';
import { changesBetween, mayMake, slotLetters, slotsOf, type Locks, type Slot } from '@gatepath/core/shelf';
import { tagDefs, textChanges } from '@gatepath/core/writing';
import type { Page, ShelfItemView, ShelfQuery, ShelfSummary, SlotView } from '@gatepath/contract';
import type { Context } from '../context';
import { anywhere } from '../db/like';
import type { Db } from '../db/pool';
import { documentsByIds, documentsOnShelf, type DocumentRow } from '../documents/queries';
import { documentView } from '../documents/service';
import { listMembers, type Member } from '../firm/queries';
import { ownFacts } from '../deal-records/queries';
import { itemOr404 } from './access';
import { sharingOf } from '../sharing/queries';
import * as q from './queries';

/** Returns a slot as screens show it. */
export const slotView = (s: Slot): SlotView => ({
  id: s.id,
  name: s.name,
  letters: s.slot === 'person' ? '' : slotLetters(s),
  ink: s.ink,
  kind: s.slot,
});

/** Returns locks as screens show them. */
export const locksView = (locks: Locks) =>
  keysOf(locks).flatMap((lock) => (locks[lock] ? [{ lock, by: locks[lock].name }] : []));

type Papers = ReadonlyMap<string, DocumentRow>;

/** Returns the papers in the drafts of forms, by form. */
async function papersOf(db: Db, forms: q.HeadRow[]): Promise<Papers> {
  const ids = forms.flatMap((f) => f.documents[0]?.id ?? []);
  return new Map((await documentsByIds(db, ids)).flatMap((d) => (d.shelf_id ? [[d.shelf_id, d]] : [])));
}

const formIdsOf = (row: q.HeadRow) => (row.what === 'form' ? [row.id] : row.documents.map((d) => d.id));

function headOf(row: q.HeadRow, papers: Papers, member: Member) {
  return {
    own: mayMake(sharingOf(row), member.id),
    id: row.id,
    what: row.what,
    name: row.name,
    edition: row.edition,
    changed: row.changed,
    retired: row.retired_at !== null,
    endsOn: row.ends_on,
    slots: slotsOf(row.parties).map(slotView),
    gates: row.gates.map((g) => g.partyIds),
    pages: formIdsOf(row).reduce((sum, id) => sum + (papers.get(id)?.pages.length ?? 0), 0),
  };
}

/** Returns a page of the shelf. */
export async function listShelf(ctx: Context, member: Member, query: ShelfQuery): Promise<Page<ShelfSummary>> {
  const db = ctx.database.pool;
  const rows = await q.listItems(db, {
    what: query.what,
    memberId: member.id,
    search: query.search ? anywhere(query.search) : null,
    retired: query.retired,
    after: query.after ?? null,
    // One more than asked for tells whether there is a next page.
    limit: query.limit + 1,
  });
  const shown = rows.slice(0, query.limit);
  const forms = query.what === 'form' ? shown : await q.headsByIds(db, [...new Set(shown.flatMap(formIdsOf))]);
  const papers = await papersOf(db, forms);
  const names = new Map(forms.map((f) => [f.id, f.name]));
  return {
    items: shown.map((row) => {
      const first = papers.get(formIdsOf(row)[0] ?? '');
      return {
        ...headOf(row, papers, member),
        documentId: first?.id ?? null,
        type: row.what === 'form' ? (first?.type ?? null) : null,
        forms: row.what === 'kit' ? row.documents.flatMap((d) => names.get(d.id) ?? []) : [],
      };
    }),
    next: rows.length > query.limit ? lastOf(shown).id : null,
  };
}

/** Returns a form or kit in preparation. */
export async function itemView(ctx: Context, id: string, member: Member): Promise<ShelfItemView> {
  return viewOf(ctx, await itemOr404(ctx.database.pool, id, member), member);
}

/** Maximum number of editions listed. */
const MOST_EDITIONS = 6;

/** Returns the view of a row. */
export async function viewOf(ctx: Context, row: q.ShelfRow, member: Member): Promise<ShelfItemView> {
  const db = ctx.database.pool;
  const { id, draft } = row;
  const head: q.HeadRow = { ...row, parties: draft.parties, gates: draft.gates, documents: draft.documents };
  const forms = row.what === 'kit' ? await q.headsByIds(db, formIdsOf(head)) : [];
  const papers = await papersOf(db, row.what === 'kit' ? forms : [head]);
  const last = row.changed && row.edition ? (await q.lastEditions(db, [id])).get(id) : undefined;
  const owner = (await listMembers(db)).find((m) => m.id === row.owner_id);
  return {
    ...headOf(head, papers, member),
    draft,
    version: row.version,
    // A form's desk may have a changed paper beside the current one.
    documents: (row.what === 'form' ? await documentsOnShelf(db, id) : [...papers.values()]).map(documentView),
    locks: locksView(row.locks),
    owner: { id: row.owner_id, name: owner?.name ?? 'Someone' },
    users: row.users,
    makers: row.makers,
    lastIn: row.last_in,
    forms: formIdsOf(head).flatMap((formId) => {
      const f = forms.find((x) => x.id === formId);
      return f ? [{ id: f.id, name: f.name, edition: f.edition, retired: f.retired_at !== null }] : [];
    }),
    kits: row.what === 'form' ? await q.kitsWithForm(db, id) : [],
    editions: (await q.editionsOf(db, id, MOST_EDITIONS)).map((e) => ({
      edition: e.edition,
      by: e.by,
      at: e.made_at.toISOString(),
      changes: e.changes,
    })),
    since: last ? changesSince(last, row, forms) : [],
    written: row.written && {
      text: row.written,
      version: row.written_version,
      tags: tagDefs(await ownFacts(db)),
    },
  };
}

type Told = Pick<q.EditionRow, 'draft' | 'written'>;

/**
 * Returns what differs from an edition, in words. For a form written here it is the text that counts, not where its
 * places are.
 */
export function changesSince(last: Told, now: Told, forms: readonly Pick<q.HeadRow, 'id' | 'name'>[]): string[] {
  const bare = (of: Told) => (of.written ? { ...of.draft, documents: [], marks: [] } : of.draft);
  return [...changesBetween(bare(last), bare(now), nameIn(forms)), ...textChanges(last.written, now.written)];
}

/** Returns a function that names the forms of a kit in the list of changes. */
const nameIn = (forms: readonly Pick<q.HeadRow, 'id' | 'name'>[]) => (id: string) =>
  forms.find((f) => f.id === id)?.name ?? 'A paper';
