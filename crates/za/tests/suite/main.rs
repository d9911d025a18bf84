//! The integration tests of this crate, one binary: each would link all of it again.
#![allow(missing_docs, clippy::unwrap_used)]

mod business_days;
mod house;
mod levers;
mod next_year;
mod numbers;
mod points;
mod returns;
mod search;
mod thresholds;
mod worked_examples;
