//! What comes off the tariff tax (§§32d(6), 34g, 35, 35a, 35c EStG), in the order of §35(1) S.4: none is paid out or carried.

use crate::{
    bringing::{Bringing, money},
    burdens, capital,
    facts::Facts,
    foreign_tax, other_income,
    plan::{CapitalWay, On},
    points::Points,
    rounding::{euros_up, half_up, part_up},
    special,
};
use hembo_core::{
    Decision,
    brought::Brought,
    choice::{Chosen, Open},
    decision::Opt,
    field::{Choice, Field, Years},
    household::{Answers, Entry, Row},
    limit, limits,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Credits",
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    papers: &[INVOICES],
    figures: &["credits", "special"],
    ..Provision::NONE
};

lines! {
    FOREIGN = "de.foreign_credit", "Foreign tax", "§§32d(6) S.2, 34c(1)",
        "On capital income by the tariff and on other income country by country, before all others.";
    TRADE = "de.c35", "Trade tax (Gewerbesteuer)", "§35", "Four times its base, at most what was paid and what the trade bears of the tax.";
    PARTY = "de.party_credit_used", "Gifts to parties", "§34g", "A half, up to a most.";
    MINIJOB = "de.c35a_minijob_used", "Small job in the home (Minijob)", "§35a(1)", "A part, up to a most.";
    pub SERVICES = "de.c35a_services_used", "Services in the home", "§35a(2)", "A part, up to a most.";
    pub CRAFTS = "de.c35a_craft_used", "Craftsmen (Handwerker)", "§35a(3)", "A part of labour, up to a most.";
    pub ENERGY = "de.c35c_used", "Energy renovation", "§35c", "A part by the year of three, up to a most.";
    pub ALL = "de.credits", "Credits used", "§§34g, 35, 35a, 35c", "As much as the tariff tax takes.";
}

limits! {
    MINIJOB_MOST = "de.limit.minijob" on MINIJOB, "Small job in the home", "over the most of a year", "§35a(1)";
    SERVICES_MOST = "de.limit.services" on SERVICES, "Services in the home", "over the most of a year", "§35a(2)";
    CRAFTS_MOST = "de.limit.crafts" on CRAFTS, "Craftsmen", "over the most of a year", "§35a(3)";
    PARTY_MOST = "de.limit.party" on PARTY, "Gifts to parties", "over the most that is credited", "§34g";
    ENERGY_MOST = "de.limit.energy" on ENERGY, "Energy renovation", "over the most of a year", "§35c(1)";
    TRADE_MOST = "de.limit.trade" on TRADE, "Trade tax", "over what was paid, or what the trade bears of the tax", "§35(1)";
    UNUSED = "de.limit.credits" on ALL, "Credits", "over the tariff tax, lost", "§2(6)";
}

open_points! {
    NOT_TRANSFERRED = look "DE-C31", "§35a(5) S.3", "Only labour counts, against an invoice, paid to an account: enter the day.";
    USED_TWICE = blocks "DE-C30", "§35a(5)", "The same euro counts once: take one of the lines away.";
    LOST = look "DE-C72", "§2(6)", "What the tariff tax does not take is lost: where it may wait, let it.";
}

/// What its papers bring.
pub mod brings {
    use super::Either;
    use hembo_core::brought::Brought;

    /// Small jobs in the home.
    pub static MINIJOB: Brought = Brought::new();
    /// Services.
    pub static SERVICES: Brought = Brought::new();
    /// Labour of craftsmen.
    pub static CRAFTS: Brought = Brought::new();
    /// Energy renovation, first year.
    pub static ENERGY_1: Brought = Brought::new();
    /// Second year.
    pub static ENERGY_2: Brought = Brought::new();
    /// Third year.
    pub static ENERGY_3: Brought = Brought::new();
    /// Work of craftsmen or energy renovation.
    pub static EITHER: Brought<Either> = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("services", "Services in the home"),
    Choice::new("crafts", "Craftsmen, labour"),
    Choice::new("minijob", "Small job in the home"),
    Choice::new("either", "Craftsmen, or energy renovation in its first year"),
    Choice::new("energy_1", "Energy renovation, first year"),
    Choice::new("energy_2", "Energy renovation, second year"),
    Choice::new("energy_3", "Energy renovation, third year"),
];

