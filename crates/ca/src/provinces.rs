//! The provinces and territories.

use hembo_core::field::Choice;

/// The id of the question for the one of a household.
#[allow(missing_docs)]
pub mod ask {
    pub const PROVINCE: &str = "province";
}

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
