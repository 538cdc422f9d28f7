-- An id of where a record came from is no key: for whoever may not open that record it is not
-- there, and the same id makes a record of their own.
drop index record_source_source_id_idx;
create index on record (source, source_id) where source is not null;
alter table taken_row add column of_record bigint not null default 0;
update taken_row set of_record = coalesce(record, 0);
alter table taken_row drop constraint taken_row_pkey,
  add primary key (what, source, source_id, of_record);
update act_row set before = before || '{"of_record": 0}', after = after || '{"of_record": 0}'
  where kept_in = 'taken_row';

-- What somebody was when an act was done.
create index on act_row ((coalesce(after, before) ->> 'id')) where kept_in = 'person';
create index on act_row ((coalesce(after, before) ->> 'person')) where kept_in = 'coordinates';
