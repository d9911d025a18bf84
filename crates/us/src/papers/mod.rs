//! Papers that several provisions read.

pub mod dividends;
pub mod interest;
pub mod sales;
pub mod w2;
