-- The audit: who did what and when. Rows are added alone; most are by the database itself, in the transaction of what was done,
-- so that no way leads around it. It names households by their id and tells nothing of what stands in them: what was erased
-- for good stays erased.
create table audit (
    id bigint generated always as identity primary key,
    at timestamptz not null default now(),
    what text not null,
    by_user uuid references users (id),
    household uuid,
    detail text not null default ''
);
create index audit_of_household on audit (household, id);
create index audit_of_user on audit (by_user, id);

create function audit_stays() returns trigger language plpgsql as $$
begin
    raise exception 'the audit is added to alone';
end $$;
create trigger audit_rows_stay before update or delete on audit for each row execute function audit_stays();
create trigger audit_stays before truncate on audit for each statement execute function audit_stays();

-- These run with the rights of who owns them: the database's user of the application needs no right to change the table.
create function audit_note(what text, by_user uuid, household uuid, detail text) returns void
language sql security definer set search_path from current as $$
    insert into audit (what, by_user, household, detail) values (what, by_user, household, detail);
$$;

-- Somebody opened a household: told once an hour.
create function audit_opened(opener uuid, opened uuid) returns void
language sql security definer set search_path from current as $$
    insert into audit (what, by_user, household)
    select 'opened', opener, opened where not exists (
        select 1 from audit a where a.household = opened and a.by_user = opener and a.what = 'opened'
            and a.at > now() - interval '1 hour');
$$;

-- Which secret was shown, not whose: a person's short name may stand in its place.
create function audit_secret(place text) returns text language sql immutable as $$
    select case when place is null then 'all numbers, in a file'
        when strpos(place, '/') = 0 then 'an identification number'
        else regexp_replace(place, '^.*/', '') end;
$$;

-- What is written in these tables is told.
create function audit_written() returns trigger language plpgsql security definer set search_path from current as $$
begin
    case tg_table_name
        when 'revisions' then
            perform audit_note(new.kind, new.by_user, new.household, 'revision ' || new.revision);
        when 'marks' then
            perform audit_note(new.kind, new.by_user, new.household, '');
        when 'moves' then
            perform audit_note('moved', new.by_user, new.household, new.from_stage || ' → ' || new.to_stage);
        when 'filings' then
            perform audit_note('filed', new.by_user, new.household, 'revision ' || new.revision);
        when 'packs' then
            perform audit_note('pack_made', new.by_user, new.household, 'revision ' || new.revision);
        when 'fetches' then
            perform audit_note('fetched', new.by_user, new.household, '');
        when 'reveals' then
            perform audit_note('revealed', new.by_user, new.household, audit_secret(new.person));
        when 'erased' then
            perform audit_note('erased', new.by_user, new.household, '');
        when 'replaced_figures' then
            perform audit_note('figure', new.by_user, null,
                new.country || ' ' || new.year || ' ' || new.in_table || '.' || new.figure || ': ' || new.was || ' → ' || new.value);
    end case;
    return null;
end $$;
create trigger audit_written after insert on revisions for each row execute function audit_written();
create trigger audit_written after insert on marks for each row execute function audit_written();
create trigger audit_written after insert on moves for each row execute function audit_written();
create trigger audit_written after insert on filings for each row execute function audit_written();
create trigger audit_written after insert on packs for each row execute function audit_written();
create trigger audit_written after insert on fetches for each row execute function audit_written();
create trigger audit_written after insert on reveals for each row execute function audit_written();
create trigger audit_written after insert on erased for each row execute function audit_written();
create trigger audit_written after insert on replaced_figures for each row execute function audit_written();

create function audit_figure_ended() returns trigger language plpgsql security definer set search_path from current as $$
begin
    perform audit_note('figure', new.ended_by, null,
        new.country || ' ' || new.year || ' ' || new.in_table || '.' || new.figure || ': ' || new.value || ' taken back');
    return null;
end $$;
create trigger audit_figure_ended after update on replaced_figures for each row
    when (old.ended_at is null and new.ended_at is not null) execute function audit_figure_ended();

-- A session of somebody: made with its person, or given to one.
create function audit_signed_in() returns trigger language plpgsql security definer set search_path from current as $$
begin
    if tg_op = 'INSERT' or old.user_id is distinct from new.user_id then
        perform audit_note('signed_in', new.user_id, null, '');
    end if;
    return null;
end $$;
create trigger audit_signed_in after insert or update on sessions for each row
    when (new.user_id is not null) execute function audit_signed_in();

-- What was noted before there was an audit.
insert into audit (at, what, by_user, household, detail)
    select at, 'revealed', by_user, household, audit_secret(person) from reveals order by at;
