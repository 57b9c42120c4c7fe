/** Forms written here: their text, and the paper typeset from it, as a sample and for the people of a deal. */
import { LRUCache } from 'lru-cache';
import { dayOf } from '@gatepath/core/calendar';
import { KEY_DATES, wrongWith, type FactValue } from '@gatepath/core/deal';
import { emptyDraft, type Draft, type Mark, type PacketParty } from '@gatepath/core/packet';
import { fillSlots, slotsOf } from '@gatepath/core/shelf';
import {
  composed,
  emptyWritten,
  namesBySide,
  sampleFor,
  slotPeople,
  tagDefs,
  UnfitText,
  writtenFrom,
  type Composed,
  type TagDef,
  type TagValues,
  type Written,
} from '@gatepath/core/writing';
import { itemAt, sure } from '@gatepath/core/sure';
import type { ShelfItemView, WrittenBody, WrittenFormBody } from '@gatepath/contract';
import type { Context } from '../context';
import { perContext } from '../per-context';
import { inTransaction, type Tx } from '../db/tx';
import * as deals from '../deal-records/queries';
import { insertPaper } from '../documents/bring-in';
import type { DocumentRow } from '../documents/queries';
import { factsOfPaper } from '../documents/service';
import type { Member } from '../firm/queries';
import { newId, sha256 } from '../ids';
import { topics } from '../live/live';
import type { WrittenPaper } from '../typesetting/written';
import { notFound, Problem } from '../problem';
import { WorkFailure } from '../work/failure';
import { wordsOf } from '../words';
import { toChange } from './access';
import * as q from './queries';
import { tidyPapers } from './service';
import { itemView } from './views';

/**
 * Makes a form that is written here.
 *
 * @throws Problem `unfit-text`
 */
export async function newWritten(ctx: Context, body: WrittenFormBody, member: Member): Promise<ShelfItemView> {
  const id = newId();
  const text = emptyWritten(body.name);
  const set = await setSample(ctx, { id, name: body.name, slots: [] }, text);
  await inTransaction(ctx.database.pool, async (tx) => {
    const draft = emptyDraft(body.name);
    await q.insertItem(tx.db, { id, what: 'form', draft, by: member.id, at: ctx.clock.now() });
    await saveTypeset(ctx, tx, { id, draft, version: 1, written_version: 0 }, text, set);
  });
  return itemView(ctx, id, member);
}

/**
 * Saves the text of a form and typesets its paper; the places in the text become the form's marks.
 *
 * @throws Problem `not-found`, `unfit-text`, `changed-meanwhile`, `over-limits`, `not-maker`
 */
export async function saveText(ctx: Context, id: string, body: WrittenBody, member: Member): Promise<ShelfItemView> {
  const text = fitText(body.text);
  // A member who may not is refused before anything is typeset, and checked again when it is saved.
  const was = await inTransaction(ctx.database.pool, (tx) => toChange(tx.db, id, member));
  const set = await setSample(ctx, { id, name: was.name, slots: slotsOf(was.draft.parties) }, text);
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await toChange(tx.db, id, member);
    if (!row.written) throw notFound('The text of this form');
    if (row.written_version !== body.version)
      throw new Problem(
        'changed-meanwhile',
        'Someone else changed this text meanwhile. Yours is still here: copy what you need, then load the page again.',
      );
    await saveTypeset(ctx, tx, row, text, set);
    await tidyPapers(ctx, tx, await q.deleteUnusedDocuments(tx.db, id, ctx.clock.now()));
    tx.afterCommit(() => ctx.live.notify(topics.shelf(id)));
  });
  return itemView(ctx, id, member);
}

const fitText = (value: unknown): Written => inWords(() => writtenFrom(value));

/** Runs `work` and reports an unfit text as a problem. */
function inWords<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof UnfitText) throw new Problem('unfit-text', error.message);
    throw error;
  }
}

/** A typeset paper, and what it was composed from. */
interface SetPaper extends Pick<WrittenPaper, 'pages' | 'rects' | 'unprintable'> {
  sha256: string;
  bytes: number;
  made: Composed;
}

