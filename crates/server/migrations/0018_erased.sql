-- Households that were erased for good: what of them was erased, by whom and when; nothing of what stood in them.
create table erased (
    household uuid primary key,
    country text not null,
    year integer not null,
    counts jsonb not null,
    by_user uuid not null references users (id),
    at timestamptz not null default now()
);
