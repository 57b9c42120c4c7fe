-- Firm ground: a packet's row is small and its draft lies apart; which files are in use is known;
-- work that failed and throttles are told to every server process; indexes and constraints that were missing.

-- A draft can be megabytes. Whoever locks or lists packets does not read it.
create table packet_draft (
  packet_id text primary key references packet (id) on delete cascade,
  draft jsonb not null,
  version integer not null default 1
);
alter table packet add column replaces_id text;
alter table packet add column continues_id text;
-- The hash of the last event: a state kept in memory is good as long as it ends there.
alter table packet add column last_hash text;
insert into packet_draft (packet_id, draft, version) select id, draft, draft_version from packet;
update packet p set
  replaces_id = p.draft->'replaces'->>'packetId',
  continues_id = p.draft->'continues'->>'packetId',
  path = coalesce(p.path, jsonb_build_object(
    'parties', (select coalesce(jsonb_agg(jsonb_build_object('id', x->'id', 'name', x->'name', 'ink', x->'ink', 'act', x->'act') order by n), '[]')
                from jsonb_array_elements(p.draft->'parties') with ordinality as e(x, n)),
    'gates', p.draft->'gates')),
  last_hash = (select e.hash from packet_event e where e.packet_id = p.id order by e.seq desc limit 1);
alter table packet drop column draft;
alter table packet drop column draft_version;
create index packet_replaces on packet (replaces_id) where replaces_id is not null;
create index packet_continues on packet (continues_id) where continues_id is not null;
create index packet_sender on packet (created_by) where status = 'at_gate';
create index packet_seals_due on packet (id) where seals_due > 0;

-- A state as it was at an event, so that a long log is not replayed from its beginning.
create table packet_snapshot (
  packet_id text primary key references packet (id) on delete cascade,
  seq integer not null,
  hash text not null,
  form integer not null,
  -- JSON, compressed with gzip.
  state bytea not null
);

-- Documents a packet holds, in its draft or under way, and files it needs. Read models: a rebuild gives the same.
create table packet_document (
  packet_id text not null references packet (id) on delete cascade,
  document_id text not null,
  primary key (packet_id, document_id)
);
create index packet_document_document on packet_document (document_id);
insert into packet_document (packet_id, document_id)
  select d.packet_id, x->>'id' from packet_draft d, jsonb_array_elements(d.draft->'documents') x on conflict do nothing;
insert into packet_document (packet_id, document_id)
  select e.packet_id, e.body->'document'->>'id' from packet_event e where e.type = 'document_added' on conflict do nothing;
create table packet_file (
  packet_id text not null references packet (id) on delete cascade,
  sha256 text not null,
  primary key (packet_id, sha256)
);
create index packet_file_sha256 on packet_file (sha256);
create index hand_picture_sha256 on hand_picture (sha256);
alter table kept_hand add column signature_sha256 text generated always as (hand->'signature'->>'sha256') stored;
alter table kept_hand add column initials_sha256 text generated always as (hand->'initials'->>'sha256') stored;
create index kept_hand_signature on kept_hand (signature_sha256) where signature_sha256 is not null;
create index kept_hand_initials on kept_hand (initials_sha256) where initials_sha256 is not null;

alter table document add column left_out jsonb not null default '[]';
create index document_original on document (original_sha256);
create index document_prepared on document (sha256);
create index document_facts on document (facts_sha256) where facts_sha256 is not null;
create index document_replaced_by on document (replaced_by) where replaced_by is not null;
create index document_unread on document (id) where status = 'reading';

-- A message that a mail server is being given: nobody else gives it meanwhile.
alter table message add column sending_at timestamptz;
create index message_deal on message (deal_id);
create index message_queued on message (id) where status = 'queued';
create index pass_proof_packet on pass_proof (packet_id, party_id);
create index pass_host on pass (host_id) where host_id is not null;
create index session_member on session (member_id);
create index session_expires on session (expires_at);

-- For which packet and party a code told in person was hashed: a new version keeps its predecessor's.
alter table second_step add column access_for text;
update second_step set access_for = packet_id || ':' || party_id where access_hash is not null;

-- Places in a side are told apart by their number; where two had the same, the later one moves on.
with again as (
  select id, row_number() over (partition by deal_id, side order by ordinal, id) as n from party
)
update party p set ordinal = a.n from again a
  where a.id = p.id and exists (
    select 1 from party x where x.deal_id = p.deal_id and x.side = p.side group by x.ordinal having count(*) > 1);
create unique index party_place on party (deal_id, side, ordinal);
-- One firm a database: two that set up at once must not both win.
do $$ begin
  if (select count(*) from firm) < 2 then create unique index firm_one on firm ((true)); end if;
end $$;

-- Tries of one kind within a window: wrong passwords, requests from one address.
create table throttle (
  key text primary key,
  n integer not null,
  until timestamptz not null
);
create index throttle_until on throttle (until);

-- Work that was given up after its tries, told on the Firm screen until it is done or tried again.
create table work_failure (
  queue text not null,
  thing text not null,
  words text not null,
  detail text not null,
  tries integer not null,
  failed_at timestamptz not null,
  primary key (queue, thing)
);
