-- The effort of each person on a record, in minutes; null: nobody has said.
alter table record add column estimate integer check (estimate >= 0);
