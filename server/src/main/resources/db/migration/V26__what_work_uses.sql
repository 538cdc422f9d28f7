-- Further places or things that work takes beside its place, such as a barge.
alter table record add uses bigint[] not null default '{}';
create index on record using gin (uses) where uses <> '{}';
