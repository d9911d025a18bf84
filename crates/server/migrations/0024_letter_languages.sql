-- The language of a template and of the letters that it writes: how amounts and days stand in them.
alter table letter_templates add column language text not null default 'en'
    check (language in ('en', 'es', 'fr', 'de', 'af'));
alter table letters add column language text not null default 'en'
    check (language in ('en', 'es', 'fr', 'de', 'af'));

-- One that the practice has under such a name stays its own.
insert into letter_templates (name, language, body) values ('Lettre d''accompagnement', 'fr',
'{{ today }}

# Votre déclaration {{ year }}

Bonjour {{ first_names }},

Pour {{ year }}, {% if no_tax %}il ne reste aucun impôt à payer : les crédits vous rapportent **{{ credits }}**.{% else %}votre impôt total s''élève à **{{ tax }}**.{% endif %} Vous avez déjà versé {{ paid }} au cours de l''année.
{% if refund %}**{{ balance }} vous seront remboursés.**{% elif due %}**Il reste {{ balance }} à payer.**{% else %}Il n''y a ni solde à payer ni remboursement.{% endif %}

{% if all_weighed %}Nous avons comparé toutes les façons de déclarer que la loi permet, soit {{ ways }}.{% else %}Nous avons comparé les façons de déclarer que nos calculs couvrent.{% endif %} {% if lowest %}Celle que nous avons retenue est la moins chère.{% else %}Celle que nous avons retenue n''est pas la moins chère, comme convenu.{% endif %}

{% if not final %}Certains points restent ouverts : ces montants peuvent encore changer.{% endif %}

Veuillez lire le sommaire, nous signaler ce qui ne va pas et signer aux endroits marqués.

{{ practice }}'),
('Begleitschreiben', 'de',
'{{ today }}

# Ihre Steuererklärung {{ year }}

Guten Tag {{ first_names }},

für {{ year }} {% if no_tax %}bleibt keine Steuer: Sie erhalten **{{ credits }}**.{% else %}beträgt Ihre Steuer insgesamt **{{ tax }}**.{% endif %} Im Laufe des Jahres wurden {{ paid }} gezahlt.
{% if refund %}**{{ balance }} werden Ihnen erstattet.**{% elif due %}**{{ balance }} sind noch zu zahlen.**{% else %}Es ist nichts zu zahlen und nichts zu erstatten.{% endif %}

{% if all_weighed %}Wir haben alle Wege verglichen, die das Gesetz Ihnen lässt, insgesamt {{ ways }}.{% else %}Wir haben die Wege verglichen, die unsere Berechnung erfasst.{% endif %} {% if lowest %}Der gewählte ist der günstigste.{% else %}Der gewählte ist nicht der günstigste, wie wir es besprochen haben.{% endif %}

{% if not final %}Einige Punkte sind noch offen, die Beträge können sich daher ändern.{% endif %}

Bitte lesen Sie die Zusammenfassung, sagen Sie uns, was nicht stimmt, und unterschreiben Sie an den markierten Stellen.

{{ practice }}'),
('Carta de presentación', 'es',
'{{ today }}

# Su declaración de {{ year }}

Hola, {{ first_names }}:

Para {{ year }} {% if no_tax %}no queda impuesto por pagar: los créditos le dan **{{ credits }}**.{% else %}su impuesto total es de **{{ tax }}**.{% endif %} Durante el año se pagaron {{ paid }}.
{% if refund %}**Se le devolverán {{ balance }}.**{% elif due %}**Quedan por pagar {{ balance }}.**{% else %}No hay nada que pagar ni que devolver.{% endif %}

{% if all_weighed %}Comparamos todas las formas de declarar que la ley permite, {{ ways }} en total.{% else %}Comparamos las formas de declarar que abarcan nuestros cálculos.{% endif %} {% if lowest %}La elegida es la de menor costo.{% else %}La elegida no es la de menor costo, como acordamos.{% endif %}

{% if not final %}Quedan puntos abiertos, así que estas cifras pueden cambiar.{% endif %}

Lea el resumen, díganos lo que no esté bien y firme donde está marcado.

{{ practice }}'),
('Dekbrief', 'af',
'{{ today }}

# U opgawe vir {{ year }}

Beste {{ first_names }}

Vir {{ year }} {% if no_tax %}bly daar geen belasting oor nie: krediete gee u **{{ credits }}**.{% else %}is u totale belasting **{{ tax }}**.{% endif %} {{ paid }} is gedurende die jaar betaal.
{% if refund %}**{{ balance }} word aan u terugbetaal.**{% elif due %}**{{ balance }} moet nog betaal word.**{% else %}Niks is verskuldig nie en niks word terugbetaal nie.{% endif %}

{% if all_weighed %}Ons het al die maniere vergelyk wat die wet toelaat, {{ ways }} altesaam.{% else %}Ons het die maniere vergelyk wat ons berekening dek.{% endif %} {% if lowest %}Die een wat ons gekies het, is die laagste.{% else %}Die een wat ons gekies het, is nie die laagste nie, soos ons ooreengekom het.{% endif %}

{% if not final %}Sommige punte is nog oop, dus kan hierdie syfers verander.{% endif %}

Lees asseblief die opsomming, sê vir ons wat nie reg is nie, en teken waar dit gemerk is.

{{ practice }}')
on conflict (name) do nothing;
