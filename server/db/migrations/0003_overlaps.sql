-- Which items each change of a draft touched, so that two people who changed the same thing are told.
-- Only what may still be on its way is needed; older rows are cleared as drafts are edited.
create table draft_change (
  packet_id text not null references packet (id) on delete cascade,
  version integer not null,
  client text not null,
  member_name text not null,
  touched jsonb not null,
  primary key (packet_id, version)
);
