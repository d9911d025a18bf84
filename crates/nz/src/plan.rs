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
    /// How income of foreign funds is reckoned, by person.
    pub funds: Vec<FundMethod>,
    /// Who keeps let property each apart.
    pub lets_apart: Vec<usize>,
    /// How vehicles are deducted, by paper.
    pub vehicles: Vehicles,
    /// How rooms at home are deducted, by paper.
    pub rooms: Rooms,
    /// Dividends of listed funds that are returned, by paper.
    pub listed: Vec<usize>,
    /// Lump sums from abroad that are reckoned by the formula, by paper.
    pub by_formula: Vec<usize>,
    /// Who leaves the automatic assessment without other expenses.
    pub left_alone: Vec<usize>,
    /// The family claims Working for Families.
    pub claims_family: bool,
    /// Gifts that a person hands to the partner to claim.
    pub handed: Vec<(usize, Money)>,
}

/// How vehicles are deducted, by paper.
pub type Vehicles = Vec<(usize, VehicleMethod)>;

/// How rooms are deducted, by paper.
pub type Rooms = Vec<(usize, RoomMethod)>;

/// How income of foreign funds is reckoned.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
#[allow(missing_docs)]
pub enum FundMethod {
    /// Dividends as such, where all of them cost little.
    Dividends,
    #[default]
    FairDividendRate,
    ComparativeValue,
}

/// How a vehicle is deducted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum VehicleMethod {
    Kilometres,
    Costs,
    Nothing,
}

/// How a room at home is deducted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum RoomMethod {
    SquareMetres,
    Costs,
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
