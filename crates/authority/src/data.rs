//! The made-up data of the stand-in: whom it knows, and what is held of them.

use crate::wire::{Slip, Source};
use hembo_core::household::Answers;
use serde::Deserialize;
use std::{collections::BTreeMap, fs, io, path::Path};

/// Someone whom the authority knows.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Known {
    /// The identification number, digits alone.
    pub number: String,
    /// The name under which it is held.
    pub name: String,
    /// How they answer when their consent is asked for.
    #[serde(default)]
    pub answers: Answering,
    /// What is held of them.
    #[serde(default)]
    pub slips: Vec<HeldSlip>,
    /// What is asked for once their return is accepted.
    #[serde(default)]
    pub asked_for: Vec<String>,
}

/// How someone answers when asked for consent.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Answering {
    /// At once, yes.
    Grants,
    /// Yes, when it is looked at again.
    #[default]
    GrantsLater,
    /// No.
    Refuses,
}

/// A slip that is held, and how it changes from one fetch to the next.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct HeldSlip {
    /// Its name there.
    pub id: String,
    /// The return year.
    pub year: i32,
    /// The kind of paper.
    pub kind: String,
    /// Who issued it.
    pub title: String,
    /// Who sent it in.
    pub source: Source,
    /// The day on which it was issued.
    pub issued: String,
    /// What stands in its boxes.
    pub boxes: Answers,
    /// The lines of its list.
    #[serde(default)]
    pub rows: Vec<Answers>,
    /// From which fetch on it is there; the first where nothing is said.
    #[serde(default)]
    pub since: u32,
    /// From which fetch on it is gone.
    #[serde(default)]
    pub until: Option<u32>,
    /// A correction.
    #[serde(default)]
    pub corrected: Option<Corrected>,
}

/// A correction of a slip: boxes that change.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Corrected {
    /// From which fetch on.
    pub since: u32,
    /// The day of the correction.
    pub issued: String,
    /// The boxes that say something else.
    pub boxes: Answers,
}

impl HeldSlip {
    /// The slip as the nth fetch finds it, counted from one.
    pub fn at(&self, fetch: u32, number: &str) -> Option<Slip> {
        let gone = self.until.is_some_and(|until| fetch >= until);
        if fetch < self.since || gone {
            return None;
        }
        let corrected = self.corrected.as_ref().filter(|corrected| fetch >= corrected.since);
        let mut boxes = self.boxes.clone();
        boxes.extend(corrected.into_iter().flat_map(|corrected| corrected.boxes.clone()));
        Some(Slip {
            id: self.id.clone(),
            number: number.to_owned(),
            kind: self.kind.clone(),
            title: self.title.clone(),
            source: self.source,
            issued: corrected.map_or(&self.issued, |corrected| &corrected.issued).clone(),
            boxes,
            rows: self.rows.clone(),
        })
    }
}

/// Everyone whom the authority of each law knows, by law and number.
#[derive(Debug, Clone, Default)]
pub struct Data(BTreeMap<(String, String), Known>);

impl Data {
    /// Reads a folder: a file of JSON a law, `us.json`.
    ///
    /// # Errors
    /// A folder or file that cannot be read.
    pub fn read(folder: &Path) -> io::Result<Data> {
        let mut data = Data::default();
        for entry in fs::read_dir(folder)? {
            let path = entry?.path();
            let law = path.file_stem().and_then(|name| name.to_str()).unwrap_or_default().to_owned();
            let wrong = |error| io::Error::other(format!("{}: {error}", path.display()));
            let known: Vec<Known> = serde_json::from_slice(&fs::read(&path)?).map_err(wrong)?;
            data.0.extend(known.into_iter().map(|one| ((law.clone(), one.number.clone()), one)));
        }
        Ok(data)
    }

    /// Someone by number.
    pub fn find(&self, law: &str, number: &str) -> Option<&Known> {
        self.0.get(&(law.to_owned(), number.to_owned()))
    }

    /// A slip by its name, with whom it is held of.
    pub fn slip(&self, law: &str, id: &str) -> Option<(&Known, &HeldSlip)> {
        let known = self.everyone().filter(|(of, _)| *of == law).map(|(_, known)| known);
        known
            .flat_map(|known| known.slips.iter().map(move |slip| (known, slip)))
            .find(|(_, slip)| slip.id == id)
    }

    /// Everyone with their law.
    pub fn everyone(&self) -> impl Iterator<Item = (&str, &Known)> {
        self.0.iter().map(|((law, _), known)| (law.as_str(), known))
    }
}
