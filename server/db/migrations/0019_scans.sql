-- Pages of a paper that are pictures and wait for their words to be recognised; and whether that is done, or was left out.
alter table document add column scan_pages jsonb not null default '[]';
alter table document add column words_laid boolean not null default false;

-- A paper that came back filled in elsewhere: each printed place with whether it is filled, and what was made of its gaps.
create table paper_check (
  document_id text primary key references document (id) on delete cascade,
  blank_id text references document (id) on delete set null,
  status text not null,
  problem text,
  places jsonb not null default '[]',
  made_at timestamptz not null,
  ended text,
  reason text,
  packet_id text references packet (id) on delete set null
);
