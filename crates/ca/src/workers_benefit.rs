//! The Canada workers benefit (ITA 122.7; Schedule 6): line 45300.

use crate::{
    facts::Facts,
    figures::BenefitClass,
    income,
    medical::family_net,
    papers::t4,
    personal::Incomes,
    plan::{Filed, On},
    points::Points,
    rounding::cents,
    tuition,
};
use hembo_core::{
    Paper, Scope,
    field::Field,
    forms::Required,
    household::Entry,
    limit::{self, PhaseOut},
    limits, lines, open_points,
    pack::{ANYONE, Question},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: QUESTIONS,
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["workers_benefit"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const FULL_TIME_STUDENT: &str = "full_time_student";
}

lines! {
    pub BENEFIT = "ca.45300", "Canada workers benefit", "ITA 122.7",
        "A part of working income, less a part of family income; refundable.";
}

limits! {
    WORKERS_BENEFIT = "ca.limit.workers_benefit" on BENEFIT, "Workers benefit", "shrinks with family income",
        "ITA 122.7";
}

open_points! {
    UNCLEAR = not_covered "C-87", "ITA 122.7(1), (2)";
    TABLE_NOT_HELD = not_covered "C-87-province", "ITA 122.71";
    STUDENT = not_known "C-87-student", "ITA 122.7(1)",
        "It decides on the workers benefit.";
}

/// How a person stands to the benefit.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Standing {
    /// Nobody to have it here: too young, a student, or the partner's return has it.
    None,
    /// By oneself.
    Alone,
    /// With a partner or a child.
    Family,
    /// One of a couple is excluded: not computed.
    Unclear,
}

/// A person's standing (122.7(1)): 19 or with a partner or child; no full-time student without a child. Of a couple the
/// first has the benefit of both on the return; which of them is left to their agreement.
pub fn standing(facts: &Facts, person: usize) -> Standing {
    let who = &facts.people[person];
    let parent = who.filer && has_child(facts);
    let excluded = |p: usize| facts.people[p].full_time_student == Some(true) && !has_child(facts);
    match facts.partner(person) {
        Some(partner) if facts.filers[0] == person => match (excluded(person), excluded(partner)) {
            (false, false) => Standing::Family,
            (true, true) => Standing::None,
            _ => Standing::Unclear,
        },
        Some(_) => Standing::None,
        None if parent => Standing::Family,
        None if excluded(person) || who.full_time_student == Some(true) => Standing::None,
        None if !facts.reached(person, facts.figures.workers_benefit.age) => Standing::None,
        None => Standing::Alone,
    }
}

/// An eligible dependant: a child under 19 in the home at the end of the year.
fn has_child(facts: &Facts) -> bool {
    let age = facts.figures.workers_benefit.age;
    (0..facts.people.len()).any(|p| {
        let who = &facts.people[p];
        !who.filer && who.child && who.lives_here && !facts.reached(p, age)
    })
}

/// Working income of a person, and of the partner.
pub fn working(facts: &Facts, person: usize) -> (Money, Money) {
    let of = |p: usize| sum(facts.people[p].own.of(&t4::brings::EMPLOYMENT));
    (of(person), facts.partner(person).map_or(Money::ZERO, of))
}

/// Whether the figures of the household's province are here.
pub fn held(facts: &Facts) -> bool {
    let province = facts.province_code.as_deref();
    !facts.figures.workers_benefit.not_held.iter().any(|code| Some(code.as_str()) == province)
}

/// Net income of the family less the exemption of the secondary earner.
pub fn adjusted(facts: &Facts, person: usize, family: Money) -> Money {
    let (own, partner) = working(facts, person);
    family - settled::lesser(settled::lesser(own, partner), facts.figures.workers_benefit.second_earner)
}

/// The amounts of a standing.
pub fn class(facts: &Facts, standing: Standing) -> &BenefitClass {
    let figures = &facts.figures.workers_benefit;
    if standing == Standing::Alone { &figures.single } else { &figures.family }
}

