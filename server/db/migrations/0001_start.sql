-- The ground: firm and members, deals with parties and documents, packets and their event log,
-- passes, messages. Ids are UUIDv7 text, so ordering by id is ordering by age.

create table firm (
  id text primary key,
  name text not null,
  time_zone text not null,
  created_at timestamptz not null
);

create table member (
  id text primary key,
  firm_id text not null references firm (id),
  name text not null,
  email text not null,
  password_hash text not null,
  created_at timestamptz not null
);
create unique index member_email on member (lower(email));

create table session (
  token_hash text primary key,
  member_id text not null references member (id) on delete cascade,
  created_at timestamptz not null,
  expires_at timestamptz not null
);

create table deal (
  id text primary key,
  kind text not null check (kind in ('listing', 'sale', 'tenancy')),
  address text not null,
  city text not null,
  time_zone text not null,
  created_at timestamptz not null
);

create table party (
  id text primary key,
  deal_id text not null references deal (id) on delete cascade,
  side text not null,
  ordinal integer not null check (ordinal > 0),
  name text not null,
  email text not null,
  phone text,
  created_at timestamptz not null
);
create index party_deal on party (deal_id, id);

create table document (
  id text primary key,
  deal_id text not null references deal (id) on delete cascade,
  name text not null,
  file_name text not null,
  original_sha256 text not null,
  -- The prepared file: what is drawn, shown, signed and sealed.
  sha256 text not null,
  bytes bigint not null,
  -- One {width, height} a page, in points as displayed.
  pages jsonb not null,
  pages_read integer not null default 0,
  status text not null check (status in ('reading', 'ready', 'failed')),
  problem text,
  facts_sha256 text,
  created_at timestamptz not null
);
create index document_deal on document (deal_id, id);

create table packet (
  id text primary key,
  deal_id text not null references deal (id) on delete cascade,
  name text not null,
  status text not null check (status in ('drafting', 'at_gate', 'executed', 'declined', 'withdrawn', 'lapsed')),
  draft jsonb not null,
  draft_version integer not null default 1,
  created_by text not null references member (id),
  created_at timestamptz not null,
  -- Read model of a sent packet; a rebuild from packet_event gives the same.
  seq integer not null default 0,
  gate integer not null default 0,
  gate_count integer not null default 0,
  marks_total integer not null default 0,
  marks_done integer not null default 0,
  hold_up text not null default '',
  sent_at timestamptz,
  ended_at timestamptz
);
create index packet_deal on packet (deal_id, id);

create table packet_event (
  packet_id text not null references packet (id),
  seq integer not null check (seq > 0),
  at text not null,
  type text not null,
  actor jsonb not null,
  origin jsonb,
  body jsonb not null,
  act_id text,
  prev_hash text not null,
  hash text not null,
  primary key (packet_id, seq)
);
-- One act is one event, however often its submission arrives.
create unique index packet_event_act on packet_event (packet_id, act_id) where act_id is not null;

create function packet_event_is_append_only() returns trigger language plpgsql as $$
begin
  raise exception 'packet_event is append-only';
end $$;
create trigger packet_event_append_only before update or delete on packet_event
  for each row execute function packet_event_is_append_only();

create table packet_party (
  packet_id text not null references packet (id) on delete cascade,
  party_id text not null,
  position integer not null,
  gate integer not null,
  status text not null,
  asked_at text,
  opened_at text,
  agreed_at text,
  done_at text,
  last_act_at text,
  marks_total integer not null,
  marks_done integer not null,
  primary key (packet_id, party_id)
);

create table packet_fill (
  packet_id text not null references packet (id) on delete cascade,
  mark_id text not null,
  party_id text not null,
  value jsonb not null,
  at text not null,
  seq integer not null,
  primary key (packet_id, mark_id)
);

create table packet_sealed (
  packet_id text not null references packet (id) on delete cascade,
  document_id text not null,
  sha256 text not null,
  primary key (packet_id, document_id)
);

create table pass (
  id text primary key,
  packet_id text not null references packet (id) on delete cascade,
  party_id text not null,
  token_hash text not null unique,
  created_at timestamptz not null,
  ended_at timestamptz
);
create index pass_packet on pass (packet_id, party_id);

create table message (
  id text primary key,
  packet_id text references packet (id) on delete cascade,
  deal_id text references deal (id) on delete cascade,
  party_id text,
  kind text not null,
  to_name text not null,
  to_email text not null,
  subject text not null,
  body_text text not null,
  body_html text not null,
  link text,
  status text not null check (status in ('queued', 'kept', 'sent', 'failed')),
  problem text,
  created_at timestamptz not null,
  sent_at timestamptz
);
create index message_packet on message (packet_id, id);
