//! The rule figures of one assessment period, typed on load from `rules/YEAR.toml`. No figure of the law stands in code.

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
    pub tariff: Cited<Tariff>,
    pub surcharge: Cited<Surcharge>,
    pub church: Cited<Church>,
    pub wages: Cited<Wages>,
    pub withholding: Cited<Withholding>,
    pub dates: Cited<Dates>,
    pub premiums: Cited<Premiums>,
    pub commute: Cited<Commute>,
    pub home_office: Cited<HomeOffice>,
    pub equipment: Cited<Equipment>,
    pub moves: Cited<Moves>,
    pub travel: Cited<Travel>,
    pub second_household: Cited<SecondHousehold>,
    pub pensions: Cited<Pensions>,
    pub provision: Cited<Provision>,
    pub special: Cited<Special>,
    pub burdens: Cited<Burdens>,
    pub disability: Cited<Disability>,
    pub supports: Cited<Supports>,
    pub children: Cited<Children>,
    pub credits: Cited<Credits>,
    pub capital: Cited<Capital>,
    pub funds: Cited<Funds>,
    pub losses: Cited<Losses>,
    pub tariff_1: Cited<Tariff>,
    pub tariff_2: Cited<Tariff>,
    pub hardship: Cited<Hardship>,
    pub private_sales: Cited<PrivateSales>,
    pub farm: Cited<Farm>,
    pub letting: Cited<Letting>,
    pub riester: Cited<Riester>,
}

/// The rule files, latest first.
pub static SOURCES: &[(i32, &str)] =
    &[(2025, include_str!("../rules/2025.toml")), (2024, include_str!("../rules/2024.toml"))];

/// The version of the committed rules.
pub const VERSION: &str = env!("HEMBO_RULES");

/// Every year's committed figures.
pub static COMMITTED: LazyLock<Book<Figures>> =
    LazyLock::new(|| Book::read(VERSION, SOURCES, &[]).expect("the committed rule figures parse (tested)"));

