//! Who of spouses who file apart claims a dependent whom either may claim (§152(c)(4), (e)).

use crate::{dependents, facts::Facts, status};
use hembo_core::{
    choice::Open,
    decision::{Bar, Decision, Opt},
    words::first_name,
};

/// Which spouse claims a dependent on separate returns: by the place of the dependent.
pub static CLAIM: Open<Facts> = Open::new(disputed, who_claims)
    .arises(|facts, _, way| status::separate(facts, way))
    .bars(|facts, person, option, _| {
        dependents::claim(facts, &[facts.filers[option]], person).err().map(Bar::Borrowed)
    });

/// Dependents whom one of a couple may claim alone.
fn disputed(facts: &Facts) -> Vec<usize> {
    let may = |p: &usize| facts.filers.iter().any(|&f| dependents::claim(facts, &[f], *p).is_ok());
    if facts.couple() { dependents::candidates(facts).filter(may).collect() } else { Vec::new() }
}

fn who_claims(facts: &Facts, person: usize) -> Decision {
    let about = &facts.people[person];
    let option = |&f: &usize| {
        let filer = &facts.people[f];
        let short = format!("{} with {}", first_name(&about.name), first_name(&filer.name));
        Opt::new(filer.id.as_str(), filer.name.as_str(), short)
    };
    let options = facts.filers.iter().map(option).collect();
    let label = format!("Who claims {}", about.name);
    Decision::between(format!("us.claim.{}", about.id), label, "IRC §152(c)(4), (e)", options)
}
