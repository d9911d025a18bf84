-- Notes of the practice on a household, a person, paper, box, line or point: internal, answered, settled.
create table notes (
    id uuid primary key,
    household uuid not null references households (id),
    place jsonb not null,
    about text not null check (length(about) between 1 and 300),
    words text not null check (length(words) between 1 and 4000),
    answers uuid references notes (id),
    by_user uuid not null references users (id),
    at timestamptz not null default now(),
    settled_by uuid references users (id),
    settled_at timestamptz,
    removed_by uuid references users (id),
    removed_at timestamptz,
    check ((settled_by is null) = (settled_at is null)),
    check ((removed_by is null) = (removed_at is null))
);
create index notes_of on notes (household, at);

-- Lines of the forms that somebody read and found right, at the amount that they had. One that is taken back stays here.
create table ticks (
    id bigint generated always as identity primary key,
    household uuid not null references households (id),
    line text not null check (length(line) between 1 and 200),
    scope text not null check (length(scope) between 1 and 200),
    amount numeric(14, 2) not null,
    by_user uuid not null references users (id),
    at timestamptz not null default now(),
    ended_by uuid references users (id),
    ended_at timestamptz,
    check ((ended_by is null) = (ended_at is null))
);
create unique index ticks_at_work on ticks (household, line, scope) where ended_at is null;
