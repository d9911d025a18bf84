//! How a building that is let is written off (§§167, 168), Schedule E line 18.

use crate::{business_property, figures};
use hembo_core::{Paper, household::Entry, settled};
use hembo_money::{Money, Rounding};
use time::Date;

/// Line 18: as it was entered, else the straight line from the middle of the first month to that of the month of a sale (§168(c), (d)(2)).
pub fn of(paper: &Paper, figures: &figures::Rental, year: i32) -> (&'static str, Money) {
    let entered = paper.amount("18");
    let months = match paper.text("kind") {
        Some("single" | "multi") => figures.residential_months,
        Some("commercial" | "self") => figures.other_months,
        _ => return ("18", entered),
    };
    // Other buildings of before had a life of their own: line 18 must be entered.
    let from = if months == figures.residential_months { Date::MIN } else { figures.other_since.0 };
    match paper.boxes.get("since").and_then(Entry::date) {
        Some(since) if entered.is_zero() && since >= from => {
            let after = business_property::sold_on(paper).filter(|sold| sold.year() == year);
            let after = after.map_or(0, |sold| 25 - 2 * i64::from(u8::from(sold.month())));
            let halves = settled::or_zero(Money::whole(half_months(since, year, months * 2) - after));
            let cost = paper.amount("cost");
            let whole = Money::whole(months * 2);
            ("cost", cost.in_proportion(halves, whole, Money::WHOLE, Rounding::HalfUp))
        }
        _ => ("18", entered),
    }
}

/// The straight line of a year from the middle of the first month on, over so many months.
pub fn straight_line(cost: Money, since: Date, year: i32, months: i64) -> Money {
    let halves = Money::whole(half_months(since, year, months * 2));
    cost.in_proportion(halves, Money::whole(months * 2), Money::WHOLE, Rounding::HalfUp)
}

/// The half months of a year in which a building is written off, of `all`.
fn half_months(since: Date, year: i32, all: i64) -> i64 {
    let first = 25 - 2 * i64::from(u8::from(since.month()));
    let before = match i64::from(year - since.year()) {
        years if years < 0 => return 0,
        0 => return first,
        years => first + 24 * (years - 1),
    };
    settled::lesser(24, settled::greater(all - before, 0))
}
