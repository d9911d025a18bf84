//! `hembo reckon FILE…`: household files in, outcomes out, for batch work, checks and other programs.
//!
//! Exit codes: 0 all computed; 1 a file could not be read or is no household; 2 wrong arguments; 3 a household needs
//! a rule that is not computed yet, or has more ways than could be weighed (its outcome is printed with
//! `"covered": false` or `"complete": false`).

use hembo_core::{
    Household, Outcome, Pack, Registry, check,
    check::Fault,
    file,
    outcome::{self, Unreckoned, Wanted},
    search::Stop,
};
use serde::Serialize;
use std::{
    collections::{BTreeMap, BTreeSet},
    fs::File,
    io::{self, Read, Write, stdin},
    path::{Path, PathBuf},
    process::ExitCode,
};

/// How many ways are named where nobody asks for more.
const WAYS: usize = 1_000;
/// A file could not be read, or is none of its kind.
pub const BAD_FILE: u8 = 1;
const BAD_ARGUMENTS: u8 = 2;
/// What is asked of a result does not hold.
pub const NOT_COVERED: u8 = 3;

/// What `reckon` is asked to do.
#[derive(clap::Args)]
pub struct Arguments {
    /// Household files; `-` reads standard input.
    #[arg(required = true)]
    files: Vec<PathBuf>,
    /// Print every line with what it was made from.
    #[arg(long)]
    trail: bool,
    /// How many of the lowest ways to name; all are weighed in any case.
    #[arg(long, value_name = "N", default_value_t = WAYS)]
    ways: usize,
    /// Hold an option of a decision; may be given several times.
    #[arg(long = "pin", value_name = "DECISION=OPTION")]
    pins: Vec<String>,
    /// Hold all options of a way, separated by commas.
    #[arg(long, value_name = "DECISION=OPTION,…")]
    way: Option<String>,
}

/// Computes every file; messages go to standard error, outcomes to standard output, one JSON document a file. A reader
/// that goes away ends the work quietly.
pub fn run(arguments: &Arguments, registry: &Registry) -> ExitCode {
    let pins = match pins(arguments) {
        Ok(pins) => pins,
        Err(wrong) => {
            tell(&format!("hembo: {wrong}"));
            return ExitCode::from(BAD_ARGUMENTS);
        }
    };
    let mut codes = BTreeSet::new();
    for file in &arguments.files {
        match one(file, &pins, (arguments.trail, arguments.ways), registry) {
            Ok(outcome) => {
                codes.insert(if outcome.covered && outcome.complete { 0 } else { NOT_COVERED });
                if print(&outcome).is_err() {
                    return ExitCode::SUCCESS;
                }
            }
            Err(faults) => {
                codes.insert(BAD_FILE);
                tell_faults(file, &faults);
            }
        }
    }
    let worst = if codes.contains(&BAD_FILE) { Some(BAD_FILE) } else { codes.pop_last() };
    ExitCode::from(worst.unwrap_or(0))
}

/// Prints a document as JSON.
pub fn print(document: &impl Serialize) -> io::Result<()> {
    let mut out = io::stdout().lock();
    writeln!(out, "{}", serde_json::to_string_pretty(document).unwrap_or_default())?;
    out.flush()
}

/// Tells what is wrong with a file, each fault at its place.
pub fn tell_faults(file: &Path, faults: &[Fault]) {
    for Fault { at, message } in faults {
        let place = if at.is_empty() { String::new() } else { format!("{at}: ") };
        tell(&format!("{}: {place}{message}", file.display()));
    }
}

/// Nobody may be listening.
pub fn tell(message: &str) {
    let _ = writeln!(io::stderr(), "{message}");
}

/// The options to hold, each decision at most once.
fn pins(arguments: &Arguments) -> Result<BTreeMap<String, String>, String> {
    let way = arguments.way.iter().flat_map(|w| w.split(','));
    let mut held = BTreeMap::new();
    for pin in arguments.pins.iter().map(String::as_str).chain(way) {
        let (decision, option) = pin
            .split_once('=')
            .ok_or_else(|| format!("'{pin}' is not DECISION=OPTION, such as us.deduction=standard"))?;
        let before = held.insert(decision.to_owned(), option.to_owned());
        if let Some(before) = before.filter(|before| before != option) {
            return Err(format!("{decision} is held at '{before}' and at '{option}': leave one of them out"));
        }
    }
    Ok(held)
}

/// The household of a file.
pub fn household(file: &PathBuf, registry: &Registry) -> Result<Household, Vec<Fault>> {
    file::read(&bytes(file)?, registry)
}

fn one(
    file: &PathBuf,
    pins: &BTreeMap<String, String>,
    (trail, ways): (bool, usize),
    registry: &Registry,
) -> Result<Outcome, Vec<Fault>> {
    let mut household = household(file, registry)?;
    household.pins.extend(pins.clone());
    let outcome = reckoned(&household, ways, registry)?;
    let faults: Vec<_> = pins.iter().filter_map(|(d, o)| outcome.check_pin(d, o).err()).collect();
    if !faults.is_empty() {
        return Err(faults);
    }
    Ok(if trail { outcome } else { outcome.without_trail() })
}

/// What comes out of a household, with so many ways named.
pub fn reckoned(household: &Household, ways: usize, registry: &Registry) -> Result<Outcome, Vec<Fault>> {
    let outcome = outcome::reckon_until(household, registry, Wanted::all(ways), &Stop::default());
    outcome.map_err(|why| match why {
        Unreckoned::Faults(faults) => faults,
        Unreckoned::Stopped => fault("The computation was stopped.".into()),
    })
}

/// Something wrong with a whole file.
pub fn fault(message: String) -> Vec<Fault> {
    vec![Fault::new("", message)]
}

/// At most one byte more than a household file may have, so that a huge file is refused without being read.
pub fn bytes(file: &PathBuf) -> Result<Vec<u8>, Vec<Fault>> {
    let source: Box<dyn Read> = if file.as_os_str() == "-" {
        Box::new(stdin())
    } else {
        let opened = File::open(file).map_err(|e| fault(format!("The file cannot be opened: {e}.")))?;
        let size = opened.metadata().map(|m| m.len()).unwrap_or(0);
        if size > check::LARGEST_FILE as u64 {
            return Err(fault(file::too_large(size)));
        }
        Box::new(opened)
    };
    let mut bytes = Vec::new();
    let read = source.take(check::LARGEST_FILE as u64 + 1).read_to_end(&mut bytes);
    read.map_err(|e| fault(format!("The file cannot be read: {e}.")))?;
    Ok(bytes)
}

/// Makes households of every household file and prints them, one JSON document each; faults go to standard error. Exit codes: 0
/// all made; 1 a file could not be read, is no household, or nothing can be made of it.
pub fn each(
    files: &[PathBuf],
    registry: &Registry,
    make: impl Fn(Household, &dyn Pack) -> Result<Vec<Household>, Vec<Fault>>,
) -> ExitCode {
    let mut failed = false;
    for file in files {
        let made = household(file, registry).and_then(|household| {
            let pack = registry.pack(&household.country).ok_or_else(Vec::new)?;
            make(household, pack)
        });
        match made {
            Ok(made) if made.iter().any(|one| print(one).is_err()) => return ExitCode::SUCCESS,
            Ok(_) => {}
            Err(faults) => {
                failed = true;
                tell_faults(file, &faults);
            }
        }
    }
    ExitCode::from(u8::from(failed))
}
