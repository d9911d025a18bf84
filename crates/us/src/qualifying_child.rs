//! The tests of a qualifying child (§152(c)): relationship, age, residence and support, one by one.

use crate::facts::{Facts, Relationship};

/// The ids of the questions about relationship.
#[allow(missing_docs)]
pub mod ask {
    pub const RELATIONSHIP: &str = "relationship";
    pub const RELATIONSHIP_SECOND: &str = "relationship_second";
}

/// The support test of a child fails.
pub const SELF_SUPPORT: &str = "pays over half of own support";

/// The age test of a child fails.
pub const TOO_OLD: &str = "19 or older and no student, or 24 or older";

/// Relationship, age and residence: §152(c) without the support test, and without asking who else could claim (§152(c)(4)).
///
/// # Errors
/// The test that fails.
pub fn child_but_for_tie(facts: &Facts, claimers: &[usize], person: usize) -> Result<(), &'static str> {
    use Relationship::{Child, FosterChild, Grandchild, NieceOrNephew, Sibling, Stepchild};
    let about = &facts.people[person];
    match facts.related(claimers, person) {
        Some(Child | Stepchild | FosterChild | Grandchild | Sibling | NieceOrNephew) => {}
        Some(_) => return Err("not a child, sibling or descendant of one"),
        None => return Err("relationship not entered"),
    }
    let Some(born) = about.born else { return Err("date of birth not entered") };
    if !is_young(facts, person) {
        return Err(TOO_OLD);
    }
    let older = |c: &usize| facts.people[*c].born.is_none_or(|theirs| born > theirs);
    if !about.disabled && !claimers.iter().any(older) {
        return Err("not younger than the claimer");
    }
    if !over_half_the_year(facts, claimers, person) {
        return Err("did not live with the claimer over half the year");
    }
    Ok(())
}

/// The tests of a child whose claim the other parent releases to the claimers: age and support are those of a qualifying
/// child, the home is the other parent's (§152(e)(1)).
///
/// # Errors
/// The test that fails.
pub fn child_but_for_home(facts: &Facts, claimers: &[usize], person: usize) -> Result<(), &'static str> {
    let about = &facts.people[person];
    if facts.related(claimers, person) != Some(Relationship::Child) {
        return Err("only a child's parents release the claim");
    }
    if about.self_support {
        return Err(SELF_SUPPORT);
    }
    if is_young(facts, person) { Ok(()) } else { Err(TOO_OLD) }
}

/// The age test of a qualifying child (§152(c)(3)).
pub fn is_young(facts: &Facts, person: usize) -> bool {
    let about = &facts.people[person];
    let figures = &facts.figures.dependents;
    let student = about.student_months >= figures.student_months;
    let Some(age) = about.age(facts.year_end) else { return false };
    about.disabled || age < figures.child_under || (student && age < figures.student_under)
}

/// The months in one home with the claimer with whom it was more; none where it was not said.
pub fn months_with(facts: &Facts, claimers: &[usize], person: usize) -> i64 {
    let months = &facts.people[person].months_with;
    months.iter().filter(|(with, _)| claimers.contains(with)).map(|(_, m)| *m).max().unwrap_or(0)
}

/// Over half of the year, or of the part of it in which the person lived.
pub fn over_half_the_year(facts: &Facts, claimers: &[usize], person: usize) -> bool {
    months_with(facts, claimers, person) * 2 > facts.people[person].months_alive(facts.year_end)
}
