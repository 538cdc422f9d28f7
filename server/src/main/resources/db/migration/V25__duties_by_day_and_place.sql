-- A season of every year as 04-01; the skills of its places one by one, a line each, empty for none.
alter table duty_span add season_first text;
alter table duty_span add season_last text;
alter table duty_span add skills text;
-- Hours of one day in place of those that repeat.
create table duty_other (
  duty bigint not null references duty,
  position integer not null,
  day date not null,
  from_time time not null,
  until_time time not null,
  count integer not null check (count between 1 and 99),
  skills text,
  primary key (duty, position)
);
create trigger keep_act_row after insert or update or delete on duty_other
  for each row execute function keep_act_row();
