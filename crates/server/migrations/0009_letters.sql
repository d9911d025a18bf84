-- The letter to the family: every version of it, with the revision whose figures it was made or kept at.
create table letters (
    household uuid not null references households (id),
    version integer not null check (version > 0),
    revision bigint not null,
    body jsonb not null,
    by_user uuid not null references users (id),
    at timestamptz not null default now(),
    primary key (household, version)
);

-- Templates of the practice: text with merge fields and conditions.
create table letter_templates (
    id uuid primary key default gen_random_uuid(),
    name text not null unique check (length(name) between 1 and 60),
    body text not null check (length(body) between 1 and 20000),
    by_user uuid references users (id),
    at timestamptz not null default now()
);
insert into letter_templates (name, body) values ('Covering letter',
'{{ today }}

# Your {{ year }} return

Dear {{ first_names }},

for {{ year }} {% if no_tax %}no tax is left to pay: credits bring you **{{ credits }}**.{% else %}your total tax comes to **{{ tax }}**.{% endif %} {{ paid }} was paid during the year.
{% if refund %}**{{ balance }} comes back** to your account.{% elif due %}**{{ balance }} is still to be paid.**{% else %}Nothing is due and nothing comes back.{% endif %}

{% if all_weighed %}We weighed every way in which the law lets you file, {{ ways }} in all.{% else %}We weighed the ways to file that our figures cover.{% endif %} {% if lowest %}The one that we chose is the lowest{% if next_way %}; the next ({{ next_way }}) would cost {{ next_more }} more{% endif %}.{% else %}We chose one that is not the lowest, as we agreed.{% endif %}

{% if changes %}What moved against last year:

{% for change in changes %}
- {{ change.what }}: {{ change.by }}
{% endfor %}{% endif %}

{% if not final %}Some points are still open, so these figures may change.{% endif %}

Please read the summary, tell us of anything that is not right, and sign where it is marked.

{{ practice }}'),
('Reminder of what is missing',
'{{ today }}

Dear {{ first_names }},

to finish your {{ year }} return we still need some papers from you. Please send them as soon as you have them:

- 

Thank you.

{{ practice }}');
