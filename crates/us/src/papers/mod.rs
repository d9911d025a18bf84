//! Papers that several provisions read.

pub mod box_12;
pub mod broker;
pub mod discount_note;
pub mod dividends;
pub mod interest;
pub mod original_discount;
pub mod retirement;
pub mod sales;
pub mod tuition;
pub mod w2;
