//! What the return of a state asks beside the federal one, read from the answers, and what a way takes of its choices.

use crate::filing_status::Status;
use hembo_core::trail::Item;
use hembo_money::Money;
use std::ops::RangeInclusive;

/// What is answered for the return of a state.
#[derive(Debug, Clone, Default)]
pub struct StateFacts {
    /// Of each person, by place.
    pub people: Vec<OfPerson>,
    /// Who filed had the homeowners' exemption of property tax in the year.
    pub homeowner: bool,
    /// A spouse outside this household itemizes there; none where it was not said.
    pub spouse_itemizes: Option<bool>,
    /// Everyone had health cover in every month; none where it was not said.
    pub covered: Option<bool>,
    /// Health cover month by month, of those of whom a paper tells.
    pub cover: Vec<Months>,
    /// What cover would have cost.
    pub offers: Vec<Offer>,
    /// Not everyone who files lived there all year.
    pub part_year: bool,
    /// Use tax; none where it was not said.
    pub use_tax: Option<Money>,
}

/// What is answered for the return of a state about one person.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct OfPerson {
    /// Paid rent for the main home for half the year or longer; none where it was not said.
    pub rented: Option<bool>,
    /// Lived over half the year with who can claim the person, or where no property tax is due.
    pub renter_barred: bool,
    /// In foster care at 13 or later.
    pub foster_youth: bool,
    /// Head of household in one of the two years before, for someone who died since.
    pub senior_head: bool,
    /// Part-year custody of a child.
    pub joint_custody: bool,
    /// Paid for the home of a parent, and lived apart from the spouse.
    pub dependent_parent: bool,
    /// Has neither kind of number.
    pub lacks_number: bool,
    /// When the person lived there.
    pub residence: Residence,
}

/// When someone lived in the state.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Residence {
    /// The months with a day of residence or more.
    pub months: [bool; 12],
    /// How many months were lived there from the first day to the last.
    pub whole: i64,
}

impl Residence {
    /// Whether the person lived there for some time of the year.
    pub fn in_part(self) -> bool {
        self.months.contains(&true)
    }

    /// Whether the person lived elsewhere for some time of the year.
    pub fn elsewhere_in_part(self) -> bool {
        self.whole < 12
    }
}

impl Default for Residence {
    /// All year.
    fn default() -> Residence {
        Residence { months: [true; 12], whole: 12 }
    }
}

/// The months of a person's health cover.
#[derive(Debug, Clone)]
pub struct Months {
    /// By place among the people.
    pub person: usize,
    /// What was entered for each month: codes in capital letters, at most two; none where it is left to the rules.
    pub cells: [Vec<String>; 12],
    /// In which months the person lived there for a day or more; of a dependent those of whoever files.
    pub resident: [bool; 12],
    /// Months without cover right before January; none where it was not said.
    pub before: Option<i64>,
    /// The line of the paper.
    pub item: Item,
}

/// Who offers cover.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Source {
    /// The person's own job: the cheapest plan for the person alone.
    OwnJob,
    /// The job of another of the household: the cheapest plan for all whom it would cover.
    OthersJob,
    /// Nobody: the cheapest bronze plan, less the most of the premium tax credit.
    Market,
}

/// What health cover would have cost a person.
#[derive(Debug, Clone)]
pub struct Offer {
    /// By place among the people.
    pub person: usize,
    /// Who offered it.
    pub source: Source,
    /// Its cost a month.
    pub month: Money,
    /// The second lowest silver plan a month.
    pub silver: Money,
    /// Pay given up for it in the year.
    pub given_up: Money,
    /// From which month to which, counted from 1.
    pub months: RangeInclusive<i64>,
    /// The line of the paper.
    pub item: Item,
}

/// What a way takes of a state's choices on a return.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct StateWay {
    /// The return of the state itemizes.
    pub itemizes: bool,
    /// The part of one renter's credit that a separate return takes.
    pub renter: Renter,
    /// A child's income is on the parents' return of the state, so that it has none of its own.
    pub with_parents: bool,
    /// The return of the state is the only one: the federal return has the child's income on the parents'.
    pub alone: bool,
}

/// The parents' return of the state, as the form of a child's unearned income asks for it.
#[derive(Debug, Clone, Copy)]
pub struct ParentsHere {
    /// Its filing status.
    pub status: Status,
    /// Its taxable income.
    pub taxable: Money,
    /// The tax on that.
    pub tax: Money,
    /// What of brothers' and sisters' income is taxed at the parents' rates.
    pub siblings: Money,
}

/// Who takes the renter's credit of a home that spouses share and file apart from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Renter {
    /// The credit of the status.
    #[default]
    Own,
    /// All of one credit for both.
    All,
    /// None of it: the spouse takes all.
    Nothing,
}

/// Amounts of a paper that belong to a state.
#[derive(Debug, Clone, Copy)]
pub struct OfState {
    /// The state, by its place among the states.
    pub state: usize,
    /// State wages.
    pub wages: Money,
    /// State tax withheld.
    pub withheld: Item,
}
