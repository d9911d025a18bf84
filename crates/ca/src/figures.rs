//! The rule figures of one tax year, typed on load from the files of `rules/YEAR`. No figure of the law stands in code.

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
    /// From 2025 on.
    pub top_up: Option<Cited<TopUp>>,
    pub minimum_tax: Cited<MinimumTax>,
    pub workers_benefit: Cited<WorkersBenefit>,
    pub workers_disability: Cited<WorkersDisability>,
    pub caregiver: Cited<Caregiver>,
    pub disability: Cited<Disability>,
    pub young_children: Cited<YoungChildren>,
    pub child_care: Cited<ChildCare>,
    pub capital_gains: Cited<CapitalGains>,
    pub scholarships: Cited<Scholarships>,
    pub loan_interest: Cited<LoanInterest>,
    pub business: Cited<Business>,
    pub home_credits: Cited<HomeCredits>,
    pub northern: Cited<Northern>,
    pub disability_supports: Cited<DisabilitySupports>,
    pub employment_expenses: Cited<EmploymentExpenses>,
    pub non_capital_losses: Cited<CarriedYears>,
    pub volunteers: Cited<Volunteers>,
    pub adoption: Cited<Adoption>,
    pub parties: Cited<Brackets>,
    pub labour_funds: Cited<PartUpTo>,
    pub generations: Cited<PartUpTo>,
    pub educators: Cited<PartUpTo>,
    pub foreign_tax: Cited<ForeignTax>,
    pub foreign_property: Cited<ForeignProperty>,
    pub part_year: Cited<PartYear>,
    pub child_benefit: Cited<ChildBenefit>,
    pub sales_tax_benefit: Cited<SalesTaxBenefit>,
    pub ontario_benefits: Cited<ProvincialBenefit>,
    pub new_brunswick_benefits: Cited<ProvincialBenefit>,
    pub nova_scotia_benefits: Cited<ProvincialBenefit>,
    pub year_of_death: Cited<YearOfDeath>,
    pub ontario: Cited<Provincial>,
    pub ontario_relatives: Cited<Relatives>,
    pub ontario_credits: Cited<ProvincialCredits>,
    pub ontario_surtax: Cited<Surtax>,
    pub ontario_reduction: Cited<OntarioReduction>,
    pub ontario_lift: Cited<OntarioLift>,
    pub ontario_care: Cited<OntarioCare>,
    pub ontario_health: Cited<Brackets>,
    pub ontario_child_care: Cited<OntarioChildCare>,
    pub british_columbia: Cited<Provincial>,
    pub british_columbia_relatives: Cited<Relatives>,
    pub british_columbia_credits: Cited<ProvincialCredits>,
    pub british_columbia_reduction: Cited<BritishColumbiaReduction>,
    pub british_columbia_gifts: Cited<TopUp>,
    pub british_columbia_sales: Cited<BritishColumbiaSales>,
    pub british_columbia_renter: Cited<BritishColumbiaRenter>,
    pub alberta: Cited<Provincial>,
    pub alberta_relatives: Cited<Relatives>,
    pub alberta_credits: Cited<ProvincialCredits>,
    /// From 2025 on.
    pub alberta_supplement: Option<Cited<TopUp>>,
    pub saskatchewan: Cited<Provincial>,
    pub saskatchewan_relatives: Cited<Relatives>,
    pub saskatchewan_credits: Cited<ProvincialCredits>,
    pub saskatchewan_families: Cited<SaskatchewanFamilies>,
    pub manitoba: Cited<Provincial>,
    pub manitoba_relatives: Cited<Relatives>,
    pub manitoba_credits: Cited<ProvincialCredits>,
    /// From 2025 on.
    pub manitoba_basic: Option<Cited<ManitobaBasic>>,
    pub manitoba_family: Cited<ManitobaFamily>,
    pub new_brunswick: Cited<Provincial>,
    pub new_brunswick_relatives: Cited<Relatives>,
    pub new_brunswick_credits: Cited<ProvincialCredits>,
    pub new_brunswick_reduction: Cited<NewBrunswickReduction>,
    pub nova_scotia: Cited<Provincial>,
    pub nova_scotia_relatives: Cited<Relatives>,
    pub nova_scotia_credits: Cited<ProvincialCredits>,
    pub nova_scotia_reduction: Cited<NovaScotiaReduction>,
    pub nova_scotia_age: Cited<NovaScotiaAge>,
    /// To 2024.
    pub nova_scotia_supplement: Option<Cited<NovaScotiaSupplement>>,
    pub newfoundland: Cited<Provincial>,
    pub newfoundland_relatives: Cited<Relatives>,
    pub newfoundland_credits: Cited<ProvincialCredits>,
    pub newfoundland_reduction: Cited<NewfoundlandReduction>,
    pub prince_edward: Cited<Provincial>,
    pub prince_edward_relatives: Cited<Relatives>,
    pub prince_edward_credits: Cited<ProvincialCredits>,
    pub prince_edward_reduction: Cited<PrinceEdwardReduction>,
    pub yukon: Cited<Provincial>,
    pub yukon_relatives: Cited<Relatives>,
    pub yukon_credits: Cited<ProvincialCredits>,
    pub northwest: Cited<Provincial>,
    pub northwest_relatives: Cited<Relatives>,
    pub northwest_credits: Cited<ProvincialCredits>,
    pub nunavut: Cited<Provincial>,
    pub nunavut_relatives: Cited<Relatives>,
    pub nunavut_credits: Cited<ProvincialCredits>,
}

