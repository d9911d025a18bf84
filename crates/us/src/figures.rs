//! The rule figures of one tax year, typed on load from `rules/YEAR.toml`. No figure of the law stands in code.

use crate::filing_status::Status;
use hembo_core::{
    figures::{Book, Cited, Day},
    limit, tables,
    trail::Trail,
};
use hembo_money::{Money, Rate, Rounding};
use serde::Deserialize;
use std::sync::LazyLock;

/// All figures of a year.
#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Figures {
    pub year: i32,
    /// The year is not over: for planning only.
    #[serde(default)]
    pub planning: bool,
    pub standard_deduction: Cited<StandardDeduction>,
    pub considered_unmarried: Cited<ConsideredUnmarried>,
    pub dependents: Cited<Dependents>,
    pub medical: Cited<Medical>,
    pub taxes: Cited<Taxes>,
    pub home_loan: Cited<HomeLoan>,
    /// From 2026.
    pub mortgage_insurance: Option<Cited<MortgageInsurance>>,
    /// From 2026.
    pub itemized_limit: Option<Cited<ItemizedLimit>>,
    pub gifts: Cited<Gifts>,
    /// From 2026.
    pub gift_floor: Option<Cited<GiftFloor>>,
    /// From 2026.
    pub unitemized_gifts: Option<Cited<UnitemizedGifts>>,
    pub gift_carryover_order: Cited<GiftCarryoverOrder>,
    /// From 2025.
    pub senior: Option<Cited<Senior>>,
    /// From 2025.
    pub tips: Option<Cited<WorkDeduction>>,
    /// From 2025.
    pub overtime: Option<Cited<WorkDeduction>>,
    /// From 2025.
    pub car_loan: Option<Cited<CarLoan>>,
    pub union_plan: Cited<UnionPlan>,
    /// Until 2024.
    pub homebuyer_credit: Option<Cited<HomebuyerCredit>>,
    pub moving: Cited<Moving>,
    pub casualty: Cited<Casualty>,
    pub gambling: Cited<Gambling>,
    pub premium_tax_credit: Cited<PremiumTaxCredit>,
    pub business: Cited<Business>,
    pub rental: Cited<Rental>,
    pub self_employment: Cited<SelfEmployment>,
    pub own_plan: Cited<OwnPlan>,
    pub simple_plan: Cited<SimplePlan>,
    pub elderly: Cited<Elderly>,
    pub home_energy: Cited<HomeEnergy>,
    pub clean_vehicles: Cited<CleanVehicles>,
    pub mortgage_credit: Cited<MortgageCredit>,
    pub adoption: Cited<Adoption>,
    pub household_employees: Cited<HouseholdEmployees>,
    pub education: Cited<Education>,
    pub care: Cited<Care>,
    pub rates: Cited<Rates>,
    pub minimum_tax: Cited<MinimumTax>,
    pub additional_medicare: Cited<AdditionalMedicare>,
    pub investment_tax: Cited<InvestmentTax>,
    pub social_security: Cited<SocialSecurity>,
    pub child_credit: Cited<ChildCredit>,
    pub earned_income_credit: Cited<EarnedIncomeCredit>,
    pub records: Cited<Records>,
    pub underpayment: Cited<Underpayment>,
    pub interest: Cited<Interest>,
    pub capital_gains: Cited<CapitalGains>,
    pub home_sale: Cited<HomeSale>,
    pub education_plans: Cited<EducationPlans>,
    pub repayments: Cited<Repayments>,
    pub long_term_care_payments: Cited<LongTermCarePayments>,
    pub foreign_accounts: Cited<ForeignAccounts>,
    pub early_distribution: Cited<EarlyDistribution>,
    pub excess_contributions: Cited<ExcessContributions>,
    pub required_distributions: Cited<RequiredDistributions>,
    pub charitable_distribution: Cited<CharitableDistribution>,
    pub simplified_method: Cited<SimplifiedMethod>,
    pub public_safety_officer: Cited<PublicSafetyOfficer>,
    pub ira: Cited<Ira>,
    pub benefits: Cited<Benefits>,
    pub health_savings: Cited<HealthSavings>,
    pub student_loan: Cited<StudentLoan>,
    pub education_bonds: Cited<EducationBonds>,
    pub operating_loss: Cited<OperatingLoss>,
    pub alimony: Cited<Alimony>,
    pub business_income: Cited<BusinessIncome>,
    pub foreign_tax: Cited<ForeignTax>,
    pub rate_differential: Cited<RateDifferential>,
    pub kiddie: Cited<Kiddie>,
    pub child_minimum_tax: Cited<ChildMinimumTax>,
    pub saver: Cited<Saver>,
    pub elective_deferrals: Cited<ElectiveDeferrals>,
    pub educator: Cited<Educator>,
    pub release: Cited<Release>,
    /// Of California, in the years of its figures.
    pub california_rates: Option<Cited<CaliforniaRates>>,
    pub california_deductions: Option<Cited<CaliforniaDeductions>>,
    pub california_exemptions: Option<Cited<CaliforniaExemptions>>,
    pub california_minimum_tax: Option<Cited<CaliforniaMinimumTax>>,
    pub california_renters: Option<Cited<CaliforniaRenters>>,
    pub california_care: Option<Cited<CaliforniaCare>>,
    pub california_kiddie: Option<Cited<CaliforniaKiddie>>,
    pub california_child_election: Option<Cited<CaliforniaChildElection>>,
    pub california_code_credits: Option<Cited<CaliforniaCodeCredits>>,
    pub california_other_credits: Option<Cited<CaliforniaOtherCredits>>,
    pub california_earned_income: Option<Cited<CaliforniaEarnedIncome>>,
    pub california_early_distributions: Option<Cited<CaliforniaEarlyDistributions>>,
    pub california_gross_thresholds: Option<Cited<CaliforniaThresholds>>,
    pub california_income_thresholds: Option<Cited<CaliforniaThresholds>>,
    /// From 2025.
    pub california_military_pensions: Option<Cited<CaliforniaMilitaryPensions>>,
    pub california_cover: Option<Cited<CaliforniaCover>>,
    pub california_use_tax: Option<Cited<CaliforniaUseTax>>,
    pub california_payments: Option<Cited<CaliforniaPayments>>,
    pub california_underpayment: Option<Cited<CaliforniaUnderpayment>>,
    pub california_part_year: Option<Cited<CaliforniaPartYear>>,
    pub california_disability: Option<Cited<CaliforniaDisability>>,
}

