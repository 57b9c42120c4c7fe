-- How it goes: how long people take by side and act, what was sent and executed by week.

alter table packet_party add column side text;
alter table packet_party add column act text;
-- As the log tells it: who was there when the packet was sent, and who was added since.
update packet_party pp set side = x.p->>'side', act = x.p->>'act'
  from (
    select packet_id, jsonb_array_elements(body->'plan'->'parties') as p from packet_event where type = 'sent'
    union all
    select packet_id, body->'party' as p from packet_event where type = 'party_added'
  ) x
  where x.packet_id = pp.packet_id and x.p->>'id' = pp.party_id;
create index packet_party_done on packet_party (done_at desc) where done_at is not null;
create index packet_sent on packet (sent_at) where sent_at is not null;
create index packet_ended on packet (ended_at) where ended_at is not null;

-- Lists found again: what was asked of a list, under a name, for its member or for the whole firm.
create table kept_view (
  id text primary key,
  member_id text not null references member (id) on delete cascade,
  name text not null,
  shared boolean not null,
  query jsonb not null,
  created_at timestamptz not null
);
create index kept_view_member on kept_view (member_id);
create index deal_address on deal (lower(address), id);

-- The binder of a deal: everything executed, the originals and the chains in one file, made in the background.
create table binder (
  deal_id text primary key references deal (id) on delete cascade,
  status text not null check (status in ('making', 'ready', 'failed')),
  -- Pieces put in so far, and in all.
  done integer not null default 0,
  pieces integer not null default 0,
  sha256 text,
  bytes bigint,
  asked_at timestamptz not null,
  made_at timestamptz
);
create index binder_file on binder (sha256) where sha256 is not null;
-- Until when a deal is kept at the least, as a day; the firm's own wish.
alter table deal add column keep_until date;

-- In what capacity somebody signs in a deal ("trustee of the Alder Trust"): it stands under their signature.
alter table party add column capacity text not null default '';

-- Lists of deals as they are asked for: by the day they work towards, by what is due, by their tags.
create index deal_goal on deal
  ((coalesce(dates->>(case when kind = 'tenancy' then 'move_in' else 'closing' end), '9999')), id);
create index deal_item_due on deal_item (list, day, deal_id);
create index deal_tagged on deal (id) where tags <> '[]';
create index packet_at_gate on packet (deal_id) where status = 'at_gate';

-- What is found comes first of open deals, and of the others where those do not fill a group: a firm of ten years has
-- the same word in thousands of old deals.
alter table find_entry add column is_open boolean not null default true;
drop index find_deal_words;
drop index find_packet_words;
drop index find_paper_words;
create index find_open_deal_words on find_entry using gin (words) with (fastupdate = off) where kind = 'deal' and is_open;
create index find_open_packet_words on find_entry using gin (words) with (fastupdate = off) where kind = 'packet' and is_open;
create index find_open_paper_words on find_entry using gin (words) with (fastupdate = off) where kind = 'paper' and is_open;
create index find_old_deal_words on find_entry using gin (words) with (fastupdate = off) where kind = 'deal' and not is_open;
create index find_old_packet_words on find_entry using gin (words) with (fastupdate = off) where kind = 'packet' and not is_open;
create index find_old_paper_words on find_entry using gin (words) with (fastupdate = off) where kind = 'paper' and not is_open;
