//! What a way takes of every decision, as the rules read it, and one return within it.

use crate::facts::{Facts, PersonFacts};
use hembo_core::{
    brought::Records,
    forms::Required,
    line::LineId,
    trail::{self, Item, Recorder, Scope, Trail},
};
use hembo_money::Money;

/// A way, read.
#[derive(Debug, Clone, Default)]
pub struct Plan {
    /// How travel is deducted, by person.
    pub travel: Vec<TravelMethod>,
    /// Who does not claim the room at home.
    pub without_room: Vec<usize>,
    /// Base costs of gains for which several are open: the paper, the line, and which.
    pub base_costs: Vec<((usize, usize), usize)>,
    /// Trades whose result is of both spouses by agreement, by paper.
    pub joint_trades: Vec<usize>,
    /// What the first of two filers claims of receipts that either may have paid.
    pub of_either: Option<Money>,
}

/// How travel is deducted from an allowance.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
#[allow(missing_docs)]
pub enum TravelMethod {
    Deemed,
    Actual,
    #[default]
    Nothing,
}

/// One return of a way.
#[derive(Debug, Clone, Copy)]
pub struct On<'a> {
    /// The household's facts.
    pub facts: &'a Facts,
    /// What the way takes.
    pub plan: &'a Plan,
    /// Who files it.
    pub person: usize,
    /// Its scope in the trail.
    pub scope: Scope,
}

/// When a form is filed with a return.
pub type FormRule = fn(Filed<'_>) -> Required;

/// A return with its trail, to tell which forms are filed with it.
#[derive(Debug, Clone, Copy)]
pub struct Filed<'a> {
    /// The return.
    pub on: On<'a>,
    /// The trail of the way.
    pub trail: &'a Recorder,
}

impl Filed<'_> {
    /// Filed where a line of the return is anything but zero, or not for a reason.
    pub fn when(self, line: LineId, why_not: &'static str) -> Required {
        Required::if_so(self.has(line), why_not)
    }

    /// Whether a line of the return is anything but zero.
    pub fn has(self, line: LineId) -> bool {
        self.trail.amount(line, self.on.scope).is_some_and(|amount| !amount.is_zero())
    }
}

impl<'a> On<'a> {
    /// The return of a person within a way.
    pub fn of(facts: &'a Facts, plan: &'a Plan, person: usize) -> On<'a> {
        let place = facts.returns.iter().position(|&p| p == person);
        On { facts, plan, person, scope: place.map_or(Scope::Person(person), Scope::Return) }
    }

    /// The facts of who files.
    pub fn who(self) -> &'a PersonFacts {
        &self.facts.people[self.person]
    }

    /// What papers bring to who files.
    pub fn own(self) -> &'a Records {
        &self.who().own
    }

    /// A line that adds up items of the papers.
    pub fn gather<'i>(
        self,
        trail: &mut impl Trail,
        id: LineId,
        items: impl IntoIterator<Item = &'i Item> + Clone,
    ) -> Money {
        trail::gather(trail, id, self.scope, items)
    }

    /// A line that adds up other lines of this return.
    pub fn add(self, trail: &mut impl Trail, id: LineId, lines: &[(LineId, Money)]) -> Money {
        trail::add(trail, id, self.scope, lines)
    }

    /// A line of this return that is made of others and a figure or two.
    pub fn made(
        self,
        trail: &mut impl Trail,
        id: LineId,
        amount: Money,
        lines: &[(LineId, Money)],
        figures: &[(&'static str, &dyn ToString)],
    ) -> Money {
        trail::made(trail, id, self.scope, amount, lines, figures)
    }
}
