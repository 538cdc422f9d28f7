-- Where the same days are holidays; week: as MONDAY,TUESDAY, null: as the house's.
create table region (
  id bigint generated always as identity primary key,
  name text not null unique,
  week text
);
create table holiday (
  region bigint not null references region on delete cascade,
  day date not null,
  name text not null,
  -- Work is done in a part of the day, so that it counts as a working day.
  half boolean not null,
  primary key (region, day)
);

-- What is not said of a place is as in its region, then as in the house.
alter table place add column region bigint references region, add column week text;
alter table house add column region bigint references region;

-- Days on which no work is done; without a place: nowhere.
create table closure (
  id bigint generated always as identity primary key,
  place bigint references place,
  first_day date not null,
  last_day date not null check (last_day >= first_day),
  why text not null
);
create index on closure (place);
