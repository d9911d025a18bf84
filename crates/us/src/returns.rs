//! The returns that each way makes of a household, and what they come to.

use crate::{
    business, california, care, child_credit,
    claims::{self, Stands},
    deduction, dependents, earned_income_credit, education, education_bonds,
    facts::{Facts, Relationship},
    filing_status::Status,
    foreign_tax, form_1040, law, operating_loss, optional_earnings,
    papers::tuition,
    parents_election, payments, premium_tax_credit, qualifying_child, repayments,
    schedule_a::{gifts, investment_interest, medical, taxes},
    self_employed_cover, social_security, status, taxed_later,
    unit::{On, Part, Unit},
    untaxed_pay,
};
use hembo_core::{
    Decision, Household, Scope, Silent, Trail,
    choice::{Choices, Chosen},
    search::{Law, Sums, Tally, View, Weighable},
};
use hembo_money::Money;

/// The places of the parts: the joint or only return, then each spouse's, then dependents' own.
const TOGETHER: usize = 0;
const SPOUSES: usize = 1;
const OWN_RETURNS: usize = 3;

/// The tallies of claims: of each spouse, and again of each where the return itemizes.
const ITEMIZED: usize = 2;

/// A household under the federal law.
pub struct FederalCase<'h> {
    pub(crate) facts: Facts,
    /// The facts of separate returns, where they divide community property.
    apart: Option<Facts>,
    pub(crate) household: &'h Household,
    choices: Choices<Facts>,
}

impl<'h> FederalCase<'h> {
    /// A household from its facts, and those of separate returns where they differ.
    pub fn new((facts, apart): (Facts, Option<Facts>), household: &'h Household) -> FederalCase<'h> {
        let choices = Choices::of(law::CHOICES, apart.as_ref().unwrap_or(&facts));
        FederalCase { choices, facts, apart, household }
    }

    /// The facts of a return.
    fn facts_for(&self, unit: &Unit) -> &Facts {
        match &self.apart {
            Some(apart) if unit.main && unit.people.len() == 1 => apart,
            _ => &self.facts,
        }
    }

    /// The facts that a way's points look at.
    pub(crate) fn facts_of(&self, units: &[Unit]) -> &Facts {
        units.first().map_or(&self.facts, |unit| self.facts_for(unit))
    }

    /// A return on its facts.
    pub(crate) fn on<'a>(&'a self, unit: &'a Unit, place: usize) -> On<'a> {
        On { facts: self.facts_for(unit), unit, scope: Scope::Return(place) }
    }

    /// The returns of a way in the order of the parts.
    pub(crate) fn units(&self, view: &View<'_>) -> Vec<(usize, Unit)> {
        let way = self.choices.chosen(view);
        let mut units = Vec::new();
        if status::separate(&self.facts, way) {
            let places = (0..2).filter(self.files_apart());
            units.extend(places.map(|place| (SPOUSES + place, self.spouses_unit(place, way))));
        } else {
            units.push((TOGETHER, self.main_unit(way)));
        }
        let own = self.facts.own_returns.iter().enumerate().filter(|(_, person)| self.files(way, **person));
        units.extend(own.map(|(i, &person)| (OWN_RETURNS + i, self.own_unit(person, way))));
        units
    }

    /// The filers with a separate return: not a nonresident spouse, who has no income here.
    fn files_apart(&self) -> impl Fn(&usize) -> bool + use<'_> {
        |place| self.facts.nonresident_spouse() != Some(self.facts.filers[*place])
    }

    /// Whether a dependent has a return: not without income, and not where the parents' return has it, but that of the state alone may be due.
    fn files(&self, way: Chosen<'_, '_, Facts>, person: usize) -> bool {
        if parents_election::is_elected(way, &parents_election::ELECTION, person) {
            let unit = || self.childs_unit(person, way);
            return self.facts.of_state.is_some() && california::form_540::is_prepared(self.on(&unit(), 0));
        }
        self.facts.people[person].has_income || !tuition::taken_by(way, &self.facts, person).is_zero()
    }

