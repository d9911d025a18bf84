//! `hembo forward FILE…`: household files in, the same households of the next year out.
//!
//! Exit codes: 0 all carried forward; 1 a file could not be read, is no household, or cannot be carried forward.

use crate::reckon::each;
use hembo_core::{Registry, check::Fault, outcome::next_year, search::Stop};
use std::{path::PathBuf, process::ExitCode};

/// What `forward` is asked to do.
#[derive(clap::Args)]
pub struct Arguments {
    /// Household files; `-` reads standard input.
    #[arg(required = true)]
    files: Vec<PathBuf>,
}

/// Carries every file forward, one JSON document a file on standard output; messages go to standard error.
pub fn run(arguments: &Arguments, registry: &Registry) -> ExitCode {
    each(&arguments.files, registry, |household, pack| {
        let next = next_year(&household, pack, &Stop::default());
        next.map(|next| vec![next]).map_err(|why| vec![Fault::new("/year", why.to_string())])
    })
}
