//! A fingerprint of sources at build time, so that a pack can name the version of its rules: it changes with every change
//! of the rules, their figures, or the crates that they are computed with.

use std::{
    env, fs, io,
    path::{Path, PathBuf},
};

/// For a pack's build script: sets `HEMBO_RULES` to the fingerprint of the pack, the core and the money crate.
///
/// # Errors
/// When a source cannot be read.
pub fn of_rules() -> io::Result<()> {
    let pack = PathBuf::from(env::var_os("CARGO_MANIFEST_DIR").unwrap_or_default());
    let crates = pack.parent().map(Path::to_path_buf).unwrap_or_default();
    let mut files = Vec::new();
    for folder in [pack.join("src"), pack.join("rules"), crates.join("core/src"), crates.join("money/src")] {
        println!("cargo::rerun-if-changed={}", folder.display());
        gather(&folder, &mut files)?;
    }
    files.sort();
    let mut hash = 0xcbf2_9ce4_8422_2325;
    for file in files {
        hash = fs::read(file)?.iter().fold(hash, step);
    }
    println!(
        "cargo::rustc-env=HEMBO_RULES={}-{hash:016x}",
        env::var("CARGO_PKG_VERSION").unwrap_or_default()
    );
    Ok(())
}

/// FNV-1a.
fn step(hash: u64, byte: &u8) -> u64 {
    (hash ^ u64::from(*byte)).wrapping_mul(0x0100_0000_01b3)
}

fn gather(folder: &Path, files: &mut Vec<PathBuf>) -> io::Result<()> {
    for entry in fs::read_dir(folder)? {
        let path = entry?.path();
        if path.is_dir() {
            gather(&path, files)?;
        } else {
            files.push(path);
        }
    }
    Ok(())
}
