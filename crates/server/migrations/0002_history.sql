-- What a revision did in people's words, by which version of the rules, and what came out then.
alter table revisions add column words jsonb not null default '[]';
alter table revisions add column rules text;
alter table revisions add column totals jsonb;
alter table revisions drop constraint revisions_kind_check;
alter table revisions add constraint revisions_kind_check
    check (kind in ('created', 'imported', 'copied', 'edited', 'undone', 'redone', 'brought_back'));
create index revisions_by_time on revisions (household, at);

-- Who deleted a household and who brought it back.
create table marks (
    id bigint generated always as identity primary key,
    household uuid not null references households (id),
    kind text not null check (kind in ('deleted', 'restored')),
    by_user uuid not null references users (id),
    at timestamptz not null default now()
);
create index marks_by_time on marks (household, at);

-- What a list is searched by, in small letters.
alter table households add column search text not null default '';
update households set search = lower(concat_ws(' ', name, country, year, summary ->> 'locality',
    case when jsonb_typeof(summary -> 'people') = 'array'
        then (select string_agg(p, ' ') from jsonb_array_elements_text(summary -> 'people') p) end));
create index households_touched on households (touched_at);

-- A known text sealed with the practice's key: whether a key is the right one.
create table practice (
    one boolean primary key default true check (one),
    key_check text not null
);

-- Sign-ins that failed, by login.
create table tries (
    login text not null,
    at timestamptz not null default now()
);
create index tries_by_login on tries (login, at);
