-- The deal as a whole: for whom, how it stands, its facts and days, what a firm's rules make of them, and what is
-- worked out from all that for lists and for the first screen.

alter table deal add column for_whom text not null default 'seller'
  check (for_whom in ('seller', 'buyer', 'landlord', 'tenant', 'both'));
alter table deal add column status text not null default 'preparing';
-- The day of the last change of status, where the deal is.
alter table deal add column status_on date;
-- What is known, by the names of facts; what is not known is not there.
alter table deal add column facts jsonb not null default '{}';
alter table deal add column dates jsonb not null default '{}';
alter table deal add column tags jsonb not null default '[]';
alter table deal add column archived_at timestamptz;

update deal d set for_whom = case
  when d.kind = 'tenancy' then 'landlord'
  when exists (select 1 from party p where p.deal_id = d.id and p.side in ('seller', 'listing_broker')) then 'seller'
  when exists (select 1 from party p where p.deal_id = d.id and p.side in ('buyer', 'buyer_broker')) then 'buyer'
  else 'seller' end;
update deal set status = 'offered' where kind = 'tenancy';
-- A price stood there as it was written. Where it is a plain figure it becomes one; where not, the words stay.
update deal set facts = jsonb_build_object(case when kind = 'tenancy' then 'rent' else 'price' end,
    replace(replace(price, '$', ''), ',', '')::numeric)
  where price ~ '^\$?[0-9]{1,3}(,[0-9]{3}){0,3}(\.[0-9]{2})?$' or price ~ '^\$?[0-9]{1,12}$';
-- Papers go on writing it as it was written.
update deal set facts = facts || jsonb_build_object('price_words', price) where price <> '';
update deal set dates = jsonb_build_object(case when kind = 'tenancy' then 'move_in' else 'closing' end, closing_on::text)
  where closing_on is not null;
alter table deal drop column price;
alter table deal drop column closing_on;

-- What is worked out of a deal: a read model, written anew whenever something in it changes.
alter table deal add column standing jsonb;
alter table deal add column figures jsonb;
-- The look it comes from: one that began earlier never overwrites one that began later.
alter table deal add column looked bigint not null default 0;
create sequence deal_look;
create index deal_open on deal (id) where archived_at is null;
create index deal_status on deal (status, id);

-- Members who work on a deal; one without any is everybody's.
create table deal_member (
  deal_id text not null references deal (id) on delete cascade,
  member_id text not null references member (id) on delete cascade,
  primary key (deal_id, member_id)
);
create index deal_member_member on deal_member (member_id, deal_id);

-- What happened in a deal beside its packets, in words.
create table deal_event (
  id text primary key,
  deal_id text not null references deal (id) on delete cascade,
  at timestamptz not null,
  sentence text not null,
  party_id text,
  document_id text
);
create index deal_event_deal on deal_event (deal_id, id);

-- Papers that are done without. The facts the rule hung on stand here as they were: when they change it is asked for again.
create table waiver (
  deal_id text not null references deal (id) on delete cascade,
  rule_id text not null,
  reason text not null,
  by_name text not null,
  at timestamptz not null,
  facts jsonb not null,
  primary key (deal_id, rule_id)
);

create table rule (
  id text primary key,
  body jsonb not null,
  changed_at timestamptz not null
);
alter table firm add column own_facts jsonb not null default '[]';

-- What is to be done and what is due in open deals, a row for each member who works on them ('' for everybody).
create table deal_item (
  deal_id text not null references deal (id) on delete cascade,
  member_id text not null,
  list text not null check (list in ('deal', 'do', 'due', 'date', 'term', 'still')),
  ref text not null,
  -- By what a list is in order: since when somebody waits, by when something is due, the day itself. 9999-12-31 for none.
  day date not null,
  item jsonb not null,
  primary key (deal_id, member_id, list, ref)
);
create index deal_item_list on deal_item (member_id, list, day);

-- When a member last had the first screen before them, so that it can say what was executed since.
alter table member add column looked_at timestamptz;
create index packet_executed on packet (ended_at) where status = 'executed';

-- The last day of a paper that holds for a time; and how a paper came that was not signed here.
alter table document add column ends_on date;
alter table document add column elsewhere_on date;
alter table document add column unsigned boolean not null default false;

-- Calendars that programs fetch by a secret address. The secret is made of the id and the server's key, and stands nowhere.
create table feed (
  id text primary key,
  deal_id text references deal (id) on delete cascade,
  member_id text references member (id) on delete cascade,
  created_at timestamptz not null,
  check ((deal_id is null) <> (member_id is null))
);
create unique index feed_deal on feed (deal_id) where deal_id is not null;
create unique index feed_member on feed (member_id) where member_id is not null;
