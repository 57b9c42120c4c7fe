-- The company or trust that a person of a deal signs for; empty for those who sign for themselves.
alter table party add column company text not null default '';
