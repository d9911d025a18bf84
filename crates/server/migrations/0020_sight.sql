-- Whether households are seen by those alone in whose hands they lie, and by administrators.
alter table practice add column own_sight boolean not null default false;
