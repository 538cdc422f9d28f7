-- What readers keep until a coordinator's yes, and since when an entry waits for one.
alter table entry add column released text;
alter table entry add column asks_since timestamptz;
create index on entry (asks_since) where asks_since is not null;

-- Each yes, and each yes taken back, with what was kept before and after it.
create table release (
  act bigint not null references act,
  entry bigint not null references entry,
  before text,
  after text,
  primary key (act, entry)
);

-- On which days of the week the house works, Monday first.
alter table house add column week text not null
  default 'MONDAY,TUESDAY,WEDNESDAY,THURSDAY,FRIDAY';

-- Why outsiders see no more than the house's limit.
alter table house add column outside_reason text not null default '';

-- The first day on which an address answers no longer.
alter table feed add column until_day date;
