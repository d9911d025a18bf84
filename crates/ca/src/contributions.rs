//! Retirement contributions (ITA 146(5), (5.1); Schedule 7): line 20800, and what is kept for later years.

use crate::{
    bringing::Bringing,
    facts::{Facts, PersonFacts},
    papers::{
        t4::{self, T4},
        t4a::T4A,
    },
    plan::{Filed, On},
    points::Points,
    rounding::cents,
};
use hembo_core::{
    Paper, Scope, Silent, Trail,
    field::{Choice, Field, Years},
    forms::Required,
    household::{Answers, Entry},
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[RRSP],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["rrsp"],
    ..Provision::NONE
};

lines! {
    AVAILABLE = "ca.rrsp.available", "Contributions to deduct", "ITA 146(5), (5.1)",
        "Contributions of this year and its first 60 days after, and unused ones of earlier years, less repayments.";
    LIMIT = "ca.rrsp.limit", "Deduction limit", "ITA 146(1)",
        "From the last notice of assessment.";
    pub DEDUCTED = "ca.20800", "Retirement contributions deducted", "ITA 146(5), (5.1)",
        "As much of what is there as the way deducts now, within the deduction limit.";
    CARRIED = "ca.rrsp.carried", "Contributions kept for later", "ITA 146(5)",
        "What is not deducted now can be deducted in any later year.";
}

limits! {
    RRSP_LIMIT = "ca.limit.rrsp" on DEDUCTED, "Retirement contributions", "over the deduction limit, kept for later",
        "ITA 146(5)";
}

open_points! {
    OTHER_DAYS = look "C-41", "ITA 146(5)", "Check the day.";
    TWO_LIMITS = blocks "C-38", "ITA 146(1), (5)",
        "Leave it on one of them.";
    LIMIT_UNKNOWN = blocks "C-39", "ITA 146(1), (5)",
        "It stands on the last notice of assessment.";
    OVER_THE_LIMIT = look "C-40", "ITA 204.1(2.1), 204.2(1.1)",
        "Form T1-OVP, or take it out again.";
    TOO_LATE = blocks "C-42", "ITA 146(5), (5.1)",
        "Check the plan and the day.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Contributions of this year and its first 60 days after, and those of earlier years not deducted.
    pub static PAID: Brought = Brought::new();

    /// Contributions designated as repayments.
    pub static REPAID: Brought = Brought::new();

    /// The deduction limit of the assessment notice.
    pub static LIMIT: Brought = Brought::new();
}

/// What may be deducted of contributions: those of all years less what was designated as repayment.
fn available(who: &PersonFacts) -> Money {
    settled::or_zero(sum(who.own.of(&brings::PAID)) - sum(who.own.of(&brings::REPAID)))
}

/// The most that a person may deduct this year.
pub fn most(facts: &Facts, person: usize) -> Money {
    allowed(facts, person, &mut Silent, Scope::Person(person))
}

fn allowed(facts: &Facts, person: usize, trail: &mut impl Trail, scope: Scope) -> Money {
    let who = &facts.people[person];
    limit::cap(trail, RRSP_LIMIT.at(scope), available(who), sum(who.own.of(&brings::LIMIT)))
}

/// Line 20800: as much as the way deducts of what is there, within the deduction limit; the rest is carried.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let own = on.own();
    let available = available(on.who());
    trail.line(AVAILABLE, on.scope, available, |i| {
        i.items(own.of(&brings::PAID)).items(own.of(&brings::REPAID));
    });
    let most = allowed(on.facts, on.person, trail, on.scope);
    let wanted = on.plan.contributions[on.person].unwrap_or(Money::LARGEST);
    let deducted = limit::lesser(trail, wanted, most);
    let limit = on.gather(trail, LIMIT, own.of(&brings::LIMIT));
    on.made(trail, DEDUCTED, deducted, &[(AVAILABLE, available), (LIMIT, limit)], &[]);
    on.made(trail, CARRIED, available - deducted, &[(AVAILABLE, available), (DEDUCTED, deducted)], &[]);
    deducted
}

/// Schedule 7: where there are contributions, or repayments among them.
pub fn schedule_7(filed: Filed<'_>) -> Required {
    let own = filed.on.own();
    let any = own.has(&brings::PAID) || own.has(&brings::REPAID);
    Required::if_so(any, "no retirement contributions")
}

const PLANS: &[Choice] = &[Choice::new("own", "Own plan"), Choice::new("spouse", "Plan of the partner")];

