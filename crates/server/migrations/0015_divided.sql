-- A household that is one of the two into which another was divided.
alter table households add column divided_from uuid references households (id);
create index households_divided on households (divided_from);
