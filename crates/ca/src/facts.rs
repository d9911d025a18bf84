//! The household's loose papers as typed amounts, each with its box.

use crate::figures::Figures;
use hembo_core::{
    brought::Records,
    household::{Answers, Entry},
    outcome::age_on,
    trail::Item,
    words::first_name,
};
use hembo_money::Money;
use std::sync::Arc;
use time::Date;

/// Everything the rules ask about a household.
#[derive(Debug)]
pub struct Facts {
    /// The year's figures.
    pub figures: Arc<Figures>,
    /// The first day of the year.
    pub year_begin: Date,
    /// The last day of the year.
    pub year_end: Date,
    /// The people, in the household's order.
    pub people: Vec<PersonFacts>,
    /// The filers, by place.
    pub filers: Vec<usize>,
    /// Those who file a return, in the order of the columns: the filers, then dependants with papers of their own.
    pub returns: Vec<usize>,
    /// The two filers are married or live common-law on the last day of the year.
    pub couple: bool,
    /// A filer is married or lives common-law, here or elsewhere.
    pub partnered: bool,
    /// Months of the year as a couple.
    pub months_together: i64,
    /// The code of the province of residence, where its tax is computed.
    pub province: Option<&'static str>,
    /// The code of the province of residence.
    pub province_code: Option<String>,
    /// Medical receipts for the filers and their children under 18, by date.
    pub medical: Vec<Receipt>,
    /// The windows of twelve months for which they may be claimed.
    pub windows: Vec<Window>,
    /// Gifts of both partners, of this year and of the five before.
    pub gifts: Vec<Item>,
}

/// A medical receipt, less what was paid back.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Receipt {
    /// The day on which it was paid.
    pub date: Date,
    /// The amount and its place.
    pub item: Item,
}

/// Twelve months with receipts in them.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Window {
    /// The last day, in the year.
    pub end: Date,
    /// The first of the receipts, by date.
    pub from: usize,
    /// The one after the last.
    pub to: usize,
    /// What they add up to.
    pub sum: Money,
}

impl Window {
    /// The receipts of the window.
    pub fn receipts<'f>(&self, facts: &'f Facts) -> &'f [Receipt] {
        &facts.medical[self.from..self.to]
    }
}

/// What a person paid to the pension plan and for employment insurance, and what of it counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Contributions {
    /// Line 30800.
    pub base: Money,
    /// Line 22215.
    pub enhanced: Money,
    /// Line 44800.
    pub cpp_back: Money,
    /// Line 31200.
    pub ei: Money,
    /// Line 45000.
    pub ei_back: Money,
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
    /// Age at the end of the year.
    pub age: Option<i32>,
    /// A child, own or a partner's.
    pub child: bool,
    /// A parent or grandparent.
    pub elder: bool,
    /// A child or grandchild, whose tuition may be handed on to a filer (ITA 118.9(1)).
    pub descendant: bool,
    /// A child, grandchild, brother or sister.
    pub young_relative: bool,
    /// A full-time student for over 13 weeks; none where it was not said.
    pub full_time_student: Option<bool>,
    pub infirm: bool,
    pub support_paid: bool,
    pub claimed_elsewhere: bool,
    pub maintains_home: bool,
    /// Lived with a filer at some time in the year.
    pub lives_here: bool,
    /// Net income that is not among the papers.
    pub other_net_income: Money,
    /// Any paper at all that makes income, or tuition.
    pub files: bool,
    /// What papers bring to this person.
    pub own: Records,
    /// Contributions to the pension plan and premiums, as far as they count.
    pub contributed: Contributions,
}

impl PersonFacts {
    /// Age on a day.
    pub fn age_on(&self, day: Date) -> Option<i32> {
        self.born.map(|born| age_on(born, day))
    }
}

impl Facts {
    /// Whether someone has reached an age by the end of the year; not where the birth date is not known.
    pub fn reached(&self, person: usize, age: i32) -> bool {
        self.people[person].age.is_some_and(|reached| reached >= age)
    }

    /// The first of a person's names.
    pub fn first_name(&self, person: usize) -> &str {
        first_name(&self.people[person].name)
    }

    /// Whether someone files a return.
    pub fn files(&self, person: usize) -> bool {
        self.returns.contains(&person)
    }

    /// The other of a couple.
    pub fn partner(&self, person: usize) -> Option<usize> {
        if !self.couple || !self.filers.contains(&person) {
            return None;
        }
        self.filers.iter().copied().find(|&f| f != person)
    }

    /// Whether a contribution of `owner` came after the year in which its annuitant, the owner or the partner, reaches
    /// the last age (ITA 146(5), (5.1)).
    pub fn contribution_too_late(&self, owner: usize, cells: &Answers, date: Option<Date>) -> bool {
        let of_partner = cells.get("plan").and_then(Entry::text) == Some("spouse");
        let annuitant = if of_partner { self.partner(owner) } else { Some(owner) };
        let born = annuitant.and_then(|a| self.people[a].born);
        let year = date.map_or(self.year_end.year(), Date::year);
        born.is_some_and(|born| year - born.year() > self.figures.rrsp.last_age)
    }

    /// Whether receipts for this patient count with those of the filers: themselves and their children under 18
    /// (ITA 118.2(1) B).
    pub fn medical_counts(&self, patient: usize) -> bool {
        let facts = &self.people[patient];
        let young = !self.reached(patient, self.figures.medical.child_under);
        facts.filer || (facts.child && young)
    }
}