/// Invoices of services in the home.
pub const INVOICES: PaperKind = PaperKind {
    id: "Household",
    subject: subject::CREDITS,
    name: "Services and craftsmen in the home, §35a, §35c",
    words: "craftsmen cleaner handwerker haushalt energy renovation",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::choice("kind", "", "Kind", KINDS),
        Field::date("date", "", "Transferred on"),
        Field::text("what", "", "Who", 80),
        Field::amount("amount", "", "Labour, or all costs of a renovation"),
        Field::amount("labour", "", "Of it labour, where it may be either"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives invoices to who paid them.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_lines(&[
        ("crafts", &brings::CRAFTS),
        ("minijob", &brings::MINIJOB),
        ("energy_1", &brings::ENERGY_1),
        ("energy_2", &brings::ENERGY_2),
        ("energy_3", &brings::ENERGY_3),
        ("services", &brings::SERVICES),
    ]);
    let is_either = |cells: &Answers| cells.get("kind").and_then(Entry::text) == Some("either");
    let rows = paper.paper.paper.rows.iter().enumerate().filter(|(_, cells)| is_either(cells));
    let rows: Vec<_> =
        rows.map(|(row, cells)| (row, money(cells, "labour"), money(cells, "amount"))).collect();
    for (row, labour, all) in rows {
        let item = |column, amount| paper.paper.item(column, Some(row), amount);
        let either = Either { labour: item("labour", labour), all: item("amount", all) };
        for person in paper.owners() {
            paper.facts.people[person].own.add(&brings::EITHER, either);
        }
    }
}

/// Work that may be claimed as that of craftsmen or as energy renovation (§35c(3) S.2): never as both.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Either {
    pub labour: Item,
    pub all: Item,
}

/// All such work of the filers, in their order, with whose it is.
fn eithers(facts: &Facts) -> impl Iterator<Item = (usize, &Either)> {
    let of =
        |&person: &usize| facts.people[person].own.of(&brings::EITHER).iter().map(move |one| (person, one));
    facts.filers.iter().flat_map(of)
}

/// As what each of them is claimed.
pub static AS_ENERGY: Open<Facts> = Open::new(
    |facts| (0..eithers(facts).count()).collect(),
    |facts, at| {
        let (person, _) = eithers(facts).nth(at).unwrap_or_else(|| unreachable!("of the same facts"));
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("crafts", "Work of craftsmen", ""),
            Opt::new("energy", "Energy renovation", format!("work {} as renovation", at + 1)),
        ];
        let label = format!("Work {} at the home of {name}", at + 1);
        Decision::between(format!("de.energy.{at}"), label, "§§35a(3), 35c(3)", options)
    },
);

/// Which of them are claimed as renovation in a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    (0..eithers(facts).count()).filter(|at| way.taken(&AS_ENERGY, *at) == Some(1)).collect()
}

/// What of such work is claimed in an assessment as that of craftsmen, and as renovation.
fn either(on: On<'_>) -> [Money; 2] {
    let mut sums = [Money::ZERO; 2];
    for (at, (person, one)) in eithers(on.facts).enumerate() {
        let energy = on.plan.energy.contains(&at);
        let amount = if energy { one.all.amount } else { one.labour.amount };
        let share = match on.people.contains(&person) {
            _ if on.halves() => half_up(amount),
            true => amount,
            false => Money::ZERO,
        };
        sums[usize::from(energy)] += euros_up(share);
    }
    sums
}

/// What there is of credits, before the tax that takes them.
#[derive(Debug, Clone, Copy, Default)]
pub struct Credits {
    /// §§32d(6) S.2, 34c.
    pub foreign: Money,
    /// §35.
    pub trade: Money,
    /// The others in their order: parties, small job, services, craftsmen, energy.
    pub others: [Money; 5],
}

