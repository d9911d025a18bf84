//! The practice's keys: the file that holds them, the newest last, and which of them its database knows. What is sealed is
//! sealed with the newest that the database knows; `hembo key rotate` gives a new one its place.

mod rotation;

pub use rotation::{KeyArguments, keys, rotated};

use crate::{
    seal::Sealer,
    store::keys::{self as store, Known},
    work,
};
use hembo_core::Registry;
use sqlx::PgPool;
use std::{io, path::Path, time::Duration};

/// How often a server looks for a new key.
const LOOK: Duration = Duration::from_secs(2);

/// The practice's keys at the start: one is made for a new database, and else each that the database knows must be there.
///
/// # Errors
/// A file that is missing, cannot be used, or lacks a key that something is sealed with.
pub async fn at_start(file: &Path, database: &PgPool, registry: &Registry) -> io::Result<Sealer> {
    let known = store::known(database).await.map_err(io::Error::other)?;
    if !file.exists() {
        if !known.is_empty() {
            return Err(missing(file));
        }
        let sealer = Sealer::make(file)?;
        add(&sealer, database).await?;
        return Ok(sealer);
    }
    let sealer = Sealer::from_file(file)?;
    if known.is_empty() {
        add(&sealer, database).await?;
    }
    for key in &known {
        if !fits(&sealer, key, database, registry).await? {
            return Err(io::Error::other(format!(
                "{} is not the key that this database's numbers are sealed with. Put the right file there from your \
                 backup, or name where it is with --key. Nothing was changed.",
                file.display()
            )));
        }
    }
    taken(&sealer, file, database).await?;
    Ok(sealer)
}

/// The words for a key that is not there.
pub fn missing(file: &Path) -> io::Error {
    io::Error::other(format!(
        "The key {} is missing, and this database's numbers are sealed with it. Put the file back from your backup, or \
         name where it is with --key. Nothing was changed.",
        file.display()
    ))
}

/// Makes the present key known to the database.
async fn add(sealer: &Sealer, database: &PgPool) -> io::Result<()> {
    let (name, known) = sealer.check();
    store::add(database, &name, &known).await.map_err(io::Error::other)
}

/// Whether a key of the file is one that the database knows. One from before keys had names gets its name.
async fn fits(sealer: &Sealer, key: &Known, database: &PgPool, registry: &Registry) -> io::Result<bool> {
    if key.name != store::UNNAMED {
        return Ok(sealer.fits(&key.known).is_some_and(|name| name == key.name));
    }
    let found = match key.known.as_str() {
        "" => opens_any(sealer, database, registry).await?.then(|| sealer.check().0),
        known => sealer.fits(known),
    };
    let Some(name) = found else { return Ok(false) };
    let known = if key.known.is_empty() { sealer.check().1 } else { key.known.clone() };
    store::name(database, &name, &known).await.map_err(io::Error::other)?;
    Ok(true)
}

/// In a database from before there was a known text: whether a sealed number opens, where there is one.
async fn opens_any(sealer: &Sealer, database: &PgPool, registry: &Registry) -> io::Result<bool> {
    let sealed = store::any_sealed(database).await.map_err(io::Error::other)?;
    Ok(sealed.is_none_or(|(id, state)| work::opened(sealer, registry, id, state).is_some()))
}

/// Takes the keys of the file, of which the newest that the database knows seals.
async fn taken(sealer: &Sealer, file: &Path, database: &PgPool) -> io::Result<()> {
    let known = store::known(database).await.map_err(io::Error::other)?;
    let known: Vec<String> = known.into_iter().map(|key| key.name).collect();
    let there = Sealer::from_file(file)?;
    let names = there.names();
    if let Some(lacking) = known.iter().find(|name| !names.contains(name)) {
        tracing::error!(key = %lacking, file = %file.display(), "a key is missing here: copy the file of keys to this machine");
    }
    sealer.take(&there, &known).map_err(io::Error::other)
}

/// Looks for keys that came or went, as long as the server runs.
pub async fn renew(sealer: Sealer, file: std::path::PathBuf, database: PgPool) {
    let mut clock = tokio::time::interval(LOOK);
    loop {
        clock.tick().await;
        if let Err(error) = taken(&sealer, &file, &database).await {
            tracing::warn!(%error, "the keys were not looked at");
        }
    }
}
