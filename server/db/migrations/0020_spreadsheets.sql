-- A paper may have come as a spreadsheet.
alter table document drop constraint document_came_as_check;
alter table document add constraint document_came_as_check check (came_as in ('pdf', 'docx', 'xlsx', 'text', 'picture'));
