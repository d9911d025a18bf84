-- Households whose result moved when they were reckoned by other rules: after figures were replaced, or a new program came.
create table rereckoned (
    id uuid primary key,
    household uuid not null references households (id),
    was jsonb not null,
    came jsonb not null,
    at timestamptz not null default now(),
    seen_by uuid references users (id),
    seen_at timestamptz
);
create unique index rereckoned_unseen on rereckoned (household) where seen_at is null;
