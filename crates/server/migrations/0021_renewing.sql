-- Until when a server has a household in work that it reckons anew: of several servers one does it.
alter table households add column renewed_until timestamptz;
