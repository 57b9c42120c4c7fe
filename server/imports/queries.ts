/** SQL for many rows at once: a table is written in a few statements, so that nobody waits long. */
import type { DealRow as NewDeal, PersonRow as NewPerson } from '@gatepath/core/intake';
import type { Db } from '../db/pool';
import type { Side } from '@gatepath/core/text';

/**
 * Saves people; those already in the address book by name and address stay as they are. @returns the ids of the new
 * ones
 */
export async function insertPeople(
  db: Db,
  rows: (NewPerson & { id: string })[],
  at: Date,
): Promise<ReadonlySet<string>> {
  const r = await db.query<{ id: string }>(
    `insert into person (id, name, email, phone, company, created_at)
     select id, name, email, phone, company, $2 from jsonb_to_recordset($1::jsonb)
       as x(id text, name text, email text, phone text, company text)
     on conflict do nothing returning id`,
    [JSON.stringify(rows), at],
  );
  return new Set(r.rows.map((x) => x.id));
}

/** A person with a name and an address. */
export interface Named {
  name: string;
  email: string;
}

/**
 * Returns who in the address book has which name and address, both in lower case. Of merged people it returns the one
 * they were merged into.
 */
export async function peopleNamed(db: Db, names: Named[]): Promise<(Named & { id: string })[]> {
  const r = await db.query<Named & { id: string }>(
    `select coalesce(p.merged_into, p.id) as id, lower(p.name) as name, lower(p.email) as email
     from (select distinct lower(name) as name, lower(email) as email
           from jsonb_to_recordset($1::jsonb) as y(name text, email text)) x
     join person p on lower(p.name) = x.name and lower(p.email) = x.email`,
    [JSON.stringify(names)],
  );
  return r.rows;
}

/** Returns deals at any of these addresses, ignoring case. */
export async function dealsAt(db: Db, addresses: string[]): Promise<{ kind: string; address: string; city: string }[]> {
  const r = await db.query<{ kind: string; address: string; city: string }>(
    'select kind, address, city from deal where lower(address) = any($1::text[])',
    [addresses.map((a) => a.toLowerCase())],
  );
  return r.rows;
}

/** Saves deals. */
export async function insertDeals(
  db: Db,
  rows: (Omit<NewDeal, 'people'> & { id: string })[],
  more: { zone: string; at: Date; day: string },
): Promise<void> {
  await db.query(
    `insert into deal (id, kind, address, city, time_zone, created_at, for_whom, status, status_on, facts, dates, tags)
     select id, kind, address, city, $2, $3, "forWhom", status, $4::date, facts, dates, tags
     from jsonb_to_recordset($1::jsonb) as x(id text, kind text, address text, city text, "forWhom" text, status text,
       facts jsonb, dates jsonb, tags jsonb)`,
    [JSON.stringify(rows), more.zone, more.at, more.day],
  );
}

/** A person of an imported deal. */
export interface NewParty extends Named {
  id: string;
  dealId: string;
  side: Side;
  ordinal: number;
  personId: string | null;
}

/** Saves the people of new deals. */
export async function insertParties(db: Db, rows: NewParty[], at: Date): Promise<void> {
  await db.query(
    `insert into party (id, deal_id, side, ordinal, name, email, created_at, person_id)
     select id, "dealId", side, ordinal, name, email, $2, "personId"
     from jsonb_to_recordset($1::jsonb) as x(id text, "dealId" text, side text, ordinal integer, name text, email text, "personId" text)`,
    [JSON.stringify(rows), at],
  );
}

/** Saves the same note in each of these deals. */
export async function insertNotes(
  db: Db,
  rows: { id: string; dealId: string }[],
  sentence: string,
  at: Date,
): Promise<void> {
  await db.query(
    `insert into deal_event (id, deal_id, at, sentence)
     select id, "dealId", $2, $3 from jsonb_to_recordset($1::jsonb) as x(id text, "dealId" text)`,
    [JSON.stringify(rows), at, sentence],
  );
}
