-- The newest documents that are one known document, without reading all of them.
create index document_of_known on document (known_id, id) where known_id is not null;
drop index document_known;