impl Figures {
    /// The committed figures of a tax year, if this pack has them.
    pub fn of(year: i32) -> Option<&'static Figures> {
        COMMITTED.of(year).map(AsRef::as_ref)
    }
}

/// The rule files of a year: the federal one, and one of each province and territory.
macro_rules! rules {
    ($year:literal) => {
        concat!(
            include_str!(concat!("../rules/", $year, "/federal.toml")),
            include_str!(concat!("../rules/", $year, "/ontario.toml")),
            include_str!(concat!("../rules/", $year, "/british_columbia.toml")),
            include_str!(concat!("../rules/", $year, "/alberta.toml")),
            include_str!(concat!("../rules/", $year, "/saskatchewan.toml")),
            include_str!(concat!("../rules/", $year, "/manitoba.toml")),
            include_str!(concat!("../rules/", $year, "/new_brunswick.toml")),
            include_str!(concat!("../rules/", $year, "/nova_scotia.toml")),
            include_str!(concat!("../rules/", $year, "/newfoundland.toml")),
            include_str!(concat!("../rules/", $year, "/prince_edward.toml")),
            include_str!(concat!("../rules/", $year, "/yukon.toml")),
            include_str!(concat!("../rules/", $year, "/northwest.toml")),
            include_str!(concat!("../rules/", $year, "/nunavut.toml")),
        )
    };
}

/// The rule files, latest first.
pub static SOURCES: &[(i32, &str)] = &[(2025, rules!("2025")), (2024, rules!("2024"))];

/// The version of the committed rules.
pub const VERSION: &str = env!("HEMBO_RULES");

/// Every year's committed figures.
pub static COMMITTED: LazyLock<Book<Figures>> =
    LazyLock::new(|| Book::read(VERSION, SOURCES, &[]).expect("the committed rule figures parse (tested)"));

