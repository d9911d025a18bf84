//! The claim of a child released to the other parent (§152(e), Form 8332; Reg. §1.152-4): of parents who live apart, the one
//! with whom the child lived longer signs, and the other has the dependent and the child credits. The head of household, the
//! earned income credit and the care credit stay where the child lives; medical bills count for both.

use crate::{
    dependents,
    facts::{Facts, Relationship},
    points::Points,
    qualifying_child,
    unit::{Dependent, Household},
};
use hembo_core::{
    Person,
    field::Field,
    household::Entry,
    open_points,
    pack::{DEPENDENT, Question},
    point::{Gather, Place},
    provision::Provision,
};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: &[
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::yes_no(ask::AWAY, "", "Claim released to a parent elsewhere")
                .help("Form 8332, signed here for this year."),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::person(ask::TO, "", "Claim released by a parent elsewhere to")
                .help("The filer who received Form 8332 for this year."),
        },
        Question {
            of: DEPENDENT,
            from_age: 18,
            field: Field::yes_no(ask::CUSTODY, "", "In a parent's custody over half the year")
                .help("Until of age: 18, in some states 19 or 21. Only then does Form 8332 release a claim."),
        },
    ],
    points: POINTS,
    figures: &["release"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const AWAY: &str = "released_away";
    pub const TO: &str = "released_to";
    pub const CUSTODY: &str = "in_custody";
}

open_points! {
    BOTH_WAYS = blocks "release-both", "IRC §152(e)(2)",
        "One parent signs, the other receives: correct one of the answers.";
    NO_PARENT = blocks "release-parent", "IRC §152(e)(1)",
        "Only a child's parents release the claim: correct the relationship, or the release.";
    NOT_HERE = blocks "release-away-months", "IRC §152(e)(4)(A)",
        "Who has the child for the greater part of the year signs: correct the months, or the release.";
    LIVES_HERE = blocks "release-here-months", "IRC §152(e)(4)(B)",
        "A filer with whom the child lived longer needs no release: correct the months, or the release.";
    OF_AGE = blocks "release-age", "Reg. §1.152-4(c)",
        "Once of age a child is in nobody's custody, and Form 8332 releases nothing.";
    ATTACH = beside "release-attach", "IRC §152(e)(2)(B); Reg. §1.152-4(e)",
        "Attach Form 8332 to the return, or send it with Form 8453.";
}

/// Whether a person may well have a parent elsewhere: a filer's child, who did not live all year with two filers.
pub fn is_likely(person: &Person) -> bool {
    let relationship = person.answers.get(dependents::ask::RELATIONSHIP).and_then(Entry::text);
    let with_both = person.lived_with.len() > 1 && person.lived_with.values().all(|months| *months == 12);
    relationship.is_none_or(|r| r == "child") && !with_both
}

/// What of a release cannot be, and what goes with it.
pub fn points(points: &mut Points<'_>) {
    for index in points.facts.candidates() {
        one(points, index);
    }
}

fn one(points: &mut Points<'_>, index: usize) {
    let (facts, about) = (points.facts, &points.facts.people[index]);
    if !about.released_away && about.released_to.is_none() {
        return between_filers(points, index);
    }
    let name = &about.name;
    let at = |field: &str| Place::person(&about.id, field);
    let own = if about.released_away { ask::AWAY } else { ask::TO };
    if about.released_away && about.released_to.is_some() {
        let message = format!("The claim of {name} is released both to and by a parent elsewhere.");
        points.raise(&BOTH_WAYS, at(ask::AWAY), message.as_str());
        points.raise(&BOTH_WAYS, at(ask::TO), message);
        return;
    }
    if about.relationship.is_some() && !facts.child_of_filers(index) {
        let message = format!("{name} is no child of a filer, and the claim is released.");
        points.raise(&NO_PARENT, at(dependents::ask::RELATIONSHIP), message.as_str());
        points.raise(&NO_PARENT, at(own), message);
    }
    let here = facts.filers.iter().any(|&f| qualifying_child::over_half_the_year(facts, &[f], index));
    if about.released_away && !here {
        let message =
            format!("{name} did not live here over half the year, and the claim was released from here.");
        points.raise(&NOT_HERE, at("lived_with"), message.as_str());
        points.raise(&NOT_HERE, at(own), message);
    }
    let home = about.released_to.is_some_and(|to| qualifying_child::over_half_the_year(facts, &[to], index));
    if home {
        let message =
            format!("{name} lived over half the year with the filer to whom the claim was released.");
        points.raise(&LIVES_HERE, at("lived_with"), message.as_str());
        points.raise(&LIVES_HERE, at(own), message);
    }
    let of_age = about.age(facts.year_end).is_some_and(|age| age >= facts.figures.release.of_age_from);
    if of_age && !points.said(index, ask::CUSTODY) {
        let message = format!("Was {name} in a parent's custody over half the year?");
        points.raise(&OF_AGE, at(ask::CUSTODY), message);
    }
    let claimed = points.units.iter().any(|u| u.main && u.dependents.iter().any(|d| d.person == index));
    if claimed {
        points.raise(&ATTACH, at(own), format!("Form 8332 for {name} goes with the return."));
    }
}

/// Whether a filer can claim a child by a release of the other parent, who is the other filer and with whom the child lived
/// longer: parents who were apart from July, with over half of the support and of the year between them (§152(e)(1)).
///
/// # Errors
/// The test that fails.
pub fn between(facts: &Facts, to: usize, person: usize) -> Result<Dependent, &'static str> {
    let about = &facts.people[person];
    let Some(from) = facts.other_filer(to) else { return Err("no other parent here") };
    if facts.apart != Some(true) {
        return Err("the parents did not live apart from July");
    }
    if about.released_away || about.released_to.is_some() {
        return Err(dependents::RELEASED);
    }
    if about.age(facts.year_end).is_some_and(|age| age >= facts.figures.release.of_age_from)
        && about.in_custody != Some(true)
    {
        return Err("in nobody's custody");
    }
    if facts.related(&[from], person) != Some(Relationship::Child) {
        return Err("only a child's parents release the claim");
    }
    dependents::claim(facts, &[from], person)?;
    if qualifying_child::months_with(facts, &[from], person)
        <= qualifying_child::months_with(facts, &[to], person)
    {
        return Err("who has the child for the greater part of the year signs");
    }
    dependents::common(facts, &[to], person)?;
    qualifying_child::child_but_for_home(facts, &[to], person)?;
    Ok(Dependent { person, as_a: Household::QualifyingChild })
}

/// A release from one filer to the other that the way takes.
fn between_filers(points: &mut Points<'_>, index: usize) {
    let (facts, about) = (points.facts, &points.facts.people[index]);
    let Some(from) = points.units.iter().find(|u| u.released.contains(&index)) else { return };
    let (child, parent) = (&about.name, &facts.people[from.people[0]].name);
    let message = format!("{parent} signs Form 8332 for {child}; it goes with the other return.");
    points.raise(&ATTACH, Place::person(&about.id, dependents::ask::RELATIONSHIP), message);
}
