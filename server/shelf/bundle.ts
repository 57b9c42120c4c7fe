/** Exporting and importing forms and kits as one open file. */
import { Readable } from 'node:stream';
import { sure } from '@gatepath/core/sure';
import { slotsOf, withDocuments } from '@gatepath/core/shelf';
import type { BroughtView } from '@gatepath/contract';
import type { Context } from '../context';
import { archiveOf, type ArchiveEntry } from '../archives/write';
import { inTransaction, type Tx } from '../db/tx';
import { broughtIn, insertPaper } from '../documents/bring-in';
import { documentsByIds } from '../documents/queries';
import { deleteFresh } from '../files/tidy';
import type { Member } from '../firm/queries';
import type { Upload } from '../http/upload';
import { newId } from '../ids';
import { Problem } from '../problem';
import { WorkFailure } from '../work/failure';
import { itemOr404, requireForms } from './access';
import { BUNDLE_FORMAT, draftForBundle, MANIFEST, type Bundle, type BundleForm } from '../uploads/bundle-file';
import * as q from './queries';
import { saveTypeset, setSample } from './written';

type Row = Pick<q.EditionRow, 'draft' | 'written'> & { id: string };

/**
 * Returns a form, or a kit with all of its forms, as one file: the edition on the shelf, or the draft if there is
 * none.
 *
 * @throws Problem `not-found`, `no-document`
 */
export async function bundleOf(ctx: Context, id: string, member: Member): Promise<{ name: string; stream: Readable }> {
  const db = ctx.database.pool;
  const item = await itemOr404(db, id, member);
  const own = await asUsed(ctx, [id]);
  const row = sure(own.get(id), 'the item');
  const formIds = item.what === 'kit' ? row.draft.documents.map((d) => d.id) : [id];
  if (item.what === 'kit') await requireForms(db, formIds, member);
  const forms = item.what === 'kit' ? await asUsed(ctx, formIds) : own;
  const paperOf = (f: Row) => f.draft.documents[0]?.id ?? '';
  const papers = new Map((await documentsByIds(db, [...forms.values()].map(paperOf))).map((d) => [d.id, d]));
  const entries: ArchiveEntry[] = [];
  const told = formIds.map((formId, i) => {
    const form = sure(forms.get(formId), 'a form');
    const paper = papers.get(paperOf(form));
    if (!paper) throw new Problem('no-document', `The paper of “${form.draft.name}” is gone. Bring the form in again.`);
    const path = `papers/${String(i + 1).padStart(3, '0')}.pdf`;
    if (!form.written) entries.push({ path, open: () => ctx.files.stream(paper.sha256) });
    return {
      id: formId,
      name: form.draft.name,
      type: paper.type,
      draft: draftForBundle(withDocuments(form.draft, () => formId)),
      written: form.written,
      paper: form.written ? null : path,
    };
  });
  const kits =
    item.what === 'kit' ? [{ name: row.draft.name, draft: draftForBundle(row.draft), lastIn: item.last_in }] : [];
  const manifest = JSON.stringify({ format: BUNDLE_FORMAT, forms: told, kits }, null, 1);
  entries.push({ path: MANIFEST, open: () => Buffer.from(manifest) });
  return { name: `${item.name}.zip`, stream: archiveOf(entries, ctx.clock.now()) };
}

/** Returns items as packets use them, or their drafts if they were never put on the shelf. */
async function asUsed(ctx: Context, ids: string[]): Promise<Map<string, Row>> {
  const db = ctx.database.pool;
  const editions = await q.lastEditions(db, ids);
  const out = new Map<string, Row>();
  for (const id of ids) {
    const row: Omit<Row, 'id'> | null = editions.get(id) ?? (await q.itemById(db, id));
    if (row) out.set(id, { id, draft: row.draft, written: row.written });
  }
  return out;
}

/**
 * Imports a bundle, completely or not at all. Imported items are not on the shelf until a member puts them there.
 *
 * @throws Problem `too-large`, `bad-bundle`, and those of documents
 */
