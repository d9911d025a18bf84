//! Set-up, start and test of the whole project. Only the standard library and the cluster crate, so that it builds in
//! a second on a fresh machine.

mod dist;
mod run;
mod setup;
mod start;
mod test;

use std::process::ExitCode;

const USAGE: &str =
    "cargo xtask start [--fresh] [--backups] [--port N]   set up, build and serve with demo data
cargo xtask test   set up, then every check and test
cargo xtask dist   build the archive that is installed elsewhere
cargo xtask deny   what it is made of: licences that are allowed, from the registry alone
cargo xtask sqlx   refresh the checked queries in .sqlx
cargo xtask api    refresh the committed API description, types, schema and coverage";

fn main() -> ExitCode {
    let arguments: Vec<String> = std::env::args().skip(1).collect();
    let words: Vec<&str> = arguments.iter().map(String::as_str).collect();
    let done = match words.as_slice() {
        ["start", options @ ..] => start::start(options),
        ["test"] => test::test(),
        ["dist"] => dist::dist(),
        ["deny"] => dist::deny(),
        ["sqlx"] => test::refresh_queries(),
        ["api"] => test::refresh_api(),
        _ => Err(USAGE.to_owned()),
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(message) => {
            eprintln!("\n{message}");
            ExitCode::FAILURE
        }
    }
}
