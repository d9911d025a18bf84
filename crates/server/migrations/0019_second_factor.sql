-- A second factor: the secret, sealed; since when it is asked for; the last step of the clock whose code was used, so that none is
-- used twice. Codes for who lost the device stand by their hash, each for once.
alter table users add column second_secret text;
alter table users add column second_since timestamptz;
alter table users add column second_step bigint not null default 0;
create table recovery_codes (
    hash text primary key,
    user_id uuid not null references users (id) on delete cascade
);
create index recovery_codes_of on recovery_codes (user_id);
