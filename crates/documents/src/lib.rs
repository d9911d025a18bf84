//! What a practice hands over: the pack of a return as one PDF, tagged for screen readers, with its fonts; the letter to the
//! family, made by a template and edited;
//! receipts of what was filed; a slip as its issuer prints it; figures and papers as sheets of a spreadsheet.
//!
//! A document is plain data ([`document`]); [`layout`] breaks it into lines and pages, [`pdf`] draws these. What stands in
//! a pack is said in [`pack`], a module a part. No amount is computed here.

// Places on a page are fractions of points; money stays in whole cents and is only written.
#![allow(clippy::float_arithmetic)]

pub mod calendar;
pub mod document;
mod fonts;
mod layout;
pub mod letter;
pub mod pack;
mod pdf;
pub mod receipt;
pub mod sheets;
pub mod slip;

use time::{Date, format_description::BorrowedFormatItem, macros::format_description};

const DAY: &[BorrowedFormatItem<'_>] = format_description!("[day padding:none] [month repr:short] [year]");

/// A day as people read it: "14 May 2026".
pub fn words_of_day(day: Date) -> String {
    day.format(DAY).unwrap_or_else(|_| day.to_string())
}

pub use layout::Sheet;
pub use pdf::{NotWritten, Written, write};
