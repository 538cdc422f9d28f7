set local maintenance_work_mem = '256MB';

-- What lists are sorted by: when the first visit begins, and when it was last changed for the office.
alter table record add begins_at timestamptz, add changed_at timestamptz;
update record r set
  begins_at = (select min(coalesce(v.starts, v.date_from::timestamp at time zone 'UTC')) from visit v where v.record = r.id),
  changed_at = date_trunc('milliseconds', coalesce((select max(a.at) from history h join act a on a.id = h.act
    where h.record = r.id and h.for_then & 1 <> 0), r.created_at));
alter table record alter changed_at set not null;
create index on record (begins_at, id);
create index on record (changed_at, id);

create index on record (sorts_at, id) where state in ('DRAFT', 'TENTATIVE', 'CONFIRMED');

-- Each order ends with what lacks it.
create index on record (id) where sorts_at is null;
create index on record (id) where due_at is null;
create index on record (id) where begins_at is null;
create index on record (id) where place is null;
create index on detail (key, record) where for_bits is not null;
drop index record_place_idx;
create index on record (place, id);

-- What somebody may open.
create index on record (author) where state = 'DRAFT';
create index on entry (calendar, record) where state = 'LIVE';

-- What lies in a piece of time.
create index on visit using gist (tstzrange(starts, ends, '[]')) where starts is not null;

-- What has a text in it.
create extension if not exists pg_trgm;
create index on detail using gin (value gin_trgm_ops);
create index on record using gin (ref gin_trgm_ops);
create index on tag using gin (tag gin_trgm_ops);
create index on tag (lower(tag), record);
