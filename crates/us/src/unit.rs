//! A return of a way: who files it, as what, with which options.

use crate::{
    facts::Facts,
    filing_status::Status,
    gains::Gains,
    state_facts::{ParentsHere, StateWay},
};
use hembo_core::{
    brought::{Brought, Records},
    line::LineId,
    reading::sum,
    trail::{Inputs, Item, Recorder, Scope, Trail},
};
use hembo_money::Money;

/// Which state and local taxes are deducted on Schedule A line 5a (§164(b)(5)).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum TaxesDeducted {
    /// Income tax.
    Income,
    /// General sales tax from receipts.
    SalesActual,
    /// General sales tax by the optional tables.
    SalesTable,
}

/// What is done with foreign income tax (§§164(a)(3), 901(a), 904(j)).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum ForeignTax {
    /// Credited without Form 1116.
    Simple,
    /// Credited by Form 1116, without adjusting it for what is taxed at the rates for gains where that may be left out.
    Form,
    /// Deducted on Schedule A line 6.
    Deducted,
    /// Credited by Form 1116, adjusted for what is taxed at the rates for gains.
    Adjusted,
}

impl ForeignTax {
    /// Whether Form 1116 limits it.
    pub fn by_form(self) -> bool {
        matches!(self, ForeignTax::Form | ForeignTax::Adjusted)
    }
}

/// The parents' return, as Form 8615 of a child asks for it.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Parents {
    pub status: Status,
    pub taxable: Money,
    /// Line 16.
    pub tax: Money,
    pub qualified: Money,
    pub gains: Gains,
    /// Line 5 of the brothers' and sisters' forms.
    pub siblings: Money,
}

/// How a home office is reckoned (Rev. Proc. 2013-13).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum HomeOffice {
    /// By the square foot.
    Simple,
    /// By actual expenses.
    Actual,
}

/// How the premiums of a Marketplace policy are divided between the deduction and the credit (Rev. Proc. 2014-41).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum CoverMethod {
    /// Until neither changes by a dollar any more.
    Iterative,
    /// One round.
    Simplified,
}

/// What of a Marketplace policy's premiums a self-employed filer deducts (§162(l)).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Cover {
    /// By place among the people.
    pub person: usize,
    /// Deducted.
    pub deducted: Money,
    /// Neither deducted nor covered by the credit: medical.
    pub left: Money,
    /// What is paid back of the advance payments at most; none where there is no limit.
    pub repaid_at_most: Option<Money>,
    /// The rounds came to an end.
    pub settled: bool,
}

/// What a person elects to have taxed now that might be taxed later.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct Now {
    /// Disaster distributions, all of them (§72(t)(11)(D)).
    pub disaster: bool,
    /// The appreciation of the employer's shares (§402(e)(4)(B)).
    pub appreciation: bool,
}

/// Operating losses of earlier years (§172).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct OperatingLoss {
    /// Deducted on Schedule 1 line 8a.
    pub deducted: Money,
    /// What of those of before 2018 is left.
    pub left_before: Money,
    /// What of the later ones is left.
    pub left: Money,
    /// What might have been deducted at most.
    pub most: Money,
}

/// The education credit for a student (§25A).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum EducationCredit {
    /// American opportunity.
    Opportunity,
    /// Lifetime learning.
    Learning,
    /// Neither.
    None,
}

/// The part of jointly paid estimated tax that a return takes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Part {
    /// All of it.
    All,
    /// One half; the first filer's return takes an odd cent.
    Half,
    /// None of it.
    Nothing,
}

/// How someone belongs to a claimer's household.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Household {
    /// §152(c).
    QualifyingChild,
    /// §152(d).
    QualifyingRelative,
}

/// A dependent on a return.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Dependent {
    /// By place among the people.
    pub person: usize,
    /// How.
    pub as_a: Household,
}

/// Whose pay that is no income counts as earned (§32(c)(2)(B)(vi); Notice 2014-7).
#[derive(Debug, Clone, Default)]
pub struct CountedPay {
    /// Combat pay, for the earned income credit.
    pub combat: Vec<usize>,
    /// Medicaid waiver payments.
    pub waiver: Vec<usize>,
}

