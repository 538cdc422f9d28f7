-- Hours: at which place, from which day until which, and otherwise on days that are named.
alter table working_hours drop constraint working_hours_pkey;
alter table working_hours
  add column id bigint generated always as identity primary key,
  add column place bigint references place,
  add column first_day date,
  add column last_day date;
create index on working_hours (person);
create table hours_dated (
  id bigint generated always as identity primary key,
  person bigint not null references person,
  day date not null,
  place bigint references place,
  -- As 08:00-12:00 13:00-17:00; empty: not at work.
  times text not null
);
create unique index on hours_dated (person, day, coalesce(place, 0));

-- Leave that is asked for lifts nobody off anything; why is for them and their office.
alter table leave
  add column agreed boolean not null default true,
  add column sick boolean not null default false;

-- In whose days they work (null: the house's), and for how much in a week.
alter table person add column zone text, add column contract_minutes integer;

-- What a place holds at once (null: nobody has said), and where it is (WGS 84).
alter table place
  add column capacity integer check (capacity > 0),
  add column capacity_of_people boolean not null default false,
  add column latitude double precision,
  add column longitude double precision;
create table travel (
  from_place bigint not null references place,
  to_place bigint not null references place,
  minutes integer not null check (minutes >= 0),
  primary key (from_place, to_place)
);

-- A duty may let other work be done meanwhile.
alter table duty add column meanwhile boolean not null default false;

-- What the house does not want of a person's work; kinds that have no row are as usual.
create table house_limit (
  kind text primary key,
  never boolean not null,
  -- Minutes or a count; 0: no limit. Null where there is nothing to count.
  amount integer
);
alter table house
  add column week_begins text not null default 'MONDAY',
  add column period_weeks integer not null default 0,
  add column travel_speed double precision not null default 40;

-- A clash that somebody lets stand, as it was then; with other times it is another one.
create table let_stand (
  clash text primary key,
  person bigint references person,
  kind text not null,
  reason text not null,
  by_person bigint not null references person,
  act bigint not null,
  at timestamptz not null
);
