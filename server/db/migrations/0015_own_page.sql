-- Who somebody is to whom packets went: a name at an address. Two people with one mailbox have two names.
alter table packet_party add column called text;
alter table packet_party add column mailbox text;
update packet_party pp set called = lower(x.name), mailbox = lower(coalesce(nullif(x.email, ''), x.phone))
from (
  select distinct on (packet_id, party_id) packet_id, party_id, name, email, phone from (
    select e.packet_id, e.seq, p->>'id' as party_id, p->>'name' as name, p->>'email' as email, p->>'phone' as phone
      from packet_event e, jsonb_array_elements(e.body->'plan'->'parties') p where e.type = 'sent'
    union all
    select packet_id, seq, body->'party'->>'id', body->'party'->>'name', body->'party'->>'email', body->'party'->>'phone'
      from packet_event where type = 'party_added'
    union all
    select packet_id, seq, body->>'partyId', body->'contact'->>'name', body->'contact'->>'email', body->'contact'->>'phone'
      from packet_event where type in ('party_corrected', 'handed_over')
  ) said order by packet_id, party_id, seq desc
) x where x.packet_id = pp.packet_id and x.party_id = pp.party_id;
create index packet_party_own on packet_party (mailbox, called) where mailbox is not null;

-- A person's own page, opened by its address and a one-time code; only hashes of both are kept.
create table own_page (
  id text primary key,
  token_hash text not null unique,
  called text not null,
  mailbox text not null,
  name text not null,
  email text not null,
  phone text,
  language text not null,
  created_at timestamptz not null,
  code_hash text,
  code_at timestamptz,
  tries integer not null default 0,
  locked_until timestamptz
);
create index own_page_whose on own_page (mailbox, called);
create table own_proof (
  token_hash text primary key,
  page_id text not null references own_page (id) on delete cascade,
  expires_at timestamptz not null
);
create index own_proof_page on own_proof (page_id);
