//! Federal tax and the credits against it, as the lines that provisions look at.

use hembo_core::{lines, provision::Provision};

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, figures: &["brackets"], ..Provision::NONE };

lines! {
    pub TAX = "ca.40400", "Tax on taxable income", "ITA 117(2)",
        "Each rate on its slice of taxable income.";
    pub CREDIT = "ca.35000", "Non-refundable credits", "ITA 118-118.9",
        "Credits for amounts and gifts.";
    pub DIVIDENDS = "ca.40425", "Dividend tax credit", "ITA 121",
        "A part of the taxable amount of dividends.";
    pub FEDERAL_TAX = "ca.42900", "Federal tax", "ITA 117-127",
        "Tax less the credits, never below zero.";
}
