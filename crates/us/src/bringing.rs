//! One paper on its way to the facts of its owners.

use crate::facts::{Facts, Own};
use hembo_core::{
    household::{Answers, Entry},
    reading::Reading,
    trail::Item,
};
use hembo_money::Money;

/// One paper on its way to its owners.
#[derive(Debug)]
pub struct Bringing<'a> {
    /// The paper.
    pub paper: Reading<'a>,
    /// The facts in the making.
    pub facts: &'a mut Facts,
}

impl Bringing<'_> {
    /// Gives an amount of a box or cell to the owners, each a part.
    pub fn put(
        &mut self,
        field: &'static str,
        row: Option<usize>,
        amount: Money,
        mut place: impl FnMut(&mut Own, Item),
    ) {
        for (person, item) in self.paper.parts(field, row, amount) {
            place(&mut self.facts.people[person].own, item);
        }
    }

    /// Gives what stands in a box to the owners.
    pub fn give(&mut self, field: &'static str, place: impl Fn(&mut Own) -> &mut Vec<Item>) {
        self.put(field, None, self.paper.paper.amount(field), |own, item| place(own).push(item));
    }

    /// The paper makes income of its owners.
    pub fn earns(&mut self) {
        for (person, _) in self.paper.shares(Money::ZERO) {
            self.facts.people[person].own.has_income = true;
        }
    }

    /// Gives every line of a list to the owners.
    pub fn rows(&mut self, place: impl Fn(&mut Own, Item, &Answers)) {
        for (r, row, amount) in self.paper.lines("amount") {
            self.put("amount", Some(r), amount, |own, item| place(own, item, row));
        }
    }
}

/// Miles as an amount, so that a rate a mile makes money of them.
pub fn miles(row: &Answers) -> Money {
    Money::whole(row.get("miles").and_then(Entry::count).unwrap_or(0))
}
