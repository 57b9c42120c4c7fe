-- The desk: papers of every kind, what they are, and what was made of them; facts of a deal
-- that text may name; redlines and passed places in drafts.

alter table document add column type text not null default 'other';
-- What was brought in: a PDF, or something that was made one.
alter table document add column came_as text not null default 'pdf' check (came_as in ('pdf', 'docx', 'text', 'picture'));
-- Documents this one was made of, when its pages come from others.
alter table document add column made_from jsonb;
-- The document that took this one's place; it stays for its original and for undo.
alter table document add column replaced_by text references document (id) on delete set null;

alter table deal add column price text not null default '';
alter table deal add column closing_on date;

update packet set draft = '{"redlines": [], "passed": []}'::jsonb || draft;

-- Facts of pages hold more now (words, printed places): every document is read anew at the next start.
update document set status = 'reading', pages_read = 0 where status = 'ready';
