//! The integration tests of this crate, one binary: each would link all of it again.
#![allow(missing_docs, clippy::type_complexity, clippy::unwrap_used)]

mod backup;
mod blanks;
mod footing;
mod reckon;
mod serve;
mod slips;