    fn main_unit(&self, way: Chosen<'_, '_, Facts>) -> Unit {
        let joint = self.facts.couple();
        let people = if joint { self.facts.filers.clone() } else { self.facts.filers[..1].to_vec() };
        let claim = |p| dependents::claim(&self.facts, &people, p).ok();
        let forgone = education::forgone(way);
        let claimed = || self.facts.candidates().filter(|p| !forgone.contains(p));
        self.settled(Unit {
            status: if joint { Status::Joint } else { self.facts.alone[0] },
            itemizes: deduction::itemizes_together(way),
            taxes: taxes::deducted_together(way),
            foreign_tax: foreign_tax::together(way),
            elects_investment: investment_interest::elects_together(way),
            gifts_at_basis: gifts::at_basis_together(way),
            elects_earlier_years: social_security::elects_together(way),
            education: education::chosen(way),
            scholarships: tuition::taken(way, &self.facts),
            optional_method: optional_earnings::taken(way, &people),
            repaid_credited: repayments::credited(way, &people),
            cover_method: self_employed_cover::method(way, &people),
            taxed_now: taxed_later::elected(way, &people),
            counted_pay: untaxed_pay::counted(way, &people),
            home_offices: business::methods(way),
            elected: parents_election::elected(way, &parents_election::ELECTION),
            elected_here: parents_election::elected(way, &california::parents_election::ELECTION),
            of_state: california::choices::together(way),
            counted_here: california::counted_pay::counted(way, &people),
            dependents: claimed().filter_map(claim).collect(),
            forgone,
            claimable: people.iter().any(|&p| self.facts.people[p].claimable),
            people: people.clone(),
            ..Unit::of_one(people[0], Status::Single)
        })
    }

    /// The same with what the rest of the return decides: the part of operating losses that is deducted, and of a Marketplace policy's
    /// premiums.
    fn settled(&self, unit: Unit) -> Unit {
        let operating_loss = {
            let on = self.on(&unit, 0);
            operating_loss::any(on).then(|| operating_loss::settle(on, form_1040::without_operating_loss(on)))
        };
        let unit = Unit { operating_loss, ..unit };
        let cover = self_employed_cover::of(self.on(&unit, 0));
        Unit { cover, ..unit }
    }

    /// The separate return of a filer, which reads of the claims only what they add up to.
    fn spouses_unit(&self, place: usize, way: Chosen<'_, '_, Facts>) -> Unit {
        // The return of a state reads of the claims more than they add up to.
        if self.facts.of_state.is_none() {
            way.tally(place + if deduction::itemizes_apart(way, place) { ITEMIZED } else { 0 });
        }
        self.unit_by_claims(place, way)
    }

    /// The same, reading claim by claim.
    fn unit_by_claims(&self, place: usize, way: Chosen<'_, '_, Facts>) -> Unit {
        let filer = self.facts.filers[place];
        let itemizes = deduction::itemizes_apart(way, place);
        let mut unit = Unit {
            itemizes,
            taxes: taxes::deducted_apart(way, place),
            foreign_tax: foreign_tax::apart(way, place),
            elects_investment: investment_interest::elects_apart(way, place),
            gifts_at_basis: gifts::at_basis_apart(way, place),
            elects_earlier_years: social_security::elects_apart(way, place),
            education: education::chosen(way),
            scholarships: tuition::taken(way, &self.facts),
            optional_method: optional_earnings::taken(way, &[filer]),
            repaid_credited: repayments::credited(way, &[filer]),
            cover_method: self_employed_cover::method(way, &[filer]),
            taxed_now: taxed_later::elected(way, &[filer]),
            counted_pay: untaxed_pay::counted(way, &[filer]),
            home_offices: business::methods(way),
            estimated: payments::part_taken(way, place),
            of_state: california::choices::apart(way, place),
            counted_here: california::counted_pay::counted(way, &[filer]),
            ..self.bare_unit(place)
        };
        for (person, option) in way.each(&claims::CLAIM) {
            self.stand(&mut unit, filer, person, option);
        }
        if self.facts.unmarried_pair() {
            unit.status = status::unmarried(&self.facts, filer, &unit.claimed_elsewhere);
        }
        self.settled(unit)
    }

