-- Sessions stand here by the hash of their id: what a dump holds signs nobody in. Whose they are, so that they end with the person's access,
-- and since when, for an end that no activity moves.
delete from sessions;
alter table sessions add column user_id uuid references users (id) on delete cascade;
alter table sessions add column began_at timestamptz not null default now();
alter table users add column disabled_at timestamptz;

-- Links by which someone sets a password, once: by the hash of what stands in them.
create table welcomes (
    hash text primary key,
    user_id uuid not null references users (id) on delete cascade,
    expires_at timestamptz not null
);
