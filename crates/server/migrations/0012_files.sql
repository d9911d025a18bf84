-- Slips that were added to papers as files, sealed. A household names its files by their hash; one that two households
-- name is kept once.
create table files (
    id text primary key check (length(id) = 64),
    media text not null check (media in ('application/pdf', 'image/png', 'image/jpeg')),
    bytes bytea not null,
    by_user uuid not null references users (id),
    at timestamptz not null default now()
);

-- The pages of a file as pictures, sealed.
create table file_pages (
    file text not null references files (id),
    page integer not null check (page >= 0),
    picture bytea not null,
    primary key (file, page)
);
