//! Income under the progression clause (§32b EStG): benefits in place of pay, wages and income that a treaty leaves to another country.

use crate::{bringing::Bringing, people::ask, plan::On, points::Points, wage};
use hembo_core::{
    field::{Choice, Field, Years},
    household::Entry,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Progression clause",
    lines: LINES,
    points: POINTS,
    papers: &[RECEIVED],
    figures: &["hardship"],
    ..Provision::NONE
};

lines! {
    pub ALL = "de.progression", "Under the progression clause (Progressionsvorbehalt)", "§32b",
        "Benefits and exempt income, less what of the lump sum wages did not use.";
}

open_points! {
    DUTY = look "DE-C34", "§46(2) Nr.1", "A return is due: watch the deadline.";
    AMOUNT_ASKED = blocks "DE-C36", "§32b(3)", "Enter the amount of the certificate.";
    PROOF = look "DE-C52", "§50d(8)", "Without proof that the other country taxed them or waived it the wages are taxed here.";
    MONTHS_BEFORE = look "DE-C51", "§32b(1) S.1 Nr.2", "Is this all of the year's income before the arrival?";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Benefits.
    pub static BENEFITS: Brought = Brought::new();
    /// Wages from abroad that are exempt or of before the arrival.
    pub static WAGES: Brought = Brought::new();
    /// Other such income.
    pub static OTHER: Brought = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("benefit", "Parental, unemployment, sickness, maternity pay"),
    Choice::new("wages", "Wages from abroad, exempt or before the arrival"),
    Choice::new("other", "Other income from abroad, net"),
];

const RECEIVED: PaperKind = PaperKind {
    id: "Progression",
    subject: subject::OTHER_INCOME,
    name: "Benefits and exempt income, Progressionsvorbehalt",
    words: "elterngeld arbeitslosengeld krankengeld unemployment parental abroad",
    title: "From",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::choice("kind", "", "Kind", KINDS),
        Field::date("from", "", "From"),
        Field::date("to", "", "To"),
        Field::signed("amount", "", "Amount, repayments below zero"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives benefits to who received them.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_lines(&[("wages", &brings::WAGES), ("other", &brings::OTHER), ("benefit", &brings::BENEFITS)]);
}

/// What stands under the clause; `lumps` is what of each person's lump sum wages did not use.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, lumps: &[Money]) -> Money {
    let of = |(&person, &lump): (&usize, &Money)| {
        let own = on.own(person);
        let benefits = sum(own.of(&brings::BENEFITS)) + sum(own.of(&wage::brings::BENEFITS));
        let off = settled::lesser(lump, settled::or_zero(benefits));
        let wages = sum(own.of(&brings::WAGES)) + sum(own.of(&wage::brings::EXEMPT));
        let further = settled::lesser(lump - off, settled::or_zero(wages));
        benefits - off + wages - further + sum(own.of(&brings::OTHER))
    };
    let all = crate::rounding::euros_down(on.people.iter().zip(lumps).map(of).sum());
    let kinds =
        [&brings::BENEFITS, &wage::brings::BENEFITS, &brings::WAGES, &wage::brings::EXEMPT, &brings::OTHER];
    let items: Vec<_> = kinds.into_iter().flat_map(|kind| on.items(kind)).collect();
    trail.line(ALL, on.scope, all, |i| _ = i.items(items))
}

/// What is missing or follows from benefits and exempt income.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(RECEIVED.id) {
        for row in &paper.rows {
            let at = |field: &str| Place::row(&paper.id, row, field);
            if !row.contains_key("amount") {
                points.raise(&AMOUNT_ASKED, at("amount"), format!("{}: how much?", paper.title));
            } else if row.get("kind").and_then(Entry::text) == Some("wages") {
                abroad(points, &paper.owners[0].person, at("amount"));
            }
        }
    }
    let free = points.facts.figures.hardship.free;
    for &person in &points.facts.filers {
        let own = &points.facts.people[person].own;
        let benefits = sum(own.of(&brings::BENEFITS)) + sum(own.of(&wage::brings::BENEFITS));
        if benefits > free {
            let who = &points.facts.people[person];
            let words = format!("{} received {benefits:#} in place of wages.", who.name);
            points.raise(&DUTY, Place::person(&who.id, "answers"), words);
        }
    }
}

/// Wages from abroad: of before the arrival, or left to the other country.
fn abroad(points: &mut Points<'_>, person: &str, place: Place) {
    let who = points.household.index_of(person).map(|at| &points.household.people[at]);
    if who.is_some_and(|who| who.answers.contains_key(ask::ARRIVED)) {
        points.raise(&MONTHS_BEFORE, place, "Wages of before the arrival.");
    } else {
        points.raise(&PROOF, place, "Wages that a treaty leaves to another country.");
    }
}