/// Line 45300: a part of working income above a start, up to a most, less a part of family income above a threshold.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    let standing = standing(on.facts, on.person);
    if !matches!(standing, Standing::Alone | Standing::Family) || !held(on.facts) {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.workers_benefit;
    let (own, partner) = working(on.facts, on.person);
    let working = own + partner;
    let class = class(on.facts, standing);
    let grown =
        settled::lesser(cents(settled::or_zero(working - figures.above), figures.rate_in), class.most);
    let income = limit::or_zero(trail, adjusted(on.facts, on.person, family_net(on, incomes)));
    let rule = PhaseOut::continuous(class.from, figures.rate_out, Money::CENT);
    let allowed = limit::phase_out(trail, WORKERS_BENEFIT.at(on.scope), grown, income, rule);
    trail.line(BENEFIT, on.scope, allowed, |i| {
        if grown.is_zero() {
            return;
        }
        i.figure("Working income", working).figure("At most", class.most);
        i.figure("Income that counts", income).figure("Shrinks from", class.from);
    })
}

/// Schedule 6: where the benefit is paid out.
pub fn schedule_6(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(BENEFIT), "no workers benefit")
}

const QUESTIONS: &[Question] = &[Question {
    of: ANYONE,
    from_age: 0,
    field: Field::yes_no(ask::FULL_TIME_STUDENT, "", "Full-time student for over 13 weeks"),
}];

/// What of the benefit is not known.
pub fn points(points: &mut Points<'_>) {
    for &person in points.facts.returns.iter().filter(|_| points.facts.province.is_some()) {
        unknown(points, person);
    }
}

/// What of the workers benefit is not known: whether a student is excluded, a couple of whom one is, and the table
/// of a province that is not held.
fn unknown(points: &mut Points<'_>, person: usize) {
    let facts = points.facts;
    let (own, partner) = working(facts, person);
    let standing = standing(facts, person);
    let class = class(facts, standing);
    let net = |p: usize| {
        let place = facts.returns.iter().position(|&r| r == p);
        place.and_then(|r| points.trail.amount(income::NET, Scope::Return(r))).unwrap_or_default()
    };
    let family = net(person) + facts.partner(person).map_or(Money::ZERO, net);
    let income = adjusted(facts, person, family);
    let due = own + partner > facts.figures.workers_benefit.above && income < class.nil;
    if standing == Standing::None || !due {
        return;
    }
    let name = &facts.people[person].name;
    let at = |field: &str| Place::person(&facts.people[person].id, field);
    if standing == Standing::Unclear {
        let message =
            format!("Workers benefit of {name}: of the couple one is a full-time student, not computed yet.");
        return points.raise(&UNCLEAR, at(ask::FULL_TIME_STUDENT), message);
    }
    if !held(facts) {
        let message = format!("Workers benefit of {name}: the table of this province is not held.");
        return points.raise(&TABLE_NOT_HELD, at("name"), message);
    }
    let both = [Some(person), facts.partner(person)].into_iter().flatten();
    let students: Vec<usize> = both.filter(|&p| studies(points, p)).collect();
    for student in students {
        let who = &facts.people[student];
        if who.full_time_student.is_none() {
            let place = Place::person(&who.id, ask::FULL_TIME_STUDENT);
            let message = format!("Was {} a full-time student for over 13 weeks?", who.name);
            points.raise(&STUDENT, place, message);
        }
    }
}

/// Whether a certificate of the school tells of months as a full-time student.
fn studies(points: &Points<'_>, person: usize) -> bool {
    let id = &points.facts.people[person].id;
    let mine = |p: &&Paper| p.kind == tuition::CERTIFICATE.id && p.owners.iter().any(|o| &o.person == id);
    let months = |p: &Paper| p.boxes.get("25").and_then(Entry::count).unwrap_or(0);
    points.household.papers.iter().filter(mine).any(|p| months(p) > 0)
}
