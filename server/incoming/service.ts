/** Contracts that members add to open a deal: added, shown with what they say, opened or discarded. */
import type { IncomingList, IncomingView, DealView, OpenIncomingBody } from '@gatepath/contract';
import type { Abstract, FieldRead, Source } from '@gatepath/core/abstract';
import { dayOfStated, forWhomOf, workedOut } from '@gatepath/core/abstract';
import { shortDay } from '@gatepath/core/calendar';
import { DATE_WORDS, KEY_DATES, type DealKind, type KeyDate, type KeyDates } from '@gatepath/core/deal';
import type { DocumentType } from '@gatepath/core/reading';
import { sure } from '@gatepath/core/sure';
import { clip, fold } from '@gatepath/core/text';
import type { Context } from '../context';
import { inTransaction, type Tx } from '../db/tx';
import { changeDealIn } from '../deals/changes';
import { dealView, openDealIn } from '../deals/service';
import { computeDealStatus } from '../deals/status';
import { abstractOfDocument, dismissStatement } from '../documents/abstract-queries';
import { broughtIn, insertPaper } from '../documents/bring-in';
import { documentChanged } from '../documents/place';
import * as documents from '../documents/queries';
import { queueFileDeletionIn } from '../files/tidy';
import type { Firm, Member } from '../firm/queries';
import type { Upload } from '../http/upload';
import { newId } from '../ids';
import { notFound, Problem } from '../problem';
import { beginReview } from '../returned/service';
import * as q from './queries';

/** Maximum number of contracts of one member that have not become deals. */
export const MOST_INCOMING = 40;
/** Maximum number of people of the address book that are offered for a contract. */
const MOST_KNOWN = 60;

/**
 * Adds a contract to open a deal with. Its pages are read afterwards.
 *
 * @throws Problem `over-limits`; `not-found` if it is discarded at this moment
 */
export async function addIncoming(ctx: Context, file: Upload, member: Member): Promise<IncomingView> {
  const { pool } = ctx.database;
  if ((await q.openIncoming(pool, member.id, MOST_INCOMING)).length >= MOST_INCOMING)
    throw new Problem(
      'over-limits',
      `${MOST_INCOMING} contracts wait for you to open their deals. Open or discard some of them first.`,
    );
  const id = newId();
  const paper = await broughtIn(ctx, file, id);
  await inTransaction(pool, async (tx) => {
    await q.insertIncoming(tx.db, id, member.id, ctx.clock.now());
    await insertPaper(ctx, tx, paper, { incoming_id: id });
  });
  return incomingView(ctx, id, member);
}

/** Returns the member's contracts that have not become deals, newest first. */
export async function listIncoming(ctx: Context, member: Member): Promise<IncomingList> {
  const rows = await q.openIncoming(ctx.database.pool, member.id, MOST_INCOMING);
  return { items: rows.map((r) => ({ id: r.id, name: r.name, createdAt: r.created_at.toISOString() })) };
}

/**
 * Returns a contract with what it says about its deal.
 *
 * @throws Problem `not-found`
 */
export async function incomingView(ctx: Context, id: string, member: Member): Promise<IncomingView> {
  const db = ctx.database.pool;
  const row = await q.incomingOf(db, id, member.id);
  const document = row && (await documents.documentOfIncoming(db, id));
  if (!row || (!document && !row.deal_id)) throw notFound('This contract');
  const firm = sure(await ctx.firm(), 'the firm');
  const { holidays } = firm;
  if (!document)
    return { ...OPENED, pages: [], id, createdAt: row.created_at.toISOString(), dealId: row.deal_id, holidays };
  const abstract = document.status === 'ready' ? await abstractOfDocument(db, document.id) : null;
  return {
    id,
    documentId: document.id,
    name: document.name,
    fileName: document.file_name,
    pages: document.pages,
    pagesRead: document.pages_read,
    // Until what it says is known it is still being read.
    status: document.status === 'ready' && !abstract ? 'reading' : document.status,
    problem: document.problem,
    createdAt: row.created_at.toISOString(),
    dealId: row.deal_id,
    abstract: abstract && (await shown(ctx, abstract, firm.name)),
    holidays,
  };
}

