//! `hembo reckon FILE…`: household files in, outcomes out, for batch work, checks and other programs.
//!
//! Exit codes: 0 all computed; 1 a file could not be read or is no household; 2 wrong arguments; 3 a household needs
//! a rule that is not computed yet (its outcome is printed with `"covered": false`).

use hembo_core::{Outcome, Registry, check, check::Fault, outcome};
use std::{
    fs::File,
    io::{Read, stdin},
    path::PathBuf,
    process::ExitCode,
};

const BAD_FILE: u8 = 1;
const BAD_ARGUMENTS: u8 = 2;
const NOT_COVERED: u8 = 3;

/// What `reckon` is asked to do.
#[derive(clap::Args)]
pub struct Arguments {
    /// Household files; `-` reads standard input.
    #[arg(required = true)]
    files: Vec<PathBuf>,
    /// Print every line with what it was made from.
    #[arg(long)]
    trail: bool,
    /// Hold an option of a decision; may be given several times.
    #[arg(long = "pin", value_name = "DECISION=OPTION")]
    pins: Vec<String>,
    /// Hold all options of a way, separated by commas.
    #[arg(long, value_name = "DECISION=OPTION,…")]
    way: Option<String>,
}

/// Computes every file; messages go to standard error, outcomes to standard output, one JSON document a file.
pub fn run(arguments: &Arguments, registry: &Registry) -> ExitCode {
    let pins = match pins(arguments) {
        Ok(pins) => pins,
        Err(wrong) => {
            eprintln!("hembo: '{wrong}' is not DECISION=OPTION, such as us.deduction=standard");
            return ExitCode::from(BAD_ARGUMENTS);
        }
    };
    let mut worst = 0;
    for file in &arguments.files {
        let code = match one(file, &pins, arguments.trail, registry) {
            Ok(outcome) => {
                println!("{}", serde_json::to_string_pretty(&outcome).unwrap_or_default());
                if outcome.covered { 0 } else { NOT_COVERED }
            }
            Err(faults) => {
                for fault in faults {
                    eprintln!("{}: {}: {}", file.display(), fault.at, fault.message);
                }
                BAD_FILE
            }
        };
        worst = if worst == BAD_FILE { worst } else { worst.max(code) };
        if code == BAD_FILE {
            worst = BAD_FILE;
        }
    }
    ExitCode::from(worst)
}

fn pins(arguments: &Arguments) -> Result<Vec<(String, String)>, String> {
    let way = arguments.way.iter().flat_map(|w| w.split(','));
    let each = arguments.pins.iter().map(String::as_str).chain(way);
    each.map(|pin| pin.split_once('=').map(|(d, o)| (d.into(), o.into())).ok_or_else(|| pin.to_owned()))
        .collect()
}

fn one(
    file: &PathBuf,
    pins: &[(String, String)],
    trail: bool,
    registry: &Registry,
) -> Result<Outcome, Vec<Fault>> {
    let mut household = check::read(&bytes(file)?, registry)?;
    household.pins.extend(pins.iter().cloned());
    let outcome = outcome::reckon_naming(&household, registry, outcome::MOST_WAYS)?;
    let faults: Vec<_> = pins.iter().filter_map(|(d, o)| outcome.check_pin(d, o).err()).collect();
    if !faults.is_empty() {
        return Err(faults);
    }
    Ok(if trail { outcome } else { outcome.without_trail() })
}

/// At most one byte more than a household file may have, so that a huge file is refused without being read.
fn bytes(file: &PathBuf) -> Result<Vec<u8>, Vec<Fault>> {
    let source: Box<dyn Read> = if file.as_os_str() == "-" {
        Box::new(stdin())
    } else {
        let opened = File::open(file);
        Box::new(opened.map_err(|e| vec![Fault::new("file", format!("cannot be opened: {e}"))])?)
    };
    let mut bytes = Vec::new();
    let read = source.take(check::LARGEST_FILE as u64 + 1).read_to_end(&mut bytes);
    read.map_err(|e| vec![Fault::new("file", format!("cannot be read: {e}"))])?;
    Ok(bytes)
}
