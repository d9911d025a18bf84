//! The order of an assessment (R 2 EStR; §2 EStG): from the kinds of income of each person to what is to pay.

use crate::{
    benefits, beside, burdens, capital,
    charges::{self, Bases},
    children, credits, employment, losses, other_income, payments,
    payments::Assessed,
    pensions,
    plan::{CapitalWay, On},
    points::Points,
    provision, riester,
    rounding::euros_down,
    season, special,
    tariff::{self, Table, Taxed},
    wage,
};
use hembo_core::{
    limit, limits,
    line::LineId,
    lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "The assessment",
    lines: LINES,
    limits: LIMITS,
    figures: &["tariff", "hardship", "farm"],
    points: POINTS,
    ..Provision::NONE
};

lines! {
    pub OWN = "de.own_income", "Sum of income of a person", "§2(2), (3)", "All kinds together.";
    pub WAGES = "de.employment", "Employment", "§2(1) Nr.4", "Of all who are assessed.";
    pub FARMING = "de.farming", "Farming and forestry", "§2(1) Nr.1", "Of all who are assessed.";
    pub TRADES = "de.trades", "Trade", "§2(1) Nr.2", "Of all who are assessed.";
    pub SELF_EMPLOYED = "de.self_employment", "Self-employment", "§2(1) Nr.3", "Of all who are assessed.";
    pub CAPITAL = "de.capital", "Capital by the tariff", "§2(1) Nr.5; §32d(6)", "Of all who are assessed.";
    pub LETTING = "de.letting", "Letting", "§2(1) Nr.6", "Of all who are assessed.";
    pub PENSIONS = "de.pensions", "Pensions and maintenance received", "§2(1) Nr.7", "Of all who are assessed.";
    pub SERVICES = "de.services", "Occasional services", "§2(1) Nr.7", "Of all who are assessed.";
    pub SALES = "de.sales", "Private sales", "§2(1) Nr.7", "Of all who are assessed.";
    pub SUM = "de.sum_of_income", "Sum of income (Summe der Einkünfte)", "§2(3)", "Of all kinds and all who are assessed.";
    pub RELIEF = "de.age_relief_all", "Relief of old age", "§24a", "Of each person.";
    FARM = "de.farm_relief", "Relief of farming", "§13(3)", "Where the sum of income is small.";
    pub TOTAL = "de.total_income", "Total income (Gesamtbetrag der Einkünfte)", "§2(3)",
        "Less the reliefs, with church tax that came back beyond what was paid.";
    INCOME = "de.income", "Income (Einkommen)", "§2(4)", "Less losses, special expenses and burdens.";
    HARDSHIP = "de.hardship", "Relief of small other income (Härteausgleich)", "§46(3), (5); §70 EStDV",
        "Of who has wages: up to a limit whole, then less.";
    BEFORE = "de.income_before_children", "Income before allowances of children", "§2(5)", "What they are compared from.";
    pub TAXABLE = "de.taxable_income", "Taxable income (zu versteuerndes Einkommen)", "§2(5)",
        "Less the allowances that were used, cut to euros.";
    pub TARIFF = "de.tariff_tax", "Tax by the tariff (tarifliche Einkommensteuer)", "§§32a, 32b, 34",
        "By the table, with the progression clause and the rule of fifths.";
}

limits! {
    FARM_MOST = "de.limit.farm" on FARM, "Relief of farming", "over its most", "§13(3)";
}

open_points! {
    WITHDRAWN = look "DE-C74", "§§46(2) Nr.8, 355 AO", "A return that nobody had to file may be withdrawn within the month for an objection.";
    FIFTHS_BELOW_ZERO = not_covered "fifths-below-zero", "§§34(1) S.3, 32b";
    CAPITAL_LOSS = look "capital-loss", "§§20(6), 43a(3) S.4",
        "The bank carries its loss unless a certificate was asked for by 15 December: only then is it declared.";
}

/// One person's part of an assessment.
#[derive(Debug, Clone, Copy, Default)]
struct Person {
    wages: employment::Wages,
    results: other_income::Results,
    pensions: Money,
    in_tariff: Money,
    sum: Money,
    relief: Money,
    /// What of the relief is not of wages.
    relief_of_other: Money,
}