/// One return.
#[derive(Debug, Clone)]
pub struct Unit {
    /// Who files: one person, or both spouses.
    pub people: Vec<usize>,
    /// The filing status.
    pub status: Status,
    /// Schedule A instead of the standard deduction.
    pub itemizes: bool,
    /// What Schedule A line 5a takes.
    pub taxes: TaxesDeducted,
    /// What is done with foreign income tax.
    pub foreign_tax: ForeignTax,
    /// Qualified dividends and net gains count for investment interest (§163(d)(4)(B)).
    pub elects_investment: bool,
    /// Property held long that was given counts at its basis (§170(b)(1)(C)(iii)).
    pub gifts_at_basis: bool,
    /// Benefits for earlier years are taxed by the income of those (§86(e)).
    pub elects_earlier_years: bool,
    /// Who takes the optional method of Schedule SE (§1402(a)).
    pub optional_method: Vec<usize>,
    /// Those who take income that they repaid off the tax instead of deducting it (§1341(a)(5)).
    pub repaid_credited: Vec<usize>,
    /// How the premiums of a Marketplace policy are divided between deduction and credit.
    pub cover_method: CoverMethod,
    /// What of them is deducted.
    pub cover: Option<Cover>,
    /// What is deducted of operating losses of earlier years.
    pub operating_loss: Option<OperatingLoss>,
    /// What of a person's distributions is taxed now that might be later.
    pub taxed_now: Vec<(usize, Now)>,
    /// What of untaxed pay counts as earned.
    pub counted_pay: CountedPay,
    /// The method of each home office that has both, by its paper.
    pub home_offices: Vec<(usize, HomeOffice)>,
    /// What each student brings, whoever claims the student.
    pub education: Vec<(usize, EducationCredit)>,
    /// What each student takes of a scholarship as income.
    pub scholarships: Vec<(usize, Money)>,
    /// Students whom the filers may claim and do not, so that they have the credit.
    pub forgone: Vec<usize>,
    /// On a child's own return, what the parents' return has.
    pub parents: Option<Parents>,
    /// The same of the return of the state.
    pub parents_here: Option<ParentsHere>,
    /// Children whose income is on this return (§1(g)(7)).
    pub elected: Vec<usize>,
    /// The same on the return of the state.
    pub elected_here: Vec<usize>,
    /// The dependents claimed.
    pub dependents: Vec<Dependent>,
    /// Dependents claimed on the other filer's separate return.
    pub claimed_elsewhere: Vec<usize>,
    /// Children whose claim this filer releases to the other parent's return (§152(e)).
    pub released: Vec<usize>,
    /// Filed only to get back what was withheld, so without refundable credits (Notice 2008-5).
    pub only_for_refund: bool,
    /// Someone else can claim the filer, or a spouse.
    pub claimable: bool,
    /// A filer's return, not a dependent's own.
    pub main: bool,
    /// The part of estimated tax paid together.
    pub estimated: Part,
    /// What the return of the state takes.
    pub of_state: StateWay,
    /// Pay without tax that the return of the state counts as earned.
    pub counted_here: CountedPay,
}

impl Unit {
    /// The return of one person before anything is chosen.
    pub fn of_one(person: usize, status: Status) -> Unit {
        Unit {
            people: vec![person],
            status,
            itemizes: false,
            taxes: TaxesDeducted::Income,
            foreign_tax: ForeignTax::Simple,
            elects_investment: false,
            gifts_at_basis: false,
            elects_earlier_years: false,
            optional_method: Vec::new(),
            repaid_credited: Vec::new(),
            cover_method: CoverMethod::Iterative,
            cover: None,
            operating_loss: None,
            taxed_now: Vec::new(),
            counted_pay: CountedPay::default(),
            home_offices: Vec::new(),
            parents: None,
            parents_here: None,
            education: Vec::new(),
            scholarships: Vec::new(),
            forgone: Vec::new(),
            elected: Vec::new(),
            elected_here: Vec::new(),
            dependents: Vec::new(),
            claimed_elsewhere: Vec::new(),
            released: Vec::new(),
            only_for_refund: false,
            claimable: false,
            main: true,
            estimated: Part::All,
            of_state: StateWay::default(),
            counted_here: CountedPay::default(),
        }
    }
}

