//! The household's loose papers as typed amounts, each with its box.

use crate::figures::Figures;
use hembo_core::{brought::Records, trail::Item, words::first_name};
use hembo_money::{Money, Rate, Rounding};
use std::sync::Arc;
use time::Date;

/// Everything the rules ask about a household.
#[derive(Debug)]
pub struct Facts {
    /// The year's figures.
    pub figures: Arc<Figures>,
    /// The people, in the household's order.
    pub people: Vec<PersonFacts>,
    /// The filers, by place.
    pub filers: Vec<usize>,
    /// The children who count.
    pub children: Vec<Child>,
    /// Large repairs of let homes.
    pub repairs: Vec<Repairs>,
    /// The filers are spouses or life partners.
    pub married: bool,
    /// Apart for the whole year: each is assessed alone.
    pub apart: bool,
    /// Widowed in the year before: the splitting table once more (§32a(6) Nr.1).
    pub widowed: bool,
    /// Another adult lives in the home of who is alone.
    pub with_adult: bool,
    /// The church of the only member raises the special fee.
    pub special_fee: bool,
    /// The cap of church tax as a part of taxable income, where its church has one.
    pub church_cap: Option<Rate>,
    /// The Land, by its two letters.
    pub land: String,
    /// The Land before a move in the year, and for how many months.
    pub land_before: Option<(String, i64)>,
}

/// One person's facts.
#[derive(Debug, Default)]
#[allow(missing_docs)]
pub struct PersonFacts {
    pub name: String,
    pub id: String,
    pub filer: bool,
    pub born: Option<Date>,
    /// Months in a church that levies tax; zero of who is in none.
    pub church_months: i64,
    /// How many of them were in the Land before a move.
    pub church_months_before: i64,
    pub disability: Disability,
    pub survivor: bool,
    /// A civil servant: the most for old age is less by the part that is spared (§10(3) S.3).
    pub servant: bool,
    /// Pays all of the health cover (§10(4) S.1).
    pub health_alone: bool,
    /// What papers bring to this person.
    pub own: Records,
}

/// A disability as it was established.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Disability {
    /// The degree, 20 to 100.
    pub degree: i64,
    /// The mark that counts most.
    pub mark: Mark,
    /// The grade of care, 1 to 5.
    pub care_grade: i64,
}

/// A mark of a disability.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Mark {
    #[default]
    /// None that counts.
    None,
    /// Walking is impaired.
    G,
    /// Walking is exceptionally impaired.
    AG,
    /// Helpless, blind or deaf-blind.
    Helpless,
}

/// A child who counts.
#[derive(Debug, Clone, Copy)]
pub struct Child {
    /// By place among the people.
    pub person: usize,
    /// Its day of birth, which orders the comparisons.
    pub born: Option<Date>,
    /// Months with the conditions of the allowances.
    pub months: i64,
    /// Months with a right to the benefit.
    pub benefit_months: i64,
    /// A parent outside keeps the other half.
    pub half: bool,
    /// Which of two spouses is its parent, where the other is not.
    pub parent: Option<usize>,
    /// The parent outside does not support it: all of the other half may be taken over.
    pub unsupported: bool,
    /// It is registered in this home alone: the care allowance may be taken over.
    pub registered: bool,
    /// What of its lump sums the household has, in per cent.
    pub lump_percent: i64,
    /// By country group, in quarters.
    pub quarters: i64,
    /// Months in the home of who is alone.
    pub household_months: i64,
    /// Months of training away from home.
    pub away_months: i64,
    /// Its disability.
    pub disability: Disability,
}

/// Large repairs of a let home of one time.
#[derive(Debug)]
pub struct Repairs {
    /// The part of each owner.
    pub parts: Vec<(usize, Item)>,
    /// The year in which they were paid.
    pub paid: i64,
    /// Over how many years they are spread, where that was said.
    pub years: Option<i64>,
}

impl Repairs {
    /// What of a part falls on a year where they are spread over so many.
    pub fn of_year(&self, part: Money, year: i32, years: i64) -> Money {
        if !(self.paid..self.paid + years).contains(&i64::from(year)) {
            return Money::ZERO;
        }
        part.in_proportion(Money::whole(1), Money::whole(years), Money::CENT, Rounding::Up)
    }
}

impl Facts {
    /// Whether both spouses may be assessed together.
    pub fn couple(&self) -> bool {
        self.married && self.filers.len() == 2 && !self.apart
    }

    /// The first of a person's names.
    pub fn first_name(&self, person: usize) -> &str {
        first_name(&self.people[person].name)
    }
}
