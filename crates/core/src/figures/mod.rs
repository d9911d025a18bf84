//! The figures of the law: what every table carries besides them, how rule files become typed ([`book`]), how a practice
//! puts its own in their place ([`replacing`]), and how people read them over the years ([`view`]).

pub mod book;
pub mod replacing;
pub mod view;

pub use book::Book;
pub use replacing::Replacement;
pub use view::{FigureRow, Source, Table, tables};

use crate::household::date;
use serde::{Deserialize, Deserializer, Serialize};
use time::Date;
use utoipa::ToSchema;

/// How sure a figure is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
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

/// Declares tables of figures: structs that are read from the rule files and refuse what they do not know.
#[macro_export]
macro_rules! tables {
    ($($(#[$doc:meta])* $name:ident { $($field:ident: $type:ty),* $(,)? })*) => {$(
        $(#[$doc])*
        #[derive(Debug, ::serde::Deserialize)]
        #[serde(deny_unknown_fields)]
        #[allow(missing_docs)]
        pub struct $name { $(pub $field: $type),* }
    )*};
}

/// A day in the figures.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub struct Day(pub Date);

impl<'de> Deserialize<'de> for Day {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Day, D::Error> {
        let text = String::deserialize(deserializer)?;
        date::parse(&text).map(Day).ok_or_else(|| serde::de::Error::custom("a day such as 2017-12-16"))
    }
}