tables! {
    /// §32a(1): the ends of the zones and the constants of their formulas; also of the two years before, for losses that go back.
    Tariff {
        free_to: Money, second_to: Money, third_to: Money, fourth_to: Money, second_square: Money, second_linear: Money,
        third_square: Money, third_linear: Money, third_base: Money, fourth_rate: Rate, fourth_less: Money, fifth_rate: Rate,
        fifth_less: Money,
    }
    /// §§3, 4 SolzG: the tax of one person that is free, the rate, and the rate above it that is never exceeded.
    Surcharge { free_to: Money, rate: Rate, mitigated: Rate }
    /// Church tax: the rates by Land, the special fee by the income of both spouses, the lowest cap and
    /// where there is none.
    Church {
        lower_rate: Rate, lower_in: Vec<String>, rate: Rate, fee_from: Vec<Money>, fees: Vec<Money>, least_cap: Rate,
        uncapped_in: Vec<String>,
    }
    /// §9a: the lump sums of wages and of pensions of an employer.
    Wages { lump: Money, pension_lump: Money }
    /// §39b(2): ceilings and employees' rates of social insurance, the least lump for provision, the ends and rates of classes V and VI; from
    /// which age on the childless pay more, for how many children the rate falls, a year of a small job.
    Withholding {
        pension_to: Money, pension_rate: Rate, health_to: Money, health_rate: Rate, additional: Rate, care: Rate, care_higher: Rate,
        care_higher_in: Vec<String>, childless: Rate, per_child: Rate, least_rate: Rate, least_most: Money, least_most_three: Money,
        low_rate: Rate, middle_rate: Rate, top_rate: Rate, first_to: Money, second_to: Money, third_to: Money, childless_from: i32, reduced_children: i64,
        small_job: Money,
    }
    /// §§101 to 105; §13 5. VermBG: the rate of the premium of mobility and the least that is paid, the most, the rates and the limit of income
    /// of one person of the bonus of savings.
    Premiums {
        mobility_rate: Rate, mobility_least: Money, shares_most: Money, shares_rate: Rate, building_most: Money, building_rate: Rate,
        savings_to: Money,
    }
    /// §149 AO, §37: when the return is due without and with an adviser and on request, from when interest runs, and the least that is
    /// prepaid of a year and a quarter.
    Dates {
        due: Day, due_adviser: Day, on_request: Day, interest: Day, prepayment_year: Money, prepayment_quarter: Money,
    }
    /// §9(1) Nr.4, (2): a kilometre near and far, from which one on, that of who is disabled, the most without an own car, and days that are likely.
    Commute { near: Money, far: Money, far_from: i64, disabled: Money, most: Money, days_likely: i64 }
    /// §4(5) Nr.6b, 6c: a day at home, the most of a year, and what a month without the conditions takes from the room's flat sum.
    HomeOffice { day: Money, most: Money, month: Money }
    /// §6(2): up to which net price equipment is deducted at once; the account fee that needs no proof; from which
    /// part for work on and above which it counts in part and whole, in per cent; value added tax.
    Equipment { at_once_to: Money, account_fee: Money, work_from: i64, whole_above: i64, vat: Rate }
    /// §10 BUKG: from which days on which flat sums count.
    Moves { from: Vec<Day>, entitled: Vec<Money>, further: Vec<Money>, without_home: Vec<Money>, lessons: Vec<Money> }
    /// §9(4a), §5 BRKG: days away, what given meals take off, and the kilometre.
    Travel { meal_days: i64, full_day: Money, part_day: Money, breakfast: Money, main_meal: Money, car: Money, other: Money }
    /// §9(1) Nr.5: the most of a month for the home at the place of work.
    SecondHousehold { month: Money }
    /// §§9a Nr.3, 22, 19(2), 24a: the lump sum of all pensions of a person; by the year of the start, from the first one on, the share
    /// that is taxed, what is free of an employer's pension, and the relief of old age; the yield of annuities by the age at the start.
    Pensions {
        lump: Money, first_year: i32, shares: Vec<Rate>, employers_rates: Vec<Rate>, employers_most: Vec<Money>,
        employers_further: Vec<Money>, relief_rates: Vec<Rate>, relief_most: Vec<Money>, relief_age: i32, yield_ages: Vec<i64>,
        yields: Vec<Rate>,
    }
    /// §10(3), (4): the most for old age, of other provision with and without another's part, the part with sick pay, and what the ceiling
    /// of civil servants loses.
    Provision {
        pension_most: Money, other_most: Money, other_most_alone: Money, sick_pay_part: Rate, servant_rate: Rate, servant_to: Money,
    }
    /// §§10, 10b, 10c: the lump sum and the limits of special expenses.
    Special {
        lump: Money, care_parts: i64, care_of: i64, care_most: Money, school_rate: Rate, school_most: Money, education_most: Money,
        gift_rate: Rate, maintenance_most: Money, party_most: Money,
    }
    /// §33(3): the own burden by steps and family; the lump sums of travel.
    Burdens {
        first_to: Money, second_to: Money, alone: Vec<Rate>, together: Vec<Rate>, few_children: Vec<Rate>, many_children: Vec<Rate>,
        many_from: usize, trips: Money, trips_helpless: Money,
    }
    /// §33b: the lump sums by degree, of who is helpless (from which grade of care on), of survivors, and of who cares by grades 2, 3, 4 and
    /// 5; from which degrees on, without and with a mark, the way to work and trips count otherwise (§§9(2) S.3, 33(2a)).
    Disability {
        degrees: Vec<i64>, lumps: Vec<Money>, helpless: Money, helpless_grade: i64, survivor: Money, care_grades: Vec<Money>,
        drives_from: i64, drives_with_mark_from: i64, trips_from: i64, trips_with_mark_from: i64,
    }
    /// §33a: support of relatives, what of their own means is free, and children who are trained away from home; what a payer can bear: for
    /// each step of net income one per cent, at most so many, less so many for each of the family, at most so many; whether only
    /// transfers count.
    Supports {
        most: Money, own_means_free: Money, training_away: Money, bearable_step: Money, bearable_most: i64, per_family: i64,
        family_most: i64, transfer_only: bool,
    }
    /// §§32(6), 66, 24b: a month's benefit, both allowances of both parents, the relief of who is alone; below which ages
    /// care and the child itself count, and from which it needs a ground.
    Children {
        benefit: Money, allowance: Money, care_allowance: Money, alone: Money, alone_further: Money, care_below: i32, full_age: i32,
        counts_below: i32,
    }
    /// §§34g, 35, 35a, 35c: the rates and limits of credits.
    Credits {
        minijob_rate: Rate, minijob_most: Money, services_rate: Rate, services_most: Money, crafts_rate: Rate, crafts_most: Money,
        energy_rates: Vec<Rate>, energy_most: Vec<Money>, party_rate: Rate, trade_factor: i64,
    }
    /// §§20(9), 32d: the saver's lump sum of a person, and the flat rate.
    Capital { saver: Money, rate: Rate }
    /// §§18, 20 InvStG: the base rate of the year before and the part of it that counts; what of each kind of fund is exempt.
    Funds { base_rate: Rate, base_part: Rate, equity: Rate, mixed: Rate, property: Rate, foreign_property: Rate }
    /// §10d: what of losses brought forward is used whole, and the part above; what of a loss of the year goes back at most.
    Losses { free: Money, above: Rate, back: Money }
    /// §46(3), (5): other income that is free, and where that ends.
    Hardship { free: Money, end: Money }
    /// §§22 Nr.3, 23(3): below which gains of private sales and services are free.
    PrivateSales { sales_free_below: Money, services_free_below: Money }
    /// §§10a, 84 to 86: the most that is deducted, and further of who is entitled through the spouse; the basic allowance, the bonus of the
    /// young, those of children born before 2008 and later; the part of income that is to be paid in and the smallest amount.
    Riester {
        most: Money, through_spouse: Money, basic: Money, bonus: Money, child_before: Money, child: Money, rate: Rate, least: Money,
    }
    /// §21(2), §82b EStDV: below which per cent of the local rent deductions count in part, and where a forecast decides; over how many years
    /// large repairs are spread at most.
    Letting { part_below: i64, forecast_below: i64, most_years: i64 }
    /// §13(3): what is free of farming of a person, and up to which sum of income.
    Farm { relief: Money, to: Money }
}

impl Children {
    /// Whether who was born on a day comes of age in a year or did before.
    pub fn is_of_age_in(&self, year: i32, born: Option<time::Date>) -> bool {
        born.is_some_and(|born| born.year() + self.full_age <= year)
    }
}
