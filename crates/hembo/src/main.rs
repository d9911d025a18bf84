//! The binary: `serve` the application, manage its people (`user`), `backup` and `restore` it, give it a new `key`, play the `authority`, `reckon`
//! household files, carry them `forward`, `split` them, `certify` and `verify` results, write the `pack` or the `letter` of one,
//! print the `schema`, the `openapi` description or what is covered.

mod authority;
mod certify;
mod forward;
mod hand;
mod reckon;
mod split;

use clap::{Parser, Subcommand};
use hembo_core::{Registry, coverage, schema};
use std::sync::{Arc, LazyLock};
use std::{
    io::{self, Write},
    process::ExitCode,
};

/// A reckoning makes many small things and lets them go: that of the system takes a sixth more of an edit.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

/// Every country's rules that this program knows.
pub static REGISTRY: LazyLock<Registry> = LazyLock::new(|| {
    Registry::of([
        Arc::new(hembo_us::UnitedStates::COMMITTED),
        Arc::new(hembo_ca::Canada::COMMITTED),
        Arc::new(hembo_nz::NewZealand::COMMITTED),
        Arc::new(hembo_za::SouthAfrica::COMMITTED),
        Arc::new(hembo_de::Germany::COMMITTED),
    ])
});

/// A desk for someone who prepares a household's income tax.
#[derive(Parser)]
#[command(version)]
struct Arguments {
    #[command(subcommand)]
    command: Task,
}

#[derive(Subcommand)]
enum Task {
    /// Serve the application.
    Serve(hembo_server::Settings),
    /// List, add, reset, disable or enable the people who sign in.
    User(hembo_server::manage::PeopleArguments),
    /// Make a backup of a practice, checked by a restore into a throw-away database.
    Backup(hembo_server::backup::BackupArguments),
    /// Restore a backup into an empty database.
    Restore(hembo_server::backup::RestoreArguments),
    /// Give the practice a new key, while people work.
    Key(hembo_server::keys::KeyArguments),
    /// Write every household of a practice as a file, its numbers in full.
    Export(hembo_server::practice_files::ExportArguments),
    /// Play the tax authority and the payers, with made-up data.
    Authority(authority::Arguments),
    /// Compute household files and print their outcomes as JSON.
    Reckon(reckon::Arguments),
    /// Carry household files forward into the next year and print them as JSON.
    Forward(forward::Arguments),
    /// Divide household files with two filers in two and print these as JSON.
    Split(split::Arguments),
    /// Print the certificates of household files as JSON, with the facts, rules and results that they are of.
    Certify(certify::Arguments),
    /// Reckon certificates again and tell whether facts, rules and results agree.
    Verify(certify::Arguments),
    /// Write the pack of a household file as PDF.
    Pack(hand::PackArguments),
    /// Write the letter of a household file as DOCX, by a template.
    Letter(hand::LetterArguments),
    /// Print the JSON Schema of the household file.
    Schema,
    /// Print what is covered and what not, as Markdown.
    Coverage,
    /// Print the OpenAPI description of the server.
    Openapi,
    /// Read a slip from the standard input and print its pages as JSON: what the server starts for each file.
    #[command(hide = true)]
    Read,
}

fn main() -> ExitCode {
    match Arguments::parse().command {
        Task::Serve(settings) => ended(hembo_server::serve(settings, REGISTRY.clone())),
        Task::User(arguments) => match hembo_server::manage::people(&arguments) {
            Ok(lines) => print(&lines.join("\n")),
            Err(error) => ended(Err(error)),
        },
        Task::Backup(arguments) => ended(hembo_server::backup::backup(&arguments)),
        Task::Restore(arguments) => ended(hembo_server::backup::restore(&arguments)),
        Task::Key(arguments) => ended(hembo_server::keys::keys(&arguments, &REGISTRY)),
        Task::Export(arguments) => match hembo_server::practice_files::export(&arguments, &REGISTRY) {
            Ok(count) => print(&format!("{count} households")),
            Err(error) => ended(Err(error)),
        },
        Task::Authority(arguments) => ended(authority::run(arguments, REGISTRY.clone())),
        Task::Reckon(arguments) => reckon::run(&arguments, &REGISTRY),
        Task::Forward(arguments) => forward::run(&arguments, &REGISTRY),
        Task::Split(arguments) => split::run(&arguments, &REGISTRY),
        Task::Certify(arguments) => certify::certify(&arguments, &REGISTRY),
        Task::Verify(arguments) => certify::verify(&arguments, &REGISTRY),
        Task::Pack(arguments) => hand::pack(&arguments, &REGISTRY),
        Task::Letter(arguments) => hand::letter(&arguments, &REGISTRY),
        Task::Schema => print(&format!("{:#}", schema::household(&REGISTRY))),
        Task::Coverage => print(coverage::page(&REGISTRY).trim_end()),
        Task::Read => ended(hembo_reader::child::run()),
        Task::Openapi => print(&hembo_server::openapi_json()),
    }
}

fn ended(with: io::Result<()>) -> ExitCode {
    match with {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("hembo: {error}");
            ExitCode::FAILURE
        }
    }
}

/// Prints a document; a reader that goes away is no failure.
fn print(text: &str) -> ExitCode {
    let _ = writeln!(io::stdout(), "{text}");
    ExitCode::SUCCESS
}
