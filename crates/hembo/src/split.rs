//! `hembo split FILE…`: household files with two filers in, two households out for each, and on standard error what went
//! where.
//!
//! Exit codes: 0 all divided; 1 a file could not be read, is no household, or has not two filers.

use crate::reckon::{household, print, tell_faults};
use hembo_core::{
    Registry,
    check::Fault,
    divide::{Divided, divide},
};
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
    let mut failed = false;
    for file in &arguments.files {
        let divided = household(file, registry).and_then(|household| {
            let pack = registry.pack(&household.country).ok_or_else(Vec::new)?;
            divide(&household, pack).map_err(|why| vec![Fault::new("/people", why.to_string())])
        });
        match divided {
            Ok(Divided { halves, went }) => {
                for one in went {
                    let decide = if one.decide { ": to be decided" } else { "" };
                    eprintln!("{} to {}, {}{decide}", one.what, one.to, one.how);
                }
                if halves.iter().any(|half| print(half).is_err()) {
                    return ExitCode::SUCCESS;
                }
            }
            Err(faults) => {
                failed = true;
                tell_faults(file, &faults);
            }
        }
    }
    ExitCode::from(u8::from(failed))
}