    /// Puts a dependent in its place on the separate return of a filer.
    fn stand(&self, unit: &mut Unit, filer: usize, person: usize, option: Option<usize>) {
        let claimer = option.map(|place| self.facts.filers[place]);
        match claims::stands(&self.facts, filer, person, claimer) {
            Stands::Claimed(dependent) => unit.dependents.push(dependent),
            Stands::Released => unit.released.push(person),
            Stands::Yielded => {
                unit.only_for_refund = true;
                unit.claimed_elsewhere.push(person);
            }
            Stands::Elsewhere => unit.claimed_elsewhere.push(person),
        }
    }

    /// A spouse's separate return before anything is chosen.
    fn bare_unit(&self, place: usize) -> Unit {
        let filer = self.facts.filers[place];
        Unit {
            claimable: self.facts.people[filer].claimable,
            estimated: Part::Half,
            ..Unit::of_one(filer, self.facts.alone[place])
        }
    }

    /// A dependent's own return: the standard deduction of someone who can be claimed, and the parents' rates on a child's unearned
    /// income.
    fn own_unit(&self, person: usize, way: Chosen<'_, '_, Facts>) -> Unit {
        let unit = self.childs_unit(person, way);
        if !self.facts.child_of_filers(person) {
            return unit;
        }
        let federal = || {
            let elected = parents_election::elected(way, &parents_election::ELECTION);
            let (taxed, of) = (form_1040::taxed_at_parents, form_1040::as_parents);
            self.parents_of(person, way, (&unit, &elected), taxed, of)
        };
        let here = || {
            let elected = parents_election::elected(way, &california::parents_election::ELECTION);
            let (taxed, of) = (form_1040::taxed_at_parents_here, form_1040::as_parents_here);
            self.parents_of(person, way, (&unit, &elected), taxed, of)
        };
        let parents = if unit.of_state.alone { Vec::new() } else { federal() };
        let parents_here = if self.facts.of_state.is_some() { here() } else { Vec::new() };
        Unit {
            parents: parents
                .into_iter()
                .reduce(|one, other| if other.taxable > one.taxable { other } else { one }),
            parents_here: parents_here
                .into_iter()
                .flatten()
                .reduce(|one, other| if other.taxable > one.taxable { other } else { one }),
            ..unit
        }
    }