/// What there is of credits of an assessment; `results` are trade and all positive income, `tax` the tariff tax on `taxable`
/// income, `care` costs of care that count as services.
pub fn there_are(
    on: On<'_>,
    trail: &mut impl Trail,
    results: [Money; 2],
    [tax, taxable]: [Money; 2],
    care: Money,
) -> Credits {
    let figures = &on.facts.figures.credits;
    let party_most = on.facts.figures.special.party_most * on.times();
    let party =
        limit::cap(trail, PARTY_MOST.at(on.scope), on.shared_up(&special::brings::PARTIES), party_most);
    let part = |kind: &'static Brought, rate: Rate| part_up(on.shared_up(kind), rate);
    let minijob = part(&brings::MINIJOB, figures.minijob_rate);
    let minijob =
        limit::cap(trail, MINIJOB_MOST.at(on.scope), minijob, most_of_home(on, figures.minijob_most));
    let services = part_up(on.shared_up(&brings::SERVICES) + care, figures.services_rate);
    let services =
        limit::cap(trail, SERVICES_MOST.at(on.scope), services, most_of_home(on, figures.services_most));
    let [labour, renovation] = either(on);
    let crafts = part_up(on.shared_up(&brings::CRAFTS) + labour, figures.crafts_rate);
    let crafts = limit::cap(trail, CRAFTS_MOST.at(on.scope), crafts, most_of_home(on, figures.crafts_most));
    let years: [&'static Brought; 3] = [&brings::ENERGY_1, &brings::ENERGY_2, &brings::ENERGY_3];
    let energy = years.into_iter().enumerate().map(|(at, kind)| {
        let more = if at == 0 { renovation } else { Money::ZERO };
        let part = part_up(on.shared_up(kind) + more, figures.energy_rates[at]);
        limit::cap(trail, ENERGY_MOST.at(on.scope), part, figures.energy_most[at])
    });
    let energy = energy.sum();
    let by_tariff = capital::way(on) == CapitalWay::Tariff;
    let of_capital = if by_tariff { on.sum(&capital::brings::FOREIGN_TAX) } else { Money::ZERO };
    let foreign = euros_up(of_capital + foreign_tax::credit(on, trail, tax, taxable));
    Credits {
        foreign,
        trade: trade(on, trail, results, tax),
        others: [part_up(party, figures.party_rate), minijob, services, crafts, energy],
    }
}

/// The most stands once for the home: a half of it where spouses are assessed apart (§35a(5) S.4).
fn most_of_home(on: On<'_>, most: Money) -> Money {
    if on.plan.alone && on.facts.couple() { half_up(most) } else { most }
}

/// §35: four times the base, at most the trade tax paid, and the part of the tax that the trade bears.
fn trade(on: On<'_>, trail: &mut impl Trail, [trade, positive]: [Money; 2], tax: Money) -> Money {
    let base = on.sum(&other_income::brings::TRADE_BASE) * on.facts.figures.credits.trade_factor;
    if positive <= Money::ZERO || trade <= Money::ZERO {
        return Money::ZERO;
    }
    let borne = tax.in_proportion(trade, positive, Money::WHOLE, Rounding::Up);
    let paid = on.sum(&other_income::brings::TRADE_TAX);
    let most = limit::lesser(trail, paid, borne);
    euros_up(limit::cap(trail, TRADE_MOST.at(on.scope), base, most))
}

/// What a tax takes of credits.
pub fn used(credits: Credits, tax: Money, with_trade: bool) -> Money {
    let all =
        credits.others.iter().copied().sum::<Money>() + if with_trade { credits.trade } else { Money::ZERO };
    settled::lesser(credits.foreign + all, tax)
}

/// The credits of an assessment one after the other, as far as the tax takes them.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, credits: Credits, tax: Money) -> Money {
    let [party, minijob, services, crafts, energy] = credits.others;
    let order: [(LineId, Money, Vec<&'static Brought>); 7] = [
        (FOREIGN, credits.foreign, vec![&capital::brings::FOREIGN_TAX]),
        (TRADE, credits.trade, vec![&other_income::brings::TRADE_BASE]),
        (PARTY, party, vec![&special::brings::PARTIES]),
        (MINIJOB, minijob, vec![&brings::MINIJOB]),
        (SERVICES, services, vec![&brings::SERVICES, &burdens::brings::CARE_AT_HOME]),
        (CRAFTS, crafts, vec![&brings::CRAFTS]),
        (ENERGY, energy, vec![&brings::ENERGY_1, &brings::ENERGY_2, &brings::ENERGY_3]),
    ];
    let mut left = tax;
    let mut lines = Vec::new();
    let there = order.iter().map(|(_, amount, _)| *amount).sum();
    for (line, amount, kinds) in order {
        let taken = settled::lesser(amount, left);
        left -= taken;
        let abroad = foreign_tax::credited(on).map(|country| &country.tax).filter(|_| line == FOREIGN);
        let work = eithers(on.facts).enumerate().filter_map(|(at, (_, one))| match line {
            CRAFTS if !on.plan.energy.contains(&at) => Some(&one.labour),
            ENERGY if on.plan.energy.contains(&at) => Some(&one.all),
            _ => None,
        });
        let items: Vec<_> = kinds.iter().flat_map(|kind| on.items(kind)).chain(abroad).chain(work).collect();
        lines.push((
            line,
            trail.line(line, on.scope, taken, |i| _ = i.items(items).figure("There is", amount)),
        ));
    }
    limit::cap(trail, UNUSED.at(on.scope), there, tax);
    on.add(trail, ALL, &lines)
}

/// What is missing of invoices, and what the tax does not take of credits.
pub fn points(points: &mut Points<'_>) {
    used_twice(points);
    for paper in points.papers(INVOICES.id) {
        for row in paper.rows.iter().filter(|row| !row.contains_key("date")) {
            points.raise(&NOT_TRANSFERRED, Place::row(&paper.id, row, "date"), "Transferred on which day?");
        }
        let lost =
            points.trail.limits.iter().any(|(at, of)| at.def.id == UNUSED.id && of.entered > of.allowed);
        if lost {
            points.raise(&LOST, Place::paper(&paper.id, "rows"), "The tax does not take all credits.");
        }
    }
}

/// A bill among burdens that stands among the services in the home, too.
fn used_twice(points: &mut Points<'_>) {
    let told = |row: &Row| {
        let what = row.get("what").and_then(Entry::text)?;
        Some((what.to_lowercase(), row.get("amount").and_then(Entry::money)?))
    };
    let home: Vec<_> = points.papers(INVOICES.id).flat_map(|paper| &paper.rows).filter_map(told).collect();
    for paper in points.papers(burdens::COSTS.id) {
        for row in paper.rows.iter().filter(|row| told(row).is_some_and(|bill| home.contains(&bill))) {
            let words = "The same bill stands among the services in the home.";
            points.raise(&USED_TWICE, Place::row(&paper.id, row, "amount"), words);
        }
    }
}
