//! `hembo pack FILE` and `hembo letter FILE`: what is handed over of a household file, without a server.
//!
//! Exit codes: 0 written; 1 the file could not be read, is no household, or nothing could be written; 2 wrong arguments.

use crate::reckon::{fault, household, reckoned, tell, tell_faults};
use hembo_core::{
    Household, Outcome, Registry,
    certificate::{Certificate, certificate},
    check::Fault,
    outcome::NAMED_WAYS,
    secret,
};
use hembo_documents::{
    letter::{self, Fields, Language},
    pack::{self, Part, Source},
};
use std::{
    fs,
    io::{self, Write},
    path::{Path, PathBuf},
    process::ExitCode,
};

const BAD_FILE: u8 = 1;
const BAD_ARGUMENTS: u8 = 2;

/// What is handed over, and by whom.
#[derive(clap::Args)]
pub struct Handed {
    /// A household file; `-` reads standard input.
    file: PathBuf,
    /// The practice's name.
    #[arg(long, default_value = "")]
    practice: String,
    /// The day on which it is made, as people read it.
    #[arg(long, default_value = "")]
    day: String,
    /// Where to write it; standard output where it is left out.
    #[arg(long, short)]
    out: Option<PathBuf>,
}

/// What `pack` is asked to do.
#[derive(clap::Args)]
pub struct PackArguments {
    #[command(flatten)]
    handed: Handed,
    /// The parts in their order, with commas; all but the letter and notes where it is left out.
    #[arg(long, value_delimiter = ',')]
    parts: Vec<String>,
}

/// What `letter` is asked to do.
#[derive(clap::Args)]
pub struct LetterArguments {
    #[command(flatten)]
    handed: Handed,
    /// The file of the template.
    #[arg(long)]
    template: PathBuf,
    /// The language of its amounts and days: en, es, fr, de or af.
    #[arg(long, default_value = "en", value_parser = language)]
    language: Language,
}

fn language(code: &str) -> Result<Language, String> {
    let known = Language::ALL.map(Language::code).join(", ");
    Language::named(code).ok_or_else(|| format!("there is no language '{code}'; there are {known}"))
}

/// Writes the pack of a household as PDF.
pub fn pack(arguments: &PackArguments, registry: &Registry) -> ExitCode {
    let parts: Result<Vec<Part>, &String> =
        arguments.parts.iter().map(|name| Part::named(name).ok_or(name)).collect();
    let parts = match parts {
        Ok(parts) if parts.is_empty() => usual(),
        Ok(parts) => parts,
        Err(wrong) => {
            let known = Part::ALL.map(Part::name).join(", ");
            return refuse(BAD_ARGUMENTS, &format!("hembo: there is no part '{wrong}'; there are {known}"));
        }
    };
    let write = |of: Source<'_>| {
        let document = pack::document(of, &parts);
        hembo_documents::write(&document).map(|written| written.bytes).map_err(|why| why.to_string())
    };
    hand(&arguments.handed, registry, write)
}

/// Without what a file does not hold.
fn usual() -> Vec<Part> {
    Part::ALL.into_iter().filter(|part| !matches!(part, Part::Letter | Part::Notes)).collect()
}

/// Writes the letter of a household as DOCX.
pub fn letter(arguments: &LetterArguments, registry: &Registry) -> ExitCode {
    let template = match fs::read_to_string(&arguments.template) {
        Ok(template) => template,
        Err(why) => {
            return refuse(BAD_FILE, &format!("hembo: {}: {why}", arguments.template.display()));
        }
    };
    let write = |of: Source<'_>| {
        let merged = letter::merge(&template, &Fields::of(of, arguments.language));
        let merged = merged.map_err(|fault| format!("{}: {fault}", arguments.template.display()))?;
        letter::docx(&merged, of.practice)
    };
    hand(&arguments.handed, registry, write)
}

/// Reckons the file, writes what is made of it, and says what went wrong.
fn hand(
    handed: &Handed,
    registry: &Registry,
    make: impl Fn(Source<'_>) -> Result<Vec<u8>, String>,
) -> ExitCode {
    let (household, outcome, certificate) = match worked(&handed.file, registry) {
        Ok(reckoned) => reckoned,
        Err(faults) => {
            tell_faults(&handed.file, &faults);
            return ExitCode::from(BAD_FILE);
        }
    };
    let Some(rules) = registry.pack(&household.country) else { return ExitCode::from(BAD_FILE) };
    let source = Source {
        household: &household,
        outcome: &outcome,
        rules,
        practice: &handed.practice,
        revision: None,
        made: &handed.day,
        notes: &[],
        letter: None,
        slips: &[],
        asked: &[],
        certificate: &certificate,
    };
    let written = make(source).and_then(|bytes| put(handed.out.as_deref(), &bytes));
    match written {
        Ok(()) => ExitCode::SUCCESS,
        Err(why) => refuse(BAD_FILE, &format!("hembo: {why}")),
    }
}

/// A household file, what comes out of it, and the certificate of that.
fn worked(path: &PathBuf, registry: &Registry) -> Result<(Household, Outcome, Certificate), Vec<Fault>> {
    let mut household = household(path, registry)?;
    let outcome = reckoned(&household, NAMED_WAYS, registry)?;
    let unknown = || fault(format!("No law of '{}' is known.", household.country));
    let pack = registry.pack(&household.country).ok_or_else(unknown)?;
    let certificate = certificate(&household, &outcome, pack);
    // Numbers are for the authority, not for what is handed over.
    secret::leave_out(&mut household, pack);
    Ok((household, outcome, certificate))
}

fn put(out: Option<&Path>, bytes: &[u8]) -> Result<(), String> {
    match out {
        Some(path) => fs::write(path, bytes).map_err(|why| format!("{}: {why}", path.display())),
        None => {
            // A reader that goes away is no failure.
            let _ = io::stdout().write_all(bytes);
            Ok(())
        }
    }
}

fn refuse(code: u8, why: &str) -> ExitCode {
    tell(why);
    ExitCode::from(code)
}