impl Figures {
    /// The committed figures of a tax year, if this pack has them.
    pub fn of(year: i32) -> Option<&'static Figures> {
        COMMITTED.of(year).map(AsRef::as_ref)
    }
}

/// The rule files, latest first, with those of the states.
pub static SOURCES: &[(i32, &str)] = &[
    (2026, include_str!("../rules/2026.toml")),
    (2025, concat!(include_str!("../rules/2025.toml"), include_str!("../rules/california-2025.toml"))),
    (2024, concat!(include_str!("../rules/2024.toml"), include_str!("../rules/california-2024.toml"))),
];

/// The version of the committed rules.
pub const VERSION: &str = env!("HEMBO_RULES");

/// Every year's committed figures.
pub static COMMITTED: LazyLock<Book<Figures>> =
    LazyLock::new(|| Book::read(VERSION, SOURCES, &[]).expect("the committed rule figures parse (tested)"));

/// An amount for each filing status.
#[derive(Debug, Clone, Copy, Deserialize)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct ByStatus<T = Money> {
    pub single: T,
    pub joint: T,
    pub head: T,
    /// The surviving spouse's, where it is not the joint one.
    pub surviving: Option<T>,
    pub separate: T,
}

impl<T> ByStatus<T> {
    /// The one for this status.
    pub fn of(&self, status: Status) -> &T {
        match status {
            Status::Single => &self.single,
            Status::Joint => &self.joint,
            Status::Surviving => self.surviving.as_ref().unwrap_or(&self.joint),
            Status::Head => &self.head,
            Status::Separate => &self.separate,
        }
    }
}

/// A range of income in which something shrinks to nothing.
#[derive(Debug, Clone, Copy, Deserialize)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Range {
    pub from: Money,
    pub width: Money,
}