export async function bringBundle(ctx: Context, file: Upload, member: Member): Promise<BroughtView> {
  const stored = await ctx.files.putStream(file.stream);
  if (stored === 'truncated') throw new Problem('too-large', 'This bundle is larger than can be taken.');
  const came = new Set<string>(stored.fresh ? [stored.sha256] : []);
  try {
    const bundle = await opened(ctx, stored.sha256);
    const forms: Came[] = [];
    for (const form of bundle.forms) forms.push(await formThatCame(ctx, form, came));
    const view = await inTransaction(ctx.database.pool, (tx) => saveAll(ctx, tx, bundle, forms, member));
    came.clear();
    came.add(stored.sha256);
    return view;
  } finally {
    for (const sha256 of came) await deleteFresh(ctx, sha256);
  }
}

async function opened(ctx: Context, sha256: string): Promise<Bundle> {
  try {
    const bundle = await ctx.work.run('bundle', { file: ctx.files.fileOf(sha256) }, 'bundle');
    if ('problem' in bundle) throw new Problem('bad-bundle', bundle.problem);
    return bundle;
  } catch (error) {
    if (!(error instanceof WorkFailure) || error.reason === 'stopped') throw error;
    throw new Problem('bad-bundle', 'This bundle asks for more than it may while it is opened. Ask for it once more.');
  }
}

interface Came {
  id: string;
  form: BundleForm;
  paper: Awaited<ReturnType<typeof broughtIn>> | null;
  set: Awaited<ReturnType<typeof setSample>> | null;
}

/** Imports a form of a bundle with its paper, prepared like any upload, or typeset from its text. */
async function formThatCame(ctx: Context, form: BundleForm, came: Set<string>): Promise<Came> {
  const id = newId();
  if (form.written) {
    const set = await setSample(ctx, { id, name: form.name, slots: slotsOf(form.draft.parties) }, form.written);
    came.add(set.sha256);
    return { id, form, paper: null, set };
  }
  const bytes = Buffer.from(sure(form.paper, 'a paper'));
  const paper = await broughtIn(ctx, { name: `${form.name}.pdf`, stream: Readable.from([bytes]) }, id);
  for (const sha256 of [paper.original_sha256, paper.sha256]) came.add(sha256);
  return { id, form, paper: { ...paper, name: form.name, type: form.type }, set: null };
}

async function saveAll(ctx: Context, tx: Tx, bundle: Bundle, forms: Came[], member: Member): Promise<BroughtView> {
  const at = ctx.clock.now();
  const items: BroughtView['items'] = [];
  for (const { id, form, paper, set } of forms) {
    await q.insertItem(tx.db, { id, what: 'form', draft: form.draft, by: member.id, at });
    items.push({ id, what: 'form', name: form.name });
    if (set && form.written) {
      await saveTypeset(ctx, tx, { id, draft: form.draft, version: 1, written_version: 0 }, form.written, set);
      continue;
    }
    const kept = await insertPaper(ctx, tx, sure(paper, 'a paper'), { deal_id: null, shelf_id: id });
    const pages = kept.pages.length;
    const draft = withDocuments({ ...form.draft, documents: [{ id: form.id }] }, () => kept.id);
    // Marks on pages that do not exist are dropped.
    const marks = draft.marks.filter((m) => m.page <= pages);
    await q.saveItemDraft(tx.db, id, { ...draft, marks }, 1);
  }
  const ids = new Map(forms.map((f) => [f.form.id, f.id]));
  for (const kit of bundle.kits) {
    const id = newId();
    const draft = withDocuments(kit.draft, (of) => ids.get(of) ?? of);
    await q.insertItem(tx.db, { id, what: 'kit', draft, by: member.id, at });
    const row = sure(await q.lockItem(tx.db, id), 'the kit');
    await q.saveItem(tx.db, { ...row, last_in: kit.lastIn });
    items.push({ id, what: 'kit', name: kit.name });
  }
  return { items };
}
