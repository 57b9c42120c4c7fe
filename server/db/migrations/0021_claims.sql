-- The rule a waiver was given for, as it was then. Those from before are filled in by `upgrade`.
alter table waiver add column rule text not null default '';

-- How often working a row out failed for a reason that is neither the row's nor passing.
alter table notice_row add column failures integer not null default 0;
