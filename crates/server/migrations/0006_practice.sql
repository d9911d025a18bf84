-- How the practice works: its name on what it hands out, and whether one may review one's own work.
alter table practice add column name text not null default '' check (length(name) <= 120);
alter table practice add column own_review boolean not null default false;

-- Where a return stands in the practice's hands: who works on it, who is asked to review it, until when its filing is
-- held, and which revision was filed.
alter table households drop constraint households_stage_check;
update households set stage = 'in_review' where stage = 'under_review';
alter table households add constraint households_stage_check check (stage in ('in_work', 'ready', 'in_review',
    'remarks', 'cleared', 'handed_over', 'sent', 'accepted', 'refused', 'assessed'));
alter table households add column worked_by uuid references users (id);
alter table households add column reviewer uuid references users (id);
alter table households add column held_until date;
alter table households add column filed_revision bigint;
update households h set worked_by =
    (select by_user from revisions r where r.household = h.id and r.revision = 1);

-- Every step from one state of work to another, with who, when, at which revision, and what was said.
create table moves (
    id bigint generated always as identity primary key,
    household uuid not null references households (id),
    kind text not null check (kind in ('moved', 'changed', 'unchanged', 'taken_back')),
    from_stage text not null,
    to_stage text not null,
    revision bigint not null,
    words text not null default '' check (length(words) <= 2000),
    by_user uuid not null references users (id),
    at timestamptz not null default now()
);
create index moves_by_time on moves (household, at);

-- The practice's own number of a household.
alter table households add column reference text not null default '';

-- Households that are put away, and by which last digits of their numbers they are found: a hash under the practice's key.
alter table households add column archived_at timestamptz;
alter table households add column digits text[] not null default '{}';
create index households_digits on households using gin (digits);
alter table marks drop constraint marks_kind_check;
alter table marks add constraint marks_kind_check
    check (kind in ('deleted', 'restored', 'archived', 'unarchived'));
