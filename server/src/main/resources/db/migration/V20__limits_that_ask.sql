-- A limit that warns may ask whoever goes against it for a reason.
alter table house_limit add asks_reason boolean not null default false;
