-- An id of where a record came from is no key: for whoever may not open that record it is not
-- there, and the same id makes a record of their own.
drop index record_source_source_id_idx;
create index on record (source, source_id) where source is not null;
alter table taken_row add column of_record bigint not null default 0;
update taken_row set of_record = coalesce(record, 0);
alter table taken_row drop constraint taken_row_pkey,
  add primary key (what, source, source_id, of_record);
update act_row set before = before || '{"of_record": 0}', after = after || '{"of_record": 0}'
  where kept_in = 'taken_row';

-- What somebody was when an act was done.
create index on act_row ((coalesce(after, before) ->> 'id')) where kept_in = 'person';
create index on act_row ((coalesce(after, before) ->> 'person')) where kept_in = 'coordinates';

-- What those made who have left ended with them.
update rendering set way = 'WITHDRAWN' where id in (
  select f.rendering from feed f join person p on p.id = f.made_by
    where p.standing = 'LEFT' and f.withdrawn_at is null
  union select s.rendering from share s join person p on p.id in (s.given_by, s.reader)
    where p.standing = 'LEFT' and s.withdrawn_at is null);
update feed set withdrawn_at = now() where withdrawn_at is null
  and made_by in (select id from person where standing = 'LEFT');
update share set withdrawn_at = now() where withdrawn_at is null
  and exists (select 1 from person p where p.standing = 'LEFT' and p.id in (given_by, reader));
delete from app_password where person in (select id from person where standing = 'LEFT');

-- Tries of passwords, counted before a password is looked at.
drop table sign_in_attempt;
create table sign_in_try (
  subject text primary key,
  since timestamptz not null,
  tries integer not null
);
create index on sign_in_try (since);

-- A calendar outside is one thing, by its address in one spelling and by what its host calls it.
-- Of several links to one the first goes on; the others end and leave what stands there alone.
alter table link_calendar add column place text, add column resource text,
  add column open boolean not null default false;
update link_calendar l set place = coalesce((
  select lower(m[2])
    || case when m[3] <> '' then m[3] when lower(m[1]) = 'http' then ':80' else ':443' end
    || regexp_replace(m[4], '/+$', '')
  from regexp_matches(l.href, '^(https?)://([^/:]+)(:[0-9]+)?(.*)$', 'i') m), l.href);
alter table link_calendar alter column place set not null;
update link_calendar set open = true where id in (
  select distinct on (l.place) l.id from link_calendar l join link k on k.id = l.link
  where k.ended_at is null and (l.rendering is not null or l.reads_busy) order by l.place, l.id);
update rendering set way = 'WITHDRAWN' where id in (
  select l.rendering from link_calendar l join link k on k.id = l.link
  where not l.open and k.ended_at is null);
update copy set state = 'OFF', wanted = null, written = null, stands = null, etag = null,
    attempt = null, attempt_tag = null, look = false, due_at = null, open_since = null
  where link_calendar in (select l.id from link_calendar l join link k on k.id = l.link
    where not l.open and k.ended_at is null);
update link_calendar l set rendering = null, reads_busy = false, read_due = null
  from link k where k.id = l.link and not l.open and k.ended_at is null;
create unique index on link_calendar (place) where open;
create unique index on link_calendar (resource) where open;

-- The day that entries stand for is no business of the house's row, which every save holds.
create table house_day (
  one boolean primary key default true check (one),
  projected date not null
);
insert into house_day (projected) select projected_day from house;
alter table house drop column projected_day;

-- Somebody said that it stays off where it was taken off.
alter table copy add column left_off boolean not null default false;
