//! What the stand-in was told: consents and returns, kept in a file.

use crate::wire::{AskConsent, Consent, Receipt};
use serde::{Deserialize, Serialize};
use std::{collections::BTreeMap, fs, io, path::PathBuf};
use uuid::Uuid;

/// Everything that the stand-in was told.
#[derive(Debug, Default, Serialize, Deserialize)]
pub struct Books {
    /// Consents by number.
    pub consents: BTreeMap<String, Asked>,
    /// Returns by the number of their receipt.
    pub returns: BTreeMap<String, Return>,
    #[serde(skip)]
    file: Option<PathBuf>,
}

/// A consent that was asked for.
#[derive(Debug, Serialize, Deserialize)]
pub struct Asked {
    /// By whom for whom.
    pub asked: AskConsent,
    /// Where it stands.
    pub consent: Consent,
    /// How often its papers were fetched, by year.
    #[serde(default)]
    pub fetches: BTreeMap<i32, u32>,
}

/// A return that came in.
#[derive(Debug, Serialize, Deserialize)]
pub struct Return {
    /// The name under which it was sent.
    pub key: Uuid,
    /// The consent by which it was sent.
    pub consent: String,
    /// The package as it was sent.
    pub package: String,
    /// What became of it.
    pub receipt: Receipt,
}

impl Books {
    /// The books of a file, empty where there is none; without a file they are lost at the end.
    ///
    /// # Errors
    /// A file that cannot be read.
    pub fn open(file: Option<PathBuf>) -> io::Result<Books> {
        let stored = file.as_ref().filter(|file| file.exists()).map(fs::read).transpose()?;
        let books = stored.map(|bytes| serde_json::from_slice::<Books>(&bytes)).transpose()?;
        Ok(Books { file, ..books.unwrap_or_default() })
    }

    /// Writes them down, whole: a file beside is put in the old one's place.
    ///
    /// # Errors
    /// A file that cannot be written.
    pub fn keep(&self) -> io::Result<()> {
        let Some(file) = &self.file else { return Ok(()) };
        let beside = file.with_extension("new");
        fs::write(&beside, serde_json::to_vec(self)?)?;
        fs::rename(beside, file)
    }
}
