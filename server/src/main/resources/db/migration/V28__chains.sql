-- Chains of deadlines as they were typed, each saved change a version of its own, and the ways in
-- which a notice goes out with what each adds.
create table notice_method (
  id bigint generated always as identity primary key,
  name text not null unique,
  number integer not null check (number between 0 and 9999),
  unit text not null
);
create table chain (
  id bigint generated always as identity primary key,
  name text not null unique,
  no integer not null
);
create table chain_version (
  id bigint generated always as identity primary key,
  chain bigint not null references chain deferrable initially deferred,
  no integer not null,
  text text not null,
  unique (chain, no)
);
create trigger keep_act_row after insert or update or delete on notice_method
  for each row execute function keep_act_row();
create trigger keep_act_row after insert or update or delete on chain
  for each row execute function keep_act_row();
create trigger keep_act_row after insert or update or delete on chain_version
  for each row execute function keep_act_row();
