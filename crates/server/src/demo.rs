//! The demo practice: a sign-in and made-up households, loaded once into an empty database.

use crate::{
    App,
    api::households::store_new,
    auth::{Role, password},
    store::{
        practice::{self, Practice},
        users,
    },
};
use hembo_core::file;
use std::{fs, io, path::Path};

/// The demo sign-in.
pub const LOGIN: &str = "demo";
/// The sign-in of the demo practice's administrator, who may replace rule figures.
pub const OFFICE: &str = "office";
/// The sign-in of the demo practice's reviewer.
pub const REVIEWER: &str = "review";
/// The name of the demo practice.
const NAME: &str = "Quay Street Practice";
/// The password of all of them.
pub const PASSWORD: &str = "quay-street-12";

/// Loads the demo sign-in and the households of a folder, if nobody is there yet.
///
/// # Errors
/// A folder or file that cannot be read, or a database that fails.
pub async fn load(app: &App, folder: &Path) -> io::Result<()> {
    if users::any(&app.database).await.map_err(io::Error::other)? {
        return Ok(());
    }
    let hash = tokio::task::spawn_blocking(|| password::hash(PASSWORD)).await?;
    let administrator = users::add(&app.database, OFFICE, "K. Ravndal", Role::Administrator, &hash).await;
    administrator.map_err(io::Error::other)?;
    let reviewer = users::add(&app.database, REVIEWER, "M. Tarrow", Role::Reviewer, &hash).await;
    reviewer.map_err(io::Error::other)?;
    let named = Practice { name: NAME.into(), own_review: false, own_sight: false };
    practice::set(&app.database, &named).await.map_err(io::Error::other)?;
    let added = users::add(&app.database, LOGIN, "N. Ostrava", Role::Preparer, &hash).await;
    let by = added.map_err(io::Error::other)?;
    for file in files(folder)? {
        let wrong = |what: String| io::Error::other(format!("{}: {what}", file.display()));
        let household =
            file::read(&fs::read(&file)?, &app.registry).map_err(|faults| wrong(format!("{faults:?}")))?;
        store_new(app, household, "imported", by).await.map_err(|problem| wrong(problem.detail))?;
    }
    Ok(())
}

/// Every household file below a folder, in order.
fn files(folder: &Path) -> io::Result<Vec<std::path::PathBuf>> {
    let mut found = Vec::new();
    for entry in fs::read_dir(folder)? {
        let path = entry?.path();
        if path.is_dir() {
            found.extend(files(&path)?);
        } else if path.extension().is_some_and(|e| e == "json") {
            found.push(path);
        }
    }
    found.sort();
    Ok(found)
}
