//! What every table of rule figures carries besides its figures.

use serde::{Deserialize, Serialize};

/// How sure a figure is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Status {
    /// In force.
    Enacted,
    /// Made known by the authority, not yet in force.
    Announced,
    /// Believed right; must be confirmed against the source.
    ToBeConfirmed,
}

/// A table of rule figures with its citation and status.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Cited<T> {
    /// Where the law says so.
    pub cite: String,
    /// How sure it is.
    pub status: Status,
    /// The figures.
    pub figures: T,
}

impl<T> std::ops::Deref for Cited<T> {
    type Target = T;
    fn deref(&self) -> &T {
        &self.figures
    }
}
