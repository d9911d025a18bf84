-- The practice's keys, each with a known text that tells it from others. What is sealed names its key beside it, so that no
-- key goes while something needs it, and nothing new is sealed with one that went.
create table keys (
    name text primary key,
    known text not null,
    at timestamptz not null default now()
);

-- The one key of before gets its name from the file, at the next start.
insert into keys (name, known) select 'first', key_check from practice;
insert into keys (name, known)
    select 'first', '' where not exists (select 1 from keys) and exists (select 1 from revisions);
alter table practice drop column key_check;
insert into practice default values on conflict do nothing;

alter table revisions add column sealed_with text not null default 'first' references keys (name) on update cascade;
alter table filings add column sealed_with text not null default 'first' references keys (name) on update cascade;
alter table files add column sealed_with text not null default 'first' references keys (name) on update cascade;
alter table file_pages add column sealed_with text not null default 'first' references keys (name) on update cascade;
alter table users add column second_sealed_with text references keys (name) on update cascade;
update users set second_sealed_with = 'first' where second_secret is not null;
alter table users add constraint second_sealed check ((second_secret is null) = (second_sealed_with is null));
alter table revisions alter column sealed_with drop default;
alter table filings alter column sealed_with drop default;
alter table files alter column sealed_with drop default;
alter table file_pages alter column sealed_with drop default;

create index revisions_sealed on revisions (sealed_with);
create index filings_sealed on filings (sealed_with);
create index files_sealed on files (sealed_with);
create index file_pages_sealed on file_pages (sealed_with);
create index users_sealed on users (second_sealed_with);

create function audit_keys() returns trigger language plpgsql security definer set search_path from current as $$
begin
    if tg_op = 'INSERT' then
        perform audit_note('key', null, null, new.name || ' seals from now on');
    else
        perform audit_note('key', null, null, old.name || ' is needed no more');
    end if;
    return null;
end $$;
create trigger audit_keys after insert or delete on keys for each row execute function audit_keys();
