//! The rule figures of one tax year, typed on load from `rules/YEAR.toml`. No figure of the law stands in code.

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
    pub brackets: Cited<Brackets>,
    pub dates: Cited<Dates>,
    pub basic: Cited<Basic>,
    pub age: Cited<Age>,
    pub employment: Cited<Employment>,
    pub pension: Cited<Pension>,
    pub split: Cited<Split>,
    pub cpp: Cited<Cpp>,
    pub cpp_overpaid: Cited<CppOverpaid>,
    pub ei: Cited<Ei>,
    pub oas: Cited<Oas>,
    pub rrsp: Cited<Rrsp>,
    pub medical: Cited<Medical>,
    pub medical_supplement: Cited<MedicalSupplement>,
    pub gifts: Cited<Gifts>,
    pub tuition: Cited<Tuition>,
    pub dividends: Cited<Dividends>,
    pub top_up: Cited<TopUp>,
    pub minimum_tax: Cited<MinimumTax>,
    pub workers_benefit: Cited<WorkersBenefit>,
    pub ontario: Cited<Provincial>,
    pub ontario_surtax: Cited<Surtax>,
    pub ontario_reduction: Cited<OntarioReduction>,
    pub ontario_lift: Cited<OntarioLift>,
    pub ontario_care: Cited<OntarioCare>,
    pub ontario_health: Cited<Brackets>,
    pub alberta: Cited<Provincial>,
    pub alberta_caregiver: Cited<Caregiver>,
    pub alberta_supplement: Cited<TopUp>,
}

impl Figures {
    /// The committed figures of a tax year, if this pack has them.
    pub fn of(year: i32) -> Option<&'static Figures> {
        COMMITTED.of(year).map(AsRef::as_ref)
    }
}

/// The rule files, latest first.
pub static SOURCES: &[(i32, &str)] = &[(2025, include_str!("../rules/2025.toml"))];

/// The version of the committed rules.
pub const VERSION: &str = env!("HEMBO_RULES");

/// Every year's committed figures.
pub static COMMITTED: LazyLock<Book<Figures>> =
    LazyLock::new(|| Book::read(VERSION, SOURCES, &[]).expect("the committed rule figures parse (tested)"));

tables! {
    /// Rates on slices: the upper ends of all but the last.
    Brackets { rates: Vec<Rate>, tops: Vec<Money> }
    /// ITA 150(1)(d)(i), 156(1), 156.1, 230(4)(b): a day on which no office is open moves to the next.
    Dates { due: Day, instalments: Vec<Day>, instalments_above: Money, kept_years: i32 }
    /// ITA 118(1.1).
    Basic { most: Money, least: Money, from: Money, to: Money }
    /// ITA 118(2).
    Age { amount: Money, from: Money, rate: Rate, age: i32 }
    /// ITA 118(10).
    Employment { most: Money }
    /// ITA 118(3).
    Pension { most: Money, age: i32 }
    /// ITA 60.03.
    Split { part: Rate }
    /// Canada Pension Plan: contributions of employees.
    Cpp {
        exemption: Money, first_ceiling: Money, second_ceiling: Money, rate: Rate, base_rate: Rate,
        second_rate: Rate, from_age: i32, to_age: i32,
    }
    /// CPP Act 8(2): whether too much of one contribution fills what lacks of the other.
    CppOverpaid { both_together: bool }
    /// Employment Insurance Act: premiums of employees outside Quebec.
    Ei { rate: Rate, most_earnings: Money, nothing_to: Money }
    /// ITA 180.2.
    Oas { from: Money, rate: Rate, age: i32 }
    /// ITA 146.
    Rrsp {
        first_day: Day, last_day: Day, cushion: Money, last_age: i32, next_rate: Rate, next_most: Money,
    }
    /// ITA 118.2.
    Medical { part: Rate, most: Money, child_under: i32 }
    /// ITA 122.51.
    MedicalSupplement { part: Rate, most: Money, earned_least: Money, from: Money, rate: Rate, age: i32 }
    /// ITA 118.1.
    Gifts {
        part: Rate, first: Money, first_rate: Rate, rate: Rate, top_rate: Rate, top_from: Money,
        carried_years: i64, earlier_year_to: Option<Day>,
    }
    /// ITA 118.5, 118.9.
    Tuition { transfer_most: Money, school_least: Money, training_from_age: i32, training_to_age: i32 }
    /// ITA 82(1), 121: what the actual amount is multiplied by, and the credit of the taxable amount.
    Dividends { eligible: Rate, other: Rate, eligible_credit: Rate, other_credit: Rate }
    /// A rate on what is above an amount.
    TopUp { rate: Rate, above: Money }
    /// ITA 127.5.
    MinimumTax { exemption: Money, rate: Rate, deductions_part: Rate, credits_part: Rate, gifts_part: Rate }
    /// ITA 122.7. `not_held` names the provinces that have a table of their own, which is not here.
    WorkersBenefit {
        above: Money, rate_in: Rate, rate_out: Rate, single: BenefitClass, family: BenefitClass,
        second_earner: Money, age: i32, not_held: Vec<String>,
    }
    /// ITA 122.7(2): the most, the income from which it shrinks, and that at which nothing is left.
    BenefitClass { most: Money, from: Money, nil: Money }
    /// What every province has: brackets, amounts of the 428 form, rates of credits.
    Provincial {
        rates: Vec<Rate>, tops: Vec<Money>, credit_rate: Rate, basic: Money, age_amount: Money,
        age_from: Money, age_rate: Rate, spouse_base: Money, spouse_most: Money, pension: Money,
        medical_most: Money, gift_first_rate: Rate, gift_rate: Rate, eligible_credit: Rate,
        other_credit: Rate,
    }
    /// The Ontario surtax: parts of the tax above each, which add up.
    Surtax { steps: Vec<TopUp> }
    /// The Ontario tax reduction.
    OntarioReduction { basic: Money, child: Money, child_to_age: i32 }
    /// The Ontario seniors' care at home credit.
    OntarioCare { part: Rate, expenses: Money, from: Money, rate: Rate, age: i32 }
    /// An amount for a relative who lives along, which shrinks with that relative's net income.
    Caregiver { most: Money, above: Money, age: i32 }
    /// The low-income individuals and families tax credit.
    OntarioLift { most: Money, earned_rate: Rate, rate: Rate, own_from: Money, family_from: Money }
}
