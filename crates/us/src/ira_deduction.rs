//! Contributions to IRAs (§§219, 408A(c)): how much of a traditional one is deducted, by cover at work and income, and how much may go
//! into a Roth IRA.

use crate::{
    bringing::Bringing,
    facts::{Facts, Marital},
    figures::Range,
    filing_status::Status,
    ira_basis, other_income,
    papers::{retirement::Goes, w2},
    points::Points,
    retirement, self_employment, status,
    unit::{Filed, On},
    untaxed_pay,
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    forms::Required,
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
    papers: &[CONTRIBUTIONS],
    points: POINTS,
    figures: &["ira"],
    ..Provision::NONE
};

lines! {
    pub INCOME = "us.ira.income", "Income for the ranges", "IRC §219(g)(3)(A)",
        "Adjusted gross income without this deduction and that of student-loan interest.";
    MOST = "us.ira.limit", "Limit on IRA contributions", "IRC §219(b)(1), (5), (c)",
        "The amount of the year and age, or compensation if less; of a joint return also the spouse's.";
    REDUCED = "us.ira.reduced", "Limit by income", "IRC §219(g)",
        "For those covered at work, or whose spouse is: it shrinks with income, to the next ten, never to less than 200 within the range.";
    pub OF = "us.ira.deducted", "IRA contributions, deducted", "IRC §219(a)",
        "A person's contributions to traditional IRAs, up to the limit by income.";
    pub L20 = "us.sched_1.20", "IRA deduction", "IRC §219(a)",
        "That of each person.";
}

limits! {
    BY_INCOME = "us.limit.ira" on OF, "IRA deduction", "covered at work, shrinks with income",
        "IRC §219(g)";
}

open_points! {
    NOT_DEDUCTED = not_weighed "ira-nondeductible", "IRC §408(o)(2)(B)(ii)",
        "Any part may be left undeducted for basis (Form 8606): that is not weighed here.";
    BASIS = look "ira-basis-made", "IRC §408(o)",
        "File Form 8606: what is not deducted is basis, and comes out untaxed.";
    OUT = blocks "5498-out", "IRC §408(d)(4)",
        "Correct the amount: earnings that came out with it are on Form 1099-R.";
    BOTH = not_covered "ira-both", "Pub. 590-B, Worksheet 1-1";
    APART = blocks "ira-apart", "IRC §219(g)(4)",
        "Answer whether the spouses lived apart all year: the range of a separate return goes by it.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Contributions to traditional IRAs.
    pub static TRADITIONAL: Brought = Brought::new();

    /// Contributions to Roth IRAs.
    pub static ROTH: Brought = Brought::new();

    /// Excess contributions of earlier years to traditional IRAs, still there when the year began (Form 5329, line 9).
    pub static EARLIER_EXCESS: Brought = Brought::new();

    /// What of them was taken out untaxed (§408(d)(5); Form 5329, line 12).
    pub static EARLIER_OUT: Brought = Brought::new();
}