fn person(on: On<'_>, trail: &mut impl Trail, person: usize, in_tariff: Money) -> Person {
    let facts = on.facts;
    let wages = employment::reckon(facts, on.plan, trail, person);
    let results = other_income::reckon(facts, on.plan, trail, person);
    let pensions = pensions::reckon(facts, trail, person);
    let scope = Scope::Person(person);
    trail.line(capital::IN_TARIFF, scope, in_tariff, |i| {
        if !in_tariff.is_zero() {
            i.line(capital::NET, scope, in_tariff);
        }
    });
    let sum = wages.income + results.all() + pensions + in_tariff;
    trail.line(OWN, scope, sum, |i| {
        i.line(employment::INCOME, scope, wages.income).line(pensions::INCOME, scope, pensions);
        i.figure("Own work, land, occasions", results.all()).figure("Capital by the tariff", in_tariff);
    });
    let other = results.all() + in_tariff;
    let relief = pensions::relief(facts, trail, person, wages.active, other);
    let of_wages = pensions::relief(facts, &mut hembo_core::Silent, person, wages.active, Money::ZERO);
    Person { wages, results, pensions, in_tariff, sum, relief, relief_of_other: relief - of_wages }
}

/// One assessment; the result is the total of its taxes.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let nets = capital::reckon(on, trail);
    let capital_way = capital::way(on);
    let by_tariff = |net: Money| if capital_way == CapitalWay::Tariff { net } else { Money::ZERO };
    let people: Vec<Person> = on
        .people
        .iter()
        .zip(&nets)
        .map(|(&one, net)| person(on, trail, one, by_tariff(settled::or_zero(*net))))
        .collect();
    let church_paid = special::church(on, trail);
    let total = total_income(on, trail, &people, church_paid);
    let losses = losses::reckon(on, trail, TOTAL, total);
    let special = special::reckon(on, trail, church_paid, total);
    let provision = provision::reckon(on, trail);
    let [burdens, care] = burdens::reckon(on, trail, total);
    let hardship = hardship(on, trail, &people);
    let lumps: Vec<Money> = people.iter().map(|one| one.wages.lump_left).collect();
    let taxed = Taxed {
        income: total - losses - special - provision - burdens - hardship,
        progression: benefits::reckon(on, trail, &lumps),
        extraordinary: people.iter().map(|one| one.wages.extraordinary).sum(),
    };
    let settled = Settled { taxed, nets: &nets, care, added: Money::ZERO };
    let [riester, added] = riester::weigh(on, trail, |less| {
        let tax = |less: Money| {
            let taxed = Taxed { income: taxed.income - less, ..taxed };
            income_tax(on, &mut hembo_core::Silent, &people, Settled { taxed, ..settled }).tax
        };
        tax(Money::ZERO) - tax(less)
    });
    let income = on.made(
        trail,
        INCOME,
        total - losses - special - provision - burdens - riester,
        &[
            (TOTAL, total),
            (losses::USED, losses),
            (special::TAKEN, special),
            (provision::ALL, provision),
            (burdens::ALL, burdens),
            (riester::DEDUCTED, riester),
        ],
        &[],
    );
    let before = on.made(trail, BEFORE, income - hardship, &[(INCOME, income), (HARDSHIP, hardship)], &[]);
    let taxed = Taxed { income: before, ..taxed };
    settle(on, trail, &people, Settled { taxed, added, ..settled })
}

/// Steps 2 and 3: the sum of income to total income.
fn total_income(on: On<'_>, trail: &mut impl Trail, people: &[Person], church_paid: Money) -> Money {
    let sum = by_kinds(on, trail, people);
    let relief = people.iter().map(|one| one.relief).sum();
    trail.line(RELIEF, on.scope, relief, |i| {
        for (&person, one) in on.people.iter().zip(people).filter(|(_, one)| !one.relief.is_zero()) {
            i.line(pensions::RELIEF, Scope::Person(person), one.relief);
        }
    });
    let alone = children::alone(on, trail);
    let farm = farm(on, trail, sum);
    let surplus = euros_down(settled::or_zero(-church_paid));
    on.made(
        trail,
        TOTAL,
        sum - relief - alone - farm + surplus,
        &[
            (SUM, sum),
            (RELIEF, relief),
            (children::ALONE, alone),
            (FARM, farm),
            (special::REFUND_SURPLUS, surplus),
        ],
        &[],
    )
}

