//! Open points: what blocks filing, what deserves a look, and what of the law is not computed yet.

use crate::{
    additional_taxes,
    decisions::FederalCase,
    dependents, earned_income_credit,
    facts::{Facts, Marital, PersonFacts, Relationship},
    filing_status::Status,
    income, minimum_tax,
    papers::{W2_BOX_12, kind},
    payments,
    questions::{NOT_COMPUTED, ask},
    schedule_a::home_loan,
    states::community_property,
    status, suggestions,
    unit::Unit,
};
use hembo_core::{
    Household, Paper, Point, Recorder, Scope,
    check::digits,
    figures::Status as Certainty,
    household::Entry,
    point::{Gather, Place},
};
use hembo_money::{Money, Rate, Rounding};
use std::collections::BTreeSet;

/// Every open point of a household in the chosen way.
pub fn of(case: &FederalCase<'_>, units: &[Unit], trail: &Recorder) -> Vec<Point> {
    let mut points =
        Points { facts: &case.facts, household: case.household, units, trail, found: Vec::new() };
    points.household_questions();
    for person in 0..case.facts.people.len() {
        points.person(person);
    }
    for paper in &case.household.papers {
        points.paper(paper);
    }
    points.duplicates();
    points.returns();
    points.found
}

struct Points<'a> {
    facts: &'a Facts,
    household: &'a Household,
    units: &'a [Unit],
    trail: &'a Recorder,
    found: Vec<Point>,
}

impl Gather for Points<'_> {
    fn found(&mut self) -> &mut Vec<Point> {
        &mut self.found
    }
}

