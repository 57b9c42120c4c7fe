import type { Db } from '../db/pool';
import { saveEntries } from '../find/queries';
import type { PersonRow } from './queries';

/** Saves the search entries of people. */
export async function indexPeople(db: Db, people: Omit<PersonRow, 'merged_into'>[]): Promise<void> {
  await saveEntries(
    db,
    people.map((p) => ({
      kind: 'person',
      id: p.id,
      deal_id: null,
      title: p.name,
      detail: [p.company, p.email].filter(Boolean).join(', '),
      inside: p.phone ?? '',
      open: true,
    })),
  );
}

/** Deletes the search entries of people. */
export async function deletePeopleEntries(db: Db, ids: string[]): Promise<void> {
  await db.query(`delete from find_entry where kind = 'person' and id = any($1::text[])`, [ids]);
}
