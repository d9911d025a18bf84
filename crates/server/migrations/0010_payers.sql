-- Payers that the practice knows, from any of its households: keyed once, they come back by name or number.
create table payers (
    id uuid primary key default gen_random_uuid(),
    country text not null,
    name text not null check (length(name) between 1 and 120),
    number text not null default '' check (length(number) <= 40),
    by_user uuid not null references users (id),
    at timestamptz not null default now()
);
create unique index payers_known on payers (country, lower(name), number);
create index payers_by_number on payers (country, number) where number <> '';
