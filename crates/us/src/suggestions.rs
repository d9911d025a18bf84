//! What a paper's empty boxes would hold, going by the boxes before them.

use crate::{
    figures::Figures,
    papers::{W2_BOX_12, kind},
};
use hembo_core::{Paper, pack::Suggestion};
use hembo_money::{Money, Rounding};

/// Suggestions for the empty boxes of a paper.
pub fn of(figures: &Figures, paper: &Paper) -> Vec<Suggestion> {
    if paper.kind != kind::W2 || paper.amount("1").is_zero() {
        return Vec::new();
    }
    let with_deferrals = paper.amount("1") + deferrals(paper);
    let base = figures.social_security.wage_base;
    let mut all = vec![
        suggestion("3", with_deferrals.min(base), "box 1 with elective deferrals, up to the wage base"),
        suggestion("5", with_deferrals, "box 1 with elective deferrals"),
    ];
    all.extend(payroll(figures, paper));
    if paper.boxes.contains_key("15") {
        all.push(suggestion("16", paper.amount("1"), "box 1"));
    }
    all.retain(|s| !paper.boxes.contains_key(&s.field));
    all
}

/// Boxes 4 and 6 as boxes 3, 5 and 7 make them.
pub fn payroll(figures: &Figures, paper: &Paper) -> Vec<Suggestion> {
    let mut all = Vec::new();
    let social = paper.amount("3") + paper.amount("7");
    if !social.is_zero() {
        let tax = social.times(figures.social_security.rate, Money::CENT, Rounding::HalfUp);
        all.push(suggestion("4", tax, "6.2 % of boxes 3 and 7"));
    }
    let wages = paper.amount("5");
    if !wages.is_zero() {
        let medicare = &figures.additional_medicare;
        let more =
            (wages - medicare.withheld_above).or_zero().times(medicare.rate, Money::CENT, Rounding::HalfUp);
        let tax = wages.times(medicare.regular_rate, Money::CENT, Rounding::HalfUp) + more;
        all.push(suggestion("6", tax, "1.45 % of box 5, and 0.9 % above 200,000"));
    }
    all
}

/// Elective deferrals that are in boxes 3 and 5 but not in box 1.
fn deferrals(paper: &Paper) -> Money {
    let deferred = |code: &str| matches!(paper.text(code), Some("D" | "E" | "F" | "G" | "H" | "S"));
    W2_BOX_12.iter().filter(|(code, _)| deferred(code)).map(|(_, amount)| paper.amount(amount)).sum()
}

fn suggestion(field: &str, value: Money, why: &str) -> Suggestion {
    Suggestion { field: field.into(), value: value.to_string(), why: why.into() }
}
