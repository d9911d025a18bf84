//! The household's loose papers as typed amounts, each with its box.

use crate::{figures::Figures, filing_status::Status, state_facts::StateFacts};
use hembo_core::{brought::Records, outcome::age_on, settled, trail::Item};
use hembo_money::Money;
use std::sync::Arc;
use time::Date;

/// Everything the federal rules ask about a household.
#[derive(Debug)]
pub struct Facts {
    /// The year's figures.
    pub figures: Arc<Figures>,
    /// The last day of the year.
    pub year_end: Date,
    /// The people, in the household's order.
    pub people: Vec<PersonFacts>,
    /// The filers, by place.
    pub filers: Vec<usize>,
    /// The marital state on the last day of the year.
    pub marital: Marital,
    /// The two filers, or the spouses, lived apart from July to December.
    pub apart: Option<bool>,
    /// They lived apart all year.
    pub apart_all_year: Option<bool>,
    /// A spouse outside this household itemizes.
    pub spouse_itemizes: bool,
    /// A financial account abroad; none where it was not said.
    pub foreign_account: Option<bool>,
    /// The state of residence.
    pub state: Option<String>,
    /// What the return of the state asks, where it is prepared.
    pub of_state: Option<StateFacts>,
    /// Federal estimated tax that both filers paid together, whole amounts.
    pub estimated_together: Vec<Payment>,
    /// Each filer's status on a return of one's own: the facts fix it.
    pub alone: Vec<Status>,
    /// What belongs to both spouses is theirs by half: the facts of separate returns in a community property state.
    pub divided: bool,
    /// Dependents who file a return of their own.
    pub own_returns: Vec<usize>,
}

/// A payment of estimated tax.
#[derive(Debug, Clone)]
pub struct Payment {
    /// When; none where it was not said.
    pub date: Option<Date>,
    /// The amount.
    pub item: Item,
    /// Paid with the extension of time to file.
    pub extension: bool,
}

/// The marital state (§7703(a)).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Marital {
    /// Never married, divorced, or separated by decree.
    Unmarried,
    /// Married on the last day of the year, or widowed during it.
    Married,
    /// Widowed before the year, not remarried.
    Widowed,
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
    pub has_number: bool,
    /// Months in one home with each filer, by the filer's place; none where it was not said.
    pub months_with: Vec<(usize, i64)>,
    /// To the first filer, or to both where they are married.
    pub relationship: Option<Relationship>,
    /// To the second filer, where the two are not married.
    pub relationship_second: Option<Relationship>,
    pub student_months: i64,
    pub student_months_said: bool,
    pub blind: bool,
    pub disabled: bool,
    /// Married at the end of the year; none where it was not said.
    pub married: Option<bool>,
    pub files_joint: bool,
    pub self_support: bool,
    /// The filers pay over half of the support; none where it was not said.
    pub supported: Option<bool>,
    pub supported_alone_by: Option<usize>,
    /// The filer whom a multiple support agreement names (§152(d)(3)).
    pub multiple_support: Option<usize>,
    pub residency: Residency,
    pub work_ssn: bool,
    pub other_gross_income: Money,
    /// Gross income (§61), of papers and of what was said: benefits as far as they are taxed, gains without losses.
    pub gross_income: Money,
    /// Of it what was not earned.
    pub unearned_alone: Money,
    /// What of a scholarship may be taken as income: nothing, and the amounts at which that may be worth it.
    pub scholarship: Vec<Money>,
    /// Adjusted gross income on a return of one's own.
    pub agi_alone: Money,
    pub claimable: bool,
    /// In a parent's custody over half the year; none where it was not said.
    pub in_custody: Option<bool>,
    /// The claim of this child is released to a parent outside this household (§152(e)).
    pub released_away: bool,
    /// The filer to whom a parent elsewhere released the claim of this child.
    pub released_to: Option<usize>,
    /// The qualifying child of someone outside this household.
    pub child_elsewhere: bool,
    /// A parent outside this household could claim this child; none where it was not said.
    pub parent_could_claim: Option<bool>,
    /// That parent's adjusted gross income.
    pub parent_income: Money,
    pub parent_alive: Option<bool>,
    /// Own earnings were over half of the support.
    pub earned_over_half: Option<bool>,
    pub nonresident_alien: bool,
    /// A nonresident's income from the United States; none where it was not said.
    pub income_from_us: Option<bool>,
    /// Paid over half the cost of the home; none where it was not said.
    pub paid_home: Option<bool>,
    pub home_abroad: bool,
    pub spouse_died: Option<i64>,
    /// What a 403(b) plan allowed more after 15 years (§402(g)(7)).
    pub fifteen_years_catch_up: Money,
    /// Any paper at all that makes income.
    pub has_income: bool,
    /// Not able to care for oneself (§21(b)(1)(B)).
    pub incapable: bool,
    /// Months that count as earning for the care credit (§21(d)(2)).
    pub deemed_months: i64,
    /// Distributions of retirement accounts in the testing period of §25B(d)(2).
    pub testing_distributions: Money,
    /// IRA contributions deducted since 70½, which lower gifts out of an IRA (§408(d)(8)(A)).
    pub ira_deducted_since: Money,
    /// Taxed pensions of someone under 65, retired on permanent and total disability (§22(c)(2)(B)).
    pub disability_income: Money,
    /// Pensions that are not taxed, but social security (§22(c)(3)).
    pub untaxed_pensions: Money,
    /// Papers bring something to itemize.
    pub can_itemize: bool,
    /// What papers bring to this person.
    pub own: Records,
}