interface About {
  id: string;
  name: string;
  slots: ReturnType<typeof slotsOf>;
}

/** Returns the sample paper of a text, shown while it is written. @throws Problem `unfit-text` */
export async function setSample(ctx: Context, form: About, text: Written): Promise<SetPaper> {
  const tags = new Map(tagDefs(await deals.ownFacts(ctx.database.pool)).map((t) => [t.key, t]));
  const made = inWords(() => composed(text, sampleFor(form.slots, tags, wordsOf(text.language))));
  const set = await setPaper(ctx, form.id, form.name, made);
  if (set.unprintable.length)
    throw new Problem(
      'unfit-text',
      `No face here can print “${set.unprintable.slice(0, 6).join(' ')}”. Write it another way.`,
    );
  return set;
}

async function setPaper(
  ctx: Context,
  owner: string,
  title: string,
  made: Composed,
  by: 'written' | 'writtenOfMany' = 'written',
): Promise<SetPaper> {
  const task = { title, blocks: made.blocks, places: made.places };
  const { bytes, ...set } = await ctx.work.run(by, task, owner).catch((error: unknown) => {
    if (!(error instanceof WorkFailure) || error.reason === 'stopped') throw error;
    throw new Problem('unfit-text', 'This text asks for more than may be set at once. Make two forms of it.');
  });
  if (set.pages.length > MOST_PAGES)
    throw new Problem('unfit-text', `This text would be ${set.pages.length} pages; a paper has at most ${MOST_PAGES}.`);
  return { ...set, sha256: (await ctx.files.put(bytes)).sha256, bytes: bytes.length, made };
}

/** Maximum number of pages of a written form. */
const MOST_PAGES = 100;

/** Returns the places of a paper as marks. */
function marksOf({ made, rects }: Pick<SetPaper, 'made' | 'rects'>, documentId: string): Mark[] {
  const count = new Map<string, number>();
  return rects.flatMap(({ place, page, rect }): Mark[] => {
    const { kind, partyId, label, required } = itemAt(made.places, place);
    // In a part repeated for a side without a slot, nobody is asked for anything.
    if (!partyId) return [];
    const nth = (count.get(`${kind} ${partyId}`) ?? 0) + 1;
    count.set(`${kind} ${partyId}`, nth);
    const id = `${kind}-${partyId}-${nth}`;
    return [{ id, documentId, page, kind, partyId, rect, required, ...(label ? { label } : {}) }];
  });
}

/** Saves a text with its typeset paper; the rest of the draft stays. */
export async function saveTypeset(
  ctx: Context,
  tx: Tx,
  row: Pick<q.ShelfRow, 'id' | 'draft' | 'version' | 'written_version'>,
  text: Written,
  set: SetPaper,
): Promise<void> {
  const { draft } = row;
  const paper = await insertPaper(
    ctx,
    tx,
    {
      name: draft.name,
      file_name: `${draft.name}.pdf`,
      original_sha256: set.sha256,
      sha256: set.sha256,
      bytes: set.bytes,
      pages: set.pages,
      type: 'other',
      came_as: 'pdf',
      made_from: null,
    },
    { deal_id: null, shelf_id: row.id },
  );
  const next: Draft = {
    ...draft,
    documents: [{ id: paper.id }],
    marks: marksOf(set, paper.id),
    // Exceptions and moves on pages that changed no longer mean anything.
    rules: draft.rules.map((r) => ({ ...r, documentId: paper.id, except: [], moved: [] })),
    passed: [],
  };
  await q.saveWritten(tx.db, {
    id: row.id,
    written: text,
    writtenVersion: row.written_version + 1,
    draft: next,
    version: row.version + 1,
  });
}

/** A form of a kit in its last edition, with its paper. */
export interface FormPaper {
  row: q.EditionRow;
  document: DocumentRow;
}

/** A deal as written forms see it. */
export interface OnDeal {
  deal: deals.DealRow;
  people: PacketParty[];
  tags: ReadonlyMap<string, TagDef>;
  values: TagValues;
}

/**
 * Returns what the tags of written forms stand for in a deal. @param told  values for this packet. @throws Problem
 * `bad-fact`
 */
