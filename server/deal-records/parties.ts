/** People of deals: their view, and adding one. */
import type { PartyBody, PartyView } from '@gatepath/contract';
import type { Db } from '../db/pool';
import { newId } from '../ids';
import { personFor } from '../people/book';
import * as q from './party-queries';

/** Returns what screens show of a person of a deal. */
export function partyView(p: q.PartyRow): PartyView {
  const { id, side, ordinal, name, email, phone, company, capacity, person_id: personId } = p;
  return { id, side, ordinal, name, email, phone, company, capacity, personId };
}

/**
 * Adds a person to a deal as the next one of their side. The deal's row must be locked.
 *
 * @returns their id
 */
export async function addParty(db: Db, dealId: string, p: PartyBody, at: Date): Promise<string> {
  const id = newId();
  await q.insertParty(db, {
    id,
    deal_id: dealId,
    side: p.side,
    ordinal: await q.nextOrdinal(db, dealId, p.side),
    name: p.name,
    email: p.email ?? '',
    phone: p.phone ?? null,
    company: p.company ?? '',
    capacity: p.capacity ?? '',
    person_id: await personFor(db, p, at),
    at,
  });
  return id;
}
