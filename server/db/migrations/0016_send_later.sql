-- A draft that waits to be sent: when, by whom, and why it did not go when its time came.
alter table packet add column send_at timestamptz;
alter table packet add column send_by text references member (id);
alter table packet add column send_despite boolean not null default false;
alter table packet add column send_problem text;
create index packet_send_at on packet (send_at) where send_at is not null;
