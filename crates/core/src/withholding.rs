//! What is withheld in a year under each combination that a couple may ask its employers for, by a law's pack: it moves money within the
//! year and never the tax of the year, so it is no way and no lever.

use hembo_money::Money;
use serde::Serialize;
use utoipa::ToSchema;

/// The combinations of a household, for the year that runs.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Withholding {
    /// What is chosen between.
    pub what: String,
    /// From when a choice counts, what follows from it, what it is reckoned from.
    pub words: String,
    /// The rule.
    pub cite: String,
    /// The combinations, the least withheld first.
    pub options: Vec<Combination>,
}

/// A combination, with what is withheld under it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Combination {
    /// Which, in a few words.
    pub label: String,
    /// By whom: a name, and what is withheld of a month's pay.
    pub months: Vec<Monthly>,
    /// Withheld in a whole year.
    pub year: Money,
    /// The tax of a year like this one less that: above zero it is paid later, below zero it comes back; nothing where the pay was not of a
    /// whole year.
    pub left: Option<Money>,
}

/// What is withheld of one person's month.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Monthly {
    /// The first of the person's names.
    pub whose: String,
    /// So much a month.
    pub amount: Money,
}
