-- Who no longer has work that was theirs, with the day and place as they knew it, until they have seen it.
create table lost_work (
  person bigint not null references person,
  record bigint not null references record,
  act bigint not null references act,
  at timestamptz not null,
  -- What they might know of it then.
  day date,
  place text,
  cancelled boolean not null,
  primary key (person, record)
);

-- What was changed may also be told to who has no account: by whom, how and when.
alter table seen add told_by bigint references person;
alter table seen add told_how text;
alter table seen add at timestamptz;
