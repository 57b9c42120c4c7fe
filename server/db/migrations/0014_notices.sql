-- Notices: one kit's papers to many households, a row each.
create table notice (
  id text primary key,
  kit_id text not null references shelf_item (id),
  name text not null,
  -- What its papers say for every household, by tag.
  said jsonb not null default '{}',
  rule jsonb,
  all_or_none boolean not null default false,
  created_by text not null references member (id),
  created_at timestamptz not null,
  stopped_at timestamptz,
  -- Goes up with every change: what was worked out before one says nothing any more.
  version integer not null default 0
);
create index notice_kit on notice (kit_id);

alter table packet add column notice_id text references notice (id) on delete set null;
create index packet_notice on packet (notice_id) where notice_id is not null;

create table notice_row (
  id text primary key,
  notice_id text not null references notice (id) on delete cascade,
  n integer not null,
  line integer,
  home text not null,
  deal_id text references deal (id) on delete set null,
  said jsonb not null default '{}',
  -- What was wrong with it in the table it came in with.
  unread jsonb not null default '[]',
  state text not null check (state in ('new', 'ready', 'going', 'wrong', 'left_out', 'gone')),
  problems jsonb not null default '[]',
  notes jsonb not null default '[]',
  -- Papers that were set when it was worked out: they go as they were looked at.
  papers jsonb not null default '{}',
  packet_id text references packet (id) on delete set null,
  gone_at timestamptz,
  unique (notice_id, n)
);
create unique index notice_row_packet on notice_row (packet_id) where packet_id is not null;
create index notice_row_deal on notice_row (deal_id);
create index notice_row_due on notice_row (notice_id, n) where state in ('new', 'going');

-- The firm's own rules for notices; null for the samples.
alter table firm add column notice_rules jsonb;

-- Where what is only delivered stands.
alter table packet_party add column arrived_at text;
alter table packet_party add column counts_from date;
alter table packet_party add column bounced boolean not null default false;
alter table packet_party add column wants_letter boolean not null default false;
