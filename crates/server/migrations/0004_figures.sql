-- Figures of the practice's own in place of those of the rules, with who, when, why and the source. One that is taken back
-- or replaced again stays here, with who ended it.
create table replaced_figures (
    id uuid primary key,
    country text not null,
    year integer not null,
    in_table text not null,
    figure text not null,
    was text not null,
    value text not null,
    source text not null check (length(source) between 1 and 500),
    why text not null check (length(why) between 1 and 500),
    by_user uuid not null references users (id),
    at timestamptz not null default now(),
    ended_by uuid references users (id),
    ended_at timestamptz,
    check ((ended_by is null) = (ended_at is null))
);
create unique index replaced_figures_at_work on replaced_figures (country, year, in_table, figure) where ended_at is null;

-- The version of the rules by which the summary was reckoned.
alter table households add column rules text;
