//! The household's loose papers as typed amounts, each with its box.

use crate::figures::Figures;
use hembo_core::{brought::Records, words::first_name};
use hembo_money::Money;
use std::sync::Arc;
use time::Date;

/// Everything the rules ask about a household.
#[derive(Debug)]
pub struct Facts {
    /// The year's figures.
    pub figures: Arc<Figures>,
    /// The first day of the year: 1 April.
    pub year_begin: Date,
    /// The last day of the year: 31 March.
    pub year_end: Date,
    /// The people, in the household's order.
    pub people: Vec<PersonFacts>,
    /// The filers, by place.
    pub filers: Vec<usize>,
    /// Those who have a return, in the order of the columns: the filers, then children with papers of their own.
    pub returns: Vec<usize>,
    /// What the family scheme asks of the children.
    pub children: Children,
    /// Weeks with work income and a child.
    pub work_weeks: i64,
    /// The family's credits count in what is minimised.
    pub counts_family: bool,
}

/// What the family scheme asks of the children, before any income.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Children {
    /// The family tax credit of all of them.
    pub credit: Money,
    /// Days of the year with a child.
    pub days: i64,
    /// The in-work credit of a year.
    pub in_work: Money,
    /// Best Start of first years of life.
    pub start_untested: Money,
    /// Best Start of the years after.
    pub start_tested: Money,
    /// Days of the year with a child of those.
    pub start_days: i64,
    /// Passive income of children above what is free.
    pub passive_income: Money,
}

/// One person's facts.
#[derive(Debug, Default)]
#[allow(missing_docs)]
pub struct PersonFacts {
    pub name: String,
    pub id: String,
    pub filer: bool,
    pub born: Option<Date>,
    /// Whole months in which the independent earner credit is open.
    pub earner_months: i64,
    /// A transitional resident in this year.
    pub transitional: bool,
    /// A borrower in New Zealand.
    pub student_loan: bool,
    /// Amounts that count for the family scheme alone.
    pub family_adjustments: Money,
    /// Income of which nobody tells the authority, or what else asks for a return.
    pub needs_return: bool,
    /// Taxable income and that of managed funds, in the last year and the one before.
    pub earlier: [Option<EarlierYear>; 2],
    /// What papers bring to this person.
    pub own: Records,
}

/// An earlier year of a person.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct EarlierYear {
    /// Taxable income.
    pub taxable: Money,
    /// Income of managed funds.
    pub funds: Money,
}

impl Facts {
    /// Whether the two filers are partners.
    pub fn couple(&self) -> bool {
        self.filers.len() == 2
    }

    /// The other of a couple.
    pub fn partner(&self, person: usize) -> Option<usize> {
        let other = |&p: &usize| p != person;
        self.filers.iter().copied().find(other).filter(|_| self.filers.contains(&person))
    }

    /// The first of a person's names.
    pub fn first_name(&self, person: usize) -> &str {
        first_name(&self.people[person].name)
    }

    /// The days of the year.
    pub fn days(&self) -> i64 {
        (self.year_end - self.year_begin).whole_days() + 1
    }
}
