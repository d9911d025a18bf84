//! What a paper's empty boxes would hold, going by the boxes before them.

use crate::{figures::Figures, papers::kind};
use hembo_core::{Paper, pack::Suggestion};
use hembo_money::{Money, Rate, Rounding};

/// Suggestions for the empty boxes of a paper.
pub fn of(figures: &Figures, paper: &Paper) -> Vec<Suggestion> {
    let mut all = match paper.kind.as_str() {
        kind::T4 => payroll(figures, paper),
        kind::T5 => dividends(figures, paper),
        _ => Vec::new(),
    };
    all.retain(|s| !paper.boxes.contains_key(&s.field));
    all
}

/// Boxes 16, 16A and 18 as earnings make them, for a whole year with one employer.
pub fn payroll(figures: &Figures, paper: &Paper) -> Vec<Suggestion> {
    let earnings = |field: &str| match paper.boxes.contains_key(field) {
        true => paper.amount(field),
        false => paper.amount("14"),
    };
    let (cpp, ei) = (&figures.cpp, &figures.ei);
    let pensionable = if paper.flag("28.cpp") { Money::ZERO } else { earnings("26") };
    let insurable = if paper.flag("28.ei") { Money::ZERO } else { earnings("24") };
    let first = times((pensionable.min(cpp.first_ceiling) - cpp.exemption).or_zero(), cpp.rate);
    let second = (pensionable.min(cpp.second_ceiling) - cpp.first_ceiling).or_zero();
    let made = [
        ("16", first, "the rate on pensionable earnings above the exemption"),
        ("16A", times(second, cpp.second_rate), "the second rate on earnings between the two ceilings"),
        ("18", times(insurable.min(ei.most_earnings), ei.rate), "the rate on insurable earnings"),
    ];
    made.into_iter()
        .filter(|(_, value, _)| !value.is_zero())
        .map(|(f, v, why)| suggestion(f, v, why))
        .collect()
}

/// Taxable amounts and credits as the actual dividends make them.
pub fn dividends(figures: &Figures, paper: &Paper) -> Vec<Suggestion> {
    let figures = &figures.dividends;
    let each = |actual: &str, boxes: [&'static str; 2], factor: Rate, credit: Rate| {
        let taxable = match paper.boxes.contains_key(boxes[0]) {
            true => paper.amount(boxes[0]),
            false => times(paper.amount(actual), factor),
        };
        if taxable.is_zero() {
            return Vec::new();
        }
        vec![
            suggestion(boxes[0], times(paper.amount(actual), factor), "the actual amount grossed up"),
            suggestion(boxes[1], times(taxable, credit), "a part of the taxable amount"),
        ]
    };
    let mut all = each("24", ["25", "26"], figures.eligible, figures.eligible_credit);
    all.extend(each("10", ["11", "12"], figures.other, figures.other_credit));
    all
}

fn times(amount: Money, rate: Rate) -> Money {
    amount.times(rate, Money::CENT, Rounding::HalfUp)
}

fn suggestion(field: &str, value: Money, why: &str) -> Suggestion {
    Suggestion { field: field.into(), value: value.to_string(), why: why.into() }
}
