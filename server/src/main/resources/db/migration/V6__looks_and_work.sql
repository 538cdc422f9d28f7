-- What a set would do, worked out in the background; kept for a day.
create table look (
  id bigint generated always as identity primary key,
  token text not null unique,
  person bigint not null references person,
  set_hash text not null,
  world_version bigint not null,
  day date not null,
  at timestamptz not null,
  state text not null check (state in ('RUNNING', 'DONE', 'FAILED')),
  beat timestamptz not null,
  told jsonb not null,
  shows text[] not null default '{}',
  touched bigint[] not null default '{}'
);
create index on look (at);

-- How far a change of the set has come through the records; it can be stopped and go on.
alter table set_change add column state text not null default 'DONE'
  check (state in ('RUNNING', 'STOPPED', 'DONE', 'UNDONE'));
alter table set_change add column from_day date;
alter table set_change add column upto bigint not null default 0;
alter table set_change add column done bigint not null default 0;
alter table set_change add column total bigint not null default 0;
alter table set_change add column entries bigint not null default 0;
alter table set_change add column lease_until timestamptz;
create index on set_change (state) where state in ('RUNNING', 'STOPPED');

-- Whatever stands at some time is found by when it was made.
create index on act (at);
create index on record (created_at);
