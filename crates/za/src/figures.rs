//! The rule figures of one year of assessment, typed on load from `rules/YEAR.toml`. No figure of the law stands in code.

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
    pub rebates: Cited<Rebates>,
    pub interest: Cited<Interest>,
    pub foreign_dividends: Cited<ForeignDividends>,
    pub foreign_pay: Cited<ForeignPay>,
    pub retirement: Cited<Retirement>,
    pub donations: Cited<Donations>,
    pub travel: Cited<Travel>,
    pub gains: Cited<Gains>,
    pub medical: Cited<Medical>,
    /// Of 2024 only.
    pub solar: Option<Cited<Solar>>,
    pub lump_sums: Cited<LumpSums>,
    pub turnover_tax: Cited<TurnoverTax>,
    pub tax_free: Cited<TaxFree>,
    pub provisional: Cited<Provisional>,
    pub dates: Cited<Dates>,
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
    /// s5: rates on slices, and the upper ends of all but the last.
    Scale { rates: Vec<Rate>, tops: Vec<Money> }
    /// s6(2): what every person has, and more from two ages on at the end of the year.
    Rebates { primary: Money, secondary: Money, tertiary: Money, secondary_age: i32, tertiary_age: i32 }
    /// s10(1)(i): what is exempt of local interest, and from an age on.
    Interest { exempt: Money, exempt_aged: Money, age: i32 }
    /// s10B(3): so many parts of so many are taxed.
    ForeignDividends { taxable: i64, of: i64 }
    /// s10(1)(o)(ii): what is exempt of pay for work abroad, above so many days and so long a run.
    ForeignPay { exempt: Money, days_above: i64, run_above: i64 }
    /// s11F: a part of income, up to a most.
    Retirement { rate: Rate, most: Money }
    /// s18A: a part of what is left.
    Donations { rate: Rate }
    /// s8(1)(b): what of an allowance is remuneration, the days of the year, and deemed costs by the value of the vehicle; none where
    /// the notice of the year is not here.
    Travel { allowance_part: Rate, allowance_part_business: Rate, days: i64, costs: Vec<TravelCost> }
    /// Deemed costs of vehicles up to a value: in rand for the year, in cents for the kilometre.
    TravelCost { to: Money, fixed: Money, fuel: Rate, maintenance: Rate }
    /// Eighth Schedule: the exclusion of a year and of the year of death, the part that is taxed, what is free of a home.
    Gains { exclusion: Money, exclusion_death: Money, part: Rate, home: Money }
    /// s6A, s6B: a month's credit of the first two and of each further one; how often it comes off contributions, and the parts.
    Medical {
        first_two: Money, further: Money, aged_times: i64, others_times: i64, aged_rate: Rate, others_rate: Rate, floor: Rate, age: i32,
    }
    /// s6C: a part of new panels, up to a most.
    Solar { rate: Rate, most: Money }
    /// Second Schedule: the tables of retirement and severance, and of withdrawal; from which age a fund pays out on retirement, and the
    /// least that may be taken of the savings part, since there is one.
    LumpSums {
        retirement_rates: Vec<Rate>, retirement_tops: Vec<Money>, withdrawal_rates: Vec<Rate>, withdrawal_tops: Vec<Money>,
        retirement_age: i32, savings_least: Option<Money>,
    }
    /// s48B: rates on slices of turnover, the upper ends of all but the last, and the most that it is open to.
    TurnoverTax { rates: Vec<Rate>, tops: Vec<Money>, most: Money }
    /// s12T: the most of a year and of a life, and what is taxed of more.
    TaxFree { year_most: Money, life_most: Money, rate: Rate }
    /// Fourth Schedule: income that asks for no payments, the uplift of a year, and when an estimate was too low.
    Provisional {
        small_income: Money, uplift: Rate, large_above: Money, part_small: Rate, part_large: Rate, penalty: Rate,
        next_days: Vec<Day>, third: Day,
    }
    /// TAA: when the season closes, what is not paid or collected, how long papers are kept, the business days for documents, for a
    /// correction and an objection, and holidays that were declared for one year.
    Dates {
        close: Day, close_provisional: Day, least: Money, no_return_to: Money, kept_years: i32, document_days: i64,
        correction_days: i64, objection_days: i64, declared_holidays: Vec<Day>,
    }
}
