-- How many people each visit of a record wants, then the skills that some have to have; '': nobody.
alter table record add column wants text not null default '';
