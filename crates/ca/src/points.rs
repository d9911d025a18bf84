//! Open points: what blocks filing, what deserves a look, and what of the law is not computed yet.

use crate::{
    decisions::{CanadianCase, SEARCHED_TOGETHER},
    facts::Facts,
    figures::Figures,
    income::cents,
    papers::{NOT_COVERED, kind},
    personal,
    provinces::{PROVINCES, Province},
    questions::ask,
    suggestions,
};
use hembo_core::{
    Household, Paper, Point, Recorder, Scope,
    household::Entry,
    point::{Gather, Place},
    reading::sum,
    words::label_of,
};
use hembo_money::{Money, Rounding};

/// Every open point of a household in the chosen way.
pub fn of(case: &CanadianCase, trail: &Recorder) -> Vec<Point> {
    let mut points = Points { facts: &case.facts, household: &case.household, trail, found: Vec::new() };
    points.province();
    points.household_questions();
    for person in 0..case.facts.people.len() {
        points.person(person);
    }
    for paper in &case.household.papers {
        points.paper(paper);
    }
    points.returns();
    if case.deduction_may_cost() && case.amounts_together() > SEARCHED_TOGETHER && points.deducts() {
        let message = "A smaller deduction of contributions might do better here: not every one is weighed.";
        let remedy = "Hold smaller amounts on Ways: gifts come to their limit, or the children change sides.";
        points.look("deduct-less", Place::default(), message, remedy);
    }
    points.found
}

