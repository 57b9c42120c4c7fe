-- Documents that are the same paper, whatever was filled in: found by keys of their fingerprint, and what was on them by the
-- packets they were in.
create table known_document (
  id text primary key,
  -- 64 hashes of the printed words.
  print integer[] not null,
  created_at timestamptz not null,
  -- Set when a member did not want it offered any more.
  not_offered_since timestamptz
);
create table known_key (
  key integer not null,
  known_id text not null references known_document (id) on delete cascade,
  primary key (key, known_id)
);
create index known_key_known on known_key (known_id);
-- Null until its words were compared, and for documents with too few words to be recognized.
alter table document add column known_id text references known_document (id) on delete set null;
-- Whether what was on a paper is placed without being asked for, where nothing is in doubt.
alter table firm add column place_remembered boolean not null default false;
create index document_known on document (known_id) where known_id is not null;
