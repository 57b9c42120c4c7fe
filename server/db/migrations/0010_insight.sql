-- How it goes: how long people take by side and act, what was sent and executed by week.

alter table packet_party add column side text;
alter table packet_party add column act text;
-- As the log tells it: who was there when the packet was sent, and who was added since.
update packet_party pp set side = x.p->>'side', act = x.p->>'act'
  from (
    select packet_id, jsonb_array_elements(body->'plan'->'parties') as p from packet_event where type = 'sent'
    union all
    select packet_id, body->'party' as p from packet_event where type = 'party_added'
  ) x
  where x.packet_id = pp.packet_id and x.p->>'id' = pp.party_id;
create index packet_party_done on packet_party (done_at desc) where done_at is not null;
create index packet_sent on packet (sent_at) where sent_at is not null;
create index packet_ended on packet (ended_at) where ended_at is not null;