struct Points<'a> {
    facts: &'a Facts,
    household: &'a Household,
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

    fn deducts(&self) -> bool {
        self.facts.people.iter().any(|p| !p.own.rrsp_limit.is_empty())
    }

    fn province(&mut self) {
        let place = Place::household(ask::PROVINCE);
        match self.answered(ask::PROVINCE).and_then(Entry::text) {
            None => {
                let remedy = "Name the province or territory of 31 December; without it there is no tax.";
                let message = "Which province or territory?";
                self.found.push(Point { not_covered: true, ..Point::blocks("C-12", place, message, remedy) });
            }
            Some("QC") => {
                let message = "Quebec is not covered: its own return and the abatement are not computed.";
                self.not_covered("C-12", place, message);
            }
            Some(code) if Province::of(code).is_none() => {
                let name = label_of(PROVINCES, code).unwrap_or(code);
                self.not_covered("C-12", place, format!("{name} is not covered yet: no tax is computed."));
            }
            Some(_) => {}
        }
    }

    fn household_questions(&mut self) {
        let marital = Place::household(ask::MARITAL);
        let two = self.facts.filers.len() == 2;
        if self.answered(ask::MARITAL).is_none() {
            self.blocks("C-6", marital.clone(), "Marital status on 31 December?", "Answer the question.");
        }
        if two && !self.facts.partnered {
            self.not_covered("C-9", marital, "Two filers who are no couple are two households here.");
        } else if !two && self.facts.partnered {
            let message =
                "The partner's return is not here: net income, transfers and splits are not weighed.";
            self.found.push(Point {
                not_covered: true,
                ..Point::blocks("C-7", marital, message, "Add the partner as a second filer.")
            });
        }
        let [part_year, foreign] =
            [ask::PART_YEAR, ask::FOREIGN_PROPERTY].map(|field| self.answered(field).and_then(Entry::flag));
        if part_year == Some(true) {
            let message = "A part of the year in Canada: amounts by days are not computed yet.";
            self.not_covered("C-14", Place::household(ask::PART_YEAR), message);
        }
        match foreign {
            None => {
                let place = Place::household(ask::FOREIGN_PROPERTY);
                self.blocks(
                    "C-17",
                    place,
                    "Foreign property that cost over 100,000: yes or no?",
                    "Line 26600 must be answered.",
                );
            }
            Some(true) => {
                let place = Place::household(ask::FOREIGN_PROPERTY);
                self.look("C-18", place, "Form T1135 is due.", "Prepare it beside the return.");
            }
            Some(false) => {}
        }
    }

    fn person(&mut self, person: usize) {
        let who = &self.household.people[person];
        let facts = &self.facts.people[person];
        let id = who.id.as_str();
        let files = facts.filer || facts.own.files;
        if who.born.is_none() {
            let message = format!("Date of birth of {}?", who.name);
            self.blocks("C-5", Place::person(id, "born"), message, "Ages decide many amounts.");
        }
        if files && who.id_number.is_none() {
            let message = format!("{} has no SIN here.", who.name);
            self.blocks("C-1", Place::person(id, "id_number"), message, "Enter it from the card or letter.");
        }
        match who.id_number.as_deref().and_then(|n| n.chars().next()) {
            Some('9') => {
                let message = "A number that begins with 9 has a date on which it ends.";
                self.look("C-2", Place::person(id, "id_number"), message, "Compare it with the filing day.");
            }
            Some('0') => {
                let message = "An ITN or TTN: benefits need a SIN.";
                self.look("C-3", Place::person(id, "id_number"), message, "Apply for a SIN.");
            }
            _ => {}
        }
        if who.died.is_some_and(|died| died <= self.facts.year_end) {
            let message = "The return of a year of death is not computed yet.";
            self.not_covered("C-16", Place::person(id, "died"), message);
        }
        for (field, what) in
            [(ask::INFIRM, "Canada caregiver amounts"), (ask::DISABILITY, "the disability amount")]
        {
            if who.answers.get(field).and_then(Entry::flag) == Some(true) {
                self.not_covered("C-53", Place::person(id, field), format!("Not computed yet: {what}."));
            }
        }
        if files {
            self.contributions(person);
        }
        self.dependants(person);
    }

    /// What decides whether an amount for a dependant can be claimed.
    fn dependants(&mut self, person: usize) {
        let who = &self.household.people[person];
        let facts = &self.facts.people[person];
        let answered = |field: &str| who.answers.contains_key(field);
        if !facts.filer && !answered(ask::RELATIONSHIP) {
            let message = format!("What is {} to a filer?", who.name);
            self.blocks(
                "C-51",
                Place::person(&who.id, ask::RELATIONSHIP),
                message,
                "It decides what can be claimed.",
            );
        }
        let alone = facts.filer && !self.facts.partnered;
        let anyone = (0..self.facts.people.len()).any(|p| p != person && personal::qualifies(self.facts, p));
        if alone && anyone && !answered(ask::MAINTAINS_HOME) {
            let message = format!("Did {} keep the home of a dependant?", who.name);
            self.blocks(
                "C-50",
                Place::person(&who.id, ask::MAINTAINS_HOME),
                message,
                "It may bring line 30400.",
            );
        }
    }

    /// What a person paid to the pension plan and insurance over the year, and retirement contributions.
    fn contributions(&mut self, person: usize) {
        let who = &self.household.people[person];
        let counted = self.facts.people[person].contributed;
        for (back, line, what) in [(counted.cpp_back, "44800", "CPP"), (counted.ei_back, "45000", "EI")] {
            if !back.is_zero() {
                let message = format!("{} overpaid {back:#} of {what}; line {line} gives it back.", who.name);
                self.look("C-24", Place::person(&who.id, "born"), message, "Compare with the T4 slips.");
            }
        }
        let (facts, figures) = (&self.facts.people[person], &self.facts.figures.rrsp);
        let (available, limit) = (facts.available_contributions(), sum(&facts.own.rrsp_limit));
        let mine = |p: &&Paper| p.kind == kind::RRSP && p.owners.iter().any(|o| o.person == who.id);
        let papers: Vec<_> = self.household.papers.iter().filter(mine).collect();
        let Some(paper) = papers.first() else { return };
        let place = Place::paper(&paper.id, "limit");
        if let Some(second) = papers.iter().filter(|p| p.boxes.contains_key("limit")).nth(1) {
            let message =
                format!("The deduction limit of {} stands on two papers and counts twice.", who.name);
            self.blocks("C-38", Place::paper(&second.id, "limit"), message, "Leave it on one of them.");
        }
        if !available.is_zero() && facts.own.rrsp_limit.is_empty() {
            let message = format!("The deduction limit of {}?", who.name);
            self.blocks("C-39", place.clone(), message, "It stands on the last notice of assessment.");
        } else if available > limit + figures.cushion {
            let message = format!("{:#} over the limit: 1 % a month is due.", available - limit);
            self.look("C-40", place.clone(), message, "Form T1-OVP, or take it out again.");
        }
        let own_plan =
            |r: &&hembo_core::household::Answers| r.get("plan").and_then(Entry::text) != Some("spouse");
        if facts.age_on(self.facts.year_end).is_some_and(|age| age > figures.last_age)
            && paper.rows.iter().any(|r| own_plan(&r))
        {
            let message =
                format!("{} is over {}: no contribution to an own plan.", who.name, figures.last_age);
            self.blocks("C-42", place, message, "Check the plan and the day.");
        }
    }

    fn paper(&mut self, paper: &Paper) {
        for (_, fields) in NOT_COVERED.iter().filter(|(kind, _)| *kind == paper.kind) {
            for field in fields.iter().filter(|f| !paper.amount(f).is_zero()) {
                let message = format!("Box {field} of a {} is not computed yet.", paper.kind);
                self.not_covered("not-covered-box", Place::paper(&paper.id, field), message);
            }
        }
        match paper.kind.as_str() {
            kind::T4 => self.employment(paper),
            kind::T4A => self.premiums(paper, "135"),
            kind::T5 => self.investments(paper),
            kind::OAS => self.old_age(paper),
            kind::CPP => self.total_missing(paper, "20", &["14", "15", "16", "19"]),
            kind::T2202 => self.tuition(paper),
            kind::RRSP => {
                self.dates(paper, "C-41", "outside the days that count for this return", |facts, date| {
                    let figures = &facts.figures.rrsp;
                    (figures.first_day.0..=figures.last_day.0).contains(&date)
                })
            }
            kind::MEDICAL => self.medical(paper),
            kind::GIFTS => self.gifts(paper),
            kind::GIFTS_CARRIED => self.gifts_carried(paper),
            _ => {}
        }
    }

    /// Contributions against earnings.
    fn employment(&mut self, paper: &Paper) {
        let within = Money::whole(1);
        let made = suggestions::payroll(self.facts.figures, paper);
        let asked = |field: &str| {
            made.iter().find(|s| s.field == field).and_then(|s| s.value.parse().ok()).unwrap_or(Money::ZERO)
        };
        for (code, field, what) in
            [("C-25", "16", "CPP"), ("C-25", "16A", "Second CPP"), ("C-26", "18", "EI")]
        {
            let (paid, asked) = (paper.amount(field), asked(field));
            let apart = paid - asked;
            if !paper.boxes.contains_key(field) && asked.is_zero() || apart <= within && -apart <= within {
                continue;
            }
            let place = Place::paper(&paper.id, field);
            let message = format!("{what} of {paid:#}, but the earnings make {asked:#} for a whole year.");
            let point = Point::look(code, place, message, "Compare boxes 16, 16A, 18 with 24 and 26.");
            self.found.push(point.suggest(asked));
        }
        if !paper.amount("46").is_zero() {
            self.gifts_of_dependant(paper, "46");
        }
        if paper.amount("22") > paper.amount("14") {
            let place = Place::paper(&paper.id, "22");
            self.blocks("C-28", place, "More tax deducted than income.", "Compare boxes 14 and 22.");
        }
        self.premiums(paper, "85");
    }

    /// Premiums for a health plan are medical expenses, but a slip has no day for them.
    fn premiums(&mut self, paper: &Paper, field: &str) {
        if !paper.amount(field).is_zero() {
            let place = Place::paper(&paper.id, field);
            let message = "Health premiums are medical expenses, by the day paid.";
            self.look("premiums", place, message, "Enter them among the medical receipts.");
        }
    }

    fn investments(&mut self, paper: &Paper) {
        let near = Money::from_cents(2);
        for made in suggestions::dividends(self.facts.figures, paper) {
            let told = paper.amount(&made.field);
            let wanted: Money = made.value.parse().unwrap_or_default();
            let apart = told - wanted;
            let actual = if matches!(made.field.as_str(), "25" | "26") { "24" } else { "10" };
            if paper.boxes.contains_key(&made.field)
                && paper.boxes.contains_key(actual)
                && (apart > near || -apart > near)
            {
                let place = Place::paper(&paper.id, &made.field);
                let message =
                    format!("Box {} says {told:#}, the boxes before it make {wanted:#}.", made.field);
                self.found
                    .push(Point::look("C-71", place, message, "Compare with the slip.").suggest(wanted));
            }
        }
        if paper.text("27").is_some_and(|c| !c.is_empty() && c != "CAD") {
            let place = Place::paper(&paper.id, "27");
            self.not_covered("C-78", place, "Amounts in a foreign currency are not converted yet.");
        }
        if !paper.amount("15").is_zero() {
            let place = Place::paper(&paper.id, "15");
            self.look("C-21", place, "Foreign income.", "Compare its cost with line 26600.");
        }
    }

    fn old_age(&mut self, paper: &Paper) {
        self.total_missing(paper, "18", &["19"]);
        let owner = paper.owners.first().and_then(|o| self.household.index_of(&o.person));
        if owner.is_some_and(|p| {
            self.facts.people[p].born.is_some() && !self.facts.reached(p, self.facts.figures.oas.age)
        }) {
            let message = "Old age security before its age?";
            self.look("C-35", Place::paper(&paper.id, "18"), message, "Check the owner of the slip.");
        }
    }

    fn tuition(&mut self, paper: &Paper) {
        let fees = paper.amount("26");
        if !fees.is_zero() && fees <= self.facts.figures.tuition.school_least {
            let message = "Fees of 100 or less for a school do not count.";
            self.look("C-65", Place::paper(&paper.id, "26"), message, "Nothing to do.");
        }
        let figures = &self.facts.figures.tuition;
        let (from, to) = (figures.training_from_age, figures.training_to_age);
        let owner = paper.owners.first().and_then(|o| self.household.index_of(&o.person));
        if owner
            .and_then(|p| self.facts.people[p].age_on(self.facts.year_end))
            .is_some_and(|a| (from..=to).contains(&a))
        {
            let message = "There may be a Canada training credit (line 45350), which is not computed.";
            self.look(
                "training-credit",
                Place::paper(&paper.id, "26"),
                message,
                "See the limit on the notice of assessment.",
            );
        }
    }

    fn dates(&mut self, paper: &Paper, code: &str, what: &str, fits: fn(&Facts, time::Date) -> bool) {
        for (row, cells) in paper.rows.iter().enumerate() {
            let place = Place::row(&paper.id, row, "date");
            match cells.get("date").and_then(Entry::date) {
                None => self.blocks(code, place, "A line without its day.", "Enter the day it was paid."),
                Some(date) if !fits(self.facts, date) => {
                    let message = format!("{date} is {what}; the line is left out.");
                    self.look(code, place, message, "Check the day.");
                }
                Some(_) => {}
            }
        }
    }

    fn medical(&mut self, paper: &Paper) {
        self.dates(paper, "C-57", "in no twelve months that end in the year", |facts, date| {
            date <= facts.year_end && date.year() + 1 >= facts.year_begin.year()
        });
        for (row, cells) in paper.rows.iter().enumerate() {
            let payer = paper.owners.first().map(|o| o.person.as_str());
            let named = cells.get("patient").and_then(Entry::text).or(payer);
            let patient = named.and_then(|id| self.household.index_of(id));
            if patient.is_some_and(|p| !self.facts.medical_counts(p)) {
                let message = "Bills of a dependant of 18 or more (line 33199) are not computed yet.";
                self.not_covered("C-61", Place::row(&paper.id, row, "patient"), message);
            }
        }
    }

    fn gifts_of_dependant(&mut self, paper: &Paper, field: &str) {
        let files = |id: &str| self.household.index_of(id).is_some_and(|p| self.facts.people[p].filer);
        if !paper.owners.iter().all(|o| files(&o.person)) {
            let message = "Gifts of a dependant are not computed yet.";
            self.not_covered("gifts-of-dependant", Place::paper(&paper.id, field), message);
        }
    }

    /// The box that counts is empty while those that make it up are not.
    fn total_missing(&mut self, paper: &Paper, total: &str, parts: &[&str]) {
        let sum: Money = parts.iter().map(|field| paper.amount(field)).sum();
        if !paper.boxes.contains_key(total) && !sum.is_zero() {
            let message = format!("Box {total} is what counts, and it is empty.");
            let point = Point::blocks(
                "total-missing",
                Place::paper(&paper.id, total),
                message,
                "Enter it from the slip.",
            );
            self.found.push(point.suggest(sum));
        }
    }

    fn gifts(&mut self, paper: &Paper) {
        self.dates(paper, "C-63", "no day of this return year", |facts, date| {
            (facts.year_begin..=facts.year_end).contains(&date)
        });
        self.gifts_of_dependant(paper, "title");
        for (row, cells) in paper.rows.iter().enumerate() {
            if cells.get("number").and_then(Entry::text).is_none_or(str::is_empty) {
                let message = "A gift counts only with the charity's registration number.";
                self.look("C-64", Place::row(&paper.id, row, "number"), message, "It stands on the receipt.");
            }
        }
    }

    fn gifts_carried(&mut self, paper: &Paper) {
        let year = i64::from(self.facts.figures.year);
        let oldest = year - self.facts.figures.gifts.carried_years;
        for (row, cells) in paper.rows.iter().enumerate() {
            let given = cells.get("year").and_then(Entry::count);
            if given.is_none_or(|g| g < oldest || g >= year) {
                let message = format!("Gifts are carried from {oldest} to {} only.", year - 1);
                self.blocks(
                    "C-63",
                    Place::row(&paper.id, row, "year"),
                    message,
                    "Correct the year, or remove it.",
                );
            }
        }
    }

    fn returns(&mut self) {
        if self.facts.province.is_none() {
            return;
        }
        for (place, person) in self.facts.returns.iter().copied().enumerate() {
            let line = |id: &str| self.trail.amount(id, Scope::Return(place)).unwrap_or_default();
            let name = self.household.people[person].name.clone();
            let at = Place::person(&self.household.people[person].id, "name");
            if minimum_tax(self.facts.figures, &line) > line("ca.42900") {
                let message = format!("Minimum tax (form T691) may be due from {name}: not computed yet.");
                self.not_covered("C-92", at.clone(), message);
            }
            let without_dividends = line("ca.23600") - line("ca.12000");
            let base = self.facts.figures.basic.most;
            if self.facts.couple && !line("ca.12000").is_zero() && without_dividends < base {
                let message =
                    format!("The partner could report the dividends of {name} (ITA 82(3)): not weighed.");
                let remedy = "Worth it only where it makes or raises the amount for a partner (line 30300).";
                self.look("C-24-dividends", at.clone(), message, remedy);
            }
            if self.workers_benefit(person, line("ca.10100")) {
                let message =
                    format!("Canada Workers Benefit (Schedule 6) may be due to {name}: not computed yet.");
                self.not_covered("C-87", at, message);
            }
        }
    }

    /// Whether working income is above the start and family income below the end of the benefit (ITA 122.7).
    fn workers_benefit(&self, person: usize, working: Money) -> bool {
        let figures = &self.facts.figures.workers_benefit;
        let facts = self.facts;
        let alone = facts.filers.len() == 1 && facts.people.len() == 1;
        let nil = if alone { figures.nil_single } else { figures.nil_family };
        let net = |p: usize| {
            let place = facts.returns.iter().position(|&r| r == p);
            place.and_then(|r| self.trail.amount("ca.23600", Scope::Return(r))).unwrap_or_default()
        };
        let family: Money = facts.filers.iter().map(|&f| net(f)).sum();
        facts.people[person].filer
            && facts.reached(person, figures.age)
            && working > figures.above
            && family < nil
    }
}

/// Whether the minimum tax (ITA 127.5) could be above the ordinary one: as form T691 makes it from what this pack
/// knows, without the credits that would lower it further.
fn minimum_tax(figures: &Figures, line: &impl Fn(&str) -> Money) -> Money {
    let figures_of = &figures.minimum_tax;
    let gross_up = line("ca.12000") - actual_dividends(figures, line);
    let adjusted = line("ca.26000") + cents(line("ca.22215"), figures_of.deductions_part) - gross_up;
    let tax = cents((adjusted - figures_of.exemption).or_zero(), figures_of.rate);
    let credits = cents(line("ca.33800"), figures_of.credits_part);
    (tax - credits - cents(line("ca.34900"), figures_of.gifts_part)).or_zero()
}

fn actual_dividends(figures: &Figures, line: &impl Fn(&str) -> Money) -> Money {
    let (all, other) = (line("ca.12000"), line("ca.12010"));
    let figures = &figures.dividends;
    let actual = |taxable: Money, factor| taxable.divided_by(factor, Money::CENT, Rounding::HalfUp);
    actual(all - other, figures.eligible) + actual(other, figures.other)
}
