-- The house, its crew and places.
create table house (
  one boolean primary key default true check (one),
  seed text not null,
  name text not null,
  zone text not null,
  outside_limit text not null default 'ALL',
  trusts_own_feeds boolean not null default false,
  incarnation text not null,
  world_version bigint not null default 1,
  projected_day date not null,
  fallback_wording bigint,
  is_demo boolean not null default false
);

create table person (
  id bigint generated always as identity primary key,
  name text not null,
  standing text not null,
  account_right text not null,
  version bigint not null default 0
);

create table team (
  id bigint generated always as identity primary key,
  name text not null unique,
  hue text not null default 'lagoon',
  version bigint not null default 0
);

create table coordinates (
  person bigint not null references person,
  team bigint not null references team,
  primary key (person, team)
);

create table membership (
  id bigint generated always as identity primary key,
  team bigint not null references team,
  member_person bigint references person,
  member_team bigint references team,
  from_day date not null,
  until_day date,
  check ((member_person is null) <> (member_team is null)),
  check (until_day is null or until_day >= from_day)
);
create index on membership (team);
create index on membership (member_person);
create index on membership (member_team);

create table place (
  id bigint generated always as identity primary key,
  code text not null unique,
  name text not null unique,
  zone text,
  version bigint not null default 0
);

create table role (
  number integer primary key,
  name text not null unique,
  rights text not null
);

create table detail_definition (
  key text primary key,
  label text not null,
  kinds text not null,
  for_bits bigint not null,
  typed boolean not null,
  position integer not null
);

-- Accounts. A person without a password has not accepted the invitation yet.
create table account (
  person bigint primary key references person,
  email text not null,
  password_hash text,
  version bigint not null default 0
);
create unique index on account (lower(email));

-- An invitation without a person is for the first coordinator of an empty house.
create table invitation (
  token_hash text primary key,
  person bigint references person,
  made_at timestamptz not null,
  expires_at timestamptz not null
);
create index on invitation (person);

create table app_password (
  id bigint generated always as identity primary key,
  person bigint not null references person,
  label text not null,
  hash text not null,
  made_at timestamptz not null,
  last_used_at timestamptz
);
create index on app_password (person);

create table sign_in_attempt (
  id bigint generated always as identity primary key,
  subject text not null,
  at timestamptz not null
);
create index on sign_in_attempt (subject, at);

-- Sessions are not written ahead: each request touches its own, and after a crash of the database
-- people sign in again.
create unlogged table spring_session (
  primary_id char(36) not null primary key,
  session_id char(36) not null unique,
  creation_time bigint not null,
  last_access_time bigint not null,
  max_inactive_interval int not null,
  expiry_time bigint not null,
  principal_name varchar(100)
);
create index on spring_session (expiry_time);
create index on spring_session (principal_name);
create unlogged table spring_session_attributes (
  session_primary_id char(36) not null references spring_session (primary_id) on delete cascade,
  attribute_name varchar(200) not null,
  attribute_bytes bytea not null,
  primary key (session_primary_id, attribute_name)
);

-- Acts: every write is one.
create table act (
  id bigint generated always as identity primary key,
  at timestamptz not null,
  actor bigint not null default 0,
  kind text not null,
  reason text not null default '',
  idem_key text,
  body_hash text,
  undoes bigint references act,
  answer text
);
create unique index on act (actor, idem_key) where idem_key is not null;
create unique index on act (undoes) where undoes is not null;

-- Records.
create sequence ref_number start 301;

create table record (
  id bigint generated always as identity primary key,
  ref text not null unique,
  source text,
  source_id text,
  kind text not null,
  state text not null,
  state_before text not null,
  started boolean not null default false,
  private boolean not null default false,
  personal boolean not null default false,
  author bigint not null references person,
  created_at timestamptz not null,
  place bigint references place,
  team bigint references team,
  due_local timestamp,
  due_zone text,
  due_offset text,
  due_day date,
  due_at timestamptz,
  tzdb text,
  least_head_count integer,
  version bigint not null default 1
);
create unique index on record (source, source_id) where source is not null;
create index on record (due_at, id);
create index on record (place);
create index on record (team);

create table visit (
  record bigint not null references record,
  no integer not null,
  local_from timestamp,
  local_to timestamp,
  zone text,
  offset_from text,
  offset_to text,
  date_from date,
  date_to date,
  starts timestamptz,
  ends timestamptz,
  tzdb text,
  margin_before text,
  margin_after text,
  primary key (record, no)
);

create table assignment (
  record bigint not null references record,
  visit integer not null,
  position integer not null,
  holder_kind char(1) not null check (holder_kind in ('P', 'T')),
  holder bigint not null,
  role integer not null references role,
  given_at timestamptz not null,
  primary key (record, visit, position)
);
create index on assignment (holder_kind, holder, record);

create table detail (
  record bigint not null references record,
  key text not null,
  value text not null,
  for_bits bigint,
  primary key (record, key)
);

create table tag (
  record bigint not null references record,
  tag text not null,
  primary key (record, tag)
);
create index on tag (tag, record);

create table ruling (
  record bigint not null references record,
  position integer not null,
  sort text not null,
  calendar bigint not null,
  visit integer,
  reason text not null,
  primary key (record, position)
);

create table history (
  id bigint generated always as identity primary key,
  act bigint not null references act,
  record bigint not null references record,
  field text not null,
  old text not null,
  new text not null,
  for_then bigint not null
);
create index on history (record, id);
create index on history (act);

-- Rules and wordings.
create table wording (
  id bigint generated always as identity primary key,
  name text not null unique,
  title text not null,
  place text not null,
  text text not null,
  categories text not null,
  version bigint not null default 1
);

create table rule (
  id bigint generated always as identity primary key,
  position integer not null,
  is_on boolean not null default true,
  sentence jsonb not null,
  version bigint not null default 1
);

-- Calendars, entries, faces.
create table calendar (
  id bigint generated always as identity primary key,
  sort text not null,
  person bigint unique references person,
  team bigint unique references team,
  place bigint unique references place,
  name text not null unique,
  change_no bigint not null default 0,
  oldest_no bigint not null default 0
);

create table rendering (
  id bigint generated always as identity primary key,
  calendar bigint not null references calendar,
  way text not null,
  reader bigint references person,
  level text not null default 'ALL',
  access_no bigint not null default 1
);
create unique index on rendering (calendar) where way = 'MEMBERS';
create index on rendering (calendar);

create table record_input (
  record bigint not null references record,
  kind text not null,
  input bigint not null,
  primary key (record, kind, input)
);
create index on record_input (kind, input, record);

create table entry (
  id bigint generated always as identity primary key,
  record bigint not null references record,
  visit integer not null,
  calendar bigint not null references calendar,
  family text not null,
  uid text not null unique,
  sequence integer not null,
  state text not null,
  starts timestamptz not null,
  ends timestamptz not null,
  rules text not null,
  change_no bigint not null,
  unique (record, visit, calendar, family)
);
create index on entry (calendar, change_no);
create index on entry (calendar, starts) where state = 'LIVE';

create table face (
  entry bigint not null references entry,
  rendering bigint not null references rendering,
  live boolean not null,
  content text not null,
  etag text not null,
  sequence integer not null,
  starts timestamptz not null,
  ends timestamptz not null,
  modified timestamptz not null,
  change_no bigint not null,
  ics text,
  primary key (entry, rendering)
);
create index on face (rendering, change_no);
create index on face (rendering, starts) where live;
