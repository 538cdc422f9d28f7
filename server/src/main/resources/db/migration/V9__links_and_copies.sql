-- Whether what changed a face may hide something, so that copies of it wait for nothing.
alter table face add column hurries boolean not null default false;

-- How long copies wait after the last edit, in seconds; and how often outside calendars are read.
-- After a restore nothing is sent until somebody has looked.
alter table house add column copies_held boolean not null default false;
alter table house add column copies_wait integer not null default 60 check (copies_wait >= 0);
alter table house add column reading_interval integer not null default 300
  check (reading_interval >= 60);

-- An account at an outside calendar host; of a person, or of the house.
create table link (
  id bigint generated always as identity primary key,
  person bigint references person,
  address text not null,
  home text not null,
  account text not null,
  sealed bytea not null,
  key_id text not null,
  made_by bigint not null references person,
  made_at timestamptz not null,
  -- Being ended: what stands there is taken off first.
  ends_at timestamptz,
  ended_at timestamptz,
  -- Why it is not used for now, until when, and since when.
  fault text,
  fault_words text,
  fault_since timestamptz,
  faults integer not null default 0,
  rest_until timestamptz,
  leased_by text,
  leased_until timestamptz
);
create index on link (person) where ended_at is null;

create table link_calendar (
  id bigint generated always as identity primary key,
  link bigint not null references link,
  href text not null,
  name text not null,
  may_write boolean,
  -- What is written there; null: nothing is.
  rendering bigint references rendering,
  families text not null default '',
  from_day date,
  also_read text not null default 'UNSAID',
  reads_busy boolean not null default false,
  sync_token text,
  ctag text,
  read_at timestamptz,
  read_due timestamptz,
  -- Up to which change of our calendar copies were opened.
  seen_no bigint not null default 0,
  unique (link, href)
);
create unique index on link_calendar (rendering);

-- An entry as it stands in an outside calendar.
create table copy (
  link_calendar bigint not null references link_calendar,
  entry bigint not null references entry,
  href text not null,
  -- WAITS, SENDING, SENT, REFUSED, OFF, ASKED_OFF, TAKEN_OFF_THERE
  state text not null,
  -- The tag of the face that should stand there; null: nothing should.
  wanted text,
  -- By which change of our calendar it was opened last.
  opened_no bigint not null default 0,
  -- The tag of the face that was last written.
  written text,
  -- What stood there when it was last looked at, and its tag.
  stands text,
  etag text,
  -- What may have arrived there; '' for a removal.
  attempt text,
  attempt_tag text,
  -- It has to be looked at before anything is written.
  look boolean not null default false,
  open_since timestamptz,
  due_at timestamptz,
  tries integer not null default 0,
  fault text,
  fault_words text,
  sent_at timestamptz,
  primary key (link_calendar, entry)
);
create index on copy (link_calendar, due_at) where due_at is not null;
create index on copy (entry);
create unique index on copy (link_calendar, href);

-- What somebody changed in an outside calendar, and what became of it.
create table outside_change (
  id bigint generated always as identity primary key,
  link_calendar bigint not null,
  entry bigint not null,
  at timestamptz not null,
  -- TIMES, TITLE, PLACE, TEXT, NOTE, DELETED, REPEATS
  part text not null,
  sent text not null,
  theirs text not null,
  ours text not null,
  -- Whole entries as they stood, to hold what stands there.
  theirs_ics text,
  ours_ics text,
  -- TAKEN, PROPOSED, PUT_BACK, SETTLED
  state text not null,
  stays boolean not null default false,
  words text not null default '',
  act bigint references act,
  settled_at timestamptz,
  settled_by bigint references person,
  foreign key (link_calendar, entry) references copy
);
create index on outside_change (link_calendar, entry);
create index on outside_change (state) where state = 'PROPOSED';

-- When somebody is busy outside: times and nothing more.
create table busy (
  link_calendar bigint not null references link_calendar,
  href text not null,
  uid_hash text not null,
  starts timestamptz not null,
  ends timestamptz not null,
  first_day date,
  until_day date,
  tentative boolean not null
);
create index on busy (link_calendar, href);
create index on busy (link_calendar, starts);
