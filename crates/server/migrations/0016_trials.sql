-- A trial: a what-if beside a return. It is a household of its own that no list shows: of which it is, on which of its revisions it stands, and
-- what it is called.
alter table households add column trial_of uuid references households (id);
alter table households add column trial_base bigint;
alter table households add column trial_name text;
alter table households add constraint households_trial check (
    (trial_of is null) = (trial_base is null) and (trial_of is null) = (trial_name is null)
);
create index households_trials on households (trial_of);
alter table revisions drop constraint revisions_kind_check;
alter table revisions add constraint revisions_kind_check check (kind in ('created', 'imported', 'copied', 'carried',
    'divided', 'tried', 'followed', 'edited', 'undone', 'redone', 'brought_back'));
