//! Who of two filers who file apart claims a dependent whom either may claim (§152(c)(4)), or whom one of the parents releases
//! to the other (§152(e)).

use crate::{
    dependents,
    facts::Facts,
    release, status,
    unit::{Dependent, Household},
};
use hembo_core::{
    choice::Open,
    decision::{Bar, Decision, Opt},
    words::first_name,
};

/// Which filer claims a dependent on separate returns: by the place of the dependent.
pub static CLAIM: Open<Facts> = Open::new(disputed, who_claims)
    .arises(|facts, _, way| status::separate(facts, way))
    .bars(|facts, person, option, _| by(facts, facts.filers[option], person).err().map(Bar::Borrowed));

/// How a dependent stands on the separate return of a filer, where the claim is with one of the two.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Stands {
    /// Claimed on it.
    Claimed(Dependent),
    /// Released by its filer to the other parent: the home stays here (§152(e)).
    Released,
    /// Claimed by the other filer as a relative, though a qualifying child here: this filer need not file, and does so only to
    /// get back what was withheld (Notice 2008-5).
    Yielded,
    /// With the other filer, or with nobody.
    Elsewhere,
}

/// How a dependent stands on the separate return of a filer.
pub fn stands(facts: &Facts, filer: usize, person: usize, claimer: Option<usize>) -> Stands {
    let claimed = claimer.and_then(|c| by(facts, c, person).ok());
    match claimed {
        Some(dependent) if claimer == Some(filer) => Stands::Claimed(dependent),
        Some(_) if claimer.is_some_and(|c| release::between(facts, c, person).is_ok()) => Stands::Released,
        Some(Dependent { as_a: Household::QualifyingRelative, .. })
            if dependents::qualifying_child(facts, &[filer], person).is_ok() =>
        {
            Stands::Yielded
        }
        _ => Stands::Elsewhere,
    }
}

/// Whether a filer alone can claim a person, by the tests of §152 or by the other parent's release.
fn by(facts: &Facts, filer: usize, person: usize) -> Result<Dependent, &'static str> {
    if facts.nonresident_spouse() == Some(filer) {
        return Err("files no return");
    }
    dependents::claim(facts, &[filer], person)
        .or_else(|why| release::between(facts, filer, person).map_err(|_| why))
}

/// Dependents whom one of two may claim alone.
fn disputed(facts: &Facts) -> Vec<usize> {
    let may = |p: &usize| facts.filers.iter().any(|&f| dependents::claim(facts, &[f], *p).is_ok());
    if facts.filers.len() == 2 { facts.candidates().filter(may).collect() } else { Vec::new() }
}

fn who_claims(facts: &Facts, person: usize) -> Decision {
    let about = &facts.people[person];
    let option = |&f: &usize| {
        let filer = &facts.people[f];
        let short = format!("{} with {}", first_name(&about.name), first_name(&filer.name));
        let released = release::between(facts, f, person).is_ok();
        let label = if released { format!("{}, by Form 8332", filer.name) } else { filer.name.clone() };
        Opt::new(filer.id.as_str(), label, short)
    };
    let options = facts.filers.iter().map(option).collect();
    let label = format!("Who claims {}", about.name);
    Decision::between(format!("us.claim.{}", about.id), label, "IRC §152(c)(4), (e)", options)
}
