-- What an act settles for the crew and the house is kept row by row, as it was and as it became,
-- so that it can be told and taken back, whoever wrote it. The act says which it is; what is
-- written outside of acts is kept nowhere.
create table act_row (
  id bigint generated always as identity primary key,
  act bigint not null references act,
  kept_in text not null,
  -- Null: it was not there; it is gone.
  before jsonb,
  after jsonb
);
create index on act_row (act);

create function keep_act_row() returns trigger language plpgsql as $$
declare
  -- What moves by itself is nobody's to take back, and a change of rules takes its own back.
  passing constant text[] :=
    '{version,world_version,projected_day,seen_until,incarnation,change_no,oldest_no,titles_fixed,fallback_wording}';
  doing constant text := current_setting('mellow.act', true);
  was jsonb;
  became jsonb;
begin
  if coalesce(doing, '') = '' then
    return null;
  end if;
  if tg_op <> 'INSERT' then
    was := to_jsonb(old) - passing;
  end if;
  if tg_op <> 'DELETE' then
    became := to_jsonb(new) - passing;
  end if;
  if was is distinct from became then
    insert into act_row (act, kept_in, before, after) values (doing::bigint, tg_table_name, was, became);
  end if;
  return null;
end $$;

do $$
declare
  settled text;
begin
  foreach settled in array array['person', 'coordinates', 'team', 'membership', 'place',
    'person_skill', 'working_hours', 'hours_dated', 'leave', 'travel', 'region', 'holiday',
    'closure', 'duty', 'duty_span', 'duty_lifted', 'house', 'house_limit', 'let_stand']
  loop
    execute format('create trigger keep_act_row after insert or update or delete on %I
      for each row execute function keep_act_row()', settled);
  end loop;
end $$;
-- Every save counts its calendars on, which is no business of this.
create trigger keep_act_row after insert or delete or update of name on calendar
  for each row execute function keep_act_row();
create trigger keep_act_row after insert or update on taken_row
  for each row when (new.record is null) execute function keep_act_row();
create trigger keep_act_row_gone after delete on taken_row
  for each row when (old.record is null) execute function keep_act_row();

-- A calendar that is taken back whole takes with it how its members read it.
alter table rendering drop constraint rendering_calendar_fkey,
  add constraint rendering_calendar_fkey
    foreign key (calendar) references calendar on delete cascade;

-- Parts go before the whole, said by whoever takes it away, so that they come back after it.
alter table duty_span drop constraint duty_span_duty_fkey,
  add constraint duty_span_duty_fkey foreign key (duty) references duty;
alter table duty_lifted drop constraint duty_lifted_duty_fkey,
  add constraint duty_lifted_duty_fkey foreign key (duty) references duty;
alter table holiday drop constraint holiday_region_fkey,
  add constraint holiday_region_fkey foreign key (region) references region;