const CONTRIBUTIONS: PaperKind = PaperKind {
    id: "5498",
    subject: subject::ADJUSTMENTS,
    name: "IRA contributions",
    words: "ira roth contribution 5498 retirement savings",
    title: "Trustee",
    shared: false,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Traditional, for the year")
            .help("Paid until the due date of the return; no rollovers."),
        Field::amount("1.out", "", "Of it taken out again, traditional")
            .help("With its earnings, or recharacterized as Roth, by the due date of the return."),
        Field::amount("10", "10", "Roth, for the year"),
        Field::amount("10.out", "", "Of it taken out again, Roth")
            .help("With its earnings, or recharacterized, by the due date of the return."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owner, without what was taken out again: that was never contributed (§408(d)(4)).
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    for (field, out, kind) in [("1", "1.out", &brings::TRADITIONAL), ("10", "10.out", &brings::ROTH)] {
        let left = settled::or_zero(reading.amount(field) - reading.amount(out));
        paper.put(field, None, left, kind);
    }
}

/// What a person contributed, to traditional and to Roth IRAs.
pub fn paid(facts: &Facts, person: usize) -> (Money, Money) {
    let own = &facts.people[person].own;
    (sum(own.of(&brings::TRADITIONAL)).to_whole(), sum(own.of(&brings::ROTH)).to_whole())
}

/// Compensation (§219(f)(1), (7)): wages less pensions of nonqualified plans, combat pay, taxable alimony, and what a business earned
/// less half of the tax and plan contributions.
pub fn compensation(on: On<'_>, person: usize) -> Money {
    let own = &on.facts.people[person].own;
    let business = self_employment::silent(on, person);
    let business = settled::or_zero(business.earned() - business.plan);
    let wages =
        w2::earned(own) - sum(own.of(&w2::brings::NONQUALIFIED)) + untaxed_pay::combat_of(on.facts, person);
    (settled::or_zero(wages) + sum(own.of(&other_income::brings::ALIMONY_RECEIVED))).to_whole() + business
}

/// The limit of a person's contributions, traditional and Roth together.
pub fn most(on: On<'_>, person: usize) -> Money {
    let own = compensation(on, person);
    let spouse = on.unit.people.iter().copied().find(|&p| p != person);
    let available = spouse.map_or(own, |spouse| {
        let theirs = compensation(on, spouse);
        let (traditional, roth) = paid(on.facts, spouse);
        let both = settled::or_zero(own + theirs - settled::lesser(traditional + roth, theirs));
        settled::greater(own, both)
    });
    settled::lesser(full_limit(on, person), available)
}

fn covered(facts: &Facts, person: usize) -> bool {
    let own = &facts.people[person].own;
    own.has(&w2::brings::COVERED) || self_employment::has_plan(own)
}

/// Whether spouses file apart and lived apart all year: each is then treated as unmarried (§219(g)(4)).
fn as_unmarried(on: On<'_>) -> bool {
    on.unit.status == Status::Separate && on.facts.apart_all_year == Some(true)
}

/// The range of income in which the deduction shrinks; none where neither is covered.
fn range(on: On<'_>, person: usize) -> Option<Range> {
    let figures = &on.facts.figures.ira;
    let status = on.unit.status;
    let spouse = on.facts.other_filer(person).filter(|_| on.facts.marital == Marital::Married);
    let spouse_covered = spouse.is_some_and(|spouse| covered(on.facts, spouse)) && !as_unmarried(on);
    let alone = if as_unmarried(on) { Status::Single } else { status };
    match (covered(on.facts, person), spouse_covered) {
        (true, _) => Some(*figures.covered.of(alone)),
        (false, true) if status == Status::Joint => Some(figures.spouse_covered),
        (false, true) if status == Status::Separate => Some(figures.covered.separate),
        _ => None,
    }
}

/// The limit within a range: linear, up to the next ten, at least 200 while anything is left.
fn within(on: On<'_>, trail: &mut impl Trail, most: Money, range: Range, income: Money) -> Money {
    let figures = &on.facts.figures.ira;
    let left = limit::or_zero(trail, range.from + range.width - income);
    let left = limit::lesser(trail, left, range.width);
    if left.is_zero() {
        return Money::ZERO;
    }
    let reduced = most
        .in_proportion(left, range.width, Money::CENT, Rounding::HalfUp)
        .rounded(figures.step, Rounding::Up);
    settled::lesser(settled::greater(reduced, figures.least), most)
}

/// The most that a person may contribute to Roth IRAs (§408A(c)(2), (3)): the limit less traditional contributions, and no more than
/// it comes to within the range of income; `income` is that of [`reckon`].
pub fn most_roth(on: On<'_>, trail: &mut impl Trail, person: usize, income: Money) -> Money {
    let status = if as_unmarried(on) { Status::Single } else { on.unit.status };
    let range = *on.facts.figures.ira.roth.of(status);
    let converted: Money = on.unit.people.iter().map(|&p| retirement::converted_of(on.facts, p)).sum();
    let most = most(on, person);
    let (traditional, _) = paid(on.facts, person);
    let by_income = within(on, trail, most, range, income - converted);
    limit::lesser(trail, by_income, settled::or_zero(most - traditional))
}

/// Excess contributions of earlier years that this year's limit leaves no room for: less what is left of the limit, distributions
/// that are taxed, and what was taken out (§4973(b)(2)).
pub fn earlier_excess(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    let (earlier, room) = earlier(on, person);
    limit::or_zero(trail, earlier - room)
}

/// What of earlier years' excess counts as contributed this year (§219(f)(6)).
fn taken_up(on: On<'_>, person: usize) -> Money {
    let (earlier, room) = earlier(on, person);
    settled::lesser(earlier, room)
}

/// Excess contributions of earlier years that were not distributed, and the room that this year's limit has for them.
fn earlier(on: On<'_>, person: usize) -> (Money, Money) {
    let all = |kind| sum(on.facts.people[person].own.of(kind)).to_whole();
    let excess = all(&brings::EARLIER_EXCESS);
    if excess.is_zero() {
        return (Money::ZERO, Money::ZERO);
    }
    let out = all(&brings::EARLIER_OUT) + retirement::traditional_of(on.facts, person);
    let (traditional, _) = paid(on.facts, person);
    (settled::or_zero(excess - out), settled::or_zero(most(on, person) - traditional))
}

fn of_person(on: On<'_>, trail: &mut impl Trail, person: usize, income: Money) -> Money {
    let (traditional, roth) = paid(on.facts, person);
    let earlier = taken_up(on, person);
    if (traditional + roth + earlier).is_zero() {
        return Money::ZERO;
    }
    let scope = Scope::Person(person);
    let full = full_limit(on, person);
    let most = trail.line(MOST, scope, most(on, person), |i| {
        i.figure("Amount of the year", full).figure("Compensation", compensation(on, person));
    });
    let reduced = match range(on, person) {
        Some(range) => within(on, trail, full, range, income),
        None => full,
    };
    let reduced = limit::lesser(trail, reduced, most);
    trail.line(REDUCED, scope, reduced, |i| {
        i.line(MOST, scope, most).figure("Income", income);
        if let Some(range) = range(on, person) {
            i.figure("Shrinks above", range.from).figure("Gone at", range.from + range.width);
        }
    });
    let allowed = limit::cap(trail, BY_INCOME.at(scope), traditional + earlier, reduced);
    trail.line(OF, scope, allowed, |i| {
        i.items(on.facts.people[person].own.of(&brings::TRADITIONAL)).line(REDUCED, scope, reduced);
        if !earlier.is_zero() {
            i.figure("Excess of earlier years, taken up", earlier);
        }
    })
}

fn full_limit(on: On<'_>, person: usize) -> Money {
    let figures = &on.facts.figures.ira;
    let age = on.facts.people[person].age(on.facts.year_end);
    figures.most
        + if age.is_some_and(|age| age >= figures.catch_up_from_age) { figures.catch_up } else { Money::ZERO }
}

/// Schedule 1 line 20; `income` is adjusted gross income without it and without the student-loan deduction.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: Money) -> Money {
    let contributes = |&p: &usize| {
        let (traditional, roth) = paid(on.facts, p);
        !(traditional + roth + taken_up(on, p)).is_zero()
    };
    if on.unit.people.iter().any(contributes) {
        trail.line(INCOME, on.scope, income, |i| {
            i.figure("Total income less the other adjustments", income);
        });
    }
    let each: Vec<_> = on.unit.people.iter().map(|&p| (p, of_person(on, trail, p, income))).collect();
    for &(person, deducted) in &each {
        not_deducted(on, trail, person, deducted);
    }
    on.of_each(trail, L20, OF, &each)
}

