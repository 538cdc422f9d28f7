-- Work that takes nobody's time.
alter table record add free boolean not null default false;
