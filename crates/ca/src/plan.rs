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
    /// Pension income that moves between partners.
    pub split: Option<Split>,
    /// Contributions to deduct now, by person; all where nothing is said.
    pub contributions: Vec<Option<Money>>,
    /// Capital cost to claim, by business; all where nothing is said.
    pub capital_cost: Vec<Option<Money>>,
    /// Net capital losses of earlier years to use, by person; all where nothing is said.
    pub losses: Vec<Option<Money>>,
    /// Exemption of gains to claim, by person; all where nothing is said.
    pub exemption: Vec<Option<Money>>,
    /// Non-capital losses of earlier years to use, by person; all where nothing is said.
    pub non_capital: Vec<Option<Money>>,
    /// Whose pay as a volunteer is exempt, in place of the amount.
    pub volunteers_exempt: Vec<usize>,
    /// The amount for a former partner is claimed, in place of support paid and an eligible dependant.
    pub former: bool,
    /// Who alone claims for a northern home; each for oneself where nobody does.
    pub northern: Option<usize>,
    /// Who of a couple with the same net income claims child care.
    pub care_by: Option<usize>,
    /// Child care that the partner with the higher net income claims.
    pub care_of_higher: Option<Money>,
    /// Whose dividends the partner reports (ITA 82(3)).
    pub dividends: Option<Election>,
    /// The medical receipts that are claimed.
    pub medical: Option<Medical>,
    /// Medical receipts of other dependants: whose, who claims them, and how much.
    pub medical_of_others: Vec<(usize, usize, Money)>,
    /// For whom line 30400 is claimed.
    pub dependant: Option<usize>,
    /// Who claims the amount for a partner, where one of them is infirm.
    pub spouse_with: Option<usize>,
    /// Who claims the amounts for each dependant.
    pub claims: Vec<Caring>,
    /// Who of a couple claims the amounts for children, where the province leaves that open.
    pub children_by: Option<usize>,
    /// Gifts to claim, by person; all that are left where nothing is said.
    pub gifts: Vec<Option<Money>>,
    /// Who deducts foreign tax in place of the credit.
    pub deducts_foreign_tax: Vec<usize>,
    /// What the first of a couple claims of a home and of news.
    pub home_credits: Option<Money>,
    /// What the first of a couple claims of the expenses of an adoption; all where nothing is said.
    pub adoption: Option<Money>,
    /// The same in the province.
    pub adoption_provincial: Option<Money>,
    /// Loan interest to claim, by person; all where nothing is said.
    pub loan_interest: Vec<Option<Money>>,
    /// Training credit to claim, by person; all where nothing is said.
    pub training: Vec<Option<Money>>,
    /// Tuition that students hand on.
    pub tuition: Vec<Handed>,
    /// The world in which the search reckons; in the law where nothing is said.
    pub world: Option<World>,
}

/// The law without what makes a larger deduction cost: gifts are not limited by net income, an election of dividends is not
/// tested, and the province counts the children, and child care is claimed, where it is said.
#[derive(Debug, Default, Clone, Copy, PartialEq, Eq)]
pub struct World {
    /// With whom the province counts the children; nothing where the law leaves but one.
    pub children_with: Option<usize>,
    /// Who claims child care; nothing where the law leaves but one.
    pub care_by: Option<usize>,
}

/// Pension income moved from one partner to the other (form T1032).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Split {
    pub from: usize,
    pub to: usize,
    pub amount: Money,
}

/// All taxable dividends of one partner on the return of the other (ITA 82(3)).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Election {
    pub from: usize,
    pub to: usize,
}

/// The claims of medical receipts: of one person, or of both partners.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Medical {
    /// By person; nothing is claimed where one is missing.
    pub claims: Vec<MedicalClaim>,
}

/// What a person may claim of the receipts.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct MedicalClaim {
    /// Who claims.
    pub person: usize,
    /// The months, by place among the windows.
    pub window: usize,
    /// What the partner leaves; of it what lies in the months is claimed.
    pub left: Money,
}

impl Medical {
    /// The claim of a person.
    pub fn of(&self, person: usize) -> Option<&MedicalClaim> {
        self.claims.iter().find(|claim| claim.person == person)
    }

    /// Whether partners claim for different months.
    pub fn of_own_months(&self) -> bool {
        self.claims.iter().any(|claim| claim.window != self.claims[0].window)
    }
}

/// A dependant, and who claims the amounts for it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Caring {
    pub relative: usize,
    pub claimant: usize,
}

/// Tuition handed on to a partner or a parent (Schedule 11).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Handed {
    pub student: usize,
    pub receiver: usize,
    pub amount: Money,
    pub provincial: Money,
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
    /// The facts of who files.
    pub fn who(self) -> &'a PersonFacts {
        &self.facts.people[self.person]
    }

    /// What papers bring to who files.
    pub fn own(self) -> &'a Records {
        &self.who().own
    }

    /// Whether who files has reached an age by the end of the year.
    pub fn reached(self, age: i32) -> bool {
        self.facts.reached(self.person, age)
    }

    /// The adults of the family for whom a province counts amounts: who files, with the partner or the eligible dependant.
    pub fn adults(self) -> i64 {
        let partner = self.facts.partner_at_end(self.person).is_some();
        1 + i64::from(partner || self.eligible_dependant().is_some())
    }

    /// The dependant for whom this return claims line 30400.
    pub fn eligible_dependant(self) -> Option<usize> {
        self.plan.dependant.filter(|_| self.facts.keeps_alone() == Some(self.person))
    }

    /// The dependants for whom this return claims.
    pub fn claimed(self) -> impl Iterator<Item = usize> + 'a {
        let person = self.person;
        self.plan.claims.iter().filter(move |c| c.claimant == person).map(|c| c.relative)
    }

    /// The return of the other of a couple.
    pub fn partner(self) -> Option<On<'a>> {
        self.facts.partner(self.person).map(|person| self.of(person))
    }

    /// The return of another person.
    pub fn of(self, person: usize) -> On<'a> {
        let place = self.facts.returns.iter().position(|&p| p == person);
        On { person, scope: place.map_or(Scope::Person(person), Scope::Return), ..self }
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

    /// An amount of who was resident for a part of the year only, by days (ITA 118.91).
    pub fn by_days(self, amount: Money) -> Money {
        self.who().part_year.reduces().map_or(amount, |days| days.part(amount))
    }

    /// A line with such an amount, from that of a whole year.
    pub fn made_by_days(
        self,
        trail: &mut impl Trail,
        id: LineId,
        whole: Money,
        lines: &[(LineId, Money)],
        figures: &[(&'static str, &dyn ToString)],
    ) -> Money {
        let Some(days) = self.who().part_year.reduces() else {
            return self.made(trail, id, whole, lines, figures);
        };
        let by_days: [(&'static str, &dyn ToString); 2] = [("Of a whole year", &whole), ("In Canada", &days)];
        self.made(trail, id, days.part(whole), lines, &[figures, &by_days].concat())
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