impl Range {
    /// How much of something an income in the range takes: none up to its start, all at its end, to so many decimal places.
    #[track_caller]
    pub fn taken(self, trail: &mut impl Trail, income: Money, places: u32) -> Rate {
        let over = limit::or_zero(trail, income - self.from);
        let over = limit::lesser(trail, over, self.width);
        if over >= self.width { Rate::ONE } else { over.ratio_to(self.width, places, Rounding::HalfUp) }
    }
}

tables! {
    /// §63.
    StandardDeduction {
        basic: ByStatus, aged_or_blind_unmarried: Money, aged_or_blind_married: Money,
        dependent_least: Money, dependent_plus: Money, aged: i32, separate_files_from: Money,
    }
    /// §7703(b)(3).
    ConsideredUnmarried { months_apart: i64 }
    /// §152.
    Dependents { gross_income_below: Money, child_under: i32, student_under: i32, student_months: i64 }
    /// §213.
    Medical { floor: Rate, mile: Rate, long_term_care: Vec<LongTermCare> }
    /// §213(d)(10).
    LongTermCare { up_to_age: i32, most: Money }
    /// §164(b)(6).
    Taxes { cap: ByStatus, phase_down: Option<PhaseDown> }
    /// §164(b)(7), from 2025.
    PhaseDown { from: ByStatus, rate: Rate, least: ByStatus }
    /// §163(h)(3).
    HomeLoan { most_new: ByStatus, most_old: ByStatus, old_before: Day, grandfathered_before: Day, ratio_places: u32 }
    /// §163(h)(3)(E), from 2026.
    MortgageInsurance { from: ByStatus, step: ByStatus, rate: Rate }
    /// §68, from 2026: so many parts of so many.
    ItemizedLimit { parts: i64, of: i64 }
    /// §217.
    Moving { mile: Rate }
    /// §165(h).
    Casualty { each: Money, floor: Rate, each_qualified: Money }
    /// §170.
    Gifts {
        cash_part: Rate, goods_part: Rate, property_part: Rate, other_property_part: Rate, mile: Rate, carried_years: i64,
        acknowledgment_from: Money, form_8283_above: Money,
    }
    /// §170(b)(1)(I), from 2026.
    GiftFloor { part: Rate }
    /// §170(p), from 2026.
    UnitemizedGifts { most: ByStatus }
    /// §165(d): the part of losses that counts.
    Gambling { part: Rate }
    /// §170(d)(1)(A): where a carryover of cash gifts stands.
    GiftCarryoverOrder { cash_carryover_before_goods: bool }
    /// §151(d)(5)(C).
    Senior { each: Money, from: ByStatus, rate: Rate }
    /// §1(j).
    Rates { rates: Vec<Rate>, tops: ByStatus<Vec<Money>>, table: Vec<TableBand> }
    /// The Tax Table: so wide a band, up to there.
    TableBand { below: Money, width: Money }
    /// §55.
    MinimumTax {
        exemption: ByStatus, phase_out_from: ByStatus, phase_out_rate: Rate, low_rate: Rate, high_rate: Rate,
        high_from: ByStatus, separate_add_back_from: Money,
    }
    /// §3101(b)(2).
    AdditionalMedicare { from: ByStatus, rate: Rate, regular_rate: Rate, withheld_above: Money }
    /// §1411.
    InvestmentTax { from: ByStatus, rate: Rate }
    /// §3101(a), §31(b).
    SocialSecurity { wage_base: Money, rate: Rate, most_tax: Money }
    /// §24.
    ChildCredit {
        child: Money, refundable: Money, other: Money, child_under: i32, filer_number: bool, from: ByStatus,
        step: Money, rate: Rate,
        earned_above: Money, earned_rate: Rate, three_children: i64,
    }
    /// §32.
    EarnedIncomeCredit {
        band: Money, investment_income_most: Money, childless_from_age: i32, childless_under_age: i32,
        classes: Vec<EarnedIncomeClass>,
    }
    /// §32(b), for a number of children.
    EarnedIncomeClass {
        rate_in: Rate, rate_out: Rate, earned: Money, most: Money, out_from: Money, out_from_joint: Money,
    }
    /// §§6001, 6501(a), (b)(1): years after the return was due.
    Records { kept_years: i32 }
    /// §6654.
    Underpayment {
        no_penalty_below: Money, current_part: Rate, last_part_high: Rate, high_above: Money, high_above_separate: Money,
        due: Vec<Day>, until: Day, interest: Vec<InterestPeriod>,
    }
    /// §6621: from the end of a day on, with the days of its year.
    InterestPeriod { from: Day, rate: Rate, days: i64 }
    /// Schedule B.
    Interest { schedule_b_above: Money }
    /// §§1(h), 1211(b): taxable income up to which gains are taxed at 0 % and 15 %, the end of the 24 % bracket; §1091(a).
    CapitalGains {
        zero_up_to: ByStatus, middle_up_to: ByStatus, layers_ordinary_up_to: ByStatus, middle_rate: Rate, top_rate: Rate,
        section_1250_rate: Rate, collectibles_rate: Rate, loss: ByStatus, wash_days: i64,
    }
    /// §121: the amount for each filer, after so many months of owning and using; a sale up to so many months is short-term.
    HomeSale { each: Money, months: i64, short_up_to: i64 }
    /// §530(d)(4).
    EducationPlans { rate: Rate }
    /// §72(t).
    EarlyDistribution { disaster_most: Money, disaster_years: i64, rate: Rate, simple_rate: Rate, half_after_age: i32 }
    /// §1341(a)(3).
    Repayments { above: Money }
    /// §7702B(d)(4).
    LongTermCarePayments { a_day: Money }
    /// 31 CFR §1010.306(c); §6038D.
    ForeignAccounts { report_above: Money, year_end_above: ByStatus<Money>, any_time_above: ByStatus<Money> }
    /// §4973(a).
    ExcessContributions { rate: Rate }
    /// §4974(a), (e).
    RequiredDistributions { rate: Rate, corrected_rate: Rate, from_age: i32 }
    /// §408(d)(8).
    CharitableDistribution { most: Money, half_after_age: i32 }
    /// §72(d)(1)(B): the number of payments by age at the start, for one life and for two.
    SimplifiedMethod { one_life: Vec<Payments>, two_lives: Vec<Payments> }
    /// A row of it.
    Payments { up_to_age: i64, payments: i64 }
    /// §402(l).
    PublicSafetyOfficer { most: Money }
    /// §§219, 408, 408A.
    Ira {
        most: Money, catch_up: Money, catch_up_from_age: i32, covered: ByStatus<Range>, spouse_covered: Range, roth: ByStatus<Range>,
        step: Money, least: Money, ratio_places: u32, first_home: Money,
    }
    /// §86: base amounts, how much above them the half lasts, and the parts that are taxed.
    Benefits { base: ByStatus, second_after: ByStatus, first_rate: Rate, second_rate: Rate }
    /// §223.
    HealthSavings {
        own: Money, family: Money, catch_up: Money, catch_up_from_age: i32, penalty_rate: Rate, spared_from_age: i32,
        failed_rate: Rate,
    }
    /// §221.
    StudentLoan { most: Money, range: ByStatus<Range>, ratio_places: u32 }
    /// §§56(d)(1), 172(a)(2).
    OperatingLoss { part: Rate, minimum_tax_part: Rate }
    /// §135.
    EducationBonds { range: ByStatus<Range>, places: u32 }
    /// P.L. 115-97 §11051: instruments of that year and later.
    Alimony { first_year_without: i32 }
    /// §199A.
    BusinessIncome {
        rate: Rate, range: ByStatus<Range>, places: u32, wages: Rate, wages_with_property: Rate, property: Rate,
        least: Option<Money>, least_from: Option<Money>,
    }
    /// §§162, 280A, 461(l).
    Business { mile: Rate, meals: Rate, office_foot: Money, office_feet: i64, excess_loss: ByStatus }
    /// §§168(c), 280A, 469(i): the allowance for losses, apart that of spouses who lived so all year; days of own use and of letting; how
    /// long a building is written off.
    Rental {
        allowance: Money, allowance_apart: Money, gone_at: Money, gone_at_apart: Money, allowance_rate: Rate, form_above: Money,
        home_days: i64, home_share: i64, few_days: i64, residential_months: i64, other_months: i64, other_since: Day,
    }
    /// §§1401, 1402.
    SelfEmployment {
        part: Rate, least: Money, social_rate: Rate, medicare_rate: Rate, half: Rate, optional_part: Rate, optional_most: Money,
    }
    /// §§404, 415(c), 414(v).
    OwnPlan { part: Rate, most: Money, compensation: Money, catch_up: Money, catch_up_from_age: i32, late_catch_up: Money, late_from_age: i32, late_to_age: i32 }
    /// §408(p); §414(v)(2)(B), (E).
    SimplePlan {
        most: Money, catch_up: Money, small_most: Money, small_catch_up: Money, catch_up_from_age: i32,
        late_catch_up: Money, late_from_age: i32, late_to_age: i32, match_rate: Rate, share_rate: Rate,
    }
    /// §36(f), of a home bought in 2008: in how many parts the credit is paid back, and what it was at most.
    HomebuyerCredit { parts: i64, most: Money }
    /// §904.
    ForeignTax {
        simple: ByStatus, interest_counts_above: Money, adjust_from: Money, ratio_places: u32, carried_years: i64,
    }
    /// §904(b)(2)(B): what counts of income at the rates for gains, and the same for the minimum tax.
    RateDifferential { regular: CountedAt, minimum: CountedAt }
    /// What counts of income taxed at each rate.
    CountedAt { middle: Rate, top: Rate, at_25: Rate, at_28: Rate }
    /// §1(g).
    Kiddie {
        unearned_above: Money, election_above: Money, election_below: Money, election_taxed: Money, election_rate: Rate, from_age: i32, student_from_age: i32, under: i32 }
    /// §59(j): what a child's exemption has above earned income.
    ChildMinimumTax { plus: Money }
    /// §25B: the amount for each person, and the parts by income.
    Saver { most: Money, from_age: i32, tiers: Vec<SaverTier> }
    /// §25B(b).
    SaverTier { rate: Rate, up_to: ByStatus }
    /// §§224, 225; `by_code` where Form W-2 has a code for it in box 12.
    WorkDeduction { most: ByStatus, from: ByStatus, step: Money, rate: Rate, by_code: Option<bool> }
    /// §163(h)(4).
    CarLoan { most: Money, from: ByStatus, step: Money, rate: Rate, made_from: i32 }
    /// §§21, 129.
    Care {
        one: Money, two: Money, point: Rate, most_rate: Rate, tiers: Vec<CareTier>, benefits: ByStatus,
        deemed_one: Money, deemed_two: Money, under_age: i32,
    }
    /// §21(a)(2): a point less for each step above, down to a part.
    CareTier { from: ByStatus, step: ByStatus, least_rate: Rate }
    /// §22.
    Elderly { age: i32, one: ByStatus, both: Money, income_from: ByStatus, income_rate: Rate, rate: Rate }
    /// §§25C, 25D.
    HomeEnergy {
        rate: Rate, parts_most: Money, item_most: Money, door_each: Money, doors_most: Money, audit_most: Money, pumps_most: Money,
        fuel_cell_half_kilowatt: Money, installed_by: Day,
    }
    /// §§25E, 30D.
    CleanVehicles {
        new_most: Money, new_income: ByStatus, used_most: Money, used_rate: Rate, used_price: Money, used_income: ByStatus,
        acquired_by: Day,
    }
    /// §25.
    MortgageCredit { most: Money, high_above: Rate, least: Rate, highest: Rate, carried_years: i64 }
    /// §23.
    Adoption { most: Money, range: Range, ratio_places: u32, paid_out_each: Money, carried_years: i64 }
    /// §§3121(x), 3301 to 3306.
    HouseholdEmployees { from: Money, unemployment_most: Money, unemployment_rate: Rate }
    /// §25A.
    Education {
        first: Money, second: Money, second_rate: Rate, refundable: Rate, opportunity_years: i64, learning_most: Money,
        learning_rate: Rate, range: ByStatus<Range>, ratio_places: u32, number: Option<bool>,
    }
    /// §36B: poverty lines of the year before, the part of income by percentage of them, and how much is paid back at most.
    PremiumTaxCredit {
        poverty: PovertyLine, alaska: PovertyLine, hawaii: PovertyLine, least_percent: i64, most_percent: i64,
        none_above: Option<i64>,
        bands: Vec<PremiumBand>, repayment: Vec<Repayment>,
    }
    /// For one person, and for each more.
    PovertyLine { first: Money, more: Money }
    /// From a percentage on: the part there, and how it grows with each point.
    PremiumBand { from: i64, start: Rate, each: Rate }
    /// §36B(f)(2)(B), below a percentage.
    Repayment { below: i64, single: Money, others: Money }
    /// §219(b)(3).
    UnionPlan { most: Money, part: Rate }
    /// §62(a)(2)(D).
    Educator { most: Money, rest_itemized: Option<bool> }
    /// §152(e): from which age a child may be in nobody's custody.
    Release { of_age_from: i32 }
    /// R&TC 17041, 17043, 17048: the brackets, the Tax Table's first row, the others and its end; the tax for health services.
    CaliforniaRates {
        brackets: Vec<Rate>, tops: ByStatus<Vec<Money>>, table_to: Money, first_row: Money, row: Money, services_from: Money,
        services_rate: Rate,
    }
    /// R&TC 17073.5, 17076, 17077, 17201, 17225: the standard deduction, that of who can be claimed, the floor of job expenses, the threshold of
    /// high incomes with what the limit takes, debt for the home and other debt, cash gifts as a part of income.
    CaliforniaDeductions {
        standard: ByStatus, dependent_least: Money, dependent_plus: Money, miscellaneous_floor: Rate, high_income: ByStatus,
        limited_rate: Rate, limited_most: Rate, loans: ByStatus, other_loans: ByStatus, ratio_places: u32, cash_part: Rate,
    }
    /// R&TC 17054, 17054.1: the credits of a filer and a dependent, the age of a senior, the step of income above the threshold and what each takes.
    CaliforniaExemptions { personal: Money, dependent: Money, aged: i32, step: ByStatus, each_step: Money }
    /// R&TC 17062.
    CaliforniaMinimumTax { exemption: ByStatus, phase_out_from: ByStatus, phase_out_rate: Rate, rate: Rate, medical_part: Rate }
    /// R&TC 17053.5.
    CaliforniaRenters { income: ByStatus, credit: ByStatus }
    /// R&TC 17052.6: up to which federal income which part of the federal credit counts.
    CaliforniaCare { tops: Vec<Money>, parts: Vec<Rate> }
    /// R&TC 17041(g): up to which amount a child's unearned income is taxed at its own rates.
    CaliforniaKiddie { unearned_above: Money }
    /// R&TC 17041(g), FTB 3803: a child's income above and below what it may be on the parents' return, what is spared of it and taxed at a rate.
    CaliforniaChildElection { above: Money, below: Money, taxed: Money, rate: Rate }
    /// R&TC 17054.5, 17054.7: codes 163, 170 and 173.
    CaliforniaCodeCredits { senior_income: Money, senior_rate: Rate, senior_most: Money, family_rate: Rate, family_most: Money }
    /// Schedule S, R&TC 17052.25, 17053.87: codes 187, 197 and 235.
    CaliforniaOtherCredits { ratio_places: u32, adoption_rate: Rate, adoption_most: Money, college_rate: Rate, college_years: i64 }
    /// R&TC 19136, 19521: how withholding is divided over the instalments, and the interest from the end of a day on.
    CaliforniaUnderpayment { withheld_shares: Vec<Rate>, interest: Vec<InterestPeriod> }
    /// R&TC 6051, 6201, 6452.1: the rate of the state alone, and the price below which the table settles a purchase for oneself.
    CaliforniaUseTax { least_rate: Rate, small_below: Money }
    /// R&TC 17052 to 17052.2: the most earnings and income, the most income of investments; by children the rate, the amount to which the credit
    /// grows and the credit at which its slow tail begins; a row of the table; the credits for a young child and for foster youth.
    CaliforniaEarnedIncome {
        most: Money, invested_most: Money, by_children: Vec<Rate>, factor: Rate, amounts: Vec<Money>, tail_from: Vec<Money>, row: Money,
        childless_from_age: i32, young_most: Money, young_from: Money, young_each: Money, young_step: Money, young_under_age: i32,
        young_loss_most: Money, foster_most: Money, foster_from_age: i32, foster_under_age: i32,
    }
    /// R&TC 17085: the parts of early distributions, of those of a SIMPLE IRA in its first years, of education plans.
    CaliforniaEarlyDistributions { rate: Rate, simple_rate: Rate, education_rate: Rate }
    /// R&TC 18501: by dependents, none, one, two and more: of one person, of one of 65 and more, of a couple, of one with one and with two so old.
    CaliforniaThresholds {
        alone: Vec<Money>, alone_aged: Vec<Money>, couple: Vec<Money>, couple_one_aged: Vec<Money>, couple_aged: Vec<Money>,
    }
    /// R&TC 17132.9, 17132.10.
    CaliforniaMilitaryPensions { most: Money, income: ByStatus }
    /// R&TC 19136 to 19136.3: the parts of instalments, the least that calls for them, which part of this year's tax protects, of last year's, of last
    /// year's above a high income, and from which income on only this year's does.
    CaliforniaPayments {
        shares: Vec<Rate>, least: ByStatus, current_part: Rate, plain_part: Rate, high_part: Rate, high_above: ByStatus, no_prior_year_at: ByStatus,
    }
    /// R&TC 17055, 17053.5: to so many places the ratios of Form 540NR are rounded, and from how many months on there is a renter's credit.
    CaliforniaPartYear { ratio_places: u32, renter_months: i64 }
    /// UIC 984, 985: the employees' rate of state disability insurance, without a ceiling.
    CaliforniaDisability { rate: Rate }
    /// R&TC 61015: the flat amounts of a year, from which age on someone is an adult, so many adults a household at most, the part of income above
    /// the threshold, the average bronze premium of a month and for how many persons at most; how many months are a short gap; the part of
    /// income up to which cover is affordable (R&TC 61020).
    CaliforniaCover {
        adult: Money, child: Money, of_age: i32, household_times: i64, rate: Rate, bronze: Money, bronze_people: i64, short_gap: i64, affordable: Rate,
    }
    /// §§402(g), 414(v).
    ElectiveDeferrals {
        most: Money, catch_up: Money, catch_up_from_age: i32, late_catch_up: Money, late_from_age: i32, late_to_age: i32,
        fifteen_years_most: Money,
    }
}