tables! {
    /// Rates on slices: the upper ends of all but the last.
    Brackets { rates: Vec<Rate>, tops: Vec<Money> }
    /// ITA 150(1)(b), (d)(i), 156(1), 156.1, 230(4)(b): a day on which no office is open moves to the next. After a death
    /// from a day on there are so many months from its day.
    Dates {
        due: Day, due_business: Day, instalments: Vec<Day>, instalments_above: Money, kept_years: i32, death_from: Day,
        death_months: u8,
    }
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
    Ei {
        rate: Rate, most_earnings: Money, nothing_to: Money, repaid_above: Money, repaid_rate: Rate,
    }
    /// ITA 180.2.
    Oas { from: Money, rate: Rate, age: i32 }
    /// ITA 146.
    Rrsp {
        first_day: Day, last_day: Day, rate: Rate, most: Money, cushion: Money, last_age: i32, next_rate: Rate, next_most: Money,
    }
    /// ITA 118.2.
    Medical { part: Rate, most: Money, child_under: i32, others_told_above: Money }
    /// ITA 122.51.
    MedicalSupplement { part: Rate, most: Money, earned_least: Money, from: Money, rate: Rate, age: i32 }
    /// ITA 118.1.
    Gifts {
        part: Rate, first: Money, first_rate: Rate, rate: Rate, top_rate: Rate, top_from: Money,
        carried_years: i64, earlier_year_to: Option<Day>, last_day: Option<Day>,
    }
    /// ITA 118.5, 118.9.
    Tuition {
        transfer_most: Money, school_least: Money, training_from_age: i32, training_to_age: i32, training_part: Rate,
    }
    /// ITA 82(1), 121: what the actual amount is multiplied by, and the credit of the taxable amount.
    Dividends { eligible: Rate, other: Rate, eligible_credit: Rate, other_credit: Rate }
    /// A rate on what is above an amount.
    TopUp { rate: Rate, above: Money }
    /// ITA 127.5.
    MinimumTax {
        exemption: Money, rate: Rate, deductions_part: Rate, credits_part: Rate, gifts_part: Rate, carried_years: i64,
        exempt_gains_part: Rate, foreign_tax_part: Rate,
    }
    /// ITA 122.7. `not_held` names the provinces that have a table of their own, which is not here.
    WorkersBenefit {
        above: Money, rate_in: Rate, rate_out: Rate, single: BenefitClass, family: BenefitClass,
        second_earner: Money, age: i32, not_held: Vec<String>,
    }
    /// ITA 122.7(2): the most, the income from which it shrinks, and that at which nothing is left.
    BenefitClass { most: Money, from: Money, nil: Money }
    /// ITA 122.7(3): the disability supplement.
    WorkersDisability {
        most: Money, above: Money, rate_in: Rate, rate_out: Rate, rate_out_both: Rate, single_from: Money,
        family_from: Money,
    }
    /// ITA 118(1)B: what an infirm partner or dependant adds, and the amount of its own that shrinks with the net income of
    /// whom it is for.
    Caregiver { addition: Money, most: Money, from: Money, age: i32 }
    /// ITA 118.3: the supplement of a child shrinks with the care that is claimed for it.
    Disability { amount: Money, child: Money, care_from: Money }
    /// Line 58230 of some provinces: until which birthday a child is a young one.
    YoungChildren { under: i32 }
    /// ITA 63(3): the limits of a child with a certificate, of a young one, and of another.
    ChildCare {
        certified: CareLimits, young: CareLimits, older: CareLimits, young_under: i32, child_under: i32,
        earned_part: Rate,
    }
    /// ITA 38(a), 46: what of a gain is taxable; the floor under both sides of personal-use property.
    CapitalGains { part: Rate, personal_floor: Money }
    /// ITA 56(3): what is exempt of a scholarship that is for no programme.
    Scholarships { exempt: Money }
    /// ITA 118.02, 118.041, 118.05: the most of each.
    HomeCredits { home: Money, access: Money, news: Money }
    /// ITA 233.3, 162(7): from what cost on there is a statement, and a long one; how many countries the short one names; what a
    /// day too late costs.
    ForeignProperty {
        above: Money, long_from: Money, countries: usize, late_day: Money, late_least: Money, late_most: Money,
    }
    /// ITA 20(11).
    ForeignTax { part: Rate }
    /// ITA 118.91(b)(i), as it is administered: from which part of the income of the time outside Canada on being Canadian amounts are
    /// those of a whole year.
    PartYear { canadian_least: Rate }
    /// The benefit year after: amounts of children under an age and under another, the parts of family income between two
    /// thresholds and above the second by how many children there are, and the amount of a child with a certificate.
    ChildBenefit {
        young: Money, young_under: i32, older: Money, under: i32, first: Money, second: Money,
        first_rates: Vec<Rate>, second_rates: Vec<Rate>, disabled: Money,
    }
    /// The benefit year after: amounts of an adult and of a child, the supplement of who is alone and from which income it grows,
    /// and from which all of it shrinks.
    SalesTaxBenefit {
        adult: Money, child: Money, child_under: i32, from_age: i32, supplement: Money, supplement_from: Money,
        supplement_rate: Rate, from: Money, rate: Rate,
    }
    /// What a province pays in the benefit year after: for an adult, a partner and a child, less a part of family income; and for
    /// children, less a part of it.
    ProvincialBenefit {
        adult: Money, partner: Money, child: Money, child_under: i32, from_alone: Money, from_family: Money, rate: Rate,
        of_children: Money, children_from: Money, children_rate: Rate,
    }
    /// The year in which someone dies: years of medical receipts, the part of net income for gifts, and the month from which on
    /// a death leaves the workers benefit.
    YearOfDeath { medical_years: i32, gifts_part: Rate, benefit_from_month: u8 }
    /// A part of what is paid, up to a most.
    PartUpTo { most: Money, part: Rate }
    /// ITA 67.1: what of meals counts.
    Business { meals: Rate }
    /// ITA 118.62.
    LoanInterest { carried_years: i64 }
    /// In how many years after its own something may be used.
    CarriedYears { carried_years: i64 }
    /// ITA 110.7: a day in the northern zone, the part of the intermediate one and of net income; trips.
    Northern { day: Money, intermediate: Rate, part_of_income: Rate, allotted: Money, holidays: usize }
    /// ITA 64: what studies add.
    DisabilitySupports { week: Money, most: Money }
    /// ITA 8(1)(q), (s), (t), 8(13): the most of some expenses, and the hours of a week.
    EmploymentExpenses { tools_most: Money, mobility_most: Money, artist_most: Money, artist_part: Rate, week_hours: i64 }
    /// ITA 118.06, 118.07. `not_held` names the provinces with an amount that is not here.
    Volunteers { amount: Money, not_held: Vec<String> }
    /// ITA 118.01. `not_held` names the provinces with an amount that is not here.
    Adoption { most: Money, not_held: Vec<String> }
    /// The limits of a child for the year and for a week.
    CareLimits { year: Money, week: Money }
    /// The Ontario child care credit: the rate, which loses a step with each of so much family income above each start, and the income
    /// above which there is none.
    OntarioChildCare { rate: Rate, from: Vec<Money>, each: Vec<Money>, step: Rate, to: Money }
    /// What every province has: brackets, amounts of the 428 form, rates of credits; whether fees of this year make a
    /// credit, and what a month of studies adds to them; its part of the federal minimum tax.
    Provincial {
        rates: Vec<Rate>, tops: Vec<Money>, credit_rate: Rate, basic: Money, age_amount: Money,
        age_from: Money, age_rate: Rate, spouse_base: Money, spouse_most: Money, pension: Money,
        medical_most: Money, gift_first_rate: Rate, gift_rate: Rate, eligible_credit: Rate,
        other_credit: Rate, minimum_part: Rate, fees: bool, full_month: Money, part_month: Money,
        volunteer: Option<Money>, adoption: Option<Money>,
    }
    /// What a province has for what was paid, where it has it: gifts to parties, off the tax or paid out; parts of other things
    /// up to a most, of activities of each child or of the family, up to a family income; an amount of volunteers.
    ProvincialCredits {
        to_parties: Option<Brackets>, to_parties_paid_out: bool, labour_funds_most: Option<Money>, fares: Option<PartUpTo>, fertility: Option<PartUpTo>,
        renovation: Option<PartUpTo>, activities_of_child: Option<PartUpTo>, activities_of_family: Option<PartUpTo>,
        activities_to_income: Option<Money>, of_volunteers: Option<Money>,
    }
    /// What a province has for people with an impairment and for relatives; nothing stands where a figure is not held.
    Relatives {
        disability: Money, disability_child: Option<Money>, care_from: Option<Money>, caregiver: Option<Shrinking>,
        infirm: Option<Shrinking>,
    }
    /// An amount that shrinks, a dollar with each, with net income above a start.
    Shrinking { most: Money, from: Money }
    /// The Ontario surtax: parts of the tax above each, which add up.
    Surtax { steps: Vec<TopUp> }
    /// The Ontario tax reduction.
    OntarioReduction { basic: Money, child: Money, child_to_age: i32 }
    /// The Ontario seniors' care at home credit.
    OntarioCare { part: Rate, expenses: Money, from: Money, rate: Rate, age: i32 }
    /// The low-income individuals and families tax credit.
    OntarioLift { most: Money, earned_rate: Rate, rate: Rate, own_from: Money, family_from: Money }
    /// The tax reduction of British Columbia, each person alone.
    BritishColumbiaReduction { most: Money, from: Money, rate: Rate }
    /// The sales tax credit of British Columbia.
    BritishColumbiaSales { each: Money, from_alone: Money, from_couple: Money, rate: Rate }
    /// The renter's credit of British Columbia.
    BritishColumbiaRenter { most: Money, from: Money, rate: Rate, months: i64 }
    /// Amounts of Saskatchewan for children and for seniors.
    SaskatchewanFamilies { child: Money, child_under: i32, senior: Money, senior_age: i32 }
    /// Net incomes between which the basic amount of Manitoba shrinks to nothing.
    ManitobaBasic { from: Money, to: Money }
    /// The family tax benefit of Manitoba.
    ManitobaFamily { each: Money, more: Money, rate: Rate, child_to_age: i32, aged: i32 }
    /// The low-income reduction of New Brunswick.
    NewBrunswickReduction { each: Money, from: Money, rate: Rate }
    /// The low-income reduction of Nova Scotia.
    NovaScotiaReduction { each: Money, child: Money, child_under: i32, from: Money, rate: Rate }
    /// The age tax credit of Nova Scotia.
    NovaScotiaAge { amount: Money, below: Money, age: i32 }
    /// The supplements of Nova Scotia, which shrink with taxable income.
    NovaScotiaSupplement { basic: Money, age: Money, from: Money, rate: Rate, age_rate: Rate }
    /// The low-income reduction of Newfoundland and Labrador, of who is alone.
    NewfoundlandReduction { most: Money, from: Money, rate: Rate, families_to: Money }
    /// The low-income reduction of Prince Edward Island.
    PrinceEdwardReduction {
        each: Money, aged: Money, age: i32, child: Money, child_under: i32, from: Money, rate: Rate,
    }
}
