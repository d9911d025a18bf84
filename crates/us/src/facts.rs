//! The household's loose papers as typed amounts, each with its box.

use crate::{figures::Figures, filing_status::Status};
use hembo_core::{outcome::age_on, reading::sum, settled, trail::Item};
use hembo_money::Money;
use std::collections::BTreeMap;
use time::Date;

/// Everything the federal rules ask about a household.
#[derive(Debug)]
pub struct Facts {
    /// The year's figures.
    pub figures: &'static Figures,
    /// The last day of the year.
    pub year_end: Date,
    /// The people, in the household's order.
    pub people: Vec<PersonFacts>,
    /// The filers, by place.
    pub filers: Vec<usize>,
    /// The marital state on the last day of the year.
    pub marital: Marital,
    /// The spouses lived apart from July to December.
    pub apart: bool,
    /// A spouse outside this household itemizes.
    pub spouse_itemizes: bool,
    /// A financial account abroad; none where it was not said.
    pub foreign_account: Option<bool>,
    /// The state of residence.
    pub state: Option<String>,
    /// Federal estimated tax that both filers paid together, whole amounts.
    pub estimated_together: Vec<Item>,
    /// Each filer's status on a return of one's own: the facts fix it.
    pub alone: Vec<Status>,
    /// Dependents who file a return of their own.
    pub own_returns: Vec<usize>,
}

/// The marital state (§7703(a)).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Marital {
    /// Never married, divorced, or separated by decree.
    Unmarried,
    /// Married on the last day of the year, or widowed during it.
    Married,
    /// Widowed before the year, not remarried.
    Widowed,
}

/// One person's facts.
#[derive(Debug, Default)]
#[allow(missing_docs)]
pub struct PersonFacts {
    pub name: String,
    pub id: String,
    pub filer: bool,
    pub born: Option<Date>,
    pub died: Option<Date>,
    pub has_number: bool,
    /// Months in one home with each filer, by the filer's place; none where it was not said.
    pub months_with: Vec<(usize, i64)>,
    pub relationship: Option<Relationship>,
    pub student_months: i64,
    pub blind: bool,
    pub disabled: bool,
    pub married: bool,
    pub files_joint: bool,
    pub self_support: bool,
    pub supported: bool,
    pub supported_alone_by: Option<usize>,
    pub residency: Residency,
    pub work_ssn: bool,
    pub other_gross_income: Money,
    pub claimable: bool,
    /// The qualifying child of someone outside this household.
    pub child_elsewhere: bool,
    pub parent_alive: Option<bool>,
    /// Own earnings were over half of the support.
    pub earned_over_half: Option<bool>,
    pub nonresident_alien: bool,
    pub paid_home: bool,
    pub home_abroad: bool,
    pub spouse_died: Option<i64>,
    /// What papers bring to this person.
    pub own: Own,
}

/// Citizenship or residence (§152(b)(3)).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Residency {
    /// US citizen, national or resident.
    #[default]
    UnitedStates,
    /// Resident of Canada or Mexico.
    CanadaOrMexico,
    /// Neither.
    Other,
}

/// Relationship to a filer (§152(c)(2), (d)(2)).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum Relationship {
    Child,
    Stepchild,
    FosterChild,
    Grandchild,
    Sibling,
    NieceOrNephew,
    Parent,
    Stepparent,
    Grandparent,
    AuntOrUncle,
    InLaw,
    None,
}

