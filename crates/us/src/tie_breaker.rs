//! Who may claim a qualifying child whom more than one person could claim (§152(c)(4)): a parent goes before everyone else;
//! where a parent could claim and does not, only someone with a higher adjusted gross income than any such parent may
//! (§152(c)(4)(C)). Parents agree among themselves who claims, and so do people of whom none is a parent.

use crate::{
    facts::{Facts, Relationship},
    points::Points,
    qualifying_child::{self, child_but_for_tie},
};
use hembo_core::{
    Household, Person,
    field::Field,
    household::Entry,
    open_points,
    pack::{DEPENDENT, Question},
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: &[
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::yes_no(ask::PARENT, "", "A parent outside this household could claim, too")
                .help("A parent who is no filer here and lived with the child over half the year."),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::amount(ask::PARENT_INCOME, "", "Adjusted gross income of that parent")
                .help("Of parents who file together one half each; of two parents the higher."),
        },
    ],
    points: POINTS,
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const PARENT: &str = "parent_could_claim";
    pub const PARENT_INCOME: &str = "parent_income";
}

open_points! {
    PARENT_ASKED = blocks "K-019-parent", "IRC §152(c)(4)(C)",
        "A parent who could claim goes before everyone with no more income.";
    PARENT_INCOME = blocks "K-019-parent-income", "IRC §152(c)(4)(C)",
        "Only a higher income than the parent's allows the claim: enter the parent's.";
}

/// Someone else who could claim is a parent with as much income.
pub const PARENT_FIRST: &str = "a parent who could claim has as much adjusted gross income";

/// Whether claimers who are no parents of a child have a higher adjusted gross income than every parent who could claim.
///
/// # Errors
/// That they have not.
pub fn before_parents(facts: &Facts, claimers: &[usize], person: usize) -> Result<(), &'static str> {
    if facts.related(claimers, person) == Some(Relationship::Child) {
        return Ok(());
    }
    let income: Money = claimers.iter().map(|&c| facts.people[c].agi_alone).sum();
    let about = &facts.people[person];
    let outside = (about.parent_could_claim == Some(true)).then_some(about.parent_income);
    let here = facts.filers.iter().filter(|f| !claimers.contains(f) && could_claim(facts, **f, person));
    let parents = here.map(|&f| facts.people[f].agi_alone).chain(outside);
    if parents.into_iter().any(|theirs| theirs.to_whole() >= income.to_whole()) {
        return Err(PARENT_FIRST);
    }
    Ok(())
}

/// Whether a filer is a parent who could claim a child.
fn could_claim(facts: &Facts, filer: usize, person: usize) -> bool {
    facts.related(&[filer], person) == Some(Relationship::Child)
        && !facts.people[filer].claimable
        && child_but_for_tie(facts, &[filer], person).is_ok()
}

/// Whether a parent elsewhere makes sense for a person: one who may be a child here, and of no filer.
pub fn is_likely(household: &Household, person: &Person) -> bool {
    let said = |field: &str| person.answers.get(field).and_then(Entry::text);
    let first = said(qualifying_child::ask::RELATIONSHIP);
    let second = said(qualifying_child::ask::RELATIONSHIP_SECOND);
    let kin = |r: Option<&str>| {
        r.is_some_and(|r| ["grandchild", "sibling", "niece_nephew", "foster_child", "stepchild"].contains(&r))
    };
    let child = first == Some("child") || (household.filers().count() == 2 && second == Some("child"));
    !child && (kin(first) || kin(second))
}

/// What decides between a filer and a parent outside this household.
pub fn points(points: &mut Points<'_>) {
    for index in points.facts.candidates() {
        one(points, index);
    }
}

fn one(points: &mut Points<'_>, index: usize) {
    let (facts, about) = (points.facts, &points.facts.people[index]);
    let groups: Vec<&[usize]> = if facts.unmarried_pair() {
        facts.filers.iter().map(std::slice::from_ref).collect()
    } else {
        vec![&facts.filers]
    };
    // A stepchild of spouses is the child of one of them.
    let here = |r| r == Relationship::Child || (facts.couple() && r == Relationship::Stepchild);
    let parent = groups.iter().any(|g| facts.related(g, index).is_some_and(here));
    let child = groups.iter().any(|g| child_but_for_tie(facts, g, index).is_ok());
    if parent || !child {
        return;
    }
    let name = &about.name;
    let at = |field: &str| Place::person(&about.id, field);
    match about.parent_could_claim {
        None => {
            let message =
                format!("Could a parent of {name} who lived with {name} over half the year claim, too?");
            points.raise(&PARENT_ASKED, at(ask::PARENT), message);
        }
        Some(true) if !points.said(index, ask::PARENT_INCOME) => {
            let message = format!("What is the adjusted gross income of the parent of {name}?");
            points.raise(&PARENT_INCOME, at(ask::PARENT_INCOME), message);
        }
        Some(_) => {}
    }
}
