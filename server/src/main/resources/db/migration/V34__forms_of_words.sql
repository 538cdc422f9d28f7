set local maintenance_work_mem = '256MB';

-- What has an English word in it, in whatever form.
create index on detail using gin (to_tsvector('english', value));
