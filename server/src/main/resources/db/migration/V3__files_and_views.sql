-- What each row of a file said when it was taken, so that the same row again changes nothing and a
-- later one changes only what differs from it.
create table taken_row (
  what text not null check (what in ('RECORDS', 'PEOPLE', 'PLACES')),
  source text not null,
  source_id text not null,
  record bigint references record,
  person bigint references person,
  place bigint references place,
  cells jsonb not null,
  act bigint not null references act,
  primary key (what, source, source_id),
  check (num_nonnulls(record, person, place) = 1)
);

-- A list of records narrowed in a way that is wanted again.
create table saved_view (
  id bigint generated always as identity primary key,
  person bigint not null references person,
  name text not null,
  query text not null,
  for_all boolean not null default false,
  unique (person, name)
);
