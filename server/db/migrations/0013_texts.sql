-- Parts of messages that recur: a member's own, and those the firm shares.
create table message_text (
  id text primary key,
  member_id text not null references member (id) on delete cascade,
  name text not null,
  shared boolean not null,
  text text not null,
  created_at timestamptz not null
);
create index message_text_member on message_text (member_id);
