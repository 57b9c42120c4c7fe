-- Owners invite and disable members; the first member of a firm is an owner.
alter table member add column role text not null default 'member' check (role in ('owner', 'member'));
update member set role = 'owner' where id = (select id from member order by id limit 1);
-- Somebody who has left: signs in no more. What was theirs is `handed_to`'s.
alter table member add column disabled_at timestamptz;
alter table member add column handed_to text references member (id);

-- Sessions are listed, and ended one by one.
alter table session add column id text;
update session set id = substr(token_hash, 1, 24);
alter table session alter column id set not null;
create unique index session_id on session (id);
alter table session add column browser text not null default '';

-- An invitation to become a member; of its link only a keyed hash is kept.
create table invitation (
  id text primary key,
  token_hash text not null unique,
  name text not null,
  email text not null,
  role text not null check (role in ('owner', 'member')),
  invited_by text not null references member (id),
  created_at timestamptz not null,
  expires_at timestamptz not null
);
create unique index invitation_email on invitation (lower(email));

-- A way to choose a new password, sent by mail; of its link only a keyed hash is kept.
create table password_reset (
  token_hash text primary key,
  member_id text not null references member (id) on delete cascade,
  created_at timestamptz not null,
  expires_at timestamptz not null
);
create index password_reset_member on password_reset (member_id);