/** A contract that has become a deal: its document is there. */
const OPENED = {
  documentId: '',
  name: '',
  fileName: '',
  pagesRead: 0,
  status: 'ready',
  problem: null,
  abstract: null,
} as const;

/** Maximum number of deals at the same address that are shown. */
const MOST_AT_ADDRESS = 3;

/** Returns an abstract with the people of the address book that its names may be, and deals at its address. */
async function shown(ctx: Context, a: Abstract, firm: string): Promise<NonNullable<IncomingView['abstract']>> {
  const address = a.fields.find((f) => f.field === 'address')?.readings[0]?.value;
  const known = await q.peopleByNames(
    ctx.database.pool,
    a.people.map((p) => p.name),
    MOST_KNOWN,
  );
  return {
    ...a,
    atAddress: typeof address === 'string' ? await q.dealsAt(ctx.database.pool, address, MOST_AT_ADDRESS) : [],
    forWhom: forWhomOf(a, a.kind, firm),
    people: a.people.map((p) => ({
      ...p,
      known: known
        .filter((k) => fold(k.name) === fold(p.name))
        .map(({ id, email, phone, company }) => ({ id, email, phone, company })),
    })),
  };
}

/** The type of document that a contract of each kind of deal is. */
const TYPES: Record<DealKind, DocumentType> = {
  sale: 'purchase_agreement',
  listing: 'listing_agreement',
  tenancy: 'lease',
};

/**
 * Opens the deal of a contract: its people, facts and key dates are saved, and the contract becomes a document of the deal. If it
 * is signed, the review for gaps begins. Repeated calls return the same deal.
 *
 * @throws Problem `not-found`, `reading`, `bad-fact`
 */
export async function openIncoming(
  ctx: Context,
  id: string,
  body: OpenIncomingBody,
  member: Member,
): Promise<DealView> {
  const firm = sure(await ctx.firm(), 'the firm');
  const opened = await inTransaction(ctx.database.pool, async (tx) => {
    const row = await q.incomingOf(tx.db, id, member.id, true);
    if (!row) throw notFound('This contract');
    if (row.deal_id) return { dealId: row.deal_id, signed: null };
    const document = await documents.documentOfIncoming(tx.db, id);
    if (!document) throw notFound('This contract');
    if (document.status === 'reading')
      throw new Problem('reading', `“${document.name}” is still being read. It is ready in a moment.`);
    return openIn(ctx, tx, { firm, member }, document, body);
  });
  const { dealId, signed } = opened;
  await computeDealStatus(ctx, dealId);
  if (signed) await beginReview(ctx, signed, { blankId: null }, member);
  return dealView(ctx, dealId, member);
}

async function openIn(
  ctx: Context,
  tx: Tx,
  { firm, member }: { firm: Firm; member: Member },
  document: documents.DocumentRow,
  body: OpenIncomingBody,
): Promise<{ dealId: string; signed: string | null }> {
  const abstract = await abstractOfDocument(tx.db, document.id);
  const { facts, dates, ...deal } = body;
  const dealId = await openDealIn(ctx, tx, firm, deal, [`${member.name} opened the deal from “${document.name}”.`]);
  const why = abstract ? reasonsOf(abstract, daysOf(body), firm.holidays, document.name) : [];
  if (facts || dates)
    await changeDealIn(ctx, tx, dealId, { ...(facts ? { facts } : {}), ...(dates ? { dates } : {}) }, member.name, why);
  if (abstract) await dismissUnaccepted(tx, document.id, abstract, body, firm.holidays);
  await documents.moveToDeal(tx.db, document.id, dealId, isNamed(document.type) ? document.type : TYPES[body.kind]);
  await q.setOpened(tx.db, document.incoming_id ?? '', dealId);
  await documentChanged(ctx, tx, { deal_id: dealId, shelf_id: null, incoming_id: null });
  const isSigned = document.status === 'ready' && abstract !== null && isSignedBySomebody(abstract);
  return { dealId, signed: isSigned ? document.id : null };
}

