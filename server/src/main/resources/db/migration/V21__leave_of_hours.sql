-- Leave of one day may be of some of its hours alone.
alter table leave add from_time time;
alter table leave add until_time time;
alter table leave add constraint leave_of_hours check (
  (from_time is null) = (until_time is null)
  and (from_time is null or until_day = first_day + 1 and from_time < until_time));