/// A return on its facts, at its place in the trail.
#[derive(Debug, Clone, Copy)]
pub struct On<'a> {
    /// The household's facts.
    pub facts: &'a Facts,
    /// The return.
    pub unit: &'a Unit,
    /// Its scope in the trail.
    pub scope: Scope,
}

/// A return with its trail, to tell which forms are filed with it.
#[derive(Debug, Clone, Copy)]
pub struct Filed<'a> {
    /// The return.
    pub on: On<'a>,
    /// The trail of the way.
    pub trail: &'a Recorder,
}

impl Filed<'_> {
    /// A line of the return; zero where it has none.
    pub fn amount(self, line: LineId) -> Money {
        self.trail.amount(line, self.on.scope).unwrap_or_default()
    }

    /// Whether a line is anything but zero.
    pub fn has(self, line: LineId) -> bool {
        !self.amount(line).is_zero()
    }
}

impl<'a> On<'a> {
    /// The facts of each filer of this return.
    pub fn owns(self) -> impl Iterator<Item = (usize, &'a Records)> {
        self.unit.people.iter().map(move |&p| (p, &self.facts.people[p].own))
    }

    /// What a person elects to have taxed now.
    pub fn taxed_now(self, person: usize) -> Now {
        let elected = self.unit.taxed_now.iter().find(|(of, _)| *of == person);
        elected.map_or_else(Now::default, |(_, now)| *now)
    }

    /// All items of one sort on this return.
    pub fn items(self, kind: &'static Brought) -> impl Iterator<Item = &'a Item> {
        self.owns().flat_map(move |(_, own)| own.of(kind))
    }

    /// What each spouse on a joint return brings to a line that other lines make.
    pub fn parts(self, trail: &mut impl Trail, id: LineId, of: &[(LineId, &'static Brought)]) {
        if self.unit.people.len() == 1 {
            return;
        }
        for (person, own) in self.owns() {
            let brought = of.iter().filter(|(_, kind)| own.has(kind));
            let whole = brought.clone().map(|(_, kind)| sum(own.of(kind))).sum();
            if brought.clone().next().is_some() {
                trail.line(id, Scope::Person(person), whole, |i| {
                    for (line, kind) in brought {
                        i.line(line, Scope::Person(person), sum(own.of(kind)));
                    }
                });
            }
        }
    }

    /// A line that adds up one of each person.
    pub fn of_each(self, trail: &mut impl Trail, id: LineId, of: LineId, each: &[(usize, Money)]) -> Money {
        trail.line(id, self.scope, each.iter().map(|(_, amount)| *amount).sum(), |i| {
            for (person, amount) in each.iter().filter(|(_, amount)| !amount.is_zero()) {
                i.line(of, Scope::Person(*person), *amount);
            }
        })
    }

    /// A line that adds up items of the papers: with cents, and only the total rounded (Form 1040 instructions).
    /// On a joint return each spouse's part is a line of its own.
    pub fn gather(self, trail: &mut impl Trail, id: LineId, kind: &'static Brought) -> Money {
        self.gather_with(trail, id, kind, (id, Money::ZERO))
    }

    /// The same with what another line adds in whole dollars.
    pub fn gather_with(
        self,
        trail: &mut impl Trail,
        id: LineId,
        kind: &'static Brought,
        (more, added): (LineId, Money),
    ) -> Money {
        let sum = |own: &Records| sum(own.of(kind));
        let total: Money = self.owns().map(|(_, own)| sum(own)).sum();
        let with = |i: &mut Inputs| {
            if !added.is_zero() {
                i.line(more, self.scope, added);
            }
        };
        if self.unit.people.len() == 1 {
            return trail.line(id, self.scope, total.to_whole() + added, |i| {
                i.items(self.items(kind));
                with(i);
            });
        }
        for (person, own) in self.owns().filter(|(_, own)| own.has(kind)) {
            trail.line(id, Scope::Person(person), sum(own), |i| {
                i.items(own.of(kind));
            });
        }
        trail.line(id, self.scope, total.to_whole() + added, |i| {
            for (person, own) in self.owns().filter(|(_, own)| own.has(kind)) {
                i.line(id, Scope::Person(person), sum(own));
            }
            with(i);
        })
    }
}
