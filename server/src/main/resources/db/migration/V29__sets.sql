-- What names in the text of a chain meant when it was saved, so that a rename breaks nothing.
create table chain_name (
  chain_version bigint not null references chain_version deferrable initially deferred,
  position integer not null,
  sort text not null check (sort in ('METHOD', 'ROLE', 'PERSON', 'TEAM')),
  name text not null,
  number bigint not null,
  primary key (chain_version, position)
);
create trigger keep_act_row after insert or update or delete on chain_name
  for each row execute function keep_act_row();

-- Two methods may take each other's name at once.
alter table notice_method drop constraint notice_method_name_key;
alter table notice_method add unique (name) deferrable initially deferred;

-- Sets: the deadlines of a chain for one key date. What an act makes of a set is a version of it,
-- kept whole; a step with a date is a record of its own.
create table deadline_set (
  id bigint generated always as identity primary key,
  chain bigint not null references chain,
  record bigint references record,
  follows text check (follows in ('BEGINS', 'DUE', 'DATE')),
  follows_name text,
  place bigint references place,
  zone text not null,
  no integer not null
);
create index on deadline_set (record);
create index on deadline_set (chain);
create sequence deadline_set_version_id_seq increment 50;
create table deadline_set_version (
  id bigint primary key,
  deadline_set bigint not null references deadline_set,
  no integer not null,
  act bigint not null references act,
  chain_version bigint not null references chain_version deferrable initially deferred,
  due_local timestamp,
  due_zone text,
  due_offset text,
  due_day date,
  method bigint,
  is_off boolean not null,
  unique (deadline_set, no)
);
create index on deadline_set_version (act);
create table deadline_answer (
  version bigint not null references deadline_set_version,
  question text not null,
  yes boolean not null,
  primary key (version, question)
);
create table deadline_step (
  version bigint not null references deadline_set_version,
  position integer not null,
  name text not null,
  record bigint references record,
  due_local timestamp,
  due_zone text,
  due_offset text,
  due_day date,
  left_out boolean not null,
  by_hand boolean not null,
  primary key (version, position)
);
create index on deadline_step (record);

-- Reminders of a record's own, in minutes before it is due.
alter table record add column reminders integer[] not null default '{}';