impl SimplePlan {
    /// The limit on deferrals of an age, in a plan of a business with more than 25 employees or of a smaller one.
    pub fn most_of(&self, large: bool, age: Option<i32>) -> Money {
        let (most, plain) =
            if large { (self.most, self.catch_up) } else { (self.small_most, self.small_catch_up) };
        most + match age {
            Some(age) if (self.late_from_age..=self.late_to_age).contains(&age) => self.late_catch_up,
            Some(age) if age >= self.catch_up_from_age => plain,
            _ => Money::ZERO,
        }
    }
}

impl OwnPlan {
    /// The catch-up of an age (§414(v)).
    pub fn catch_up_of(&self, age: Option<i32>) -> Money {
        match age {
            Some(age) if (self.late_from_age..=self.late_to_age).contains(&age) => self.late_catch_up,
            Some(age) if age >= self.catch_up_from_age => self.catch_up,
            _ => Money::ZERO,
        }
    }
}

impl CaliforniaPayments {
    /// Which part of a year's tax protects the next one at an income: of one so high only a part of the next year's own.
    pub fn protecting_part(&self, status: Status, income: Money) -> Rate {
        if income >= *self.no_prior_year_at.of(status) {
            self.current_part
        } else if income > *self.high_above.of(status) {
            self.high_part
        } else {
            self.plain_part
        }
    }
}
