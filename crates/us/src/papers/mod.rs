//! Papers that several provisions read.

pub mod interest;
pub mod w2;
