//! `hembo split FILE…`: household files with two filers in, two households out for each, and on standard error what went
//! where.
//!
//! Exit codes: 0 all divided; 1 a file could not be read, is no household, or has not two filers.

use crate::reckon::{each, tell};
use hembo_core::{Registry, check::Fault, divide::divide};
use std::{path::PathBuf, process::ExitCode};

/// What `split` is asked to do.
#[derive(clap::Args)]
pub struct Arguments {
    /// Household files; `-` reads standard input.
    #[arg(required = true)]
    files: Vec<PathBuf>,
}

/// Divides every file, two JSON documents a file on standard output; what went where goes to standard error.
pub fn run(arguments: &Arguments, registry: &Registry) -> ExitCode {
    each(&arguments.files, registry, |household, pack| {
        let divided = divide(&household, pack).map_err(|why| vec![Fault::new("/people", why.to_string())])?;
        for one in divided.went {
            let decide = if one.decide { ": to be decided" } else { "" };
            tell(&format!("{} to {}, {}{decide}", one.what, one.to, one.how));
        }
        Ok(divided.halves.into())
    })
}