/** Returns the key dates of a request, without those it leaves out. */
const daysOf = ({ dates = {} }: OpenIncomingBody): KeyDates =>
  Object.fromEntries(KEY_DATES.flatMap((date) => (dates[date] ? [[date, dates[date]]] : [])));

/** Dismisses what a member has corrected or left out, so that it is not reported as a change of the deal. */
async function dismissUnaccepted(
  tx: Tx,
  documentId: string,
  a: Abstract,
  body: OpenIncomingBody,
  holidays: readonly string[],
): Promise<void> {
  const has = new Map<string, unknown>([
    ...Object.entries(body.facts ?? {}).map(([key, v]): [string, unknown] => [`fact.${key}`, v]),
    ...Object.entries(body.dates ?? {}).map(([key, v]): [string, unknown] => [`date.${key}`, v]),
  ]);
  for (const { field, readings } of a.fields)
    for (const { value } of readings) {
      const stated = workedOut(value, daysOf(body), holidays)?.value;
      if (stated !== undefined && has.get(field) !== stated)
        await dismissStatement(tx.db, { document_id: documentId, field, value: String(stated) });
    }
  const names = new Set((body.parties ?? []).map((p) => fold(p.name)));
  for (const p of a.people)
    if (!names.has(fold(p.name)))
      await dismissStatement(tx.db, { document_id: documentId, field: `side.${p.side}`, value: p.name });
}

/** Returns whether its words have said what type a document is; a photo is none. */
const isNamed = (type: DocumentType) => type !== 'other' && type !== 'picture';

/** Returns whether days stand beside signatures in a contract. */
const isSignedBySomebody = (a: Abstract) =>
  a.fields.some((f) => f.field === 'date.accepted' || f.field === 'date.lease_signed');

const fieldOf = (a: Abstract, date: KeyDate): FieldRead | undefined => a.fields.find((f) => f.field === `date.${date}`);

/** Longest run of a contract's words in the activity, in UTF-16 units. */
const MOST_QUOTED = 120;

/** Returns the reason for each key date that is as the contract states it, in sentences. */
function reasonsOf(a: Abstract, known: KeyDates, holidays: readonly string[], name: string): string[] {
  return KEY_DATES.flatMap((date) => {
    const day = known[date];
    if (!day) return [];
    for (const { value, sources } of fieldOf(a, date)?.readings ?? []) {
      const source: Source | undefined = sources[0];
      if (typeof value !== 'object' || !source) continue;
      const stated = dayOfStated(value, known, holidays);
      if (stated?.day !== day) continue;
      const words = `“${clip(source.words, MOST_QUOTED)}” (“${name}”, page ${source.page})`;
      return [`${DATE_WORDS[date]}: ${stated.why ?? shortDay(day, '')}, as in ${words}.`];
    }
    return [];
  });
}

/**
 * Discards a contract that has not become a deal, with its files.
 *
 * @throws Problem `not-found`
 */
export async function discardIncoming(ctx: Context, id: string, member: Member): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await q.incomingOf(tx.db, id, member.id, true);
    if (!row || row.deal_id) throw notFound('This contract');
    await discardIn(ctx, tx, id);
  });
}

async function discardIn(ctx: Context, tx: Tx, id: string): Promise<void> {
  const document = await documents.documentOfIncoming(tx.db, id);
  await q.deleteIncoming(tx.db, id);
  for (const file of new Set([document?.original_sha256, document?.sha256, document?.facts_sha256]))
    if (file) await queueFileDeletionIn(ctx, tx, file);
}

/** How long a contract waits for its deal to be opened, in days. */
const WAITS_DAYS = 30;
/** Number of contracts that are discarded at a time. */
const A_SLICE = 100;

/** Discards contracts whose deals nobody has opened for a month. */
export async function discardOldIncoming(ctx: Context): Promise<void> {
  const before = new Date(ctx.clock.now().getTime() - WAITS_DAYS * 86_400_000);
  for (const { id } of await q.incomingBefore(ctx.database.pool, before, A_SLICE))
    await inTransaction(ctx.database.pool, (tx) => discardIn(ctx, tx, id));
}
