//! `hembo certify FILE…` and `hembo verify FILE…`: the certificate of a household's result as a file, and whether one still agrees.
//!
//! Exit codes: 0 written, or all agree; 1 a file could not be read, or is no household or certificate; 3 one does not agree.

use crate::reckon::{BAD_FILE, NOT_COVERED, bytes, fault, household, print, reckoned, tell, tell_faults};
use hembo_core::{
    Household, Registry,
    certificate::{Certified, Sealed},
    check::Fault,
    outcome::NAMED_WAYS,
};
use std::{collections::BTreeSet, path::PathBuf, process::ExitCode};

/// What `certify` and `verify` are asked to do.
#[derive(clap::Args)]
pub struct Arguments {
    /// Household files, or certificates; `-` reads standard input.
    #[arg(required = true)]
    files: Vec<PathBuf>,
}

/// Reckons every household and prints its certificate as JSON, with the facts that it is of.
pub fn certify(arguments: &Arguments, registry: &Registry) -> ExitCode {
    each(arguments, |file| {
        let certified = certified(&household(file, registry)?, registry)?;
        Ok(if print(&certified.sealed()).is_ok() { 0 } else { BAD_FILE })
    })
}

/// Reckons the facts of every certificate again and tells whether all of it agrees.
pub fn verify(arguments: &Arguments, registry: &Registry) -> ExitCode {
    each(arguments, |file| {
        let sealed: Sealed = serde_json::from_slice(&bytes(file)?)
            .map_err(|why| fault(format!("It is no certificate: {why}")))?;
        let again = certified(&sealed.certified.household, registry)?;
        let faults = sealed.faults(&again);
        for words in &faults {
            tell(&format!("{}: {words}", file.display()));
        }
        if faults.is_empty() {
            tell(&format!("{}: facts, rules and result agree.", file.display()));
            return Ok(0);
        }
        Ok(NOT_COVERED)
    })
}

fn certified(household: &Household, registry: &Registry) -> Result<Certified, Vec<Fault>> {
    let outcome = reckoned(household, NAMED_WAYS, registry)?;
    let unknown = || fault(format!("No law of '{}' is known.", household.country));
    let pack = registry.pack(&household.country).ok_or_else(unknown)?;
    Ok(Certified::of(household, &outcome, pack))
}

/// What the worst of the files comes to.
fn each(arguments: &Arguments, one: impl Fn(&PathBuf) -> Result<u8, Vec<Fault>>) -> ExitCode {
    let mut codes = BTreeSet::new();
    for file in &arguments.files {
        codes.insert(one(file).unwrap_or_else(|faults| {
            tell_faults(file, &faults);
            BAD_FILE
        }));
    }
    let worst = if codes.contains(&BAD_FILE) { Some(BAD_FILE) } else { codes.pop_last() };
    ExitCode::from(worst.unwrap_or(0))
}
