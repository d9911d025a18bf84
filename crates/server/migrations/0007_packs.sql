-- Every pack that was made, with its file, from which revision, by which rules and by whom.
create table packs (
    id uuid primary key,
    household uuid not null references households (id),
    revision bigint not null,
    rules text not null,
    parts text[] not null,
    pages integer not null,
    unsettled boolean not null,
    file bytea not null,
    by_user uuid not null references users (id),
    at timestamptz not null default now()
);
create index packs_by_time on packs (household, at);

-- Choices of parts that the practice keeps under a name.
create table pack_sets (
    id uuid primary key default gen_random_uuid(),
    name text not null unique check (length(name) between 1 and 60),
    parts text[] not null check (cardinality(parts) > 0),
    at timestamptz not null default now()
);
insert into pack_sets (name, parts, at) values
    ('For the family', '{letter,summary,forms,ways,carried}', now()),
    ('For the file', '{letter,summary,forms,ways,limits,papers,carried,worksheets,points}', now() + interval '1 second'),
    ('For a bank', '{forms,papers}', now() + interval '2 seconds');
