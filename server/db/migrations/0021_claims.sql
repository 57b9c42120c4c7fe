-- The rule a waiver was given for, as it was then. Those from before are filled in by `upgrade`.
alter table waiver add column rule text not null default '';

-- How often working a row out failed for a reason that is neither the row's nor passing.
alter table notice_row add column failures integer not null default 0;

-- Of a sealed copy: how many of its pages are its own; the signing record stands on those behind them.
alter table document add column own_pages integer;

-- A code that is sent twice in a moment counts once; links opened from an own page do not pile up.
alter table own_page add column used_hash text;
alter table own_page add column used_at timestamptz;
alter table pass add column own boolean not null default false;

-- Of what is found: a fingerprint of its words, so that words that did not change are not taken apart again.
alter table find_entry add column hash text not null default '';
