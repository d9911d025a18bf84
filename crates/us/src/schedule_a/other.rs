//! Other itemized deductions, Schedule A line 16: gambling losses up to winnings (§165(d)), and what else the law leaves
//! deductible without a floor (§67(b)).

use crate::{bringing::Bringing, educators, other_income, points::Points, repayments, states, unit::On};
use hembo_core::{
    brought::Records,
    field::{Choice, Field, Years},
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[DEDUCTIONS],
    points: POINTS,
    figures: &["gambling"],
    ..Provision::NONE
};

lines! {
    GAMBLING = "us.sched_a.16.gambling", "Gambling losses", "IRC §165(d)",
        "The part of losses that counts, up to the winnings.";
    REST = "us.sched_a.16.rest", "Other deductions", "IRC §67(b)",
        "Impairment-related work expenses, estate tax on income of a decedent, unrecovered cost of an annuity.";
    EDUCATORS = "us.sched_a.16.educators", "Educator expenses itemized", "IRC §67(g)",
        "From 2026 what is above the amount of Schedule 1, line 11.";
    pub L16 = "us.sched_a.16", "Other itemized deductions", "IRC §§67(b), 165(d)",
        "Gambling losses and what else is deductible.";
}

limits! {
    WINNINGS = "us.limit.gambling" on GAMBLING, "Gambling losses", "over the winnings",
        "IRC §165(d)";
}

open_points! {
    SORT = blocks "schedule-a-16", "Schedule A, line 16",
        "Choose what it is: gambling losses go only up to winnings.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Gambling losses.
    pub static GAMBLING: Brought = Brought::new();

    /// The rest of line 16.
    pub static REST: Brought = Brought::new();
}

const SORTS: &[Choice] = &[
    Choice::new("gambling", "Gambling loss"),
    Choice::new("impairment", "Impairment-related work expense"),
    Choice::new("estate_tax", "Estate tax on income of a decedent"),
    Choice::new("annuity", "Unrecovered cost of an annuity"),
    Choice::new("bond_premium", "Bond premium above the interest"),
];

const DEDUCTIONS: PaperKind = PaperKind {
    id: "Other deductions",
    subject: subject::DEDUCTIONS,
    name: "Other itemized deductions",
    words: "gambling losses casino impairment estate tax decedent",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[states::SEPARATE],
    columns: &[
        Field::date("date", "", "On"),
        Field::text("what", "", "What", 80),
        Field::choice("sort", "", "Sort", SORTS),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives each line to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    for (r, row, amount) in paper.paper.lines("amount") {
        match row.get("sort").and_then(Entry::text) {
            Some("gambling") => paper.put("amount", Some(r), amount, &brings::GAMBLING),
            Some(_) => paper.put("amount", Some(r), amount, &brings::REST),
            None => {}
        }
    }
}

/// Whether papers bring anything to line 16.
pub fn anything(own: &Records) -> bool {
    own.has(&brings::GAMBLING) || own.has(&brings::REST)
}

/// Gambling losses, in the part that counts, and winnings.
fn lost_and_won(on: On<'_>) -> [Money; 2] {
    let part = on.facts.figures.gambling.part;
    let lost = sum(on.items(&brings::GAMBLING)).times(part, Money::WHOLE, Rounding::HalfUp);
    [lost, sum(on.items(&other_income::brings::WINNINGS)).to_whole()]
}

/// Of line 16 gambling losses, up to the winnings but for some.
pub fn gambling(on: On<'_>, but: Money) -> Money {
    let [lost, won] = lost_and_won(on);
    settled::lesser(lost, settled::or_zero(won - but))
}

/// Line 16.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let taught = educators::rest(on);
    let repaid = repayments::deducted(on, trail);
    if (taught + repaid).is_zero() && !on.owns().any(|(_, own)| anything(own)) {
        return trail.line(L16, on.scope, Money::ZERO, |_| {});
    }
    let part = on.facts.figures.gambling.part;
    let [lost, won] = lost_and_won(on);
    let gambling = limit::cap(trail, WINNINGS.at(on.scope), lost, won);
    trail.line(GAMBLING, on.scope, gambling, |i| {
        i.items(on.items(&brings::GAMBLING)).figure("Part", part).figure("Winnings", won);
    });
    let rest = on.gather(trail, REST, &brings::REST);
    for (person, own) in on.owns().filter(|(_, own)| anything(own) && on.unit.people.len() > 1) {
        let brought = sum(own.of(&brings::GAMBLING)) + sum(own.of(&brings::REST));
        trail.line(L16, Scope::Person(person), brought, |i| {
            i.items(own.of(&brings::GAMBLING)).items(own.of(&brings::REST));
        });
    }
    if !taught.is_zero() {
        trail.line(EDUCATORS, on.scope, taught, |i| {
            i.items(on.items(&educators::brings::EXPENSES));
        });
    }
    trail.line(L16, on.scope, gambling + rest + taught + repaid, |i| {
        i.line(GAMBLING, on.scope, gambling).line(REST, on.scope, rest);
        if !taught.is_zero() {
            i.line(EDUCATORS, on.scope, taught);
        }
        if !repaid.is_zero() {
            i.line(repayments::DEDUCTED, on.scope, repaid);
        }
    })
}

/// Lines without a sort.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(DEDUCTIONS.id) {
        for row in paper.rows.iter().filter(|row| !row.contains_key("sort")) {
            points.raise(&SORT, Place::row(&paper.id, row, "sort"), "What is this deduction?");
        }
    }
}