/// What papers bring to one person: that person's part of every amount, with its box.
#[derive(Debug, Default)]
pub struct Own {
    /// Any paper at all that makes income.
    pub has_income: bool,
    /// W-2 box 1.
    pub wages: Vec<Item>,
    /// W-2 box 2.
    pub withheld_wages: Vec<Item>,
    /// 1099 box 4.
    pub withheld_other: Vec<Item>,
    /// W-2 box 4.
    pub social_security_tax: Vec<Item>,
    /// The same by employer: two papers of one employer count together.
    pub employers: BTreeMap<String, Money>,
    /// W-2 box 5.
    pub medicare_wages: Vec<Item>,
    /// W-2 box 6.
    pub medicare_tax: Vec<Item>,
    /// W-2 box 11.
    pub nonqualified: Vec<Item>,
    /// W-2 box 12 codes A, B, M, N.
    pub uncollected: Vec<Item>,
    /// 1099-INT boxes 1, 3 and 10, less premiums 11 and 12.
    pub interest: Vec<Item>,
    /// 1099-INT box 8 less 13.
    pub exempt_interest: Vec<Item>,
    /// 1099-INT box 9.
    pub private_activity: Vec<Item>,
    /// 1099-INT box 2.
    pub penalty: Vec<Item>,
    /// State and local income tax, and mandatory state funds.
    pub state_income_tax: Vec<Item>,
    /// General sales tax from receipts.
    pub sales_tax_actual: Vec<Item>,
    /// General sales tax by the tables for a joint return or a person alone, and on vehicles.
    pub sales_tax_table: Vec<Item>,
    /// General sales tax by the tables for a separate return, and on vehicles.
    pub sales_tax_table_separate: Vec<Item>,
    /// Real estate tax.
    pub real_estate_tax: Vec<Item>,
    /// Personal property tax.
    pub personal_tax: Vec<Item>,
    /// Home loans.
    pub loans: Vec<Loan>,
    /// Medical receipts paid by this person.
    pub medical: Vec<MedicalItem>,
    /// Cash given, with volunteer travel.
    pub gifts_cash: Vec<Item>,
    /// Used goods given.
    pub gifts_goods: Vec<Item>,
    /// Gifts carried over.
    pub carried: Vec<Carried>,
    /// Federal estimated tax paid alone.
    pub estimated: Vec<Item>,
}

/// A person's part of a home loan.
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct Loan {
    pub interest: Item,
    pub points: Item,
    pub average: Money,
    pub other_use: Money,
    pub originated: Option<Date>,
}

/// A medical receipt.
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct MedicalItem {
    pub item: Item,
    pub patient: usize,
    pub long_term_care: bool,
}

/// A gift carried over.
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct Carried {
    pub year: i64,
    pub cash: bool,
    pub item: Item,
}

impl PersonFacts {
    /// Age at the end of the year by the anniversary rule (Rev. Rul. 2003-72).
    pub fn age(&self, year_end: Date) -> Option<i32> {
        self.born.map(|born| age_on(born, year_end))
    }

    /// Whether an age was reached in the year by the day-before rule: a person reaches it the day before the
    /// birthday; one who died must have reached it by then.
    pub fn reached(&self, age: i32, year_end: Date) -> bool {
        let last = self.died.map_or(year_end, |died| settled::lesser(died, year_end));
        let next = last.next_day().unwrap_or(last);
        self.born.is_some_and(|born| age_on(born, next) >= age)
    }

    /// The months of the year, begun ones too, in which the person lived.
    pub fn months_alive(&self, year_end: Date) -> i64 {
        let of = |date: Option<Date>, otherwise| match date {
            Some(date) if date.year() == year_end.year() => i64::from(u8::from(date.month())),
            _ => otherwise,
        };
        of(self.died, 12) - of(self.born, 1) + 1
    }

    /// Adjusted gross income, were this person to file alone.
    pub fn agi_alone(&self) -> Money {
        sum(&self.own.wages) + sum(&self.own.interest) - sum(&self.own.penalty)
    }

    /// Gross income of the kinds that count for a dependent (§152(d)(1)(B)).
    pub fn gross_income(&self) -> Money {
        sum(&self.own.wages) + sum(&self.own.interest) + self.other_gross_income
    }

    /// Whether there is anything to itemize.
    pub fn can_itemize(&self) -> bool {
        let own = &self.own;
        let taxes =
            [&own.state_income_tax, &own.sales_tax_actual, &own.sales_tax_table, &own.real_estate_tax];
        let gifts = [&own.personal_tax, &own.gifts_cash, &own.gifts_goods];
        taxes.into_iter().chain(gifts).any(|items| !items.is_empty())
            || !own.loans.is_empty()
            || !own.medical.is_empty()
            || !own.carried.is_empty()
    }
}

impl Facts {
    /// Whether two people of this household are married to each other.
    pub fn couple(&self) -> bool {
        self.marital == Marital::Married && self.filers.len() == 2
    }
}
