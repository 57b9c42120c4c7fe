-- One index a kind: looking through all that has a word only to find none of a kind took as long as there were others.
-- Entries go into it at once: what waits to be put in order has to be looked through by everybody who searches.
drop index find_entry_words;
create index find_deal_words on find_entry using gin (words) with (fastupdate = off) where kind = 'deal';
create index find_person_words on find_entry using gin (words) with (fastupdate = off) where kind = 'person';
create index find_paper_words on find_entry using gin (words) with (fastupdate = off) where kind = 'paper';
create index find_packet_words on find_entry using gin (words) with (fastupdate = off) where kind = 'packet';
alter index find_entry_folded set (fastupdate = off);
