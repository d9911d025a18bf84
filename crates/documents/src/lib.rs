//! What a practice hands over: the pack of a return as one PDF, tagged for screen readers, with its fonts; the letter to the
//! family, made by a template and edited;
//! receipts of what was filed; figures and papers as sheets of a spreadsheet.
//!
//! A document is plain data ([`document`]); [`layout`] breaks it into lines and pages, [`pdf`] draws these. What stands in
//! a pack is said in [`pack`], a module a part. No amount is computed here.

// Places on a page are fractions of points; money stays in whole cents and is only written.
#![allow(clippy::float_arithmetic)]

pub mod document;
mod fonts;
mod layout;
pub mod letter;
pub mod pack;
mod pdf;
pub mod receipt;
pub mod sheets;

pub use layout::Sheet;
pub use pdf::{NotWritten, Written, write};
