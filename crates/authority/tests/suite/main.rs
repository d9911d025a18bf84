//! The integration tests of this crate, one binary: each would link all of it again.
#![allow(missing_docs, clippy::unwrap_used)]

mod beside;
mod books;
mod data;
mod slips;