/// The kinds of income of all who are assessed, and their sum.
fn by_kinds(on: On<'_>, trail: &mut impl Trail, people: &[Person]) -> Money {
    type Kind = (LineId, LineId, fn(&Person) -> Money);
    const KINDS: [Kind; 9] = [
        (WAGES, employment::INCOME, |one| one.wages.income),
        (FARMING, other_income::FARM, |one| one.results.farm),
        (TRADES, other_income::TRADE, |one| one.results.trade),
        (SELF_EMPLOYED, other_income::FREELANCE, |one| one.results.freelance),
        (CAPITAL, capital::IN_TARIFF, |one| one.in_tariff),
        (LETTING, other_income::RENTAL, |one| one.results.rental),
        (PENSIONS, pensions::INCOME, |one| one.pensions),
        (SERVICES, other_income::SERVICES, |one| one.results.services),
        (SALES, other_income::SALES, |one| one.results.sales),
    ];
    let all = KINDS.map(|(line, own, amount)| {
        let parts = on.people.iter().zip(people).map(|(&person, one)| (person, amount(one)));
        let sum = parts.clone().map(|(_, amount)| amount).sum();
        trail.line(line, on.scope, sum, |i| {
            for (person, amount) in parts.filter(|(_, amount)| !amount.is_zero()) {
                i.line(own, Scope::Person(person), amount);
            }
        });
        (line, sum)
    });
    on.add(trail, SUM, &all)
}

/// §13(3).
fn farm(on: On<'_>, trail: &mut impl Trail, sum: Money) -> Money {
    let figures = &on.facts.figures.farm;
    let farmed = euros_down(on.sum(&other_income::brings::FARM));
    let open = sum <= figures.to * on.times() && !farmed.is_zero();
    let relief = if open {
        limit::cap(trail, FARM_MOST.at(on.scope), settled::or_zero(farmed), figures.relief * on.times())
    } else {
        Money::ZERO
    };
    on.made(trail, FARM, relief, &[(SUM, sum)], &[("Up to a sum of", &(figures.to * on.times()))])
}

/// §46(3), (5): of who has wages, other income that is not of capital, less the relief of old age on it.
fn hardship(on: On<'_>, trail: &mut impl Trail, people: &[Person]) -> Money {
    let figures = &on.facts.figures.hardship;
    let employed = on.people.iter().any(|&person| on.own(person).has(&wage::brings::GROSS));
    let of = |one: &Person| one.results.all() + one.pensions - one.relief_of_other;
    let other = people.iter().map(of).sum::<Money>();
    let relief = if !employed || other <= Money::ZERO {
        Money::ZERO
    } else if other <= figures.free {
        other
    } else {
        settled::or_zero(figures.end - other)
    };
    on.made(trail, HARDSHIP, relief, &[], &[("Other income", &other)])
}

/// What the steps after income need.
#[derive(Clone, Copy)]
struct Settled<'a> {
    taxed: Taxed,
    /// Capital income of each person.
    nets: &'a [Money],
    /// Costs of care that count as services in the home.
    care: Money,
    /// Allowances of subsidised contracts that are added to the tax.
    added: Money,
}

/// The income tax of an assessment with what it is made of.
struct IncomeTax {
    tax: Money,
    taxable: Money,
    credits: credits::Credits,
    flats: Vec<Money>,
}

/// Steps 5 to 9: allowances, tariff, credits, surcharge, church tax, what was paid.
fn settle(on: On<'_>, trail: &mut impl Trail, people: &[Person], of: Settled<'_>) -> Money {
    let IncomeTax { tax: income_tax, taxable, credits: there, flats } = income_tax(on, trail, people, of);
    let before = of.taxed.income;
    let notional = euros_down(settled::or_zero(before - children::all_allowances(on)));
    let on_notional = tariff_of(on, of.taxed, notional);
    on.made(trail, charges::NOTIONAL, notional, &[(BEFORE, before)], &[]);
    let bases = Bases {
        notional,
        surcharge: on_notional - credits::used(there, on_notional, true) + of.added,
        church: on_notional - credits::used(there, on_notional, false) + of.added,
        flat: euros_down(flats.iter().copied().sum()),
    };
    let above_lumps: Vec<Option<Money>> = people.iter().map(|one| one.wages.above_lump).collect();
    beside::reckon(on, trail, &above_lumps, taxable, notional);
    let own: Vec<Money> = people.iter().map(|one| one.sum - one.relief).collect();
    let surcharge = charges::surcharge(on, trail, bases);
    let church = charges::church(on, trail, bases, &own, &flats);
    payments::reckon(on, trail, Assessed { income_tax, surcharge, church })
}

