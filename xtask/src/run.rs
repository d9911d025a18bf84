//! Running programs and telling what failed.

use std::{
    path::PathBuf,
    process::{Command, Stdio},
};

/// What a step comes to: nothing, or a message that says what to do.
pub type Done<T = ()> = Result<T, String>;

/// The project's folder.
pub fn root() -> PathBuf {
    let here = PathBuf::from(env!("CARGO_MANIFEST_DIR"));
    here.parent().map(PathBuf::from).unwrap_or(here)
}

/// A program in the project's folder. A database of the surroundings must not reach the checked queries.
pub fn program(name: &str) -> Command {
    let mut command = Command::new(name);
    command.current_dir(root()).env_remove("DATABASE_URL");
    command
}

/// Cargo, as it runs this. What it tells this program of its own package would reach build scripts, which then run again
/// whenever cargo is called otherwise.
pub fn cargo() -> Command {
    let mut command = program(&std::env::var("CARGO").unwrap_or_else(|_| "cargo".into()));
    let own = |name: &str| name.starts_with("CARGO_PKG_") || name.starts_with("CARGO_MANIFEST_");
    for (name, _) in std::env::vars_os() {
        if name.to_str().is_some_and(own) {
            command.env_remove(name);
        }
    }
    command
}

/// A program of the packages in a folder, called directly by Node.js.
pub fn node(folder: &str, script: &str) -> Command {
    let mut command = program("node");
    command.current_dir(root().join(folder)).arg(format!("node_modules/{script}"));
    command
}

/// Runs a step to its end.
pub fn run(what: &str, command: &mut Command) -> Done {
    println!("\n== {what}");
    let status =
        command.status().map_err(|e| format!("{what}: {:?} cannot be run: {e}", command.get_program()))?;
    if status.success() { Ok(()) } else { Err(format!("{what} failed ({status}).")) }
}

/// Whether a program is there.
pub fn has(name: &str) -> bool {
    let mut command = Command::new("sh");
    command.args(["-c", &format!("command -v {name}")]).stdout(Stdio::null()).stderr(Stdio::null());
    command.status().is_ok_and(|s| s.success())
}
