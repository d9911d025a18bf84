//! The months of medical receipts (ITA 118.2(1) B): any twelve that end in the year, of who died any 24 with the day of death in them.
//! Of a couple each has months of one's own, and no receipt is claimed twice.

use crate::{
    facts::Facts,
    receipts::{Receipt, Window},
};
use hembo_core::{provision::Provision, settled};
use hembo_money::Money;
use time::{Date, Duration};

/// What this provision declares.
pub static PROVISION: Provision = Provision { figures: &["year_of_death"], ..Provision::NONE };

/// Twelve months with an end in the year; for someone who died 24 months with the day of death in them (118.2(1) B(d)).
#[derive(Debug, Clone, Copy)]
pub struct Period {
    years: i32,
    first_end: Date,
    last_end: Date,
}

impl Period {
    /// For receipts of someone who lives.
    pub fn of_living(facts: &Facts) -> Period {
        Period { years: 1, first_end: facts.year_begin, last_end: facts.year_end }
    }

    /// For receipts of a patient.
    pub fn of(facts: &Facts, patient: usize) -> Period {
        let Some(died) = facts.people[patient].died.filter(|_| facts.died(patient)) else {
            return Period::of_living(facts);
        };
        let years = facts.figures.year_of_death.medical_years;
        let of_death = Period { years, first_end: died, last_end: died };
        Period { last_end: of_death.after(died) - Duration::DAY, ..of_death }
    }

    /// The last day before a period that ends on a day: a missing 29 February becomes the 28th.
    pub fn before(self, day: Date) -> Date {
        let same = |date: Date| date.replace_year(date.year() - self.years);
        same(day).or_else(|_| same(day - Duration::DAY)).unwrap_or(Date::MIN)
    }

    /// The day on which a period no longer holds a receipt: after 29 February the 1st of March.
    fn after(self, day: Date) -> Date {
        let same = |date: Date| date.replace_year(date.year() + self.years);
        same(day).or_else(|_| same(day + Duration::DAY)).unwrap_or(Date::MAX)
    }

    /// How many months it has.
    pub fn months(self) -> i32 {
        12 * self.years
    }

    /// Whether some period of these holds a day.
    pub fn holds(self, day: Date) -> bool {
        day <= self.last_end && day > self.before(self.first_end)
    }
}

/// The months of which a window is: those of who died, where there are no other receipts.
pub fn shown_period(facts: &Facts) -> Period {
    let only = facts.medical_of_dead.iter().position(|receipts| !receipts.is_empty());
    match only.filter(|_| facts.medical.is_empty()) {
        Some(dead) => Period::of(facts, dead),
        None => Period::of_living(facts),
    }
}

/// How many windows are offered at the most: those that may be one of two, then the largest ones, as a smaller claim never makes a tax
/// lower.
pub const MOST_WINDOWS: usize = 200;

/// The windows of the receipts of the filers and their children, each with what is claimed for who died.
pub fn windows(facts: &Facts) -> Vec<Window> {
    let of_dead: Money = facts.claimed_of_dead.iter().map(|receipt| receipt.item.amount).sum();
    let mut windows = windows_of(Period::of_living(facts), &facts.medical);
    for window in &mut windows {
        window.sum += of_dead;
    }
    let last = facts.claimed_of_dead.last().filter(|_| windows.is_empty());
    windows.extend(last.map(|last| {
        let period = shown_period(facts);
        let end = settled::greater(last.date, period.first_end);
        Window { end, from: 0, to: 0, sum: of_dead, above_earlier: true, above_later: true }
    }));
    windows
}

/// What is claimed for who died: a larger claim never costs, and nothing is left for a later year of one's own.
pub fn claimed_of_dead(facts: &Facts) -> Vec<Receipt> {
    let most = |(person, receipts): (usize, &Vec<Receipt>)| {
        let windows = windows_of(Period::of(facts, person), receipts);
        let window = windows.into_iter().max_by_key(|window| window.sum)?;
        Some(receipts[window.from..window.to].to_vec())
    };
    let mut claimed: Vec<Receipt> =
        facts.medical_of_dead.iter().enumerate().filter_map(most).flatten().collect();
    claimed.sort_by_key(|receipt| receipt.date);
    claimed
}

/// The most that the receipts of another dependant add up to in a window; nothing where there are none.
pub fn largest_sum(facts: &Facts, dependant: usize) -> Option<Money> {
    let receipts = &facts.medical_of_others[dependant];
    windows_of(Period::of(facts, dependant), receipts).iter().map(|window| window.sum).max()
}

/// The windows of receipts by date that no other contains, in the order of their ends: one can only end on the day of a
/// receipt, on the last day that keeps an older one, or on the last day on which one may end.
fn windows_of(period: Period, receipts: &[Receipt]) -> Vec<Window> {
    let may_end = period.first_end..=period.last_end;
    let dates: Vec<Date> = receipts.iter().map(|r| r.date).collect();
    let keeps = |date: &Date| settled::lesser(period.last_end, period.after(*date) - Duration::DAY);
    let ends = dates.iter().copied().chain(dates.iter().map(keeps)).chain([period.last_end]);
    let mut ends: Vec<Date> = ends.filter(|day| may_end.contains(day)).collect();
    ends.sort();
    ends.dedup();
    let mut windows: Vec<Window> = Vec::new();
    for end in ends {
        let from = dates.partition_point(|date| *date <= period.before(end));
        let to = dates.partition_point(|date| *date <= end);
        let sum = receipts[from..to].iter().map(|r| r.item.amount).sum();
        let window = Window { end, from, to, sum, above_earlier: true, above_later: true };
        // Both only grow: whatever contains a window is the one before it or the one after it.
        match windows.last_mut() {
            _ if from == to => {}
            Some(before) if before.to == to => {}
            Some(before) if before.from == from => *before = window,
            _ => windows.push(window),
        }
    }
    compared(&mut windows);
    offered(windows)
}

/// Notes which of the windows hold more than all earlier and all later ones.
fn compared(windows: &mut [Window]) {
    let sums: Vec<Money> = windows.iter().map(|window| window.sum).collect();
    for (place, window) in windows.iter_mut().enumerate() {
        window.above_earlier = sums[..place].iter().all(|sum| *sum < window.sum);
        window.above_later = sums[place + 1..].iter().all(|sum| *sum < window.sum);
    }
}

/// The windows that are offered, still in the order of their ends.
fn offered(mut windows: Vec<Window>) -> Vec<Window> {
    windows.sort_by_key(|window| std::cmp::Reverse((window.may_be_one_of_two(), window.sum)));
    windows.truncate(MOST_WINDOWS);
    windows.sort_by_key(|window| window.end);
    windows
}

/// What two windows hold together: as both end in the year and have the same length, no receipt lies between them.
pub fn together(facts: &Facts, one: &Window, other: &Window) -> Money {
    let [from, to] = [settled::lesser(one.from, other.from), settled::greater(one.to, other.to)];
    facts.medical[from..to].iter().chain(&facts.claimed_of_dead).map(|receipt| receipt.item.amount).sum()
}
