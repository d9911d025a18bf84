-- A family's consents, as they were asked for at the authority.
create table consents (
    id uuid primary key,
    household uuid not null references households (id),
    number text not null check (length(number) between 1 and 80),
    people text[] not null check (cardinality(people) > 0),
    scope text[] not null check (cardinality(scope) > 0),
    from_day date not null,
    until_day date not null,
    state text not null check (state in ('pending', 'granted', 'refused', 'ended')),
    words text not null default '',
    by_user uuid not null references users (id),
    at timestamptz not null default now(),
    looked_at timestamptz not null default now()
);
create index consents_of on consents (household, at);

-- What the authority and the payers held each time that it was fetched; without identification numbers.
create table fetches (
    id uuid primary key,
    household uuid not null references households (id),
    consent uuid not null references consents (id),
    slips jsonb not null,
    strangers integer not null,
    by_user uuid not null references users (id),
    at timestamptz not null default now()
);
create index fetches_of on fetches (household, at);

-- What was asked of the family, by kind of paper.
create table asked (
    household uuid not null references households (id),
    kind text not null check (length(kind) between 1 and 60),
    by_user uuid not null references users (id),
    at timestamptz not null default now(),
    primary key (household, kind)
);

-- Returns that were filed with the authority, sealed, and what became of them.
create table filings (
    id uuid primary key,
    household uuid not null references households (id),
    revision bigint not null,
    scope text not null,
    whose text not null,
    consent uuid not null references consents (id),
    package text not null,
    checksum text not null,
    amends text,
    number text,
    state text not null check (state in ('sending', 'received', 'accepted', 'refused', 'assessed')),
    receipt jsonb,
    by_user uuid not null references users (id),
    at timestamptz not null default now(),
    looked_at timestamptz
);
create index filings_of on filings (household, at);
