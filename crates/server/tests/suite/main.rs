//! The integration tests of this crate, one binary: each would link all of it again.
#![allow(missing_docs, clippy::type_complexity, clippy::unwrap_used)]

mod api;
mod audit;
mod changes;
mod checking;
mod common;
mod divide;
mod erasing;
mod figures;
mod files;
mod filing;
mod front;
mod lists;
mod outside;
mod payers;
mod people;
mod progress;
mod roles;
mod rotation;
mod running;
mod second;
mod service;
mod sight;
mod trials;
mod trust;
mod two_servers;