/// Tax by the tariff on an income, with what else is taxed by it.
fn tariff_of(on: On<'_>, taxed: Taxed, income: Money) -> Money {
    let of = Taxed { income: euros_down(settled::or_zero(income)), ..taxed };
    tariff::tax(&on.facts.figures.tariff, on.table(), of)
}

/// Steps 5 to 7: allowances of children, tariff, credits, and what is added.
fn income_tax(on: On<'_>, trail: &mut impl Trail, people: &[Person], of: Settled<'_>) -> IncomeTax {
    let Settled { taxed, nets, care, added } = of;
    let before = taxed.income;
    let [allowances, benefit] = children::compare(on, trail, taxed);
    let taxable = euros_down(settled::or_zero(before - allowances));
    on.made(trail, TAXABLE, taxable, &[(BEFORE, before), (children::ALLOWANCES, allowances)], &[]);
    let tariff_tax = tariff_of(on, taxed, taxable);
    let table = if on.table() == Table::Splitting { "splitting" } else { "basic" };
    on.made(
        trail,
        TARIFF,
        tariff_tax,
        &[(TAXABLE, taxable), (benefits::ALL, taxed.progression)],
        &[("Table", &table), ("Extraordinary", &taxed.extraordinary)],
    );
    let results = [people.iter().map(|one| one.results.trade).sum(), people.iter().map(positive).sum()];
    let there = credits::there_are(on, trail, results, [tariff_tax, taxable], care);
    let used = credits::reckon(on, trail, there, tariff_tax);
    let flats = flats(on, trail, nets);
    let flat = euros_down(flats.iter().copied().sum());
    trail.line(capital::FLAT, on.scope, flat, |i| {
        if capital::way(on) == CapitalWay::Flat {
            for (&person, net) in on.people.iter().zip(nets) {
                i.line(capital::NET, Scope::Person(person), *net);
            }
            i.items(on.items(&capital::brings::FOREIGN_TAX));
        }
    });
    let tax = on.made(
        trail,
        payments::INCOME_TAX,
        tariff_tax - used + flat + added + benefit,
        &[
            (TARIFF, tariff_tax),
            (credits::ALL, used),
            (capital::FLAT, flat),
            (riester::ADDED, added),
            (children::BENEFIT, benefit),
        ],
        &[],
    );
    IncomeTax { tax, taxable, credits: there, flats }
}

fn positive(one: &Person) -> Money {
    let all = [one.wages.income, one.results.positive(), one.pensions, one.in_tariff];
    all.into_iter().map(settled::or_zero).sum()
}

/// The flat tax on each person's capital income, where it is declared so.
fn flats(on: On<'_>, trail: &mut impl Trail, nets: &[Money]) -> Vec<Money> {
    if capital::way(on) != CapitalWay::Flat {
        return nets.iter().map(|_| Money::ZERO).collect();
    }
    capital::flats(on, trail, nets)
}

/// What follows from the result.
pub fn points(points: &mut Points<'_>) {
    losses::points(points, TOTAL);
    for place in 0..points.returns {
        if !points.amount(benefits::ALL, place).is_zero() && below_zero(points, place) {
            let words = "More extraordinary than taxable income, and income under the progression clause, is not computed.";
            points.raise(&FIFTHS_BELOW_ZERO, Place::household("answers"), words);
        }
        let due = points.amount(payments::BALANCE, place) > Money::ZERO;
        if due && !season::has_duty(points) {
            points.raise(
                &WITHDRAWN,
                Place::household("answers"),
                "Nobody must file, and something is to pay.",
            );
        }
    }
    for &person in &points.facts.filers {
        if points.trail.amount(capital::NET, Scope::Person(person)).is_some_and(Money::is_negative) {
            let who = &points.facts.people[person];
            let words = format!("A loss of {} from capital.", who.name);
            points.raise(&CAPITAL_LOSS, Place::person(&who.id, "answers"), words);
        }
    }
}

/// Whether less is left of an assessment's taxable income without what is extraordinary of its people than nothing.
fn below_zero(points: &Points<'_>, place: usize) -> bool {
    let filers = &points.facts.filers;
    let people = if points.returns > 1 { &filers[place..=place] } else { filers.as_slice() };
    let of = |&person: &usize| {
        points.trail.amount(employment::EXTRAORDINARY, Scope::Person(person)).unwrap_or_default()
    };
    let extraordinary: Money = people.iter().map(of).sum();
    extraordinary > points.amount(TAXABLE, place)
}
