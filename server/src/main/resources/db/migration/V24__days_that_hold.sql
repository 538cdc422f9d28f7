-- A skill holds from a day on, and somebody leaves on a chosen day.
alter table person_skill add first_day date;
alter table person add last_day date;
