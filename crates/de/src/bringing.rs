//! One paper on its way to the facts of its owners.

use crate::facts::Facts;
use hembo_core::{
    brought::Brought,
    household::{Answers, Entry},
    reading::Reading,
    trail::Item,
};
use hembo_money::{Money, Rate};

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
    pub fn put(&mut self, field: &'static str, row: Option<usize>, amount: Money, kind: &'static Brought) {
        for (person, item) in self.paper.parts(field, row, amount) {
            self.facts.people[person].own.add(kind, item);
        }
    }

    /// Gives what stands in boxes to the owners.
    pub fn give(&mut self, boxes: &[(&'static str, &'static Brought)]) {
        for &(field, kind) in boxes {
            self.put(field, None, self.amount(field), kind);
        }
    }

    /// Gives the amounts of a list to the owners, each line by what it says in the column `kind`; those that say nothing go to the last one,
    /// those that say something else are left.
    pub fn give_lines(&mut self, kinds: &[(&str, &'static Brought)]) {
        let of = |cells: &Answers| {
            let said = cells.get("kind").and_then(Entry::text);
            let found = match said {
                Some(said) => kinds.iter().find(|(kind, _)| *kind == said),
                None => kinds.last(),
            };
            found.map(|(_, kind)| *kind)
        };
        let lines: Vec<_> = self
            .paper
            .lines("amount")
            .filter_map(|(row, cells, amount)| Some((row, of(cells)?, amount)))
            .collect();
        for (row, kind, amount) in lines {
            self.put("amount", Some(row), amount, kind);
        }
    }

    /// What stands in a box.
    pub fn amount(&self, field: &str) -> Money {
        self.paper.paper.amount(field)
    }

    /// The whole number in a box, or zero.
    pub fn count(&self, field: &str) -> i64 {
        self.paper.paper.boxes.get(field).and_then(Entry::count).unwrap_or(0)
    }

    /// Whether anything stands in a box.
    pub fn has(&self, field: &str) -> bool {
        self.paper.paper.boxes.contains_key(field)
    }

    /// Whether a box says yes.
    pub fn flag(&self, field: &str) -> bool {
        self.paper.paper.flag(field)
    }

    /// The words or the choice in a box.
    pub fn text(&self, field: &str) -> &str {
        self.paper.paper.text(field).unwrap_or_default()
    }

    /// A box or column of the owner alone.
    pub fn item(&self, field: &'static str, amount: Money) -> Item {
        self.paper.item(field, None, amount)
    }

    /// The owners, by place.
    pub fn owners(&self) -> Vec<usize> {
        self.paper.shares(Money::ZERO).into_iter().map(|(person, _)| person).collect()
    }
}

/// The whole number in a cell, or zero.
pub fn count(cells: &Answers, column: &str) -> i64 {
    cells.get(column).and_then(Entry::count).unwrap_or(0)
}

/// The amount in a cell, or zero.
pub fn money(cells: &Answers, column: &str) -> Money {
    cells.get(column).and_then(Entry::money).unwrap_or_default()
}

/// The rate that a number in per cent names.
pub fn per_cent(number: Rate) -> Rate {
    Rate::from_billionths(number.billionths() / 100)
}
