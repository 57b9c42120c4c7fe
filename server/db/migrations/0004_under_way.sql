-- Everything between "send" and the last signature: paths that change under way, time,
-- second steps, text messages, messages that come back, hands that people let us keep.

-- Parties and gates as they stand now; before sending they are the draft's.
alter table packet add column path jsonb;
-- When the calendar next has something to do with this packet.
alter table packet add column next_tick_at timestamptz;
create index packet_tick on packet (next_tick_at) where next_tick_at is not null;
update packet set draft = '{"schedule": {"lastDay": null, "warnDays": 0, "nudge": null}, "handOver": false}'::jsonb || draft;

-- Revisions that are still to be sealed; a server that was stopped takes them up again.
alter table packet add column seals_due integer not null default 0;

-- A sealed copy that came back for a late signing round: its bytes are never written anew.
alter table document add column sealed boolean not null default false;

alter table firm add column holidays jsonb not null default '[]';

alter table member add column notices jsonb not null
  default '["done", "declined", "question", "lapsing", "executed", "trouble"]';
alter table member add column digest boolean not null default false;
alter table member add column digest_day text;

alter table message add column channel text not null default 'email' check (channel in ('email', 'text'));
alter table message add column to_phone text;
alter table message drop constraint message_status_check;
alter table message add constraint message_status_check
  check (status in ('queued', 'kept', 'sent', 'failed', 'returned'));

alter table pass add column seen_at timestamptz;
-- The member at whose desk it was opened.
alter table pass add column host_id text references member (id);

-- The code told in person, and the last one-time code; only hashes. Tries are counted over both.
create table second_step (
  packet_id text not null references packet (id) on delete cascade,
  party_id text not null,
  access_hash text,
  code_hash text,
  code_at timestamptz,
  tries integer not null default 0,
  primary key (packet_id, party_id)
);

-- Browsers that gave the right code.
create table pass_proof (
  token_hash text primary key,
  packet_id text not null references packet (id) on delete cascade,
  party_id text not null,
  created_at timestamptz not null
);

-- Pictures of writing that a party added: only these may become its hand, and be shown to it.
create table hand_picture (
  packet_id text not null references packet (id) on delete cascade,
  party_id text not null,
  sha256 text not null,
  primary key (packet_id, party_id, sha256)
);

-- Hands people let the firm keep, by a keyed hash of mailbox and name.
create table kept_hand (
  owner_hash text primary key,
  hand jsonb not null,
  kept_at timestamptz not null
);
