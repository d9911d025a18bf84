//! The rule files of a pack, typed: as they are committed, or with what a practice put in their place.

use super::{Replacement, replacing};
use serde::de::DeserializeOwned;
use std::{
    hash::{DefaultHasher, Hash, Hasher},
    sync::Arc,
};

/// The rule figures of a pack's years, latest first. `F` is a year's figures.
#[derive(Debug)]
pub struct Book<F> {
    rules: Vec<(i32, toml::Table)>,
    figures: Vec<Arc<F>>,
    version: String,
}

impl<F: DeserializeOwned> Book<F> {
    /// Reads the rule files, each with its year, latest first, and puts the replacements in their place. `version` names
    /// the committed rules; with replacements it gets a suffix of theirs.
    ///
    /// # Errors
    /// A file that cannot be read, or a replacement that does not fit, in words.
    pub fn read(version: &str, sources: &[(i32, &str)], replaced: &[Replacement]) -> Result<Book<F>, String> {
        let mut rules = Vec::new();
        for (year, source) in sources {
            let mut of_year: toml::Table = source.parse().map_err(|error| format!("{year}: {error}"))?;
            for one in replaced.iter().filter(|one| one.year == *year) {
                replacing::put(&mut of_year, one)?;
            }
            rules.push((*year, of_year));
        }
        if let Some(astray) = replaced.iter().find(|one| sources.iter().all(|(year, _)| *year != one.year)) {
            return Err(format!("There are no rules for {}.", astray.year));
        }
        let typed = |(year, of_year): &(i32, toml::Table)| {
            of_year.clone().try_into().map(Arc::new).map_err(|error| format!("{year}: {error}"))
        };
        let figures = rules.iter().map(typed).collect::<Result<_, _>>()?;
        Ok(Book { rules, figures, version: named(version, replaced) })
    }
}

impl<F> Book<F> {
    /// The figures of a year, if the pack has them.
    pub fn of(&self, year: i32) -> Option<&Arc<F>> {
        self.rules.iter().position(|(of, _)| *of == year).map(|at| &self.figures[at])
    }

    /// The figures of the latest year.
    pub fn latest(&self) -> &Arc<F> {
        &self.figures[0]
    }

    /// The years, latest first.
    pub fn years(&self) -> Vec<i32> {
        self.rules.iter().map(|(year, _)| *year).collect()
    }

    /// The rules of every year as they count, latest first.
    pub fn rules(&self) -> &[(i32, toml::Table)] {
        &self.rules
    }

    /// Names these figures: another name wherever one differs.
    pub fn version(&self) -> &str {
        &self.version
    }
}

fn named(version: &str, replaced: &[Replacement]) -> String {
    if replaced.is_empty() {
        return version.to_owned();
    }
    let mut hash = DefaultHasher::new();
    replaced.hash(&mut hash);
    format!("{version}+{:016x}", hash.finish())
}