/// What is contributed within the limit and not deducted is basis of the IRAs (§408(o)(2)(B)(i)).
fn not_deducted(on: On<'_>, trail: &mut impl Trail, person: usize, deducted: Money) {
    let (traditional, _) = paid(on.facts, person);
    let within = settled::lesser(traditional, most(on, person));
    let undeducted = settled::or_zero(within - deducted);
    ira_basis::carry(on.facts, trail, person, undeducted, retirement::given_of(on.facts, person));
}

/// Contributions over what is lawful, and what is left for the preparer.
pub fn points(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
        for &person in &unit.people {
            one(points, on, person);
        }
    }
}

/// Asks whether spouses who file alone lived apart all year: the range in which the limits shrink hangs on it (§219(g)(4)).
pub fn ask_apart(points: &mut Points<'_>, of: Status) {
    let married_apart = of == Status::Separate && points.facts.marital == Marital::Married;
    if married_apart && points.facts.apart_all_year.is_none() {
        let place = Place::household(status::ask::APART_ALL_YEAR);
        points.raise(&APART, place, "Did the two live apart all year?");
    }
}

fn one(points: &mut Points<'_>, on: On<'_>, person: usize) {
    let (traditional, _) = paid(on.facts, person);
    let is_theirs = |paper: &&Paper| points.owner(paper) == Some(person);
    let Some(paper) = points.papers(CONTRIBUTIONS.id).find(is_theirs) else { return };
    let at = |field: &str| Place::paper(&paper.id, field);
    let name = &on.facts.people[person].name;
    ask_apart(points, on.unit.status);
    for (field, out) in [("1", "1.out"), ("10", "10.out")] {
        if paper.amount(out) > paper.amount(field) {
            points.raise(&OUT, at(out), format!("More was taken out again than box {field} holds."));
        }
    }
    let deducted = points.trail.amount(OF, Scope::Person(person)).unwrap_or_default();
    if !deducted.is_zero() {
        points.raise(
            &NOT_DEDUCTED,
            at("1"),
            format!("{name} deducts {deducted:#} of contributions to an IRA."),
        );
    }
    if traditional > deducted {
        points.raise(&BASIS, at("1"), format!("{name} has contributions to an IRA that are not deducted."));
        let out = retirement::of(on.facts, person).iter().any(|d| d.goes == Goes::Ira);
        if out {
            points.raise(&BOTH, at("1"), format!("{name} both contributed to and took out of IRAs: which part is basis is not computed yet."));
        }
    }
}

/// The worksheet, kept.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(INCOME), "no contributions to an IRA")
}
