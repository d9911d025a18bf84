//! Distributions of education plans (§§529(c)(3), 530(d)), Form 1099-Q: earnings are income in the part that education expenses do not
//! cover, and bear an additional tax.

use crate::{bringing::Bringing, facts::Facts, other_income, points::Points, unit::On};
use hembo_core::{
    Paper,
    field::{Field, Years},
    line::LineId,
    lines, open_points,
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
    papers: &[DISTRIBUTION],
    points: POINTS,
    figures: &["education_plans"],
    ..Provision::NONE
};

lines! {
    MORE = "us.5329.7", "Education plans, taxed more", "IRC §§529(c)(6), 530(d)(4)",
        "Earnings that are income, less what a scholarship or a credit spares.";
    pub TAX_OF = "us.5329.8", "Additional tax on education plans", "IRC §530(d)(4)",
        "A part of them.";
}

open_points! {
    EXPENSES = look "K-086", "IRC §529(c)(3)(B)",
        "Without expenses all earnings are income: enter what was spent, less aid and what a credit uses.";
    TWICE = not_weighed "C-85", "IRC §§25A(g)(2), 529(c)(3)(B)(v)",
        "What a credit uses is no expense here: a credit on the first 4,000 is mostly worth more. Another division is not weighed here.";
    BOXES = blocks "1099-Q-boxes", "Form 1099-Q",
        "Box 1 is box 2 with box 3: correct them.";
    SPARED = blocks "1099-Q-spared", "IRC §530(d)(4)(B)",
        "No more is spared than is income: correct the amount.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Earnings that are income and bear the additional tax.
    pub static TAXED_MORE: Brought = Brought::new();
}

const DISTRIBUTION: PaperKind = PaperKind {
    id: "1099-Q",
    subject: subject::CREDITS,
    name: "Distribution of an education plan",
    words: "529 college savings coverdell qualified tuition plan withdrawal 1099-q",
    title: "Payer",
    shared: false,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Gross distribution").help("Of who is named: the student, where it went to school or student."),
        Field::amount("2", "2", "Earnings"),
        Field::amount("3", "3", "Basis"),
        Field::yes_no("rolled", "4", "Moved to another plan").help("Trustee to trustee, or within 60 days."),
        Field::amount("expenses", "", "Education expenses for it")
            .help("Tuition, fees, books, a computer, room and board, K-12 tuition; less aid and what a credit uses."),
        Field::amount("spared", "", "Spared the additional tax")
            .help("Earnings that are income only for a scholarship or a credit; death, disability."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Earnings that are income: the part that expenses do not cover, rounded once.
fn taxed(paper: &Paper) -> Money {
    if paper.flag("rolled") {
        return Money::ZERO;
    }
    let (gross, earnings) = (paper.amount("1"), paper.amount("2"));
    let covered = settled::lesser(paper.amount("expenses"), gross);
    earnings - earnings.in_proportion(covered, gross, Money::CENT, Rounding::HalfUp)
}

/// Gives the income to who is named.
pub fn read(paper: &mut Bringing<'_>) {
    let taxed = taxed(paper.paper.paper);
    if taxed.is_zero() {
        return;
    }
    paper.earns();
    paper.put_as("2", None, taxed, &other_income::brings::OTHER, other_income::Sorted::other);
    paper.put("2", None, settled::or_zero(taxed - paper.paper.paper.amount("spared")), &brings::TAXED_MORE);
}

/// What of a person's distributions is taxed more.
pub fn taxed_more(facts: &Facts, person: usize) -> Money {
    sum(facts.people[person].own.of(&brings::TAXED_MORE)).to_whole()
}

/// The additional tax of a person, with its line.
pub fn tax_of(facts: &Facts, trail: &mut impl Trail, person: usize) -> (LineId, Money) {
    let own = facts.people[person].own.of(&brings::TAXED_MORE);
    if own.is_empty() {
        return (TAX_OF, Money::ZERO);
    }
    let scope = Scope::Person(person);
    let more = trail.line(MORE, scope, sum(own).to_whole(), |i| {
        i.items(own);
    });
    let rate = facts.figures.education_plans.rate;
    let tax = trail.line(TAX_OF, scope, more.times(rate, Money::WHOLE, Rounding::HalfUp), |i| {
        i.line(MORE, scope, more).figure("Rate", rate);
    });
    (TAX_OF, tax)
}

/// Whether a return has such a tax.
pub fn any(on: On<'_>) -> bool {
    on.items(&brings::TAXED_MORE).next().is_some()
}

/// What was spent, and what agrees.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(DISTRIBUTION.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let amount = |field: &str| paper.amount(field);
        if paper.boxes.contains_key("3") && amount("1") != amount("2") + amount("3") {
            points.raise(&BOXES, at("1"), "The boxes do not add up.");
        }
        if amount("2") > amount("1") {
            points.raise(&BOXES, at("2"), "More earnings than were distributed.");
        }
        if amount("spared") > taxed(paper) {
            points.raise(&SPARED, at("spared"), "More is spared than is income.");
        }
        if paper.flag("rolled") || amount("2").is_zero() {
            continue;
        }
        if !paper.boxes.contains_key("expenses") {
            points.raise(
                &EXPENSES,
                at("expenses"),
                "No education expenses are entered for this distribution.",
            );
        } else if points.papers("1098-T").next().is_some() {
            points.raise(
                &TWICE,
                at("expenses"),
                "Tuition for a credit, and a distribution of an education plan.",
            );
        }
    }
}
