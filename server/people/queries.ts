import type { AnyPacketStatus } from '@gatepath/contract';
import type { DealKind, DealStatus } from '@gatepath/core/deal';
import type { Side } from '@gatepath/core/text';
import type { Db } from '../db/pool';

/** A person of the address book. */
export interface PersonRow {
  id: string;
  name: string;
  email: string;
  phone: string | null;
  company: string;
  merged_into: string | null;
}

const COLUMNS = 'id, name, email, phone, company, merged_into';

/** Returns a person, or the person they were merged into; null if there is none. */
export async function personById(db: Db, id: string): Promise<PersonRow | null> {
  const r = await db.query<PersonRow>(
    `with recursive way as (
       select ${COLUMNS}, 1 as n from person where id = $1
       union all select p.id, p.name, p.email, p.phone, p.company, p.merged_into, n + 1
         from person p join way on p.id = way.merged_into where n < 20
     ) select ${COLUMNS} from way where merged_into is null limit 1`,
    [id],
  );
  return r.rows[0] ?? null;
}

/** Returns a person by name and address, ignoring case; null if there is none. */
export async function personByName(db: Db, name: string, email: string): Promise<PersonRow | null> {
  const r = await db.query<PersonRow>(
    `select ${COLUMNS} from person where lower(name) = lower($1) and lower(email) = lower($2)`,
    [name, email],
  );
  return r.rows[0] ?? null;
}

/** Saves a person, unless one with the same name and address was saved meanwhile. */
export async function insertPerson(db: Db, p: Omit<PersonRow, 'merged_into'> & { at: Date }): Promise<void> {
  await db.query(
    `insert into person (id, name, email, phone, company, created_at) values ($1, $2, $3, $4, $5, $6)
     on conflict do nothing`,
    [p.id, p.name, p.email, p.phone, p.company, p.at],
  );
}

/** Clears the name and address of a merged row, so that another person can have them. */
export async function freeName(db: Db, id: string): Promise<void> {
  await db.query(`update person set name = name || ' ' || id where id = $1 and merged_into is not null`, [id]);
}

/** Saves a corrected person. */
export async function updatePerson(db: Db, p: Omit<PersonRow, 'merged_into'>): Promise<void> {
  await db.query('update person set name = $2, email = $3, phone = $4, company = $5 where id = $1', [
    p.id,
    p.name,
    p.email,
    p.phone,
    p.company,
  ]);
}

/** Corrects a person in the open deals they are in. @returns the ids of the deals */
export async function updateParties(db: Db, p: Omit<PersonRow, 'merged_into'>): Promise<string[]> {
  const r = await db.query<{ deal_id: string }>(
    `update party set name = $2, email = $3, phone = $4 from deal d
     where party.person_id = $1 and d.id = party.deal_id and d.archived_at is null
       and d.status not in ('closed', 'fell_through', 'ended')
     returning party.deal_id`,
    [p.id, p.name, p.email, p.phone],
  );
  return [...new Set(r.rows.map((x) => x.deal_id))];
}

/** Merges `from` into `into`, with all their deals. @returns the ids of those deals */
export async function merge(db: Db, from: string, into: string): Promise<string[]> {
  const r = await db.query<{ deal_id: string }>(
    'update party set person_id = $2 where person_id = $1 returning deal_id',
    [from, into],
  );
  await db.query('update person set merged_into = $2 where id = $1 or merged_into = $1', [from, into]);
  return [...new Set(r.rows.map((x) => x.deal_id))];
}

/** Returns people by name, after the one with this name and id. */
export async function listPeople(
  db: Db,
  o: { after: { name: string; id: string } | null; search: string | null; limit: number },
): Promise<(PersonRow & { deals: number })[]> {
  const r = await db.query<PersonRow & { deals: number }>(
    `select ${COLUMNS}, (select count(distinct deal_id)::int from party where person_id = person.id) as deals from person
     where merged_into is null and ($1::text is null or (lower(name), id) > ($1, $2))
       and ($3::text is null or name ilike $3 or email ilike $3 or company ilike $3)
     order by lower(name), id limit $4`,
    [o.after?.name ?? null, o.after?.id ?? '', o.search, o.limit],
  );
  return r.rows;
}

/** Returns others with the same name or the same address. */
export async function alike(db: Db, p: PersonRow): Promise<PersonRow[]> {
  const r = await db.query<PersonRow>(
    `select ${COLUMNS} from person where merged_into is null and id <> $1
       and (lower(name) = lower($2) or ($3 <> '' and lower(email) = lower($3))) order by lower(name), id limit 10`,
    [p.id, p.name, p.email],
  );
  return r.rows;
}

/** A deal that a person is in. */
export interface DealOfPerson {
  id: string;
  address: string;
  kind: DealKind;
  status: DealStatus;
  side: Side;
  ordinal: number;
}

/** Returns the deals a person is in, newest first. */
export async function dealsOf(db: Db, personId: string, limit: number): Promise<DealOfPerson[]> {
  const r = await db.query<DealOfPerson>(
    `select d.id, d.address, d.kind, d.status, p.side, p.ordinal from party p join deal d on d.id = p.deal_id
     where p.person_id = $1 order by d.id desc limit $2`,
    [personId, limit],
  );
  return r.rows;
}

/** A packet that a person has a part in. */
export interface PacketOfPerson {
  id: string;
  name: string;
  address: string;
  status: AnyPacketStatus;
  hold_up: string;
  at: Date;
}

/** Returns the packets a person has a part in, newest first. */
export async function packetsOf(db: Db, personId: string, limit: number): Promise<PacketOfPerson[]> {
  const r = await db.query<PacketOfPerson>(
    `select k.id, k.name, d.address, k.status, k.hold_up, coalesce(k.sent_at, k.created_at) as at
     from packet k join deal d on d.id = k.deal_id
     where k.deal_id in (select deal_id from party where person_id = $1)
       and exists (select 1 from jsonb_array_elements(k.path->'parties') x
         where x->>'id' in (select id from party where person_id = $1))
     order by k.id desc limit $2`,
    [personId, limit],
  );
  return r.rows;
}

/** Returns people after one of them, in the order of their ids. */
export async function peopleAfter(db: Db, after: string, limit: number): Promise<PersonRow[]> {
  const r = await db.query<PersonRow>(
    `select ${COLUMNS} from person where id > $1 and merged_into is null order by id limit $2`,
    [after, limit],
  );
  return r.rows;
}
