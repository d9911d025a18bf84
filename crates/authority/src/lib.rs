//! The world outside of a practice: what is said between it and a tax authority ([`wire`]), and a stand-in that plays the
//! authority, employers, banks, brokers and lenders with made-up data ([`stand_in`]).
//!
//! The stand-in is deterministic: what it answers follows from its data and from what it was asked before. It keeps
//! what it was told in a file, so that a consent or a receipt outlives it.

pub mod data;
pub mod stand_in;
pub mod wire;

mod assess;
mod books;
mod examine;
mod printed;

pub use printed::Camera;
