-- So many more records (:n) of the demo's shape, in every state and over six years: their row, a visit, who does it, a
-- title, now and then a phone, an address or a tag, and the entry in the calendar of whoever does it. By their numbers
-- alone, so that two houses of one size are alike.
set synchronous_commit = off;
set work_mem = '256MB';
create temp table crew as select row_number() over (order by p.id) - 1 as no, p.id, c.id as calendar, r.id as rendering
  from person p join calendar c on c.person = p.id join rendering r on r.calendar = c.id and r.way = 'MEMBERS'
  where p.standing = 'HOUSE' and p.account_right <> 'COORDINATOR' order by p.id limit 200;
create temp table spots as select row_number() over (order by id) - 1 as no, id from place;
create temp table crews as select row_number() over (order by id) - 1 as no, id from team;
create temp table titles as select no, text from unnest(array[
  'Paddle stuck', 'Clear trash screen', 'Grease winding gear', 'Weed on the screen', 'Towpath washed out',
  'Gate beam split', 'Check sluice seals', 'Lock landing loose', 'Balance beam painted', 'Stop planks in',
  'Culvert looked at', 'Fence down by the weir', 'Moorings counted', 'Boat sunk at its mooring', 'Bollard missing',
  'Barrier loose', 'Light out at the bridge', 'Sign faded', 'Oil on the water', 'Swan nest by the gate'])
  with ordinality as t(text, at) cross join lateral (select at - 1 as no) n;
create temp table made as
select nextval(pg_get_serial_sequence('record', 'id')) as id, i, t.at,
  case when i % 10 < 6 then 'JOB' when i % 10 < 9 then 'TICKET' else 'DEADLINE' end as kind,
  case when i % 50 = 0 then 'CANCELLED' when i % 61 = 0 then 'TENTATIVE'
    when t.at < now() - interval '10 days' then 'DONE' else 'CONFIRMED' end as state,
  c.id as holder, c.calendar, c.rendering, s.id as place, m.id as team
from generate_series(1, :n) i
cross join lateral (select date_trunc('hour', now()) - interval '4 years'
  + i * (interval '6 years' / :n) + i % 4 * interval '15 minutes' as at) t
join crew c on c.no = i::bigint * 31 % 200
join spots s on s.no = i::bigint * 17 % (select count(*) from spots)
join crews m on m.no = i::bigint * 13 % (select count(*) from crews);
insert into record (id, ref, kind, state, state_before, author, created_at, place, team, due_local, due_zone, due_offset,
  due_at, begins_at, sorts_at, changed_at, tzdb)
overriding system value
select id, left(kind, 1) || '-' || nextval('ref_number'), kind, state, 'CONFIRMED',
  (select min(id) from person where account_right = 'COORDINATOR'), at - interval '10 days', place, team,
  case when kind <> 'JOB' then (at at time zone 'UTC')::timestamp end, case when kind <> 'JOB' then 'UTC' end,
  case when kind <> 'JOB' then 'Z' end, case when kind <> 'JOB' then at end, case when kind = 'JOB' then at end, at,
  at - interval '9 days', ''
from made order by id;
insert into visit (record, no, local_from, local_to, zone, offset_from, offset_to, starts, ends, tzdb)
select id, 1, case when kind = 'JOB' then (at at time zone 'UTC') end,
  case when kind = 'JOB' then (at at time zone 'UTC') + interval '2 hours' end, case when kind = 'JOB' then 'UTC' end,
  case when kind = 'JOB' then 'Z' end, case when kind = 'JOB' then 'Z' end, case when kind = 'JOB' then at end,
  case when kind = 'JOB' then at + interval '2 hours' end, case when kind = 'JOB' then '' end
from made order by id;
insert into assignment (record, visit, position, holder_kind, holder, role, given_at)
select id, 1, 0, 'P', holder, 0, at - interval '9 days' from made where i % 97 <> 0 order by id;
insert into detail (record, key, value)
select id, 'title', t.text || ' ' || i % 9973 from made join titles t on t.no = i % 20 order by id;
insert into detail (record, key, value)
select id, 'phone', '0555 ' || lpad((i % 1000000)::text, 6, '0') from made where i % 3 = 0 order by id;
insert into detail (record, key, value)
select id, 'address', 'Lane ' || i % 4001 || ', Thornmere' from made where i % 5 = 0 order by id;
insert into tag (record, tag)
select id, 'series-' || i % 2003 from made where i % 20 = 0 order by id;
insert into entry (record, visit, calendar, family, uid, sequence, state, starts, ends, rules, change_no)
select id, 1, calendar, 'WORK', gen_random_uuid()::text, 0, 'LIVE', at, at + interval '2 hours', '', id
from made where kind = 'JOB' and i % 97 <> 0 order by id;
insert into face (entry, rendering, live, content, etag, sequence, starts, ends, modified, change_no)
select e.id, m.rendering, true, e.id || E'\x1f\x1f\x1fT\x1f' || extract(epoch from m.at)::bigint || E'\x1f0\x1f'
  || extract(epoch from m.at)::bigint + 7200 || E'\x1f0\x1fUTC\x1f10000\x1fJob', md5(e.id::text), 0, e.starts, e.ends,
  now(), e.change_no
from made m join entry e on e.record = m.id and e.calendar = m.calendar order by e.id;
update calendar c set change_no = greatest(c.change_no, coalesce((select max(change_no) from entry e where e.calendar = c.id), 0));
select count(*) || ' records more' from made;
vacuum (analyze);