const RRSP: PaperKind = PaperKind {
    id: "RRSP",
    subject: subject::ADJUSTMENTS,
    name: "Retirement contributions: RRSP, PRPP, SPP",
    words: "retirement savings pension contribution",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[
        Field::amount("limit", "", "Deduction limit").help("From the notice of assessment."),
        Field::amount("unused", "", "Unused contributions").help("Made in earlier years, not deducted."),
        Field::amount("repaid", "", "Designated as repayment")
            .help("To the Home Buyers' or Lifelong Learning Plan; not deductible."),
    ],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::text("what", "", "To whom", 80),
        Field::choice("plan", "", "Plan", PLANS),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_all(&[("limit", &brings::LIMIT), ("unused", &brings::PAID), ("repaid", &brings::REPAID)]);
    let figures = &paper.facts.figures.rrsp;
    let counted = figures.first_day.0..=figures.last_day.0;
    for (row, cells, amount) in paper.paper.lines("amount") {
        let date = cells.get("date").and_then(Entry::date);
        let counts = date.is_none_or(|date| counted.contains(&date));
        if counts && !too_old(paper, cells, date) {
            paper.put("amount", Some(row), amount, &brings::PAID);
        }
    }
}

/// Whether a contribution came after the year in which the annuitant reaches the last age (ITA 146(5), (5.1)).
fn too_old(paper: &Bringing<'_>, cells: &Answers, date: Option<time::Date>) -> bool {
    let owner = paper.paper.paper.owners.first().and_then(|o| paper.paper.household.index_of(&o.person));
    owner.is_some_and(|owner| paper.facts.contribution_too_late(owner, cells, date))
}

/// Contributions above the limit, too late, or on days that do not count.
pub fn points(points: &mut Points<'_>) {
    for person in (0..points.facts.people.len()).filter(|&p| points.facts.files(p)) {
        of_person(points, person);
    }
    for paper in points.papers(RRSP.id) {
        points.dates(paper, &OTHER_DAYS, "outside the days that count for this return", |facts, date| {
            let figures = &facts.figures.rrsp;
            (figures.first_day.0..=figures.last_day.0).contains(&date)
        });
    }
}

fn of_person(points: &mut Points<'_>, person: usize) {
    let who = &points.household.people[person];
    let (facts, figures) = (&points.facts.people[person], &points.facts.figures.rrsp);
    let (available, limit) = (available(facts), sum(facts.own.of(&brings::LIMIT)));
    let mine = |p: &&Paper| p.kind == RRSP.id && p.owners.iter().any(|o| o.person == who.id);
    let papers: Vec<_> = points.household.papers.iter().filter(mine).collect();
    let Some(paper) = papers.first() else { return };
    let place = Place::paper(&paper.id, "limit");
    if let Some(second) = papers.iter().filter(|p| p.boxes.contains_key("limit")).nth(1) {
        let message = format!("The deduction limit of {} stands on two papers and counts twice.", who.name);
        points.raise(&TWO_LIMITS, Place::paper(&second.id, "limit"), message);
    }
    if !available.is_zero() && !facts.own.has(&brings::LIMIT) {
        let message = format!("The deduction limit of {}?", who.name);
        points.raise(&LIMIT_UNKNOWN, place.clone(), message);
    } else if let Some(over) = over_the_limit(points, person, &papers, available, limit) {
        let message =
            format!("{over:#} over the limit and the {:#} free of tax: 1 % a month is due.", figures.cushion);
        points.raise(&OVER_THE_LIMIT, place, message);
    }
    for paper in papers {
        for cells in &paper.rows {
            let date = cells.get("date").and_then(Entry::date);
            if points.facts.contribution_too_late(person, cells, date) {
                let message = format!(
                    "Paid after the year of the {}th birthday: not deductible, left out.",
                    figures.last_age
                );
                points.raise(&TOO_LATE, Place::row(&paper.id, cells, "date"), message);
            }
        }
    }
}

/// What was contributed above the limit and the part free of tax (204.1, 204.2): until the end of the year, and
/// with the next year's first 60 days also above the room that this year's earnings make for it.
fn over_the_limit(
    points: &Points<'_>,
    person: usize,
    papers: &[&Paper],
    available: Money,
    limit: Money,
) -> Option<Money> {
    let (facts, figures) = (&points.facts.people[person], &points.facts.figures.rrsp);
    let later = |cells: &Answers| {
        cells.get("date").and_then(Entry::date).is_some_and(|date| date > points.facts.year_end)
    };
    let rows = papers.iter().flat_map(|p| &p.rows).filter(|cells| later(cells));
    let next: Money = rows.filter_map(|cells| cells.get("amount").and_then(Entry::money)).sum();
    let earned = sum(facts.own.of(&t4::brings::EMPLOYMENT)) - sum(facts.own.of(&t4::brings::DUES));
    let adjustment: Money = points
        .household
        .papers
        .iter()
        .filter(|p| p.owners.iter().any(|o| o.person == facts.id))
        .map(|p| match &p.kind {
            kind if kind == T4.id => p.amount("52"),
            kind if kind == T4A.id => p.amount("034"),
            _ => Money::ZERO,
        })
        .sum();
    let room =
        settled::or_zero(settled::lesser(cents(earned, figures.next_rate), figures.next_most) - adjustment);
    let over = settled::greater(available - next - limit, available - limit - room) - figures.cushion;
    (over > Money::ZERO).then_some(over)
}
