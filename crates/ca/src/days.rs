//! Days of residence in a year in which someone came to or left Canada (ITA 118.91).

use hembo_core::settled;
use hembo_money::{Money, Rate, Rounding};
use std::fmt;
use time::Date;

/// Days of residence in a year.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Days {
    resident: i64,
    of_year: i64,
}

impl Days {
    /// The part of an amount, to the cent.
    pub fn part(self, amount: Money) -> Money {
        amount.in_proportion(
            Money::whole(self.resident),
            Money::whole(self.of_year),
            Money::CENT,
            Rounding::HalfUp,
        )
    }
}

impl fmt::Display for Days {
    fn fmt(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(to, "{} of {} days", self.resident, self.of_year)
    }
}

/// A part of the year, as the rules ask for it.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct PartYear {
    /// The days of residence; nothing of who was resident for the whole year.
    pub days: Option<Days>,
    /// Whether nearly all income of the other time was Canadian, so that amounts are those of a whole year (118.91(b)).
    pub whole_amounts: bool,
    /// Came in the year.
    pub came: bool,
    /// Left in the year.
    pub left: bool,
    /// Income of the other time that is not on the return.
    pub elsewhere: Money,
}

impl PartYear {
    /// The days by which amounts are reduced.
    pub fn reduces(&self) -> Option<Days> {
        self.days.filter(|_| !self.whole_amounts)
    }
}

/// What was answered about a time outside Canada.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Answered {
    pub came: Option<Date>,
    pub left: Option<Date>,
    pub world: Money,
    pub canadian: Money,
}

/// The part of a year, from its first to its last day; `nearly_all` is the part of income from which on amounts are whole.
pub fn part_year([begin, end]: [Date; 2], nearly_all: Rate, answered: Answered) -> PartYear {
    let of_year = |day: Option<Date>| day.filter(|day| (begin..=end).contains(day));
    let Answered { world, canadian, .. } = answered;
    let (came, left) = (of_year(answered.came), of_year(answered.left));
    if came.is_none() && left.is_none() {
        return PartYear::default();
    }
    PartYear {
        days: Some(Days { resident: resident([begin, end], came, left), of_year: days(begin, end) }),
        whole_amounts: canadian >= world.times(nearly_all, Money::CENT, Rounding::Up),
        came: came.is_some(),
        left: left.is_some(),
        elsewhere: settled::or_zero(world - canadian),
    }
}

/// Days from one to another, both counted.
fn days(from: Date, to: Date) -> i64 {
    (to - from).whole_days() + 1
}

/// Days of residence; of who left and came back those before and after.
fn resident([begin, end]: [Date; 2], came: Option<Date>, left: Option<Date>) -> i64 {
    match (came, left) {
        (Some(came), Some(left)) if came <= left => days(came, left),
        (Some(came), Some(left)) => days(begin, left) + days(came, end),
        (Some(came), None) => days(came, end),
        (None, Some(left)) => days(begin, left),
        (None, None) => days(begin, end),
    }
}
