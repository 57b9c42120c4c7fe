/** The firm's address book: one person in many deals, all of it on one page. */
import type { ListQuery, Page, PersonBody, PersonSummary, PersonView } from '@gatepath/contract';
import { lastOf } from '@gatepath/core/sure';
import type { Context } from '../context';
import type { Member } from '../firm/queries';
import type { Db } from '../db/pool';
import { anywhere } from '../db/like';
import { inTransaction } from '../db/tx';
import { queueDealStatus } from '../jobs/deal-status';
import { deletePeopleEntries } from './found';
import { indexPeople } from './found';
import { messagesTo } from '../mailroom/queries';
import { messageSummary } from '../mailroom/service';
import { notFound, Problem } from '../problem';
import * as q from './queries';

/** Maximum number of deals, packets and messages on one page. */
const MOST = { deals: 100, packets: 60, messages: 40 };

const summary = ({ id, name, email, phone, company }: q.PersonRow) => ({ id, name, email, phone, company });

/** Returns a page of the address book, by name. */
export async function listPeople(ctx: Context, query: ListQuery): Promise<Page<PersonSummary>> {
  const rows = await q.listPeople(ctx.database.pool, {
    after: query.after ? await placeOf(ctx, query.after) : null,
    search: query.search ? anywhere(query.search) : null,
    limit: query.limit + 1,
  });
  const shown = rows.slice(0, query.limit);
  return {
    items: shown.map((p) => ({ ...summary(p), deals: p.deals })),
    next: rows.length > query.limit ? lastOf(shown).id : null,
  };
}

/** Returns the name and id of the person after whom a page begins. */
async function placeOf(ctx: Context, id: string): Promise<{ name: string; id: string } | null> {
  const p = await q.personById(ctx.database.pool, id);
  return p && { name: p.name.toLowerCase(), id: p.id };
}

/**
 * Returns a person, or the person they were merged into.
 *
 * @throws Problem `not-found`
 */
export async function personView(ctx: Context, id: string, member: Member): Promise<PersonView> {
  const db = ctx.database.pool;
  const p = await q.personById(db, id);
  if (!p) throw notFound('This person');
  return {
    ...summary(p),
    deals: await q.dealsOf(db, p.id, MOST.deals),
    packets: (await q.packetsOf(db, p.id, MOST.packets)).map((k) => ({
      id: k.id,
      name: k.name,
      address: k.address,
      status: k.status,
      holdUp: k.hold_up,
      at: k.at.toISOString(),
    })),
    messages: (await messagesTo(db, p.id, MOST.messages)).map((m) => messageSummary(m, member)),
    alike: (await q.alike(db, p)).map(summary),
  };
}

/**
 * Requires that nobody else has a name and address. A row that was merged into this person gives them up.
 *
 * @throws Problem `named-twice`
 */
async function requireFree(db: Db, id: string, name: string, email: string): Promise<void> {
  const other = await q.personByName(db, name, email);
  if (!other || other.id === id) return;
  if ((await q.personById(db, other.id))?.id !== id)
    throw new Problem('named-twice', `${name} is in the address book with this address already. Make the two one.`);
  await q.freeName(db, other.id);
}

/**
 * Corrects a person in the address book and in their open deals. Packets that were sent keep the names they were sent
 * with.
 *
 * @throws Problem `not-found`, `named-twice`
 */
export async function setPerson(ctx: Context, id: string, body: PersonBody, member: Member): Promise<PersonView> {
  const person = await inTransaction(ctx.database.pool, async (tx) => {
    const p = await q.personById(tx.db, id);
    if (!p) throw notFound('This person');
    await requireFree(tx.db, p.id, body.name, body.email ?? '');
    const now = {
      id: p.id,
      name: body.name,
      email: body.email ?? '',
      phone: body.phone ?? null,
      company: body.company ?? '',
    };
    await q.updatePerson(tx.db, now);
    for (const dealId of await q.updateParties(tx.db, now)) await queueDealStatus(ctx, tx, dealId);
    await indexPeople(tx.db, [now]);
    return p;
  });
  return personView(ctx, person.id, member);
}

/**
 * Merges a person who is in the address book twice, with all their deals.
 *
 * @param otherId  the person that is merged and no longer found
 * @throws Problem `named-twice`, `not-found`
 */
export async function mergePerson(ctx: Context, id: string, otherId: string, member: Member): Promise<PersonView> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const into = await q.personById(tx.db, id);
    const from = await q.personById(tx.db, otherId);
    if (!into || !from || into.id === from.id) throw notFound('The other person');
    const next = {
      ...into,
      email: into.email || from.email,
      phone: into.phone ?? from.phone,
      company: into.company || from.company,
    };
    for (const dealId of await q.merge(tx.db, from.id, into.id)) await queueDealStatus(ctx, tx, dealId);
    await requireFree(tx.db, into.id, next.name, next.email);
    await q.updatePerson(tx.db, next);
    await deletePeopleEntries(tx.db, [from.id]);
    await indexPeople(tx.db, [next]);
  });
  return personView(ctx, id, member);
}
