-- What a detail may hold and when it applies.
alter table detail_definition add column sort text not null default 'TEXT';
alter table detail_definition add column choices jsonb not null default '[]';
alter table detail_definition add column states text not null default '';
update detail_definition set sort = 'NOTES' where key = 'notes';

-- Why nobody may put a title of their own in place of this one.
alter table wording add column fixed text;
-- How a kind is worded where its rule names no wording.
create table usual_wording (
  kind text primary key,
  wording bigint not null references wording
);

-- What people call things on their own calendars, and why the house lets nobody.
alter table person add column own_title text;
alter table house add column titles_fixed text;
