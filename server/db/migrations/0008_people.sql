-- The firm's address book: one person, in as many deals as they are in; and what finds them, deals, papers and packets.
create extension if not exists pg_trgm;

create table person (
  id text primary key,
  name text not null,
  email text not null default '',
  phone text,
  company text not null default '',
  created_at timestamptz not null,
  -- Named twice and made one: this row only leads to the other.
  merged_into text references person (id)
);
alter table party add column person_id text references person (id);
insert into person (id, name, email, phone, company, created_at)
  select distinct on (lower(name), lower(email)) id, name, email, phone, company, created_at
  from party order by lower(name), lower(email), id desc;
update party p set person_id = x.id from person x where lower(x.name) = lower(p.name) and lower(x.email) = lower(p.email);
create unique index person_name on person (lower(name), lower(email));
create index person_list on person (lower(name), id) where merged_into is null;
create index party_person on party (person_id);

create index message_party on message (party_id, id) where party_id is not null;

-- The words of a paper's first pages; null where they have not been looked up.
alter table document add column words text;

-- Whatever can be found, by its words. A read model.
create table find_entry (
  kind text not null check (kind in ('deal', 'person', 'paper', 'packet')),
  id text not null,
  deal_id text references deal (id) on delete cascade,
  title text not null,
  detail text not null,
  -- Title and detail without accents, in lower case.
  folded text not null,
  words tsvector not null,
  primary key (kind, id)
);
create index find_entry_words on find_entry using gin (words);
create index find_entry_folded on find_entry using gin (folded gin_trgm_ops);
create index find_entry_deal on find_entry (deal_id);