export async function onDeal(
  ctx: Context,
  deal: deals.DealRow,
  people: PacketParty[],
  told: Record<string, FactValue | null>,
): Promise<OnDeal> {
  const tags = new Map(tagDefs(await deals.ownFacts(ctx.database.pool)).map((t) => [t.key, t]));
  const facts = new Map<string, FactValue>([
    ['address', deal.address],
    ['city', deal.city],
    ['firm', (await ctx.firm())?.name ?? ''],
    ['today', dayOf(ctx.clock.now().toISOString(), deal.time_zone)],
    ['kind', deal.kind],
    ['for_whom', deal.for_whom],
    ...Object.entries(deal.facts),
    ...KEY_DATES.flatMap((d): [string, FactValue][] => (deal.dates[d] ? [[`date.${d}`, deal.dates[d]]] : [])),
  ]);
  for (const [key, value] of Object.entries(told)) {
    const def = tags.get(key);
    if (value === null) continue;
    if (!def || def.type === 'names' || def.from === 'people')
      throw new Problem('bad-fact', `“${key}” is not a tag that can be filled in here.`);
    const wrong = wrongWith({ ...def, type: def.type }, value);
    if (wrong) throw new Problem('bad-fact', wrong);
    facts.set(key, value);
  }
  return { deal, people, tags, values: { facts, people: namesBySide(people) } };
}

/** How long a typeset paper is cached, in milliseconds; shorter than an unused file is stored. */
const SETTLED_MS = 1_800_000;
/** A paper that was typeset and read, without what it was composed from. */
export type Settled = Omit<SetPaper, 'made'> & { facts: string; words: string };

/** A cache of papers that were typeset. */
export interface SettledPapers {
  /** Whether it is one of many that nobody waits for. */
  ofMany?: true;
  get(key: string): Settled | undefined;
  set(key: string, paper: Settled): void;
}

/**
 * Returns the cache of papers typeset for the same text, people and values: whoever previews a kit on a deal does so
 * several times.
 */
const settledOf = perContext(() => new LRUCache<string, Settled>({ max: 60, ttl: SETTLED_MS }));

/**
 * Returns a form with the paper typeset for a deal, read and with its marks. A paper that is only previewed is
 * deleted with other unused files.
 *
 * @returns the form, the keys of unknown tags, and letters that cannot be printed
 * @throws Problem `unfit-text`
 */
export async function paperOnDeal(
  ctx: Context,
  form: FormPaper,
  on: OnDeal,
  before: SettledPapers = settledOf(ctx),
): Promise<{ form: FormPaper; missing: string[]; unprintable: string[] }> {
  const { row, document } = form;
  const text = sure(row.written, 'a text');
  const slots = slotsOf(row.draft.parties);
  const words = wordsOf(text.language);
  const who = slotPeople(fillSlots(slots, on.people), on.people, words);
  const made = inWords(() => composed(text, { words, tags: on.tags, values: on.values, ...who }));
  const key = sha256(Buffer.from(JSON.stringify([row.draft.name, made])));
  let set = before.get(key);
  if (!set || !(await ctx.files.has(set.sha256)) || !(await ctx.files.has(set.facts))) {
    const by = before.ofMany ? 'writtenOfMany' : 'written';
    const { made: _kept, ...fresh } = await setPaper(ctx, on.deal.id, row.draft.name, made, by);
    const file = ctx.files.fileOf(fresh.sha256);
    const read = await factsOfPaper(ctx, { file, original: null, sizes: fresh.pages, owner: on.deal.id });
    set = { ...fresh, facts: read.sha256, words: read.words };
    before.set(key, set);
  }
  return {
    form: {
      row: { ...row, draft: { ...row.draft, marks: marksOf({ ...set, made }, document.id), passed: [] } },
      document: {
        ...document,
        original_sha256: set.sha256,
        sha256: set.sha256,
        bytes: String(set.bytes),
        pages: set.pages,
        pages_read: set.pages.length,
        status: 'ready',
        facts_sha256: set.facts,
        words: set.words,
      },
    },
    missing: made.missing,
    unprintable: set.unprintable,
  };
}
