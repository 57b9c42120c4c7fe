-- The shelf: forms and kits. Each is a draft whose people are slots; what is put on the shelf is an edition, and packets
-- are made of editions alone.

create table shelf_item (
  id text primary key,
  what text not null check (what in ('form', 'kit')),
  name text not null,
  draft jsonb not null,
  version integer not null default 1,
  -- Editions so far, and whether the draft says otherwise than the last one.
  edition integer not null default 0,
  changed boolean not null default true,
  -- The last day on which it may be used.
  ends_on date,
  -- Who locked which setting of a kit.
  locks jsonb not null default '{}',
  -- Business days after sending until the last day to sign.
  last_in integer,
  retired_at timestamptz,
  -- Who answers for it, and the members who may use it and who may change it: null for everybody of the firm.
  owner_id text not null references member (id),
  users jsonb,
  makers jsonb,
  created_by text not null references member (id),
  created_at timestamptz not null
);
create index shelf_by_name on shelf_item (what, (lower(name)), id);

create table shelf_edition (
  item_id text not null references shelf_item (id) on delete cascade,
  edition integer not null,
  draft jsonb not null,
  made_by text not null references member (id),
  made_at timestamptz not null,
  primary key (item_id, edition)
);

-- A document is a deal's, or a form's.
alter table document alter column deal_id drop not null;
alter table document add column shelf_id text references shelf_item (id) on delete cascade;
alter table document add constraint document_place check ((deal_id is null) <> (shelf_id is null));
create index document_shelf on document (shelf_id) where shelf_id is not null;
-- The form, and which edition of it, that a deal's document was made of.
alter table document add column form_id text references shelf_item (id) on delete set null;
alter table document add column form_edition integer;
create index document_form on document (form_id) where form_id is not null;

-- Which kit a packet was made of, and what of it nobody changes who only uses it.
alter table packet_draft add column kit_id text references shelf_item (id) on delete set null;
alter table packet_draft add column kit_edition integer;
alter table packet_draft add column locks jsonb not null default '{}';
create index packet_draft_kit on packet_draft (kit_id) where kit_id is not null;
