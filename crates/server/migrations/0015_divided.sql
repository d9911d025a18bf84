-- A household that is one of the two into which another was divided.
alter table households add column divided_from uuid references households (id);
create index households_divided on households (divided_from);
alter table revisions drop constraint revisions_kind_check;
alter table revisions add constraint revisions_kind_check check (kind in ('created', 'imported', 'copied', 'carried',
    'divided', 'edited', 'undone', 'redone', 'brought_back'));
