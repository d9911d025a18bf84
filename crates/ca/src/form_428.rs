//! The lines of form 428 that every province comes to in its own way.

use hembo_core::{lines, provision::Provision};

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub CAREGIVER = "ca.58400", "Caregiver, province", "Alberta Personal Income Tax Act; AB428",
        "An amount for each parent or grandparent who lives along, less net income above a threshold.";
    pub AMOUNTS = "ca.58800", "Amounts together, province", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "All non-refundable amounts.";
    pub BASIC_TAX = "ca.428.basic", "Basic provincial tax", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "Tax less the credits, never below zero.";
    pub DIVIDENDS = "ca.61520", "Dividend tax credit, province", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "A part of the taxable amount of dividends.";
    pub PROVINCIAL_TAX = "ca.42800", "Provincial tax", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "Provincial tax after its credits.";
}
