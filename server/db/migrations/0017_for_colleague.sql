-- Who lets which colleague send in their name.
create table send_for (
  member_id text not null references member (id) on delete cascade,
  sender_id text not null references member (id) on delete cascade,
  primary key (member_id, sender_id)
);
create index send_for_sender on send_for (sender_id);
