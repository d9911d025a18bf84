//! Gifts to approved donees (ITA LD 1 to LD 3; form IR526): a third comes back beside the assessment, up to taxable income; either partner
//! may claim.

use crate::{
    bringing::Bringing,
    facts::Facts,
    income,
    plan::{Filed, On},
    points::Points,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Decision, More},
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Donations",
    lines: LINES,
    limits: LIMITS,
    papers: &[RECEIPTS],
    points: POINTS,
    figures: &["donations"],
    ..Provision::NONE
};

lines! {
    GIFTS = "nz.donations", "Gifts", "ITA LD 3",
        "Every gift of five dollars or more.";
    HANDED = "nz.donations.handed", "Gifts handed to the partner", "ITA LD 1(2)",
        "What the partner claims of the own receipts.";
    CLAIMED = "nz.donations_claimed", "Gifts claimed", "ITA LD 1, LD 2",
        "Own gifts and those of the partner, up to taxable income.";
    pub CREDIT = "nz.donation_credit", "Donation credit", "ITA LD 1; form IR526",
        "A third of the gifts claimed, refunded beside the assessment.";
}

limits! {
    INCOME = "nz.limit.donations" on CLAIMED, "Gifts", "over taxable income", "ITA LD 2";
}

open_points! {
    SMALL = blocks "C43", "ITA LD 3(1)", "Take the line out: smaller gifts do not count.";
    ABOVE = look "C45", "ITA LD 2", "Gifts above taxable income are lost: the partner may claim them.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Gifts that count.
    pub static GIFTS: Brought = Brought::new();
}

const RECEIPTS: PaperKind = PaperKind {
    id: "Donations",
    subject: subject::CREDITS,
    name: "Donation receipts",
    words: "gift charity school donee ir526",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::text("donee", "", "Donee", 80).payer_name(),
        Field::text("number", "", "Donee's number", 20).payer_number(),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives every gift that counts to who gave it.
pub fn read(paper: &mut Bringing<'_>) {
    let rows: Vec<_> = paper.paper.lines("amount").collect();
    for (row, _, amount) in rows {
        if amount >= paper.facts.figures.donations.least {
            paper.put("amount", Some(row), amount, &brings::GIFTS);
        }
    }
}

/// What goes from a person to the partner in a way.
fn handed(on: On<'_>, person: usize) -> Money {
    on.plan.handed.iter().find(|(of, _)| *of == person).map_or(Money::ZERO, |(_, amount)| *amount)
}

/// The credit of a return.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, taxable: Money) -> Money {
    let gifts = on.gather(trail, GIFTS, on.own().of(&brings::GIFTS));
    let given = handed(on, on.person);
    let partner = on.facts.partner(on.person);
    let received = partner.map_or(Money::ZERO, |partner| handed(on, partner));
    if gifts.is_zero() && received.is_zero() {
        return Money::ZERO;
    }
    on.made(trail, HANDED, given, &[(GIFTS, gifts)], &[]);
    let pool = gifts - given + received;
    let claimed = limit::cap(trail, INCOME.at(on.scope), pool, taxable);
    trail.line(CLAIMED, on.scope, claimed, |i| {
        i.line(GIFTS, on.scope, gifts).line(HANDED, on.scope, given);
        if let Some(partner) = partner.filter(|_| !received.is_zero()) {
            i.flow(HANDED, On::of(on.facts, on.plan, partner).scope, received);
        }
        i.line(income::TAXABLE, on.scope, taxable);
    });
    let figures = &on.facts.figures.donations;
    let (one, whole) = (Money::whole(1), Money::whole(figures.one_in));
    let credit = claimed.in_proportion(one, whole, Money::CENT, Rounding::HalfUp);
    on.made(trail, CREDIT, credit, &[(CLAIMED, claimed)], &[("One in", &figures.one_in)])
}

/// How much of a person's gifts the partner claims, by the giver's place: only where they may exceed the own taxable income, as
/// below that who claims them makes no difference.
pub static HANDED_TO_PARTNER: Open<Facts> = Open::new(
    |facts| {
        let may = |&p: &usize| {
            let gifts = sum(facts.people[p].own.of(&brings::GIFTS));
            facts.partner(p).is_some() && gifts > income::lowest_taxable(facts, p)
        };
        facts.filers.iter().copied().filter(may).collect()
    },
    |facts, person| {
        let most = sum(facts.people[person].own.of(&brings::GIFTS));
        let name = facts.first_name(person);
        let amount = Amount {
            most,
            short: format!("gifts of {name} by the partner"),
            more: More::MayCost,
            steepest: Rate::percent(35),
        };
        let id = format!("nz.gifts.{}", facts.people[person].id);
        Decision::amount(id, format!("Gifts of {name} that the partner claims"), "ITA LD 1(2), LD 2", amount)
    },
);

/// What is handed over in a way, by giver.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<(usize, Money)> {
    let of = |&person: &usize| Some((person, way.amount(&HANDED_TO_PARTNER, person)?));
    facts.filers.iter().filter_map(of).collect()
}

/// Form IR526: where anything is claimed.
pub fn form_ir526(filed: Filed<'_>) -> Required {
    filed.when(CLAIMED, "no gifts claimed")
}

/// Gifts that do not count or are lost.
pub fn points(points: &mut Points<'_>) {
    let least = points.facts.figures.donations.least;
    for paper in points.papers(RECEIPTS.id) {
        for cells in &paper.rows {
            let amount = cells.get("amount").and_then(Entry::money).unwrap_or_default();
            if !amount.is_zero() && amount < least {
                let place = Place::row(&paper.id, cells, "amount");
                points.raise(&SMALL, place, format!("A gift of less than {least:#} does not count."));
            }
        }
    }
    for (place, person) in points.returns() {
        let left = points.amount(GIFTS, place) - points.amount(HANDED, place);
        let lost = settled::or_zero(left - points.amount(income::TAXABLE, place));
        if !lost.is_zero() {
            let message = format!("{}: gifts of {lost:#} are above taxable income.", points.name(person));
            points.raise(&ABOVE, points.at(person, "name"), message);
        }
    }
}
