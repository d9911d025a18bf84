//! Papers that several provisions read.

pub mod benefits;
pub mod insurance;
pub mod savings;
pub mod t3;
pub mod t4;
pub mod t4a;
pub mod t5;

use crate::{figures::Figures, points::Points};
use hembo_core::{
    Paper, open_points,
    pack::Suggestion,
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision { points: POINTS, ..Provision::NONE };

open_points! {
    HEALTH_PREMIUMS = look "premiums", "ITA 118.2(2)(q)",
        "Enter them among the medical receipts.";
}

/// What the empty boxes of a paper would hold, going by the boxes before them.
pub fn suggestions(figures: &Figures, paper: &Paper) -> Vec<Suggestion> {
    let mut all = match &paper.kind {
        kind if kind == t4::T4.id => t4::payroll(figures, paper),
        kind if kind == t5::T5.id => t5::dividends(figures, paper),
        _ => Vec::new(),
    };
    all.retain(|s| !paper.boxes.contains_key(&s.field));
    all
}

/// Premiums for a health plan are medical expenses, but a slip has no day for them.
fn premiums(points: &mut Points<'_>, paper: &Paper, field: &str) {
    if !paper.amount(field).is_zero() {
        let place = Place::paper(&paper.id, field);
        let message = "Health premiums are medical expenses, by the day paid.";
        points.raise(&HEALTH_PREMIUMS, place, message);
    }
}

fn times(amount: Money, rate: Rate) -> Money {
    amount.times(rate, Money::CENT, Rounding::HalfUp)
}

fn suggestion(field: &str, value: Money, why: &str) -> Suggestion {
    Suggestion { field: field.into(), value: value.to_string(), why: why.into() }
}
