-- A calendar shown to one more reader. Its rendering comes into being when it is accepted.
create table share (
  id bigint generated always as identity primary key,
  calendar bigint not null references calendar,
  reader bigint not null references person,
  given_by bigint not null references person,
  level text not null check (level in ('BUSY_ONLY', 'TIMES_AND_PLACE', 'ALL')),
  may_pass_on boolean not null default false,
  until_day date,
  made_at timestamptz not null,
  accepted_at timestamptz,
  withdrawn_at timestamptz,
  rendering bigint references rendering
);
create unique index on share (calendar, reader) where withdrawn_at is null;
create index on share (reader) where withdrawn_at is null;
