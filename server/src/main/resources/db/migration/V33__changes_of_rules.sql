-- The change log tells of them too.
create index on act (id) where kind in ('rules.change', 'rules.undo');
