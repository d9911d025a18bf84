//! One paper on its way to the facts of its owners.

use crate::{facts::Facts, state_facts::OfState, states::STATES};
use hembo_core::{
    brought::Brought,
    household::{Answers, Entry},
    reading::{Reading, sum},
    trail::Item,
};
use hembo_money::Money;
use std::any::Any;

/// A medical receipt.
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct MedicalItem {
    pub item: Item,
    pub patient: usize,
    pub long_term_care: bool,
}

/// What papers of several provisions bring.
pub mod brings {
    use super::MedicalItem;
    use crate::{facts::Payment, state_facts::OfState};
    use hembo_core::brought::Brought;

    /// Medical bills and premiums paid by this person.
    pub static MEDICAL: Brought<MedicalItem> = Brought::new();

    /// Federal estimated tax paid alone.
    pub static ESTIMATED: Brought<Payment> = Brought::new();

    /// 1099 box 4.
    pub static WITHHELD: Brought = Brought::new();

    /// Tax withheld on other forms than W-2 and 1099: line 25c.
    pub static WITHHELD_OTHER: Brought = Brought::new();

    /// Foreign income tax on interest and dividends.
    pub static FOREIGN_TAX: Brought = Brought::new();

    /// The interest and dividends on which it was paid.
    pub static FOREIGN_INCOME: Brought = Brought::new();

    /// Of these qualified dividends.
    pub static FOREIGN_QUALIFIED: Brought = Brought::new();

    /// State and local income tax, and mandatory state funds.
    pub static STATE_INCOME_TAX: Brought = Brought::new();

    /// Real estate tax.
    pub static REAL_ESTATE_TAX: Brought = Brought::new();

    /// Wages and tax withheld of each state.
    pub static OF_STATES: Brought<OfState> = Brought::new();

    /// Interest of the United States, which states do not tax.
    pub static TREASURY_INTEREST: Brought = Brought::new();

    /// Of exempt interest that of other states' bonds.
    pub static OTHER_STATES_INTEREST: Brought = Brought::new();
}

/// One paper on its way to its owners.
#[derive(Debug)]
pub struct Bringing<'a> {
    /// The paper with the owners whose income and payments it makes: spouses by half, where a return divides community property.
    pub paper: Reading<'a>,
    /// The same paper as it was entered.
    pub titled: Reading<'a>,
    /// The facts in the making.
    pub facts: &'a mut Facts,
}

impl Bringing<'_> {
    /// Gives an amount of a box or cell to the owners, each a part.
    pub fn put(&mut self, field: &'static str, row: Option<usize>, amount: Money, kind: &'static Brought) {
        self.put_as(field, row, amount, kind, |item| item);
    }

    /// The same with what else is said of it.
    pub fn put_as<T: Any + Send + Sync>(
        &mut self,
        field: &'static str,
        row: Option<usize>,
        amount: Money,
        kind: &'static Brought<T>,
        made: impl Fn(Item) -> T,
    ) {
        for (person, item) in self.paper.parts(field, row, amount) {
            self.facts.people[person].own.add(kind, made(item));
        }
    }

    /// Gives what stands in a box to the owners.
    pub fn give(&mut self, field: &'static str, kind: &'static Brought) {
        self.put(field, None, self.paper.paper.amount(field), kind);
    }

    /// Gives what stands in a box to who is named on the paper, whoever shares the income.
    pub fn give_titled(&mut self, field: &'static str, kind: &'static Brought) {
        self.put_titled(field, self.paper.paper.amount(field), kind);
    }

    /// The same for an amount of a box.
    pub fn put_titled(&mut self, field: &'static str, amount: Money, kind: &'static Brought) {
        for (person, item) in self.titled.parts(field, None, amount) {
            self.facts.people[person].own.add(kind, item);
        }
    }

    /// The paper makes income of its owners.
    pub fn earns(&mut self) {
        for (person, _) in self.paper.shares(Money::ZERO) {
            self.facts.people[person].has_income = true;
        }
    }

    /// Gives state wages and tax withheld to the owners, with the state that a box names, or that of residence.
    pub fn give_state(&mut self, state: &str, wages: Money, withheld: &'static str) {
        let reading = self.paper.paper;
        let named = reading.text(state).or(self.facts.state.as_deref()).unwrap_or_default();
        let Some(state) = STATES.iter().position(|known| known.id == named) else { return };
        let (wages, taxes) = (self.paper.shares(wages), self.paper.shares(reading.amount(withheld)));
        for ((person, wages), (_, tax)) in wages.into_iter().zip(taxes) {
            let of = OfState { state, wages, withheld: self.paper.item(withheld, None, tax) };
            self.facts.people[person].own.add(&brings::OF_STATES, of);
        }
    }

    /// Gives every line of a list to the owners.
    pub fn rows(&mut self, kind: &'static Brought) {
        for (r, _, amount) in self.paper.lines("amount") {
            self.put("amount", Some(r), amount, kind);
        }
    }
}

/// An amount of an earlier year that is not used up: the year, and its box.
pub type Carried = (i64, Item);

impl Bringing<'_> {
    /// Gives every line of a list of what is carried here from so many years before, last year's where none is named.
    pub fn carried(&mut self, years: i64, kind: &'static Brought<Carried>) {
        let year = i64::from(self.facts.figures.year);
        for (r, row, amount) in self.paper.lines("amount") {
            let from = row.get("year").and_then(Entry::count).unwrap_or(year - 1);
            if (year - years..year).contains(&from) {
                self.put_as("amount", Some(r), amount, kind, |item| (from, item));
            }
        }
    }
}

/// What of a list is of the year that ends after so many: its last chance to be used.
pub fn expiring<'a>(facts: &Facts, years: i64, all: impl Iterator<Item = &'a Carried>) -> Money {
    let expiring = i64::from(facts.figures.year) - years;
    sum(all.filter(|(year, _)| *year == expiring).map(|(_, item)| item)).to_whole()
}

/// What was brought, paper by paper: the parts of several owners of one belong together.
pub fn by_paper<'a, T>(all: impl Iterator<Item = &'a T>, paper: fn(&T) -> usize) -> Vec<Vec<&'a T>> {
    let mut groups: Vec<Vec<&T>> = Vec::new();
    for one in all {
        match groups.iter_mut().find(|group| paper(group[0]) == paper(one)) {
            Some(group) => group.push(one),
            None => groups.push(vec![one]),
        }
    }
    groups
}

/// Miles as an amount, so that a rate a mile makes money of them.
pub fn miles_of(miles: i64) -> Money {
    Money::whole(miles)
}

/// The miles of a line of a list, as an amount.
pub fn miles(row: &Answers) -> Money {
    miles_of(row.get("miles").and_then(Entry::count).unwrap_or(0))
}
