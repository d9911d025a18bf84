//! Retirement contributions (ITA 146(5), (5.1); Schedule 7): line 20800, and what is kept for later years.

use crate::{
    bringing::Bringing,
    business,
    facts::{Facts, PersonFacts},
    figures::Rrsp,
    papers::{
        t4::{self, T4},
        t4a::T4A,
    },
    plan::{Filed, On},
    points::Points,
    rental,
    rounding::cents,
};
use hembo_core::{
    Paper, Scope, Silent, Trail,
    field::{Choice, Field, Years},
    forms::Required,
    household::{Answers, Entry},
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
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
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: CARRIED, paper: "RRSP", into: CarriedTo::Box("unused") }];

lines! {
    AVAILABLE = "ca.rrsp.available", "Contributions to deduct", "ITA 146(5), (5.1)",
        "Contributions of this year and its first 60 days after, and unused ones of earlier years, less repayments.";
    LIMIT = "ca.rrsp.limit", "Deduction limit", "ITA 146(1)",
        "From the last notice of assessment.";
    pub DEDUCTED = "ca.20800", "Retirement contributions deducted", "ITA 146(5), (5.1)",
        "As much of what is there as the way deducts now, within the deduction limit.";
    pub MISSED = "ca.12900.missed", "Repayments of plans that were missed", "ITA 146.01(4), 146.02(4)",
        "What was due to the Home Buyers' and Lifelong Learning Plans and not contributed: income.";
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
    MISSED_REPAYMENT = look "C-43", "ITA 146.01(4), 146.02(4)",
        "Tell the family: contributed in the first 60 days it would not be income.";
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

    /// Contributions of this year and its first 60 days after alone.
    pub static OF_YEAR: Brought = Brought::new();

    /// Repayments that are due to the Home Buyers' and Lifelong Learning Plans.
    pub static DUE: Brought = Brought::new();

    /// The deduction limit of the assessment notice.
    pub static LIMIT: Brought = Brought::new();
}

/// What may be deducted of contributions: those of all years less what was designated as repayment.
fn available(who: &PersonFacts) -> Money {
    settled::or_zero(sum(who.own.of(&brings::PAID)) - designated(who))
}

/// What of the year's contributions is designated as repayment: what is due as far as they go, or more where that is said. Less
/// would be income in its place (ITA 146.01(3), (4), 146.02(3), (4)).
fn designated(who: &PersonFacts) -> Money {
    let due = settled::lesser(sum(who.own.of(&brings::DUE)), sum(who.own.of(&brings::OF_YEAR)));
    settled::greater(sum(who.own.of(&brings::REPAID)), due)
}

/// What was due and not contributed, income of line 12900.
pub fn missed(on: On<'_>, trail: &mut impl Trail) -> Money {
    let due = on.own().of(&brings::DUE);
    let designated = designated(on.who());
    let missed = settled::or_zero(sum(due) - designated);
    trail.line(MISSED, on.scope, missed, |i| {
        i.items(due).figure("Designated", designated);
    })
}

/// The most that a person may deduct this year.
pub fn most(facts: &Facts, person: usize) -> Money {
    allowed(facts, person, &mut Silent, Scope::Person(person))
}

fn allowed(facts: &Facts, person: usize, trail: &mut impl Trail, scope: Scope) -> Money {
    let who = &facts.people[person];
    limit::cap(trail, RRSP_LIMIT.at(scope), available(who), sum(who.own.of(&brings::LIMIT)))
}

/// Line 20800: as much of what is there, within the deduction limit, as the way deducts, `wanted` at the most; the rest is carried.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, wanted: Money) -> Money {
    let own = on.own();
    let available = available(on.who());
    trail.line(AVAILABLE, on.scope, available, |i| {
        i.items(own.of(&brings::PAID)).figure("Designated as repayment", designated(on.who()));
    });
    let most = allowed(on.facts, on.person, trail, on.scope);
    let deducted = limit::lesser(trail, wanted, most);
    let limit = on.gather(trail, LIMIT, own.of(&brings::LIMIT));
    on.made(trail, DEDUCTED, deducted, &[(AVAILABLE, available), (LIMIT, limit)], &[]);
    on.made(trail, CARRIED, available - deducted, &[(AVAILABLE, available), (DEDUCTED, deducted)], &[]);
    deducted
}

