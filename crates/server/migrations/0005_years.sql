-- From which return year a household was carried forward.
alter table households add column carried_from uuid references households (id);
create index households_carried on households (carried_from);
alter table revisions drop constraint revisions_kind_check;
alter table revisions add constraint revisions_kind_check
    check (kind in ('created', 'imported', 'copied', 'carried', 'edited', 'undone', 'redone', 'brought_back'));