/// Citizenship or residence (§152(b)(3)).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Residency {
    /// US citizen, national or resident.
    #[default]
    UnitedStates,
    /// Resident of Canada or Mexico.
    CanadaOrMexico,
    /// Neither.
    Other,
}

/// Relationship to a filer (§152(c)(2), (d)(2)).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum Relationship {
    Child,
    Stepchild,
    FosterChild,
    Grandchild,
    Sibling,
    NieceOrNephew,
    Parent,
    Stepparent,
    Grandparent,
    AuntOrUncle,
    InLaw,
    None,
}

impl PersonFacts {
    /// Age at the end of the year by the anniversary rule (Rev. Rul. 2003-72).
    pub fn age(&self, year_end: Date) -> Option<i32> {
        self.born.map(|born| age_on(born, year_end))
    }

    /// Whether an age was reached in the year by the day-before rule: a person reaches it the day before the
    /// birthday; one who died must have reached it by then.
    pub fn reached(&self, age: i32, year_end: Date) -> bool {
        let last = self.died.map_or(year_end, |died| settled::lesser(died, year_end));
        let next = last.next_day().unwrap_or(last);
        self.born.is_some_and(|born| age_on(born, next) >= age)
    }

    /// The months of the year, begun ones too, in which the person lived.
    pub fn months_alive(&self, year_end: Date) -> i64 {
        let of = |date: Option<Date>, otherwise| match date {
            Some(date) if date.year() == year_end.year() => i64::from(u8::from(date.month())),
            _ => otherwise,
        };
        of(self.died, 12) - of(self.born, 1) + 1
    }
}

impl Facts {
    /// Everyone who may depend on a filer.
    pub fn candidates(&self) -> impl Iterator<Item = usize> + '_ {
        self.people.iter().enumerate().filter(|(_, p)| !p.filer).map(|(i, _)| i)
    }

    /// Whether two people of this household are married to each other.
    pub fn couple(&self) -> bool {
        self.marital == Marital::Married && self.filers.len() == 2
    }

    /// The spouse who is a nonresident alien, where the other is not.
    pub fn nonresident_spouse(&self) -> Option<usize> {
        let mut all = self.filers.iter().copied().filter(|&f| self.people[f].nonresident_alien);
        let one = all.next();
        one.filter(|_| self.couple() && all.next().is_none())
    }

    /// Whether two people who are not married to each other are prepared together: each files alone.
    pub fn unmarried_pair(&self) -> bool {
        self.marital != Marital::Married && self.filers.len() == 2
    }

    /// Whether a person is a filer's child.
    pub fn child_of_filers(&self, person: usize) -> bool {
        self.filers.iter().any(|&f| self.related(&[f], person) == Some(Relationship::Child))
    }

    /// The other of two filers.
    pub fn other_filer(&self, filer: usize) -> Option<usize> {
        self.filers.iter().copied().find(|&f| f != filer)
    }

    /// What a person is to the claimers: one filer, or both on a joint return.
    pub fn related(&self, claimers: &[usize], person: usize) -> Option<Relationship> {
        let about = &self.people[person];
        let to_second = self.unmarried_pair() && claimers == &self.filers[1..];
        if to_second { about.relationship_second } else { about.relationship }
    }
}