/// Schedule 7: where there are contributions, or repayments among them.
pub fn schedule_7(filed: Filed<'_>) -> Required {
    let own = filed.on.own();
    let any = own.has(&brings::PAID) || own.has(&brings::REPAID) || own.has(&brings::DUE);
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
        Field::amount("room", "", "Or: unused room at the end of last year"),
        Field::amount("earned", "", "Earned income of last year")
            .help("Pay, business, rents; the limit is made from these four."),
        Field::amount("adjustment", "", "Pension adjustment of last year").help("Box 52 of its T4."),
        Field::amount("past_service", "", "Past-service pension adjustment"),
        Field::amount("unused", "", "Unused contributions").help("Made in earlier years, not deducted."),
        Field::amount("hbp", "", "Home Buyers' Plan: due this year")
            .help("From the notice of assessment; contributions are designated for it first."),
        Field::amount("llp", "", "Lifelong Learning Plan: due this year"),
        Field::amount("repaid", "", "Designated as repayment, if more than is due")
            .help("To either plan; not deductible."),
    ],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::text("what", "", "To whom", 80).payer_name(),
        Field::choice("plan", "", "Plan", PLANS),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// The deduction limit as the boxes of last year make it (146(1)): unused room, and a part of earned income up to a most, less the
/// pension adjustment; less that of past service.
fn made_limit(figures: &Rrsp, paper: &Paper) -> Money {
    let of_earned = settled::lesser(cents(paper.amount("earned"), figures.rate), figures.most);
    let of_year = settled::or_zero(of_earned - paper.amount("adjustment"));
    settled::or_zero(paper.amount("room") + of_year - paper.amount("past_service"))
}

/// Whether a paper tells the deduction limit, or what makes it.
fn tells_limit(paper: &Paper) -> bool {
    ["limit", "room", "earned"].iter().any(|field| paper.boxes.contains_key(*field))
}

/// Gives its boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_all(&[
        ("unused", &brings::PAID),
        ("repaid", &brings::REPAID),
        ("hbp", &brings::DUE),
        ("llp", &brings::DUE),
    ]);
    let (field, limit) = match paper.has("limit") {
        true => ("limit", paper.amount("limit")),
        false => ("room", made_limit(&paper.facts.figures.rrsp, paper.paper.paper)),
    };
    paper.put(field, None, limit, &brings::LIMIT);
    let figures = &paper.facts.figures.rrsp;
    let counted = figures.first_day.0..=figures.last_day.0;
    for (row, cells, amount) in paper.paper.lines("amount") {
        let date = cells.get("date").and_then(Entry::date);
        let counts = date.is_none_or(|date| counted.contains(&date));
        if counts && !too_old(paper, cells, date) {
            paper.put("amount", Some(row), amount, &brings::PAID);
            paper.put("amount", Some(row), amount, &brings::OF_YEAR);
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
        points.dates(paper, &OTHER_DAYS, "outside the days that count for this return", |facts, _, date| {
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
    let missed = settled::or_zero(sum(facts.own.of(&brings::DUE)) - designated(facts));
    if !missed.is_zero() {
        let message = format!("{missed:#} that was due to a plan was not contributed: it is income.");
        points.raise(&MISSED_REPAYMENT, Place::paper(&paper.id, "hbp"), message);
    }
    if let Some(second) = papers.iter().filter(|p| tells_limit(p)).nth(1) {
        let message = format!("The deduction limit of {} stands on two papers and counts twice.", who.name);
        points.raise(&TWO_LIMITS, Place::paper(&second.id, "limit"), message);
    }
    if !available.is_zero() && !papers.iter().any(|p| tells_limit(p)) {
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
    let place = points.facts.returns.iter().position(|&r| r == person);
    let business = place.map_or(Money::ZERO, |place| points.amount(business::NET, place));
    let of_business = business + rental::net(&facts.own);
    let earned =
        sum(facts.own.of(&t4::brings::EMPLOYMENT)) - sum(facts.own.of(&t4::brings::DUES)) + of_business;
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
