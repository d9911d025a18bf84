//! From a paper to its owners' parts of every amount: what every pack does before it makes facts of papers.

use crate::{
    household::{Answers, Entry, Household, Paper},
    trail::Item,
};
use hembo_money::Money;

/// One paper of a household, being read.
#[derive(Debug, Clone, Copy)]
pub struct Reading<'a> {
    /// The household.
    pub household: &'a Household,
    /// The paper.
    pub paper: &'a Paper,
    /// Its place among the papers.
    pub index: usize,
}

impl<'a> Reading<'a> {
    /// Every paper of a household.
    pub fn all(household: &'a Household) -> impl Iterator<Item = Reading<'a>> {
        household.papers.iter().enumerate().map(move |(index, paper)| Reading { household, paper, index })
    }

    /// An amount divided among the owners by their per cent, to the cent.
    pub fn shares(&self, amount: Money) -> Vec<(usize, Money)> {
        let owners = &self.paper.owners;
        let weights: Vec<i64> = owners.iter().map(|o| o.percent.billionths()).collect();
        let people = owners.iter().filter_map(|o| self.household.index_of(&o.person));
        people.zip(amount.split(&weights)).collect()
    }

    /// An amount as it stands in a box, or in a column of a line.
    pub fn item(&self, field: &'static str, row: Option<usize>, amount: Money) -> Item {
        Item { amount, paper: self.index, field, row }
    }

    /// The same divided among the owners; nothing where it is zero.
    pub fn parts(&self, field: &'static str, row: Option<usize>, amount: Money) -> Vec<(usize, Item)> {
        if amount.is_zero() {
            return Vec::new();
        }
        let shares = self.shares(amount).into_iter();
        shares.map(|(person, amount)| (person, self.item(field, row, amount))).collect()
    }

    /// What stands in a box, divided among the owners.
    pub fn of_box(&self, field: &'static str) -> Vec<(usize, Item)> {
        self.parts(field, None, self.paper.amount(field))
    }

    /// The lines of a list with their places and the amount in a column.
    pub fn lines(self, column: &'static str) -> impl Iterator<Item = (usize, &'a Answers, Money)> {
        let amount = move |row: &Answers| row.get(column).and_then(Entry::money).unwrap_or_default();
        self.paper.rows.iter().enumerate().map(move |(r, row)| (r, &row.cells, amount(row)))
    }
}

/// The sum of items, to the cent.
pub fn sum<'i>(items: impl IntoIterator<Item = &'i Item>) -> Money {
    items.into_iter().map(|i| i.amount).sum()
}