impl Points<'_> {
    fn answered(&self, field: &str) -> Option<&Entry> {
        self.household.answers.get(field)
    }

    fn household_questions(&mut self) {
        let married = self.facts.marital == Marital::Married;
        if self.answered(ask::MARITAL).is_none() {
            let message = "Were the filers married on the last day of the year?";
            self.blocks(
                "K-008",
                Place::household(ask::MARITAL),
                message,
                "Answer the question about marriage.",
            );
        }
        if married && self.answered(ask::APART).is_none() {
            let message = "Did the spouses live apart from July to December?";
            self.blocks(
                "K-011",
                Place::household(ask::APART),
                message,
                "It decides who may be head of household.",
            );
        }
        if !married && self.facts.filers.len() == 2 {
            let place = Place::household(ask::MARITAL);
            let message = "Two unmarried filers each file alone: they are two households here.";
            let remedy = "Make a household for each of them, or answer that they are married.";
            self.not_known("two-unmarried-filers", place, message, remedy);
        }
        if married && self.facts.filers.len() == 1 {
            let message = "A separate return names the spouse; joint and separate are not compared.";
            self.look(
                "K-169",
                Place::household(ask::MARITAL),
                message,
                "Add the spouse as a second filer to compare.",
            );
            if self.answered(ask::SPOUSE_ITEMIZES).is_none() {
                let message = "Does the spouse itemize? If so, there is no standard deduction here.";
                self.blocks(
                    "K-106",
                    Place::household(ask::SPOUSE_ITEMIZES),
                    message,
                    "Answer for the spouse.",
                );
            }
        }
        match self.answered(ask::STATE).and_then(Entry::text) {
            // Where spouses live decides whether separate returns divide what they earn.
            None if married => {
                self.blocks("K-029", Place::household(ask::STATE), "State of residence?", "Name the state.");
            }
            None => {
                self.look("K-029", Place::household(ask::STATE), "State of residence?", "Name the state.");
            }
            Some(state) if self.facts.couple() && community_property(state) => {
                let message =
                    "Only the joint return is weighed: separate ones divide income by community property.";
                let remedy = "Compare separate returns by hand (Form 8958); the joint figures hold.";
                self.not_known("K-030", Place::household(ask::STATE), message, remedy);
            }
            Some(state) if married && community_property(state) => {
                let message =
                    "A separate return divides income by community property here: not computed yet.";
                self.not_covered("K-030", Place::household(ask::STATE), message);
            }
            Some(_) => {}
        }
        match self.answered(ask::DIGITAL_ASSETS).and_then(Entry::flag) {
            None => {
                let place = Place::household(ask::DIGITAL_ASSETS);
                self.blocks(
                    "K-024",
                    place,
                    "Digital assets: yes or no?",
                    "Everyone answers this on page 1 of Form 1040.",
                );
            }
            Some(true) => {
                let place = Place::household(ask::DIGITAL_ASSETS);
                self.not_covered("digital-assets", place, "Digital assets are not computed yet.");
            }
            Some(false) => {}
        }
        if self.schedule_b() && self.answered(ask::FOREIGN_ACCOUNT).is_none() {
            let place = Place::household(ask::FOREIGN_ACCOUNT);
            let message = "So much interest needs Schedule B: was there a financial account abroad?";
            self.blocks("K-026", place, message, "Answer for Schedule B, Part III.");
        }
        self.not_computed(self.household, &NOT_COMPUTED);
    }

    fn schedule_b(&self) -> bool {
        let most = self.facts.figures.interest.schedule_b_above;
        self.amounts(income::INTEREST).any(|(_, interest)| interest > most)
    }

    /// A line of every return.
    fn amounts<'s>(&'s self, line: &'static str) -> impl Iterator<Item = (usize, Money)> + 's {
        let of = move |r| Some((r, self.trail.amount(line, Scope::Return(r))?));
        (0..self.units.len()).filter_map(of)
    }

    fn person(&mut self, index: usize) {
        let person = &self.facts.people[index];
        let place = |field: &str| Place::person(&person.id, field);
        if person.born.is_none() {
            self.blocks("K-004", place("born"), format!("Date of birth of {}?", person.name), "Enter it.");
        }
        if !person.has_number {
            let message = format!("{} has no social security or taxpayer number.", person.name);
            self.blocks("K-001", place("id_number"), message, "Enter the number as on the card.");
        }
        if person.filer { self.filer(person) } else { self.dependent(index) }
    }

    fn filer(&mut self, person: &PersonFacts) {
        let place = |field: &str| Place::person(&person.id, field);
        let start = self.facts.figures.year;
        if person.died.is_some_and(|died| died.year() < start) {
            let message = format!("{} died before the year began.", person.name);
            self.blocks(
                "K-009",
                place("died"),
                message,
                "Remove this filer; see the status of a surviving spouse.",
            );
        }
        if person.nonresident_alien {
            self.not_covered(
                "nonresident",
                place(ask::NONRESIDENT_ALIEN),
                "Form 1040-NR is not computed yet.",
            );
        }
        let paid_home = self.household.person(&person.id).and_then(|p| p.answers.get(ask::PAID_HOME));
        let matters = self.facts.marital != Marital::Married || self.facts.apart;
        if paid_home.is_none() && matters && dependents::candidates(self.facts).next().is_some() {
            let message = format!("Did {} pay over half the cost of the home?", person.name);
            self.blocks("K-010", place(ask::PAID_HOME), message, "It decides on head of household.");
        }
        self.claimable_elsewhere(person);
        if self.facts.marital == Marital::Widowed
            && person.spouse_died.is_some_and(|died| died >= start.into())
        {
            let message = format!(
                "The spouse died in {start}: for the tax that is a year of marriage, with a joint return."
            );
            let remedy =
                "Answer 'married' and add the spouse as a filer with the date of death (§6013(a)(3)).";
            self.not_known("K-012-year", place(ask::SPOUSE_DIED), message, remedy);
        }
        if self.facts.marital == Marital::Widowed && person.spouse_died.is_none() {
            let message = format!("In which year did the spouse of {} die?", person.name);
            self.blocks(
                "K-012",
                place(ask::SPOUSE_DIED),
                message,
                "It decides on the surviving spouse's status.",
            );
        }
    }

    /// A young filer may be someone's dependent, or someone's qualifying child.
    fn claimable_elsewhere(&mut self, person: &PersonFacts) {
        let figures = &self.facts.figures.dependents;
        let young = person.age(self.facts.year_end).is_some_and(|age| age < figures.student_under);
        if !young {
            return;
        }
        let answers = self.household.person(&person.id).map(|p| &p.answers);
        let said = |field: &str| answers.is_some_and(|a| a.contains_key(field));
        let (claimable, child) = (said(ask::CLAIMABLE), said(ask::CHILD_ELSEWHERE));
        let place = |field: &str| Place::person(&person.id, field);
        if !claimable {
            let message = format!("Can someone else claim {} as a dependent?", person.name);
            let remedy = "It decides on the standard deduction and on credits.";
            self.blocks("K-016", place(ask::CLAIMABLE), message, remedy);
        }
        let credit = self.amounts(earned_income_credit::L27A).any(|(_, credit)| !credit.is_zero());
        if !child && credit && !self.facts.couple() {
            let message = format!("Is {} the qualifying child of someone else?", person.name);
            let remedy = "If so, there is no earned income credit (§32(c)(1)(B)).";
            self.blocks("K-016-child", place(ask::CHILD_ELSEWHERE), message, remedy);
        }
    }

    fn dependent(&mut self, index: usize) {
        let person = &self.facts.people[index];
        let place = |field: &str| Place::person(&person.id, field);
        if person.relationship.is_none() {
            let message = format!("How is {} related to a filer?", person.name);
            self.blocks("K-022", place(ask::RELATIONSHIP), message, "Choose the relationship.");
            return;
        }
        let near = self.facts.filers.iter().any(|f| person.months_with.iter().any(|(with, _)| with == f));
        if !near && person.relationship != Some(Relationship::Parent) {
            let message = format!("How many months did {} live with each filer?", person.name);
            self.blocks("K-015", place("lived_with"), message, "Enter the months, 0 to 12.");
        }
        let half = person.months_alive(self.facts.year_end);
        if person.months_with.iter().any(|(_, m)| m * 2 == half) {
            let message = format!("{} lived exactly half the year in a home: count the nights.", person.name);
            self.look(
                "K-015-half",
                place("lived_with"),
                message,
                "Over half makes a qualifying child: enter one month more if it was.",
            );
        }
        if self.units.iter().any(|u| u.dependents.iter().any(|d| d.person == index)) {
            return;
        }
        let claim = dependents::claim(self.facts, &self.facts.filers, index);
        let asked = self.household.people[index].answers.contains_key(ask::SUPPORTED);
        if claim == Err(dependents::NO_SUPPORT) && !asked {
            let message = format!("Do the filers pay over half of the support of {}?", person.name);
            self.blocks("K-014", place(ask::SUPPORTED), message, "It decides on a qualifying relative.");
        } else if let Err(why) = claim {
            let message = format!("{} is not a dependent: {why}.", person.name);
            self.look("K-013", place(ask::RELATIONSHIP), message, "If that is not so, correct the answers.");
        }
    }

    fn paper(&mut self, paper: &Paper) {
        match paper.kind.as_str() {
            kind::W2 => {
                self.wages(paper);
                self.saver(paper);
            }
            kind::INTEREST => self.interest(paper),
            kind::HOME_LOAN => self.home_loan(paper),
            kind::MEDICAL => self.medical(paper),
            kind::GIFTS => self.gifts(paper),
            kind::GIFT_CARRYOVER => self.carryover(paper),
            _ => {}
        }
        self.days(paper);
    }

    fn wages(&mut self, paper: &Paper) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let amount = |field: &str| paper.amount(field);
        let ein = paper.text("b").map(digits).unwrap_or_default();
        if ein.len() != 9 || !ein.bytes().all(|b| b.is_ascii_digit()) {
            self.blocks("K-040", at("b"), "The employer's EIN has nine digits.", "Enter it from box b.");
        }
        for expected in suggestions::payroll(self.facts.figures, paper) {
            let (field, code) =
                (expected.field.as_str(), if expected.field == "4" { "K-041" } else { "K-042" });
            let value: Money = expected.value.parse().unwrap_or_default();
            if paper.boxes.contains_key(field) && (amount(field) - value).cents().abs() > Money::WHOLE.cents()
            {
                let message = format!("Box {field} should be {value:#} — {}.", expected.why);
                let point =
                    Point::look(code, at(field), message, "Look at the paper; keep it or correct it.");
                self.found.push(point.suggest(value));
            }
        }
        let base = self.facts.figures.social_security.wage_base;
        if amount("3") + amount("7") > base {
            self.look(
                "K-043",
                at("3"),
                format!("Boxes 3 and 7 are over the wage base of {base:#}."),
                "Look at the paper.",
            );
        }
        if amount("4") > self.facts.figures.social_security.most_tax {
            self.look(
                "K-044",
                at("4"),
                "More social security tax than one employer may take.",
                "The employer pays it back, not the return.",
            );
        }
        let half = amount("1").times(Rate::percent(50), Money::CENT, Rounding::HalfUp);
        if amount("2") > half {
            self.look(
                "K-045",
                at("2"),
                "More than half of the wages was withheld.",
                "Look at boxes 1 and 2.",
            );
        }
        if !amount("11").is_zero() {
            self.look(
                "K-046",
                at("11"),
                "Box 11 is taken out of earned income.",
                "That is right for a pension; else empty the box.",
            );
        }
        self.box_12(paper);
        for (field, message) in [
            ("7", "Tips may be deductible (Schedule 1-A), which is not computed yet."),
            ("8", "Allocated tips need Form 4137, which is not computed yet."),
            ("10", "Dependent care benefits need Form 2441, which is not computed yet."),
        ] {
            if !amount(field).is_zero() {
                self.not_covered("not-covered", at(field), message);
            }
        }
        if paper.flag("13.statutory") {
            let message = "A statutory employee's wages belong on Schedule C, which is not computed yet.";
            self.not_covered("K-053", at("13.statutory"), message);
        }
    }

    fn box_12(&mut self, paper: &Paper) {
        let mut seen = BTreeSet::new();
        for (field, amount) in W2_BOX_12 {
            let Some(code) = paper.text(field) else {
                if !paper.amount(amount).is_zero() {
                    self.blocks(
                        "K-048",
                        Place::paper(&paper.id, field),
                        "An amount in box 12 has no code.",
                        "Choose its code.",
                    );
                }
                continue;
            };
            if !seen.insert(code) {
                self.look(
                    "K-048",
                    Place::paper(&paper.id, field),
                    format!("Code {code} stands twice."),
                    "Look at box 12.",
                );
            }
            let form = match code {
                "H" => "a deduction on Schedule 1",
                "K" => "an excise tax on Schedule 2",
                "P" => "Form 3903",
                "Q" => "the choice about combat pay",
                "R" => "Form 8853",
                "T" => "Form 8839",
                "W" => "Form 8889",
                "Z" => "an additional tax on Schedule 2",
                "II" => "the choice about Medicaid waiver payments",
                _ => continue,
            };
            let message = format!("Code {code} needs {form}, which is not computed yet.");
            self.not_covered("box-12", Place::paper(&paper.id, field), message);
        }
    }

    /// Deferrals of someone who may have the saver's credit (§25B), which is not computed yet.
    fn saver(&mut self, paper: &Paper) {
        let deferred = |code: &str| matches!(code, "D" | "E" | "F" | "G" | "H" | "S" | "AA" | "BB" | "EE");
        let field = W2_BOX_12.iter().find(|(code, _)| paper.text(code).is_some_and(deferred));
        let owner = paper.owners.first().and_then(|o| self.household.index_of(&o.person));
        let (Some((field, _)), Some(owner)) = (field, owner) else { return };
        if self.may_have_savers_credit(owner) {
            let message = "The saver's credit for these deferrals (Form 8880) is not computed yet.";
            self.not_covered("savers-credit", Place::paper(&paper.id, field), message);
        }
    }

    /// Of age, no student, nobody's dependent, and in some status with tax and an income not above the limit.
    fn may_have_savers_credit(&self, person: usize) -> bool {
        let (facts, about) = (self.facts, &self.facts.people[person]);
        let figures = &facts.figures.saver;
        let place = self.units.iter().position(|u| u.people.contains(&person));
        let Some((place, unit)) = place.and_then(|p| Some((p, self.units.get(p)?))) else { return false };
        let of_age = about.born.is_none() || about.reached(figures.from_age, facts.year_end);
        let student = about.student_months >= facts.figures.dependents.student_months;
        if !of_age || student || unit.claimable {
            return false;
        }
        if facts.couple() && about.filer {
            let together: Money = facts.filers.iter().map(|&f| facts.people[f].agi_alone()).sum();
            let alone = *figures.most.of(status::alone(facts, person));
            return together.to_whole() <= figures.most.joint || about.agi_alone().to_whole() <= alone;
        }
        let amount = |line| self.trail.amount(line, Scope::Return(place)).unwrap_or_default();
        amount(income::AGI) <= *figures.most.of(unit.status) && !amount(minimum_tax::L18).is_zero()
    }

    fn interest(&mut self, paper: &Paper) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let amount = |field: &str| paper.amount(field);
        if !amount("3").is_zero() && amount("1") == amount("3") {
            self.look(
                "K-058",
                at("3"),
                "Box 1 equals box 3: is Treasury interest entered twice?",
                "Box 3 is not contained in box 1.",
            );
        }
        if amount("9") > amount("8") {
            self.blocks(
                "K-058-bonds",
                at("9"),
                "Box 9 is a part of box 8 and cannot be larger.",
                "Look at the paper.",
            );
        }
        if !amount("6").is_zero() {
            self.not_covered("K-060", at("6"), "The foreign tax credit is not computed yet.");
        }
    }

    fn home_loan(&mut self, paper: &Paper) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let has = |field: &str| paper.boxes.contains_key(field);
        if !paper.amount("1").is_zero() && !has("2") && !has("average") {
            self.blocks(
                "K-108",
                at("2"),
                "Without a balance the loan limit cannot be tested.",
                "Enter box 2, or an average balance.",
            );
        }
        let share = |limit: &&(hembo_core::limit::LimitAt, hembo_core::limit::LimitTaken)| {
            limit.0.def == &home_loan::HOME_LOAN && limit.1.allowed < limit.1.entered
        };
        let bites = self.trail.limits.iter().any(|l| share(&l));
        if bites && has("2") && !has("year_end") && !has("average") {
            self.look(
                "K-108-end",
                at("year_end"),
                "The loan limit bites; the balance at the end of the year lowers the average.",
                "Enter it from the lender's statement.",
            );
        }
        if bites && !has("3") {
            self.look(
                "K-108-date",
                at("3"),
                "Taken as a loan after 15 December 2017.",
                "Enter the origination date; older loans have a higher limit.",
            );
        }
        if !paper.amount("4").is_zero() {
            self.not_covered(
                "overpaid-interest",
                at("4"),
                "A refund of interest deducted earlier is not computed yet.",
            );
        }
    }

    fn medical(&mut self, paper: &Paper) {
        for row in &paper.rows {
            let patient = row.get("patient").and_then(Entry::text).and_then(|id| self.household.index_of(id));
            let Some(patient) = patient else { continue };
            let person = &self.facts.people[patient];
            let counted = person.filer
                || self.units.iter().any(|u| u.dependents.iter().any(|d| d.person == patient))
                || dependents::claimable_but_for_income(self.facts, &self.facts.filers, patient);
            if !counted {
                let message = format!("{} is no dependent: this bill does not count.", person.name);
                self.look(
                    "medical-patient",
                    Place::row(&paper.id, row, "patient"),
                    message,
                    "Look at whom it was for.",
                );
            }
        }
    }

    fn gifts(&mut self, paper: &Paper) {
        let figures = &self.facts.figures.gifts;
        let mut goods = Money::ZERO;
        for row in &paper.rows {
            let amount = row.get("amount").and_then(Entry::money).unwrap_or_default();
            if row.get("sort").and_then(Entry::text) == Some("goods") {
                goods += amount;
            }
            if amount >= figures.acknowledgment_from {
                let place = Place::row(&paper.id, row, "amount");
                self.look(
                    "K-112",
                    place,
                    format!("A gift of {amount:#}: is the written acknowledgment on hand?"),
                    "Have it before filing.",
                );
            }
        }
        if goods > figures.form_8283_above {
            let place = Place::paper(&paper.id, "amount");
            self.blocks(
                "K-111",
                place,
                format!("Goods worth {goods:#} need Form 8283."),
                "Fill in Form 8283 beside this return.",
            );
        }
    }

    fn carryover(&mut self, paper: &Paper) {
        let year = i64::from(self.facts.figures.year);
        let oldest = year - self.facts.figures.gifts.carried_years;
        for row in &paper.rows {
            let given = row.get("year").and_then(Entry::count).unwrap_or(0);
            if !(oldest..year).contains(&given) {
                let message = format!(
                    "A gift of {given} is not carried into {year}: only of {oldest} to {}.",
                    year - 1
                );
                self.look(
                    "gift-year",
                    Place::row(&paper.id, row, "year"),
                    message,
                    "Correct the year, or remove the line.",
                );
            }
        }
        if self.facts.figures.gift_carryover_order.status == Certainty::ToBeConfirmed {
            let place = Place::paper(&paper.id, "amount");
            self.look(
                "K-177",
                place,
                "That cash carried over stands before goods of this year is to be confirmed.",
                "Matters only where the 50 % limit bites.",
            );
        }
    }

    /// Receipts are for what was paid in the year; estimated tax of the year may be paid in the next January.
    fn days(&mut self, paper: &Paper) {
        let late = paper.kind == kind::ESTIMATED;
        for row in &paper.rows {
            let Some(day) = row.get("date").and_then(Entry::date) else { continue };
            let year = self.facts.figures.year;
            if day.year() != year && !(late && (day.year() - year).abs() == 1) {
                let message = format!("{day} is not in {year}: what is paid in another year counts there.");
                self.look(
                    "K-154",
                    Place::row(&paper.id, row, "date"),
                    message,
                    "Correct the day, or remove the line.",
                );
            }
        }
    }

    /// K-055: two papers with the same boxes.
    fn duplicates(&mut self) {
        let papers = &self.household.papers;
        for (i, paper) in papers.iter().enumerate() {
            let same = |other: &&Paper| {
                other.kind == paper.kind
                    && other.boxes == paper.boxes
                    && other.owners == paper.owners
                    && !paper.boxes.is_empty()
            };
            if papers[..i].iter().find(same).is_some() {
                let place = Place { paper: Some(paper.id.clone()), ..Place::default() };
                self.look(
                    "K-055",
                    place,
                    format!("Two {} papers have the same boxes.", paper.kind),
                    "Remove one if it is the same paper.",
                );
            }
        }
    }

    fn returns(&mut self) {
        for (place, unit) in self.units.iter().enumerate() {
            let person = &self.facts.people[unit.people[0]];
            let whose = || Place { person: Some(person.id.clone()), ..Place::default() };
            let amount = |line| self.trail.amount(line, Scope::Return(place)).unwrap_or_default();
            if unit.itemizes && !amount(additional_taxes::INVESTMENT).is_zero() {
                let message = "State tax on interest may lower the net investment income tax (Form 8960, line 9b); it is not taken.";
                self.look(
                    "8960-9b",
                    whose(),
                    message,
                    "Any reasonable division is lawful; claim it by hand.",
                );
            }
            if unit.main && amount(payments::BALANCE) >= self.facts.figures.underpayment.no_penalty_below {
                let message =
                    format!("{}: so much is due that a penalty for underpayment is possible.", person.name);
                self.look("K-156", whose(), message, "Compare with last year's tax (Form 2210).");
            }
            if unit.status != Status::Joint {
                self.kiddie(place, unit.people[0]);
            }
            if !unit.main {
                self.own_return(unit);
            }
        }
    }

    /// Form 8615 (§1(g)(2)): unearned income above the limit of someone under 18, or under 19 (a student under 24)
    /// whose earnings were not over half of the support, with a parent alive.
    fn kiddie(&mut self, place: usize, person: usize) {
        let (figures, about) = (&self.facts.figures.kiddie, &self.facts.people[person]);
        let amount = |line| self.trail.amount(line, Scope::Return(place)).unwrap_or_default();
        let unearned = amount(income::INTEREST) - amount(income::PENALTY);
        let end = self.facts.year_end;
        let grown = about.born.is_none() || about.reached(figures.under, end);
        if unearned <= figures.unearned_above || grown || about.parent_alive == Some(false) {
            return;
        }
        let ask = |points: &mut Self, field: &str, message: String| {
            let remedy = "It decides whether Form 8615 taxes this income at the parents' rates.";
            points.not_known("K-151-ask", Place::person(&about.id, field), message, remedy);
        };
        let name = &about.name;
        if about.reached(figures.student_from_age, end) {
            let months = self.household.people[person].answers.contains_key(ask::STUDENT_MONTHS);
            if !months {
                return ask(self, ask::STUDENT_MONTHS, format!("For how many months was {name} a student?"));
            }
            if about.student_months < self.facts.figures.dependents.student_months {
                return;
            }
        }
        if about.reached(figures.from_age, end) && !about.own.wages.is_empty() {
            match about.earned_over_half {
                Some(true) => return,
                Some(false) => {}
                None => {
                    let message = format!("Were the earnings of {name} over half of the support?");
                    return ask(self, ask::EARNED_OVER_HALF, message);
                }
            }
        }
        let parent_here = !about.filer && about.relationship == Some(Relationship::Child);
        if about.parent_alive.is_none() && !parent_here {
            return ask(
                self,
                ask::PARENT_ALIVE,
                format!("Was a parent of {name} alive at the end of the year?"),
            );
        }
        let largest = about.own.interest.iter().max_by_key(|item| item.amount);
        let place = largest.map(|item| Place::paper(&self.household.papers[item.paper].id, item.field));
        let message = format!("{name} has unearned income over the limit: Form 8615 is not computed yet.");
        self.not_covered("K-151", place.unwrap_or_default(), message);
    }

    fn own_return(&mut self, unit: &Unit) {
        let person = &self.facts.people[unit.people[0]];
        if person.married {
            let message = format!("{} is married: the status of that return is not known here.", person.name);
            self.not_covered("own-return-married", Place::person(&person.id, ask::MARRIED), message);
        }
        let name = &person.name;
        let message =
            format!("{name} has income of their own: the figures hold a separate return for {name}.");
        let remedy = if unit.claimable {
            "Mark there that someone can claim the filer."
        } else {
            "Nobody can claim the filer there."
        };
        self.look("K-017", Place::person(&person.id, ask::RELATIONSHIP), message, remedy);
    }
}
