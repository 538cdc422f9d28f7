-- What an act made of the rules and wordings, so that it can be taken back.
create table set_change (
  act bigint primary key references act,
  before jsonb not null,
  after jsonb not null
);
