//! One paper on its way to the facts of its owners.

use crate::facts::Facts;
use hembo_core::{
    brought::Brought,
    household::{Answers, Entry},
    reading::Reading,
};
use hembo_money::Money;

/// What papers of several provisions bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// T4 box 20, T4A box 032.
    pub static RPP: Brought = Brought::new();

    /// All tax withheld.
    pub static WITHHELD: Brought = Brought::new();
}

/// Whether the year of a row is one of so many before that of the return; also where none is told.
pub fn of_years_before(facts: &Facts, carried_years: i64, cells: &Answers) -> bool {
    let of = i64::from(facts.figures.year);
    let year = cells.get("year").and_then(Entry::count);
    year.is_none_or(|year| (of - carried_years..of).contains(&year))
}

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

    /// Gives what stands in boxes to the owners, who file because of it.
    pub fn give_all(&mut self, boxes: &[(&'static str, &'static Brought)]) {
        for &(field, kind) in boxes {
            self.put(field, None, self.amount(field), kind);
        }
        self.files();
    }

    /// The owners file because of this paper.
    pub fn files(&mut self) {
        for (person, _) in self.paper.shares(Money::ZERO) {
            self.facts.people[person].files = true;
        }
    }

    /// Partners pool their gifts; those of a dependant are the dependant's own.
    pub fn gift(&mut self, field: &'static str, row: Option<usize>, amount: Money) {
        let filers = self.paper.shares(Money::ZERO).iter().all(|(p, _)| self.facts.people[*p].filer);
        if filers && !amount.is_zero() {
            self.facts.gifts.push(self.paper.item(field, row, amount));
        }
    }
}
