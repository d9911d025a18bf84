//! The rule figures of one income year, typed on load from `rules/YEAR.toml`. No figure of the law stands in code.

use hembo_core::{
    figures::{Book, Cited, Day},
    tables,
};
use hembo_money::{Money, Rate};
use serde::Deserialize;
use std::sync::LazyLock;

/// All figures of a year.
#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Figures {
    pub year: i32,
    pub scale: Cited<Scale>,
    pub dates: Cited<Dates>,
    pub levy: Cited<Levy>,
    pub earner_credit: Cited<EarnerCredit>,
    pub dividends: Cited<Dividends>,
    pub foreign_funds: Cited<ForeignFunds>,
    pub managed_funds: Cited<ManagedFunds>,
    pub rental: Cited<Rental>,
    pub land: Cited<Land>,
    pub trade: Cited<Trade>,
    pub donations: Cited<Donations>,
    pub families: Cited<Families>,
    pub best_start: Cited<BestStart>,
    pub family_boost: Cited<FamilyBoost>,
    pub student_loan: Cited<StudentLoan>,
    pub provisional: Cited<Provisional>,
    pub transitional: Cited<Transitional>,
}

impl Figures {
    /// The committed figures of an income year, if this pack has them.
    pub fn of(year: i32) -> Option<&'static Figures> {
        COMMITTED.of(year).map(AsRef::as_ref)
    }
}

/// The rule files, latest first.
pub static SOURCES: &[(i32, &str)] = &[
    (2026, include_str!("../rules/2026.toml")),
    (2025, include_str!("../rules/2025.toml")),
    (2024, include_str!("../rules/2024.toml")),
];

/// The version of the committed rules.
pub const VERSION: &str = env!("HEMBO_RULES");

/// Every year's committed figures.
pub static COMMITTED: LazyLock<Book<Figures>> =
    LazyLock::new(|| Book::read(VERSION, SOURCES, &[]).expect("the committed rule figures parse (tested)"));

tables! {
    /// Schedule 1 Part A: rates on slices, and the upper ends of all but the last.
    Scale { rates: Vec<Rate>, tops: Vec<Money> }
    /// TAA 37, 22J, 22D, 174AA; RB 1: the days, what is written off and not collected, and other income that needs no return.
    Dates {
        due: Day, terminal: Day, written_off_to: Money, not_collected_to: Money, other_income_to: Money, kept_years: i32,
    }
    /// The earners' levy: a part of earnings up to a most.
    Levy { rate: Rate, most: Money }
    /// LC 13: the credit of a year, the net income from which there is one, and from which it shrinks for how many days of the year.
    EarnerCredit { amount: Money, from: Money, rate: Rate, phases: Vec<Phase> }
    /// A net income from which something shrinks, for so many days of the year.
    Phase { from: Money, days: i64 }
    /// OA 18, RE 12, RE 14: the most of imputation credits to the rest of a dividend, what is withheld of all, and of who gave no number.
    Dividends { imputation: Money, of: Money, withheld: Rate, without_number: Rate }
    /// CQ 5(1)(d), EX 52: the cost to which dividends are taxed as such, the part of the opening value, and how near the cost is
    /// worth a look.
    ForeignFunds { least_cost: Money, rate: Rate, near: Money }
    /// Schedule 6 table 1: the rates, and the incomes to which the lower ones go.
    ManagedFunds { low: Rate, middle: Rate, high: Rate, low_to: Money, middle_to: Money, with_funds_to: Money }
    /// DH 8: what counts of interest by when the loan was drawn.
    Rental { interest_of_old_loans: Rate, interest_of_new_loans: Rate, new_loans_from: Day }
    /// CB 6A: how long after its title a sale of land is income, and for sales before that by when it was bought.
    Land { since: Day, years: i32, earlier: Vec<EarlierLand> }
    /// Land that was bought from a day on, with the years of it and of a new build.
    EarlierLand { acquired_from: Day, years: i32, new_build_years: i32 }
    /// DE 12, DB 18AA: the rates a kilometre, a square metre, and the most of a vehicle without a logbook.
    Trade { first_kilometres: i64, kilometre: Vec<Kilometre>, square_metre: Money, without_logbook_to: Rate }
    /// What a kilometre is worth: the first ones of a year, and the rest.
    Kilometre { fuel: String, first: Money, rest: Money }
    /// LD 1: the credit is one in so many; smaller gifts do not count.
    Donations { one_in: i64, least: Money }
    /// MD 3, MD 10, MD 13: amounts of children, of working parents, and what comes off by the scheme's income.
    Families {
        eldest: Money, next: Money, in_work: Vec<InWork>, in_work_children: i64, in_work_next: Money, weeks: i64, from: Money, rate: Rate,
        child_to: i32, share_least: i64, child_income_free: Money,
    }
    /// The in-work amount of a year, for so many days.
    InWork { year: Money, days: i64 }
    /// MG 1: the amount of a year and child, and what comes off after the first years of life.
    BestStart { amount: Money, from: Money, rate: Rate, untested_years: i32, years: i32 }
    /// MH 1: by quarter of the income year the part of fees, the most, and the part of income above the start that comes off.
    FamilyBoost { quarters: Vec<BoostQuarter>, from: Money }
    /// One quarter of it.
    BoostQuarter { part: Rate, most: Money, rate: Rate }
    /// SLSA 37, 38: the year's threshold, the rate, and other income that asks for nothing.
    StudentLoan { threshold: Money, rate: Rate, other_to: Money }
    /// RC 3, RC 5, RC 9: from which residual tax on, the uplifts, the days, and where interest is safe; to which one the
    /// ratio is open, and its days.
    Provisional {
        above: Money, uplift: Rate, uplift_of_two_years: Rate, instalments: Vec<Day>, safe_to: Money, ratio_to: Money,
        ratio_days: Vec<Day>,
    }
    /// HR 8: how long a transitional resident is one, after so many years away.
    Transitional { months: i32, years_away: i32 }
}