    /// What the returns of a child's parents have for the form of its unearned income, `taxed` at the parents' rates; nothing where none is.
    /// `elected` have theirs on the parents' return.
    fn parents_of<T>(
        &self,
        person: usize,
        way: Chosen<'_, '_, Facts>,
        (unit, elected): (&Unit, &[usize]),
        taxed: impl Fn(On<'_>) -> Money,
        of: impl Fn(On<'_>, Money) -> T,
    ) -> Vec<T> {
        if taxed(self.on(unit, 0)).is_zero() {
            return Vec::new();
        }
        let other = |p: usize| p != person && self.facts.child_of_filers(p) && !elected.contains(&p);
        let others = self.facts.own_returns.iter().filter(|&&p| other(p));
        let siblings = others.map(|&p| taxed(self.on(&self.childs_unit(p, way), 0))).sum();
        self.parents_units(person, way).iter().map(|parent| of(self.on(parent, 0), siblings)).collect()
    }

    fn childs_unit(&self, person: usize, way: Chosen<'_, '_, Facts>) -> Unit {
        let apart = status::separate(&self.facts, way);
        self.settled(Unit {
            itemizes: deduction::itemizes_own(way, person),
            education: education::chosen(way),
            scholarships: tuition::taken(way, &self.facts),
            home_offices: business::methods(way),
            claimable: dependents::claimable_by_filers(&self.facts, apart, person),
            of_state: california::choices::own(way, person),
            forgone: education::forgone(way),
            main: false,
            estimated: Part::Nothing,
            ..Unit::of_one(person, Status::Single)
        })
    }

    /// The returns of which Form 8615 takes the one with more taxable income (§1(g)(5)): the joint one; of parents who file apart both,
    /// where they lived apart that of the parent with whom the child lived longer.
    fn parents_units(&self, child: usize, way: Chosen<'_, '_, Facts>) -> Vec<Unit> {
        if !status::separate(&self.facts, way) {
            return vec![self.main_unit(way)];
        }
        let parent = |place: &usize| {
            self.facts.related(&[self.facts.filers[*place]], child) == Some(Relationship::Child)
        };
        let mut places: Vec<usize> =
            (0..self.facts.filers.len()).filter(parent).filter(self.files_apart()).collect();
        if self.facts.apart == Some(true) {
            // Of equal nights the parent with the higher adjusted gross income is the custodial one (Reg. §1.152-4(d)(4)).
            places.sort_by_key(|&place| {
                let filer = self.facts.filers[place];
                let months = qualifying_child::months_with(&self.facts, &[filer], child);
                (-months, -self.facts.people[filer].agi_alone)
            });
            places.truncate(1);
        }
        places.into_iter().map(|place| self.unit_by_claims(place, way)).collect()
    }

    pub(crate) fn reckon(&self, unit: &Unit, place: usize, trail: &mut impl Trail) -> Money {
        form_1040::reckon(self.on(unit, place), trail)
    }

    /// What the claim of a dependent brings to the separate return of a filer, option by option: the credits' children
    /// and other dependents, the earned income credit's children, where it itemizes the medical bills, and the status.
    fn weights(&self, tally: usize, person: usize) -> Vec<Sums> {
        let place = tally % ITEMIZED;
        let filer = self.facts.filers[place];
        let brought = |option| {
            let mut unit = self.bare_unit(place);
            self.stand(&mut unit, filer, person, Some(option));
            let on = self.on(&unit, place);
            let (children, others) = child_credit::counted(on, person);
            let bills = if tally < ITEMIZED { Money::ZERO } else { medical::bills_for(on, person) };
            let earned = i64::from(earned_income_credit::counts(on, person));
            let taken = unit.claimed_elsewhere.contains(&person);
            let (survivor, head) = status::makes(&self.facts, filer, person);
            let status = [survivor, head].map(|makes| i64::from(makes && !taken));
            let yielded = i64::from(unit.only_for_refund);
            let (cared_for, care) = care::brought(on, person);
            let mut sums = vec![children, others, earned, bills.cents(), status[0], status[1], yielded];
            sums.extend([cared_for, care.cents(), education::mark(on, person)]);
            sums.push(education_bonds::mark(on, person));
            let income = premium_tax_credit::income_of_dependent(&self.facts, person);
            let dependent = !unit.dependents.is_empty();
            sums.extend([i64::from(dependent), if dependent { income.cents() } else { 0 }]);
            sums
        };
        (0..self.facts.filers.len()).map(brought).collect()
    }
}

impl Weighable for FederalCase<'_> {
    fn decisions(&self) -> &[Decision] {
        self.choices.decisions()
    }

    fn law(&self, decision: usize, view: &View<'_>) -> Law {
        self.choices.law(decision, self.apart.as_ref().unwrap_or(&self.facts), view)
    }

    fn parts(&self) -> usize {
        OWN_RETURNS + self.facts.own_returns.len()
    }

    fn total(&self, part: usize, view: &View<'_>) -> Money {
        let way = self.choices.chosen(view);
        let apart = || status::separate(&self.facts, way);
        let unit = match part {
            TOGETHER if apart() => return Money::ZERO,
            TOGETHER => self.main_unit(way),
            _ if part >= OWN_RETURNS => {
                let person = self.facts.own_returns[part - OWN_RETURNS];
                if !self.files(way, person) {
                    return Money::ZERO;
                }
                self.own_unit(person, way)
            }
            _ if !apart() => return Money::ZERO,
            _ if !self.files_apart()(&(part - SPOUSES)) => return Money::ZERO,
            _ => self.spouses_unit(part - SPOUSES, way),
        };
        self.reckon(&unit, part, &mut Silent)
    }

    /// Of the claims a separate return reads only what they add up to: by spouse.
    fn tally(&self, tally: usize) -> Tally {
        let each: Vec<(usize, usize)> = self.choices.each(&claims::CLAIM).collect();
        let weights = each.iter().map(|(person, _)| self.weights(tally, *person)).collect();
        Tally { claims: each.into_iter().map(|(_, decision)| decision).collect(), weights }
    }
}
