//! The integration tests of this crate, one binary: each would link all of it again.
#![allow(missing_docs, clippy::unwrap_used)]

mod choices;
mod house;
mod next_year;
mod numbers;
mod points;
mod returns;
mod search;
mod tariff;
mod tax_classes;
mod thresholds;
mod worked_examples;
