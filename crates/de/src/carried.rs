//! What changes with the year for a household that is carried forward: amounts that are fixed for life, things that go on being written off,
//! the next of three years of a renovation.

use crate::{credits, equipment, figures::Figures, pensions};
use hembo_core::{
    Household, Paper,
    household::{Entry, Row},
};
use hembo_money::{Money, Rate, Rounding};

/// Settles a household of the next year by that of the year before, at the figures of that year.
pub fn settle_next(before: &Household, next: &mut Household, figures: &Figures) {
    for paper in &mut next.papers {
        match paper.kind.as_str() {
            kind if kind == equipment::EQUIPMENT.id => {
                paper.rows.retain(|row| equipment::goes_on(figures, row))
            }
            kind if kind == credits::INVOICES.id => renovation(before, paper),
            kind if kind == pensions::NOTICE.id => free_for_life(before, paper, figures),
            _ => {}
        }
    }
}

/// The paper of the year before from which one was carried.
fn origin<'a>(before: &'a Household, paper: &Paper) -> Option<&'a Paper> {
    before.papers.iter().find(|old| old.id == paper.id && old.kind == paper.kind)
}

/// §22 Nr.1 S.3 a aa S.4, 5: in the year after the start the free part is fixed for life.
fn free_for_life(before: &Household, paper: &mut Paper, figures: &Figures) {
    let Some(old) = origin(before, paper) else { return };
    let start = old.boxes.get("start").and_then(Entry::count);
    if old.text("kind") == Some("private") || start != Some(i64::from(before.year) - 1) {
        return;
    }
    let gross = old.amount("gross") - pensions::opened(old.amount("gross"), &old.boxes);
    let share = pensions::by_start(&figures.pensions, &figures.pensions.shares, before.year - 1);
    let free = Rate::from_billionths(Rate::ONE.billionths() - share.billionths());
    let free = gross.times(free, Money::CENT, Rounding::Up);
    if free > Money::ZERO {
        paper.boxes.insert("free".into(), Entry::amount(free));
    }
}

/// §35c: after the first year comes the second, then the third; nothing else of the list stands again.
fn renovation(before: &Household, paper: &mut Paper) {
    let Some(old) = origin(before, paper) else { return };
    let next = |row: &Row| {
        let following = match row.get("kind").and_then(Entry::text) {
            Some("energy_1") => "energy_2",
            Some("energy_2") => "energy_3",
            _ => return None,
        };
        let mut row = row.clone();
        row.cells.insert("kind".into(), Entry::Text(following.into()));
        row.cells.remove("date");
        Some(row)
    };
    paper.rows = old.rows.iter().filter_map(next).collect();
}
