-- Who decides where people's own work is copied: each for themselves, or the house for all.
alter table house add column links_decided_by text not null default 'PEOPLE'
  check (links_decided_by in ('PEOPLE', 'HOUSE'));

-- Stopped by whoever's it is: nothing is written or read until they let it go on.
alter table link add column stopped_at timestamptz;

-- Somebody else decides where this goes, and what stands in the other calendar was verified.
alter table link_calendar add column overruled boolean not null default false;

-- How far off its work was when a copy was opened, in seconds: of what is due at once, the nearest goes first.
alter table copy add column near bigint not null default 0;
drop index copy_link_calendar_due_at_idx;
create index on copy (link_calendar, due_at, near) where due_at is not null;
