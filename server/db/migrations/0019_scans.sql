-- Pages of a paper that are pictures and wait for their words to be recognised; and whether that is done, or was left out.
alter table document add column scan_pages jsonb not null default '[]';
alter table document add column words_laid boolean not null default false;
