//! `cargo xtask dist`: one archive with all that a server needs, for a machine that builds nothing.

use crate::{
    run::{Done, cargo, has, node, program, root, run},
    setup,
};
use std::{fs, path::Path};

/// What lies in the archive beside the binary and the front end.
const BESIDE: [(&str, &str); 4] = [
    ("deploy/hembo.service", "hembo.service"),
    ("deploy/hembo.env", "hembo.env"),
    ("docs/operations.md", "operations.md"),
    ("docs/coverage.md", "coverage.md"),
];

/// What the application is made of: licences that are allowed, and from the registry alone. Known weaknesses are not looked
/// up: their list would have to be fetched.
pub fn deny() -> Done {
    if !has("cargo-deny") {
        run("Installing cargo-deny", cargo().args(["install", "--locked", "cargo-deny"]))?;
    }
    run("Licences and sources", cargo().args(["deny", "check", "bans", "licenses", "sources"]))
}

/// Builds it.
pub fn dist() -> Done {
    deny()?;
    setup::node_packages("web")?;
    run("Building the front end", node("web", "vite/bin/vite.js").arg("build"))?;
    run("Building the server", cargo().args(["build", "--release", "--package", "hembo"]))?;
    let name = format!("hembo-{}", env!("CARGO_PKG_VERSION"));
    let folder = root().join("target/dist");
    let all = folder.join(&name);
    let wrong = |at: &Path, error: std::io::Error| format!("{}: {error}", at.display());
    let _ = fs::remove_dir_all(&all);
    fs::create_dir_all(&all).map_err(|error| wrong(&all, error))?;
    let copied = |from: &Path, to: &Path| fs::copy(from, to).map(drop).map_err(|error| wrong(from, error));
    copied(&root().join("target/release/hembo"), &all.join("hembo"))?;
    for (from, to) in BESIDE {
        copied(&root().join(from), &all.join(to))?;
    }
    run("Copying the front end", program("cp").arg("-r").arg(root().join("web/dist")).arg(all.join("web")))?;
    let mut licences = program("node");
    run("Licences", licences.arg(root().join("xtask/licences.mjs")).arg(all.join("LICENCES.txt")))?;
    let archive = folder.join(format!("{name}.tar.gz"));
    let mut tar = program("tar");
    run("Archive", tar.arg("-czf").arg(&archive).arg("-C").arg(&folder).arg(&name))?;
    println!("\n{}", archive.display());
    Ok(())
}
