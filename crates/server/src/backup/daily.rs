//! A backup a day into a folder, while the server runs.

use super::{make, tell};
use std::{
    fs, io,
    os::unix::fs::DirBuilderExt,
    path::{Path, PathBuf},
    time::Duration,
};
use time::OffsetDateTime;

/// So many daily backups stay.
const KEPT: usize = 14;
/// How often it is looked whether today has one.
const LOOK: Duration = Duration::from_secs(1800);
const BEGINNING: &str = "hembo-";
const ENDING: &str = ".backup";

/// Makes one of today where there is none, and removes the oldest beyond fourteen; on and on. One that fails is told in the
/// log and tried again.
pub async fn daily(database: String, folder: PathBuf) {
    let mut clock = tokio::time::interval(LOOK);
    loop {
        clock.tick().await;
        let (database, folder) = (database.clone(), folder.clone());
        let done = tokio::task::spawn_blocking(move || of_today(&database, &folder)).await;
        match done.map_err(io::Error::other).flatten() {
            Ok(Some(name)) => tracing::info!(%name, "backup made and checked"),
            Ok(None) => {}
            Err(error) => tracing::error!(%error, "no backup was made"),
        }
    }
}

/// The name of the one that was made.
fn of_today(database: &str, folder: &Path) -> io::Result<Option<String>> {
    fs::DirBuilder::new().recursive(true).mode(0o700).create(folder)?;
    let name = format!("{BEGINNING}{}{ENDING}", OffsetDateTime::now_utc().date());
    if folder.join(&name).exists() {
        return Ok(None);
    }
    make(database, &folder.join(&name), None, true)?;
    let mut all = backups(folder)?;
    all.sort();
    for old in all.iter().rev().skip(KEPT) {
        fs::remove_file(folder.join(old))?;
        tell(&format!("removed {old}"));
    }
    Ok(Some(name))
}

/// The daily backups of a folder: their names are in the order of their days.
fn backups(folder: &Path) -> io::Result<Vec<String>> {
    let names = fs::read_dir(folder)?.filter_map(|entry| entry.ok()?.file_name().into_string().ok());
    Ok(names.filter(|name| name.starts_with(BEGINNING) && name.ends_with(ENDING)).collect())
}
