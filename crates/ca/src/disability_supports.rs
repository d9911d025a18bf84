//! Disability supports (ITA 64; form T929): line 21500, what lets someone with an impairment work or study.

use crate::{bringing::Bringing, facts::Facts, plan::On, points::Points};
use hembo_core::{
    field::{Field, Years},
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[PAID],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["disability_supports"],
    ..Provision::NONE
};

lines! {
    pub DEDUCTED = "ca.21500", "Disability supports", "ITA 64; form T929",
        "What was paid, at most what was earned and, of a student, a part of other income.";
}

limits! {
    EARNED = "ca.limit.supports" on DEDUCTED, "Disability supports", "over earned income and what studies add, lost",
        "ITA 64(1)(b)";
}

open_points! {
    EITHER = not_weighed "supports-or-medical", "ITA 64(1), 118.2(2)",
        "Some of it could be claimed as medical expenses in its place: reckon it also with the receipts there.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Disability supports.
    pub static PAID: Brought = Brought::new();

    /// Weeks at a school.
    pub static WEEKS: Brought<i64> = Brought::new();
}

const PAID: PaperKind = PaperKind {
    id: "Disability supports",
    subject: subject::ADJUSTMENTS,
    name: "Disability supports",
    words: "t929 impairment attendant sign language note-taker braille work study",
    title: "About",
    shared: false,
    headline: "paid",
    boxes: &[
        Field::amount("paid", "21500", "Paid for supports")
            .help("Of the person with the impairment, not paid back and not among the medical receipts."),
        Field::count("weeks", "", "Weeks at a school", 53)
            .help("At a secondary school or in studies of three weeks or more."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_all(&[("paid", &brings::PAID)]);
    let weeks = paper.count("weeks");
    for (person, _) in paper.paper.shares(Money::ZERO) {
        paper.facts.people[person].own.add(&brings::WEEKS, weeks);
    }
}

fn weeks(facts: &Facts, person: usize) -> i64 {
    facts.people[person].own.of(&brings::WEEKS).iter().sum()
}

/// Whether someone paid for supports to study: then what other income is left limits them.
pub fn of_studies(facts: &Facts, person: usize) -> bool {
    facts.people[person].own.has(&brings::PAID) && weeks(facts, person) > 0
}

/// Line 21500. `earned` is earned income, `others` what income without this deduction is above it.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, earned: Money, others: Money) -> Money {
    let paid = on.own().of(&brings::PAID);
    if paid.is_empty() {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.disability_supports;
    let weeks = weeks(on.facts, on.person);
    let of_weeks = limit::lesser(trail, figures.week * weeks, figures.most);
    let of_others = limit::or_zero(trail, others);
    let studies = limit::lesser(trail, of_weeks, of_others);
    let allowed = limit::cap(trail, EARNED.at(on.scope), sum(paid), earned + studies);
    trail.line(DEDUCTED, on.scope, allowed, |i| {
        i.items(paid).figure("Earned income", earned).figure("For studies", studies);
    })
}

/// What could stand elsewhere.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PAID.id).filter(|paper| !paper.amount("paid").is_zero()) {
        let place = Place::paper(&paper.id, "paid");
        points.raise(&EITHER, place, "Could it be among the medical expenses?");
    }
}
