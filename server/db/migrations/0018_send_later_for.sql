-- In whose name a draft that waits is sent, where that is a colleague's.
alter table packet add column send_for text references member (id) on delete set null;
