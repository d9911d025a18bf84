//! Elective deferrals over the limit of the year (§402(g)(1)): wages of the year in which they were deferred, Form 1040 line 1h,
//! whether or not the plan pays them back by April 15 (§402(g)(2)(C)). The limit is a person's, over all employers.

use crate::{
    facts::Facts,
    papers::{
        box_12,
        w2::{self, brings},
    },
    points::Points,
    unit::On,
};
use hembo_core::{
    Paper,
    field::Field,
    limit, limits, lines, open_points,
    pack::{FILER, Question},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Silent, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    person_questions: &[Question {
        of: FILER,
        from_age: 0,
        field: Field::amount(ask::FIFTEEN_YEARS, "", "15-year catch-up, 403(b)").help(
            "More that the plan allowed after 15 years with the same employer, up to the amount of the year.",
        ),
    }],
    points: POINTS,
    figures: &["elective_deferrals"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const FIFTEEN_YEARS: &str = "fifteen_years_catch_up";
}

lines! {
    WITHIN = "us.402g", "Deferrals within the limit", "IRC §§402(g)(1), (7), 414(v)",
        "Deferrals of a person over all employers, up to the limit with the catch-up of the age.";
    pub EXCESS = "us.1h", "Excess deferrals", "IRC §402(g)(1)",
        "Deferrals of each person over all employers, less those within the limit and the Roth ones, which box 1 has.";
}

limits! {
    DEFERRALS = "us.limit.deferrals" on WITHIN, "Elective deferrals", "over the limit of the year, taxed now",
        "IRC §402(g)(1)";
}

open_points! {
    OVER = look "K-047", "IRC §402(g)(1), (2)",
        "It is taxed now; what the plan does not pay back by April 15 is taxed again when it is.";
    PLAN_457 = not_covered "excess-457", "IRC §457(b)(2), (c)";
    WITH_ROTH = not_covered "excess-roth", "IRC §§402(g)(1)(A), 402A(c)(2)";
}

/// The limit of a person: the year's, with the catch-up of the age (§414(v)) and of 15 years with an employer (§402(g)(7)).
pub fn limit_of(facts: &Facts, person: usize) -> Money {
    let figures = &facts.figures.elective_deferrals;
    let about = &facts.people[person];
    let catch_up = match about.age(facts.year_end) {
        Some(age) if (figures.late_from_age..=figures.late_to_age).contains(&age) => figures.late_catch_up,
        Some(age) if age >= figures.catch_up_from_age => figures.catch_up,
        _ => Money::ZERO,
    };
    figures.most + catch_up + settled::lesser(about.fifteen_years_catch_up, figures.fifteen_years_most)
}

/// What a person's limit leaves for a plan of one's own beside the deferrals at work (§402(g)(1)).
pub fn room_of(facts: &Facts, person: usize) -> Money {
    settled::or_zero(limit_of(facts, person) - all(facts, person)).to_whole()
}

/// What of a person's deferrals is over the limit and not in box 1 already: designated Roth contributions are.
pub fn excess_of(facts: &Facts, person: usize) -> Money {
    let (over, roth) = (over(facts, &mut Silent, Scope::Person(person), person), roth(facts, person));
    settled::or_zero(over - roth)
}

fn all(facts: &Facts, person: usize) -> Money {
    sum(facts.people[person].own.of(&brings::DEFERRALS)) + roth(facts, person)
}

fn roth(facts: &Facts, person: usize) -> Money {
    sum(facts.people[person].own.of(&brings::ROTH_DEFERRALS))
}

/// What of a person's deferrals is over the limit.
fn over(facts: &Facts, trail: &mut impl Trail, scope: Scope, person: usize) -> Money {
    let (all, most) = (all(facts, person), limit_of(facts, person));
    let within = limit::cap(trail, DEFERRALS.at(scope), all, most);
    let own = &facts.people[person].own;
    trail.line(WITHIN, scope, within, |i| {
        i.items(own.of(&brings::DEFERRALS)).items(own.of(&brings::ROTH_DEFERRALS)).figure("Limit", most);
    });
    all - within
}

/// Line 1h.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let mut total = Money::ZERO;
    let alone = on.unit.people.len() == 1;
    for &person in &on.unit.people {
        let excess = excess_of(on.facts, person);
        total += excess;
        if !alone && !all(on.facts, person).is_zero() {
            line(on, trail, Scope::Person(person), person, excess);
        }
    }
    if alone {
        return line(on, trail, on.scope, on.unit.people[0], total.to_whole());
    }
    trail.line(EXCESS, on.scope, total.to_whole(), |i| {
        for &person in &on.unit.people {
            let excess = excess_of(on.facts, person);
            if !excess.is_zero() {
                i.line(EXCESS, Scope::Person(person), excess);
            }
        }
    })
}

fn line(on: On<'_>, trail: &mut impl Trail, scope: Scope, person: usize, excess: Money) -> Money {
    let (all, roth) = (all(on.facts, person), roth(on.facts, person));
    let within = all - over(on.facts, trail, scope, person);
    trail.line(EXCESS, scope, excess, |i| {
        i.figure("All deferrals", all).line(WITHIN, scope, within);
        if !roth.is_zero() {
            i.figure("Roth, in box 1 already", roth);
        }
    })
}

/// Deferrals over the limit, told at the first box that has any.
pub fn points(points: &mut Points<'_>) {
    for paper in w2::all(points) {
        let Some(person) = points.owner(paper) else {
            continue;
        };
        plan_457(points, paper, person);
        let Some((_, amount, _)) = box_12::coded(paper).find(|(_, _, code)| code.is_elective()) else {
            continue;
        };
        let facts = points.facts;
        let own = &facts.people[person].own;
        let over = over(facts, &mut Silent, Scope::Person(person), person);
        if over.is_zero() {
            continue;
        }
        let place = Place::paper(&paper.id, amount);
        let name = &facts.people[person].name;
        let message = format!("{name} deferred {over:#} over the limit of {:#}.", limit_of(facts, person));
        points.raise(&OVER, place.clone(), message);
        if own.has(&brings::ROTH_DEFERRALS) {
            let message =
                format!("{name} has Roth deferrals, too: which of them are over the limit is not told.");
            points.raise(&WITH_ROTH, place, message);
        }
    }
}

/// Plans under 457(b) have a limit of their own, as high, with catch-ups of their own: over it is not computed.
fn plan_457(points: &mut Points<'_>, paper: &Paper, person: usize) {
    let facts = points.facts;
    let most = facts.figures.elective_deferrals.most;
    let all = sum(facts.people[person].own.of(&brings::PLAN_457));
    if let Some((_, amount, _)) =
        box_12::coded(paper).find(|(_, _, code)| code.is_457()).filter(|_| all > most)
    {
        let message = format!(
            "Deferrals of {all:#} under 457(b) are over {most:#}: which are taxed is not computed yet."
        );
        points.raise(&PLAN_457, Place::paper(&paper.id, amount), message);
    }
}
