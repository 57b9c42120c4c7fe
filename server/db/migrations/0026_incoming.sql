-- Contracts that were added to open a deal: from then until the deal is opened, or the contract is discarded.
create table incoming (
  id text primary key,
  member_id text not null references member (id) on delete cascade,
  created_at timestamptz not null,
  -- The deal it became; null until it is opened.
  deal_id text references deal (id) on delete cascade
);
create index incoming_member on incoming (member_id, id) where deal_id is null;
create index incoming_old on incoming (created_at) where deal_id is null;

alter table document add column incoming_id text references incoming (id) on delete cascade;
alter table document drop constraint document_place;
alter table document add constraint document_place check (num_nonnulls(deal_id, shelf_id, incoming_id) = 1);
create index document_incoming on document (incoming_id) where incoming_id is not null;

create index deal_at_address on deal (lower(address)) where archived_at is null;

-- What a document says about its deal: people, address, amounts, days. Computed from its words once they are read.
create table document_abstract (
  document_id text primary key references document (id) on delete cascade,
  abstract jsonb not null
);

-- Statements of documents that a member does not want reported as a change of the deal.
create table dismissed_statement (
  document_id text not null references document (id) on delete cascade,
  -- As in an abstract: fact.price, date.closing, side.buyer.
  field text not null,
  value text not null,
  primary key (document_id, field, value)
);
