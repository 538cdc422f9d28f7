-- Further dates of a record beside its due time, a line each as history keeps them.
alter table record add column dates text not null default '';

-- By when lists sort: the due time, else when it begins.
alter table record add column sorts_at timestamptz;
update record set sorts_at = due_at;
create index on record (sorts_at, id);

-- Work by when it is.
create index on visit (starts, ends) where starts is not null;
create index on visit (date_from, date_to) where date_from is not null;

-- When people work and when they are away.
create table working_hours (
  person bigint not null references person,
  weekday smallint not null check (weekday between 1 and 7),
  from_time time not null,
  until_time time not null,
  primary key (person, weekday, from_time)
);
create table leave (
  id bigint generated always as identity primary key,
  person bigint not null references person,
  first_day date not null,
  until_day date not null,
  check (until_day > first_day)
);
create index on leave (person);

-- "Can't" is a mark like "started"; who has seen which change of their work.
alter table record add column cant boolean not null default false;
-- Acts until this one need no mark: they were there before the house began its work.
alter table house add column seen_until bigint not null default 0;
create table seen (
  person bigint not null references person,
  record bigint not null references record,
  act bigint not null references act,
  primary key (person, record)
);

-- Secret addresses of calendars. Each is a rendering of its own; one withdrawn renders nothing.
create table feed (
  id bigint generated always as identity primary key,
  token_hash text not null unique,
  rendering bigint not null references rendering,
  label text not null,
  made_by bigint not null references person,
  made_at timestamptz not null,
  last_used_at timestamptz,
  withdrawn_at timestamptz
);
