-- Tables and columns under the words of docs/glossary.md.
alter table pass rename to signing_link;
alter index pass_packet rename to signing_link_packet;
alter index pass_host rename to signing_link_host;
alter table pass_proof rename to link_proof;
alter index pass_proof_packet rename to link_proof_packet;
alter table kept_view rename to saved_view;
alter index kept_view_member rename to saved_view_member;
alter table kept_hand rename to saved_hand;
alter table paper_check rename to paper_review;

-- What was computed of a deal names the status of its documents by that word.
alter table deal rename column standing to computed;
update deal set computed = jsonb_set(computed, '{papers}', (
  select coalesce(jsonb_agg((p - 'standing') || jsonb_build_object('status', p -> 'standing') order by n), '[]')
  from jsonb_array_elements(computed -> 'papers') with ordinality as t(p, n)))
where jsonb_typeof(computed -> 'papers') = 'array';
alter table deal rename column keep_until to retain_until;
