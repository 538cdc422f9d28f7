-- So many more tickets of the demo's shape: their row, one visit without a span, a Lead, a title and
-- now and then a phone. Entries follow when the rules are put in force.
insert into record (ref, kind, state, state_before, author, created_at, place, due_local, due_zone,
  due_offset, due_at, sorts_at, changed_at, tzdb)
select 'B-' || nextval('ref_number'), 'TICKET', 'CONFIRMED', 'CONFIRMED',
  (select min(id) from person where account_right = 'COORDINATOR'), now(),
  (select array_agg(id order by id) from place)[1 + i % (select count(*) from place)],
  timestamp '2027-03-01 08:00' + i % 200000 * interval '3 minutes', 'Europe/London', 'Z',
  timestamptz '2027-03-01 08:00Z' + i % 200000 * interval '3 minutes',
  timestamptz '2027-03-01 08:00Z' + i % 200000 * interval '3 minutes', now(), ''
from generate_series(1, :n) i;
insert into visit (record, no)
select id, 1 from record r where not exists (select 1 from visit v where v.record = r.id);
insert into assignment (record, visit, position, holder_kind, holder, role, given_at)
select r.id, 1, 0, 'P',
  (select array_agg(id order by id) from person where standing = 'HOUSE')
    [1 + r.id % (select count(*) from person where standing = 'HOUSE')], 0, now()
from record r where ref like 'B-%'
  and not exists (select 1 from assignment a where a.record = r.id);
insert into detail (record, key, value)
select r.id, 'title', 'Paddle stuck ' || r.id from record r where ref like 'B-%'
  and not exists (select 1 from detail d where d.record = r.id);
insert into detail (record, key, value)
select r.id, 'phone', '0555 01' || lpad((r.id % 100)::text, 2, '0') from record r
where ref like 'B-%' and r.id % 3 = 0
  and not exists (select 1 from detail d where d.record = r.id and d.key = 'phone');
analyze;
