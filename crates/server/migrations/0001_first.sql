-- People who sign in.
create table users (
    id uuid primary key,
    login text not null unique check (login = lower(login) and length(login) between 1 and 120),
    name text not null,
    password_hash text not null,
    role text not null check (role in ('preparer', 'reviewer', 'administrator')),
    created_at timestamptz not null default now()
);

-- Sessions of the browser.
create table sessions (
    id text primary key,
    data jsonb not null,
    expires_at timestamptz not null
);
create index sessions_expire on sessions (expires_at);

-- Return years. What lists show of the newest revision stands in `summary`.
create table households (
    id uuid primary key,
    revision bigint not null check (revision > 0),
    name text not null,
    country text not null,
    year integer not null,
    stage text not null default 'in_work'
        check (stage in ('in_work', 'under_review', 'cleared', 'sent', 'accepted')),
    summary jsonb not null,
    created_at timestamptz not null default now(),
    touched_at timestamptz not null default now(),
    deleted_at timestamptz
);

-- Every revision with who, when, what, and the household as it then was. Identification numbers are sealed.
-- `undo_to` and `redo_to` name the revisions whose state an undo or a redo from here brings back.
create table revisions (
    household uuid not null references households (id),
    revision bigint not null check (revision > 0),
    kind text not null check (kind in ('created', 'imported', 'copied', 'edited', 'undone', 'redone')),
    commands jsonb not null,
    state jsonb not null,
    undo_to bigint,
    redo_to bigint,
    by_user uuid not null references users (id),
    at timestamptz not null default now(),
    primary key (household, revision)
);

-- Every time a sealed number was shown or exported.
create table reveals (
    id bigint generated always as identity primary key,
    household uuid not null references households (id),
    person text,
    by_user uuid not null references users (id),
    at timestamptz not null default now()
);
