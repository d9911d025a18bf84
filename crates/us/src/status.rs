//! Filing status: marital state, considered unmarried, surviving spouse, head of household (§§1, 2, 7703).

use crate::{
    dependents::{self, Household},
    facts::{Facts, Marital, Relationship},
    filing_status::Status,
};

/// The status of someone who does not file jointly: the facts fix it, it is not a choice.
pub fn alone(facts: &Facts, filer: usize) -> Status {
    match facts.marital {
        Marital::Married if considered_unmarried(facts, filer).is_ok() => Status::Head,
        Marital::Married => Status::Separate,
        _ if surviving_spouse(facts, filer).is_ok() => Status::Surviving,
        _ if head_of_household(facts, filer).is_ok() => Status::Head,
        _ => Status::Single,
    }
}

/// Qualifying surviving spouse (§2(a)): spouse died in one of the two years before, paid over half of the home in
/// which a child or stepchild, whom the filer can claim, lived all year.
///
/// # Errors
/// The test that fails.
pub fn surviving_spouse(facts: &Facts, filer: usize) -> Result<(), &'static str> {
    let person = &facts.people[filer];
    let year = i64::from(facts.figures.year);
    if facts.marital != Marital::Widowed {
        return Err("not widowed");
    }
    if !person.spouse_died.is_some_and(|died| died == year - 1 || died == year - 2) {
        return Err("the spouse did not die in one of the two years before");
    }
    if !person.paid_home {
        return Err("did not pay over half the cost of the home");
    }
    let child = |p: &usize| {
        let relationship = facts.people[*p].relationship;
        matches!(relationship, Some(Relationship::Child | Relationship::Stepchild))
            && dependents::months_with(facts, &[filer], *p) >= facts.people[*p].months_alive(facts.year_end)
            && dependents::claimable_but_for_income(facts, &[filer], *p)
    };
    if dependents::candidates(facts).any(|p| child(&p)) {
        Ok(())
    } else {
        Err("no child lived in the home all year")
    }
}

/// Head of household of an unmarried person (§2(b)).
///
/// # Errors
/// The test that fails.
pub fn head_of_household(facts: &Facts, filer: usize) -> Result<(), &'static str> {
    if facts.people[filer].nonresident_alien {
        return Err("nonresident alien in the year");
    }
    if !facts.people[filer].paid_home {
        return Err("did not pay over half the cost of the home");
    }
    let qualifies = |p: usize| qualifying_person(facts, filer, p);
    if dependents::candidates(facts).any(qualifies) { Ok(()) } else { Err("no qualifying person") }
}

/// A qualifying person for head of household (§2(b)(1)).
fn qualifying_person(facts: &Facts, filer: usize, person: usize) -> bool {
    let about = &facts.people[person];
    let more_than_half = dependents::over_half_the_year(facts, &[filer], person);
    match dependents::household_of(facts, &[filer], person) {
        // A married child must be a dependent, but for the filer's being one (§2(b)(1)(A)(i)).
        Ok(Household::QualifyingChild) => !about.married || dependents::fit_to_be_claimed(about).is_ok(),
        // A relative must bring a deduction under §151 (§2(b)(1)(A)(ii), (B)).
        Ok(Household::QualifyingRelative) if dependents::claim(facts, &[filer], person).is_err() => false,
        Ok(Household::QualifyingRelative) => match about.relationship {
            Some(Relationship::Parent) => true,
            Some(Relationship::None) | None => false,
            Some(_) => more_than_half,
        },
        Err(_) => false,
    }
}

/// Considered unmarried (§7703(b)): lived apart from July to December, paid over half of the home that was over
/// half the year that of a child, stepchild or foster child whom the filer can claim.
///
/// # Errors
/// The test that fails.
pub fn considered_unmarried(facts: &Facts, filer: usize) -> Result<(), &'static str> {
    let spouse_is_alien = facts.filers.iter().any(|&f| f != filer && facts.people[f].nonresident_alien);
    if facts.people[filer].nonresident_alien {
        return Err("nonresident alien in the year");
    }
    if spouse_is_alien {
        return head_of_household(facts, filer);
    }
    if !facts.apart {
        return Err("lived together after June");
    }
    if !facts.people[filer].paid_home {
        return Err("did not pay over half the cost of the home");
    }
    let child = |p: usize| {
        let relationship = facts.people[p].relationship;
        matches!(
            relationship,
            Some(Relationship::Child | Relationship::Stepchild | Relationship::FosterChild)
        ) && dependents::over_half_the_year(facts, &[filer], p)
            && dependents::claim(facts, &[filer], p).is_ok()
    };
    if dependents::candidates(facts).any(child) {
        Ok(())
    } else {
        Err("no child lived there over half the year")
    }
}
