//! Installing what is missing: Debian's packages, and the packages of the front end and the browser suite.

use crate::run::{Done, has, program, root, run};
use hembo_cluster::{PACKAGE, is_root, programs};
use std::fs;

/// PostgreSQL's server programs.
pub fn postgresql() -> Done {
    if programs().is_none() {
        install(PACKAGE)?
    }
    Ok(())
}

/// The browser that the suite drives.
pub fn chromium() -> Done {
    if has("chromium") { Ok(()) } else { install("chromium") }
}

/// What reads the text of PDF files back, for the tests.
pub fn pdftotext() -> Done {
    if has("pdftotext") { Ok(()) } else { install("poppler-utils") }
}

fn install(package: &str) -> Done {
    let how = format!("apt-get install -y --no-install-recommends {package}");
    if !is_root() || !has("apt-get") {
        return Err(format!("{package} is missing and this user may not install it. As root: {how}"));
    }
    let mut update = program("apt-get");
    run("Package lists", update.args(["update", "-qq"]))?;
    let mut install = program("apt-get");
    install
        .args(["install", "-y", "-qq", "--no-install-recommends", package])
        .env("DEBIAN_FRONTEND", "noninteractive");
    run(&format!("Installing {package}"), &mut install)
}

/// The packages of a folder, as its lock file names them; again only when the lock file changed.
pub fn node_packages(folder: &str) -> Done {
    if !has("node") || !has("npm") {
        return Err("Node.js with npm is missing: install Node.js 20 or newer.".into());
    }
    let folder_path = root().join(folder);
    let lock = fs::read(folder_path.join("package-lock.json")).map_err(|e| format!("{folder}: {e}"))?;
    let installed = folder_path.join("node_modules/.installed-lock");
    if fs::read(&installed).is_ok_and(|old| old == lock) {
        return Ok(());
    }
    let mut npm = program("npm");
    npm.current_dir(&folder_path).args(["ci", "--no-audit", "--no-fund"]);
    run(&format!("Packages of {folder}"), &mut npm)?;
    fs::write(installed, lock).map_err(|e| format!("{folder}: {e}"))
}
