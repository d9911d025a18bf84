//! The integration tests of this crate, one binary: each would link all of it again.
#![allow(missing_docs, clippy::type_complexity, clippy::unwrap_used)]

mod amounts;
mod between;
mod checks;
mod choice;
mod common;
mod forms;
mod limits;
mod outcome;
mod provisions;
mod search;
