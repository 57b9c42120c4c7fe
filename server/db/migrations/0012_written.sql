-- What an edition changed of the one before, in words; of editions made before this was kept, nothing is told.
alter table shelf_edition add column changes jsonb not null default '[]';

-- Forms written in the product: their text, which is set anew for every deal. Null for a form of a paper.
alter table shelf_item add column written jsonb;
-- Counts how often the text was kept, so that two people who write do not undo each other.
alter table shelf_item add column written_version integer not null default 0;
alter table shelf_edition add column written jsonb;
