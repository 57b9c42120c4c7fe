/** Parts of whole lists, in the order of their ids: newest first. */
import type { AnyPacketStatus } from '@gatepath/contract';
import type { Db } from '../db/pool';

/** Returns one part of a list: the rows after an id, up to a maximum. */
async function part<R extends object>(
  db: Db,
  select: string,
  id: string,
  after: string | null,
  limit: number,
): Promise<R[]> {
  const r = await db.query<R>(`${select} and ($1::text is null or ${id} < $1) order by ${id} desc limit $2`, [
    after,
    limit,
  ]);
  return r.rows;
}

/** A person as a row of the exported list. */
export interface PersonPart {
  id: string;
  name: string;
  email: string;
  phone: string | null;
  company: string;
  deals: number;
}
/** Returns the next people of the exported list. */
export const peoplePart = (db: Db, after: string | null, limit: number) =>
  part<PersonPart>(
    db,
    `select p.id, p.name, p.email, p.phone, p.company,
       (select count(distinct x.deal_id)::int from party x where x.person_id = p.id) as deals
     from person p where p.merged_into is null`,
    'p.id',
    after,
    limit,
  );

/** A packet as a row of the exported list. */
export interface PacketPart {
  id: string;
  address: string;
  name: string;
  status: AnyPacketStatus;
  gate: number;
  gate_count: number;
  marks_done: number;
  marks_total: number;
  hold_up: string;
  created_at: Date;
  sent_at: Date | null;
  ended_at: Date | null;
}
/** Returns the next packets of the exported list. */
export const packetsPart = (db: Db, after: string | null, limit: number) =>
  part<PacketPart>(
    db,
    `select p.id, d.address, p.name, p.status, p.gate, p.gate_count, p.marks_done, p.marks_total, p.hold_up,
       p.created_at, p.sent_at, p.ended_at
     from packet p join deal d on d.id = p.deal_id where true`,
    'p.id',
    after,
    limit,
  );

/** A document as a row of the exported list. */
export interface PaperPart {
  id: string;
  address: string;
  name: string;
  type: string;
  file_name: string;
  pages: number;
  sha256: string;
  ends_on: string | null;
  created_at: Date;
}
/** Returns the next documents of the exported list. */
export const papersPart = (db: Db, after: string | null, limit: number) =>
  part<PaperPart>(
    db,
    `select o.id, d.address, o.name, o.type, o.file_name, jsonb_array_length(o.pages) as pages, o.sha256,
       o.ends_on::text, o.created_at
     from document o join deal d on d.id = o.deal_id where true`,
    'o.id',
    after,
    limit,
  );

/** A message as a row of the exported list. */
export interface MessagePart {
  id: string;
  to_name: string;
  to_email: string;
  to_phone: string | null;
  channel: 'email' | 'text';
  subject: string;
  status: string;
  problem: string | null;
  created_at: Date;
}
/** Returns the next messages of the exported list. */
export const messagesPart = (db: Db, after: string | null, limit: number) =>
  part<MessagePart>(
    db,
    `select m.id, m.to_name, m.to_email, m.to_phone, m.channel, m.subject, m.status, m.problem, m.created_at
     from message m where true`,
    'm.id',
    after,
    limit,
  );
