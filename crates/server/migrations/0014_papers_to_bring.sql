-- A template that asks the family for the papers that nobody else has.
insert into letter_templates (name, body) values ('Papers to bring',
'{{ today }}

# Papers for your {{ year }} return

Dear {{ first_names }},

{% if wanted %}to go on with your return for {{ year }} we still need these papers from you. Neither the authority nor a payer holds them:

{% for paper in wanted %}
- {{ paper.what }}{% if paper.proof %}: {{ paper.proof }}{% endif %}
{% endfor %}{% else %}we have every paper that you told us of for {{ year }}. Is there anything else?{% endif %}

Please bring them, send copies, or tell us if there is nothing of the kind this year.

{{ practice }}')
on conflict (name) do nothing;
