/** Finding and adding people of the address book within a transaction. */
import type { PartyBody } from '@gatepath/contract';
import { sure } from '@gatepath/core/sure';
import type { Db } from '../db/pool';
import { indexPeople } from './found';
import { newId } from '../ids';
import * as q from './queries';

/**
 * Returns the person of the address book that a party of a deal is: the one it names, otherwise the one with the same
 * name and address, otherwise a new one. The address book takes over how the deal reaches them.
 *
 * @returns the person's id
 */
export async function personFor(db: Db, p: PartyBody, at: Date): Promise<string> {
  const email = p.email ?? '';
  const byName = await q.personByName(db, p.name, email);
  const known =
    (p.personId ? await q.personById(db, p.personId) : null) ?? (byName && (await q.personById(db, byName.id)));
  const now = { name: p.name, email, phone: p.phone ?? null, company: p.company ?? '' };
  if (!known) {
    await q.insertPerson(db, { ...now, id: newId(), at });
    // Another request may have saved the same person at this moment: theirs counts.
    const made = sure(await q.personByName(db, p.name, email), 'a person just written down');
    await indexPeople(db, [made]);
    return made.merged_into ?? made.id;
  }
  // A name and address of another person in the address book stay theirs.
  if (!byName || byName.id === known.id) {
    const next = { ...now, id: known.id, phone: now.phone ?? known.phone, company: now.company || known.company };
    await q.updatePerson(db, next);
    await indexPeople(db, [next]);
  }
  return known.id;
}
