-- What is settled of margins besides what records say: of the house where neither a kind, a place
-- nor a person is named; minutes; null: nothing is said of that side.
create table margin_setting (
  id bigint generated always as identity primary key,
  kind text,
  place bigint references place,
  person bigint references person,
  before_minutes integer check (before_minutes >= 0),
  after_minutes integer check (after_minutes >= 0),
  check (num_nonnulls(kind, place, person) <= 1),
  check (num_nonnulls(before_minutes, after_minutes) > 0),
  unique nulls not distinct (kind, place, person)
);
create trigger keep_act_row after insert or update or delete on margin_setting
  for each row execute function keep_act_row();
