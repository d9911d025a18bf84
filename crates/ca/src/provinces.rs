//! The provinces and territories, and which of them are computed.

use crate::figures::{Figures, Provincial};
use hembo_core::field::Choice;

/// Where people live on 31 December.
pub const PROVINCES: &[Choice] = &[
    Choice::new("ON", "Ontario"),
    Choice::new("AB", "Alberta"),
    Choice::new("BC", "British Columbia"),
    Choice::new("MB", "Manitoba"),
    Choice::new("NB", "New Brunswick"),
    Choice::new("NL", "Newfoundland and Labrador"),
    Choice::new("NS", "Nova Scotia"),
    Choice::new("NT", "Northwest Territories"),
    Choice::new("NU", "Nunavut"),
    Choice::new("PE", "Prince Edward Island"),
    Choice::new("QC", "Quebec"),
    Choice::new("SK", "Saskatchewan"),
    Choice::new("YT", "Yukon"),
];

/// A province whose tax is computed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum Province {
    Ontario,
    Alberta,
}

impl Province {
    /// The province of that code, if its tax is computed.
    pub fn of(code: &str) -> Option<Province> {
        match code {
            "ON" => Some(Province::Ontario),
            "AB" => Some(Province::Alberta),
            _ => None,
        }
    }

    /// What every province has, with this one's figures.
    pub fn figures(self, figures: &'static Figures) -> &'static Provincial {
        match self {
            Province::Ontario => &figures.ontario,
            Province::Alberta => &figures.alberta,
        }
    }
}
