-- What must be stood: a place and a role, with how many over which repeating spans.
create table duty (
  id bigint generated always as identity primary key,
  name text not null unique,
  place bigint not null references place,
  role integer not null references role
);
create table duty_span (
  duty bigint not null references duty on delete cascade,
  position integer not null,
  -- Monday is 1.
  weekdays text not null,
  from_time time not null,
  until_time time not null,
  count integer not null check (count between 1 and 99),
  first_day date,
  last_day date,
  primary key (duty, position)
);
create table duty_lifted (
  duty bigint not null references duty on delete cascade,
  day date not null,
  primary key (duty, day)
);

-- The skill that is asked of each of its people.
alter table duty add column skill text;

-- What people can, with the last day on which it holds.
create table person_skill (
  person bigint not null references person,
  skill text not null,
  last_day date,
  primary key (person, skill)
);
-- Counts only beside somebody who is not so marked.
alter table person add column not_alone boolean not null default false;
