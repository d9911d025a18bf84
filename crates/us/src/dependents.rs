//! Who depends on whom (§152), person by person and claimer by claimer.

use crate::facts::{Facts, PersonFacts, Relationship, Residency};

/// The support test of a relative fails.
pub const NO_SUPPORT: &str = "the claimer does not pay over half of the support";

/// How someone belongs to a claimer's household.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Household {
    /// §152(c).
    QualifyingChild,
    /// §152(d).
    QualifyingRelative,
}

/// A dependent on a return.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Dependent {
    /// By place among the people.
    pub person: usize,
    /// How.
    pub as_a: Household,
}

/// Everyone who may depend on a filer.
pub fn candidates(facts: &Facts) -> impl Iterator<Item = usize> + '_ {
    facts.people.iter().enumerate().filter(|(_, p)| !p.filer).map(|(i, _)| i)
}

/// Whether the claimers (one filer, or both on a joint return) can claim a person: the common tests of §152(b), and
/// those of a qualifying child or relative.
///
/// # Errors
/// The test that fails.
pub fn claim(facts: &Facts, claimers: &[usize], person: usize) -> Result<Dependent, &'static str> {
    common(facts, claimers, person)?;
    let as_a = household_of(facts, claimers, person)?;
    Ok(Dependent { person, as_a })
}

fn common(facts: &Facts, claimers: &[usize], person: usize) -> Result<(), &'static str> {
    if claimers.iter().any(|&c| facts.people[c].claimable) {
        return Err("the claimer can be claimed by someone else");
    }
    fit_to_be_claimed(&facts.people[person])
}

/// The tests of §152(b)(2) and (3), which do not ask who claims.
///
/// # Errors
/// The test that fails.
pub fn fit_to_be_claimed(about: &PersonFacts) -> Result<(), &'static str> {
    if about.files_joint {
        return Err("files a joint return");
    }
    if about.residency == Residency::Other {
        return Err("neither citizen nor resident of the US, Canada or Mexico");
    }
    Ok(())
}

/// Whether someone can claim a person: both filers together, or one of them where they file apart.
pub fn claimable_by_filers(facts: &Facts, apart: bool, person: usize) -> bool {
    if apart {
        return facts.filers.iter().any(|&f| claim(facts, &[f], person).is_ok());
    }
    claim(facts, &facts.filers, person).is_ok()
}

/// A qualifying child, else a qualifying relative, of the claimers.
///
/// # Errors
/// The test that fails: that of the child where the person is one by relationship and age, else of the relative.
pub fn household_of(facts: &Facts, claimers: &[usize], person: usize) -> Result<Household, &'static str> {
    match qualifying_child(facts, claimers, person) {
        Ok(()) => Ok(Household::QualifyingChild),
        Err(why) => match qualifying_relative(facts, claimers, person, Income::Tested) {
            Ok(()) => Ok(Household::QualifyingRelative),
            Err(relative) => Err(if is_young(facts, person) { why } else { relative }),
        },
    }
}

/// §152(c): relationship, age, residence, support.
///
/// # Errors
/// The test that fails.
pub fn qualifying_child(facts: &Facts, claimers: &[usize], person: usize) -> Result<(), &'static str> {
    if facts.people[person].self_support {
        return Err("pays over half of own support");
    }
    child_but_for_support(facts, claimers, person)
}

/// §152(c) without the support test, as the earned income credit asks (§32(c)(3)).
///
/// # Errors
/// The test that fails.
pub fn child_but_for_support(facts: &Facts, claimers: &[usize], person: usize) -> Result<(), &'static str> {
    use Relationship::{Child, FosterChild, Grandchild, NieceOrNephew, Sibling, Stepchild};
    let about = &facts.people[person];
    match about.relationship {
        Some(Child | Stepchild | FosterChild | Grandchild | Sibling | NieceOrNephew) => {}
        Some(_) => return Err("not a child, sibling or descendant of one"),
        None => return Err("relationship not entered"),
    }
    let Some(born) = about.born else { return Err("date of birth not entered") };
    if !is_young(facts, person) {
        return Err("19 or older and no student, or 24 or older");
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

fn is_young(facts: &Facts, person: usize) -> bool {
    let about = &facts.people[person];
    let figures = &facts.figures.dependents;
    let student = about.student_months >= figures.student_months;
    let Some(age) = about.age(facts.year_end) else { return false };
    about.disabled || age < figures.child_under || (student && age < figures.student_under)
}

#[derive(Clone, Copy, PartialEq, Eq)]
enum Income {
    Tested,
    Waived,
}

/// §152(d): not a qualifying child of anyone, relationship or household, gross income, support.
fn qualifying_relative(
    facts: &Facts,
    claimers: &[usize],
    person: usize,
    income: Income,
) -> Result<(), &'static str> {
    let about = &facts.people[person];
    if facts.filers.iter().any(|&f| qualifying_child(facts, &[f], person).is_ok()) {
        return Err("is the qualifying child of someone");
    }
    let all_year = months_with(facts, claimers, person) >= about.months_alive(facts.year_end);
    match about.relationship {
        None => return Err("relationship not entered"),
        Some(Relationship::None) if !all_year => {
            return Err("not related, and not a member of the household all year");
        }
        Some(_) => {}
    }
    if income == Income::Tested && about.gross_income() >= facts.figures.dependents.gross_income_below {
        return Err("gross income is not below the limit");
    }
    let supported = match claimers {
        [one] if facts.couple() => about.supported_alone_by == Some(*one),
        _ => about.supported || about.supported_alone_by.is_some_and(|by| claimers.contains(&by)),
    };
    if supported { Ok(()) } else { Err(NO_SUPPORT) }
}

/// Whether the claimers could claim a person but for gross income, a joint return or being claimable themselves:
/// the family of §§2(a) and 213(a).
pub fn claimable_but_for_income(facts: &Facts, claimers: &[usize], person: usize) -> bool {
    facts.people[person].residency != Residency::Other
        && (qualifying_child(facts, claimers, person).is_ok()
            || qualifying_relative(facts, claimers, person, Income::Waived).is_ok())
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
