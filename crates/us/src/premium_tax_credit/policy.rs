//! Form 1095-A: premium, benchmark and advance payments, by the year or month by month.

use crate::bringing::Bringing;
use hembo_core::{
    Paper,
    field::{Field, Years},
    household::Entry,
    paper::{Back, NextYear, PaperKind, subject},
    trail::Item,
};
use hembo_money::{Money, Rate, Rounding};

/// The amounts of a policy: premium, benchmark, advance payment.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub(super) struct Amounts {
    pub premium: Money,
    pub benchmark: Money,
    pub advance: Money,
}

impl Amounts {
    pub fn add(&mut self, other: Amounts) {
        self.premium += other.premium;
        self.benchmark += other.benchmark;
        self.advance += other.advance;
    }

    pub fn twelfth(&self) -> Amounts {
        let of = |amount: Money| {
            amount.in_proportion(Money::whole(1), Money::whole(12), Money::CENT, Rounding::HalfUp)
        };
        Amounts { premium: of(self.premium), benchmark: of(self.benchmark), advance: of(self.advance) }
    }

    /// Whether the credit of both months is the same; the advance payment does not matter.
    pub fn is_like(&self, other: &Amounts) -> bool {
        (self.premium, self.benchmark) == (other.premium, other.benchmark)
    }
}

/// A policy's year: each month, or the year as one.
#[derive(Debug, Clone)]
pub struct Policy {
    pub(super) item: Item,
    pub(super) months: Vec<(i64, Amounts)>,
    /// A part belongs to another return, so that the year is reckoned by months.
    pub(super) allocated: bool,
    /// Whether it is said how much of it belongs here.
    pub(super) shared_said: bool,
    /// The month in which the spouses married this year.
    pub(super) married: Option<i64>,
    /// Deducted by the self-employed (§162(l)).
    own_work: bool,
}

impl Policy {
    /// Whether the self-employed deduct it.
    pub fn is_of_own_work(&self) -> bool {
        self.own_work
    }
}

/// What of a policy belongs here (Form 8962, Part IV): from a month to a month so many of a hundred of the premium, the benchmark and the
/// advance payment.
struct Allocation {
    months: std::ops::RangeInclusive<i64>,
    percents: [i64; 3],
}

impl Allocation {
    fn of(paper: &Paper) -> Option<Allocation> {
        let count = |id: &str| paper.boxes.get(id).and_then(Entry::count);
        let percents = ["30e", "30f", "30g"].map(count);
        let any = percents.iter().any(Option::is_some);
        any.then(|| Allocation {
            months: count("30c").unwrap_or(1)..=count("30d").unwrap_or(12),
            percents: percents.map(|percent| percent.unwrap_or(100)),
        })
    }

    /// Whether a part belongs to another return: all of it is no allocation.
    fn is_part(&self) -> bool {
        self.percents.iter().any(|&percent| percent != 100)
    }

    /// Month by month what belongs here; the year as one is told by twelfths.
    fn apply(&self, months: &[(i64, [Money; 3])]) -> Vec<(i64, [Money; 3])> {
        let twelfth = |amount: Money| {
            amount.in_proportion(Money::whole(1), Money::whole(12), Money::CENT, Rounding::HalfUp)
        };
        let spread = |&(month, of): &(i64, [Money; 3])| match month {
            YEAR => (1..=12).map(|month| (month, of.map(twelfth))).collect(),
            _ => vec![(month, of)],
        };
        let here = |(month, mut of): (i64, [Money; 3])| {
            for (amount, percent) in of.iter_mut().zip(self.percents).filter(|_| self.months.contains(&month))
            {
                *amount = amount.times(Rate::percent(percent), Money::CENT, Rounding::HalfUp);
            }
            (month, of)
        };
        months.iter().flat_map(spread).map(here).collect()
    }
}

/// What its papers bring.
pub mod brings {
    use super::Policy;
    use hembo_core::brought::Brought;

    /// Policies.
    pub static POLICIES: Brought<Policy> = Brought::new();
}

/// Form 1095-A.
pub const POLICY: PaperKind = PaperKind {
    id: "1095-A",
    subject: subject::CREDITS,
    name: "Health cover through the Marketplace",
    words: "marketplace health insurance premium tax credit obamacare 8962 advance",
    title: "Policy",
    shared: true,
    headline: "33A",
    boxes: &[
        Field::amount("33A", "33A", "Premiums of the year")
            .help("Or month by month below; then leave these empty."),
        Field::amount("33B", "33B", "Second lowest cost silver plan, year"),
        Field::amount("33C", "33C", "Advance payments of the year"),
        Field::count("30e", "30e", "Premium that belongs here, %", 100)
            .blank_is("100")
            .help("Only where people of another return were on the policy: as agreed, or their share. Form 8962, Part IV."),
        Field::count("30f", "30f", "Second lowest silver plan, %", 100).blank_is("100"),
        Field::count("30g", "30g", "Advance payment, %", 100).blank_is("100"),
        Field::count("30c", "30c", "From month", 12).blank_is("1"),
        Field::count("30d", "30d", "To month", 12).blank_is("12"),
        Field::count("married", "35", "Month of the marriage", 12)
            .help("Only where both were single on 1 January and married this year: Form 8962, Part V, where less is paid back by it."),
        Field::yes_no("own_work", "", "Deducted by the self-employed")
            .help("Where no employer's plan was open to the family. Form 7206; the credit and the deduction are settled together, and the rest is medical."),
    ],
    columns: &[
        Field::count("month", "", "Month", 12),
        Field::amount("A", "A", "Premium"),
        Field::amount("B", "B", "Second lowest silver plan"),
        Field::amount("C", "C", "Advance payment"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// The place of the year as one among the months.
pub(super) const YEAR: i64 = 0;

/// Gives the policy to its owners, each a part.
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    let of_year = [reading.amount("33A"), reading.amount("33B"), reading.amount("33C")];
    let mut months = vec![(YEAR, of_year)];
    for (_, row, _) in paper.paper.lines("A") {
        let of = |id: &str| row.get(id).and_then(Entry::money).unwrap_or_default();
        let month = row.get("month").and_then(Entry::count).unwrap_or(1).clamp(1, 12);
        months.push((month, [of("A"), of("B"), of("C")]));
    }
    let allocation = Allocation::of(reading);
    let shared_said = allocation.is_some();
    let allocation = allocation.filter(Allocation::is_part);
    if let Some(allocation) = &allocation {
        months = allocation.apply(&months);
    }
    let premiums: Money = months.iter().map(|(_, [premium, ..])| *premium).sum();
    let own_work = reading.flag("own_work");
    let married = reading.boxes.get("married").and_then(Entry::count);
    let owners = paper.paper.shares(Money::ZERO).len();
    for owner in 0..owners {
        let share = |amount: Money| paper.paper.shares(amount)[owner].1;
        let amounts = |[premium, benchmark, advance]: [Money; 3]| Amounts {
            premium: share(premium),
            benchmark: share(benchmark),
            advance: share(advance),
        };
        let person = paper.paper.shares(Money::ZERO)[owner].0;
        let item = paper.paper.item("33A", None, share(premiums));
        let months = months.iter().map(|(month, of)| (*month, amounts(*of))).collect();
        paper.facts.people[person].own.add(
            &brings::POLICIES,
            Policy { item, months, allocated: allocation.is_some(), shared_said, married, own_work },
        );
    }
}
