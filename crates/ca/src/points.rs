//! Open points: what blocks filing, what deserves a look, and what of the law is not computed yet.

use crate::{
    alberta, cpp_ei,
    decisions::{CanadianCase, SEARCHED_TOGETHER},
    dividends,
    facts::Facts,
    federal,
    figures::Figures,
    gifts, income,
    income::cents,
    medical,
    papers::{NOT_COVERED, kind},
    personal,
    provinces::{PROVINCES, Province},
    questions::{NOT_COMPUTED, ask},
    suggestions,
    workers_benefit::{self, Standing},
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
pub fn of(case: &CanadianCase<'_>, trail: &Recorder) -> Vec<Point> {
    let mut points = Points {
        facts: &case.facts,
        household: case.household,
        trail,
        both_above_threshold: case.facts.couple && case.both_above_threshold(),
        found: Vec::new(),
    };
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
    /// Divided medical receipts could be above two thresholds.
    both_above_threshold: bool,
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
        self.not_computed(self.household, &NOT_COMPUTED);
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
        let relative =
            self.facts.province == Some(Province::Alberta) && alberta::relatives(self.facts).next().is_some();
        if facts.filer && ((alone && anyone) || relative) && !answered(ask::MAINTAINS_HOME) {
            let message = format!("Did {} keep the home of a dependant?", who.name);
            let remedy =
                if relative { "It may bring line 30400 or 58400." } else { "It may bring line 30400." };
            self.blocks("C-50", Place::person(&who.id, ask::MAINTAINS_HOME), message, remedy);
        }
        let under_18 = !self.facts.reached(person, self.facts.figures.medical.child_under);
        let invested = !facts.own.interest.is_empty()
            || !facts.own.eligible_dividends.is_empty()
            || !facts.own.other_dividends.is_empty();
        if !facts.filer && facts.born.is_some() && under_18 && invested {
            let message = format!(
                "Income of {} from what a filer gave or lent is the filer's (attribution).",
                who.name
            );
            let remedy =
                "Ask where the money came from (ITA 74.1(2)); dividends of a private company: form T1206.";
            self.look("C-86", Place::person(&who.id, "born"), message, remedy);
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
        } else if let Some(over) = self.over_the_limit(person, &papers, available, limit) {
            let message = format!(
                "{over:#} over the limit and the {:#} free of tax: 1 % a month is due.",
                figures.cushion
            );
            self.look("C-40", place, message, "Form T1-OVP, or take it out again.");
        }
        for paper in papers {
            for cells in &paper.rows {
                let date = cells.get("date").and_then(Entry::date);
                if self.facts.contribution_too_late(person, cells, date) {
                    let message = format!(
                        "Paid after the year of the {}th birthday: not deductible, left out.",
                        figures.last_age
                    );
                    self.blocks(
                        "C-42",
                        Place::row(&paper.id, cells, "date"),
                        message,
                        "Check the plan and the day.",
                    );
                }
            }
        }
    }

    /// What was contributed above the limit and the part free of tax (204.1, 204.2): until the end of the year, and
    /// with the next year's first 60 days also above the room that this year's earnings make for it.
    fn over_the_limit(
        &self,
        person: usize,
        papers: &[&Paper],
        available: Money,
        limit: Money,
    ) -> Option<Money> {
        let (facts, figures) = (&self.facts.people[person], &self.facts.figures.rrsp);
        let later = |cells: &hembo_core::household::Answers| {
            cells.get("date").and_then(Entry::date).is_some_and(|date| date > self.facts.year_end)
        };
        let rows = papers.iter().flat_map(|p| &p.rows).filter(|cells| later(cells));
        let next: Money = rows.filter_map(|cells| cells.get("amount").and_then(Entry::money)).sum();
        let earned = sum(&facts.own.employment) - sum(&facts.own.dues);
        let adjustment: Money = self
            .household
            .papers
            .iter()
            .filter(|p| p.owners.iter().any(|o| o.person == facts.id))
            .map(|p| match p.kind.as_str() {
                kind::T4 => p.amount("52"),
                kind::T4A => p.amount("034"),
                _ => Money::ZERO,
            })
            .sum();
        let room = (cents(earned, figures.next_rate).min(figures.next_most) - adjustment).or_zero();
        let over = (available - next - limit).max(available - limit - room) - figures.cushion;
        (over > Money::ZERO).then_some(over)
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
        for cells in &paper.rows {
            let place = Place::row(&paper.id, cells, "date");
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
        for cells in &paper.rows {
            let payer = paper.owners.first().map(|o| o.person.as_str());
            let named = cells.get("patient").and_then(Entry::text).or(payer);
            let patient = named.and_then(|id| self.household.index_of(id));
            if patient.is_some_and(|p| !self.facts.medical_counts(p)) {
                let message = "Bills of a dependant of 18 or more (line 33199) are not computed yet.";
                self.not_covered("C-61", Place::row(&paper.id, cells, "patient"), message);
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
        for cells in &paper.rows {
            if cells.get("number").and_then(Entry::text).is_none_or(str::is_empty) {
                let message = "A gift counts only with the charity's registration number.";
                self.look(
                    "C-64",
                    Place::row(&paper.id, cells, "number"),
                    message,
                    "It stands on the receipt.",
                );
            }
            let date = cells.get("date").and_then(Entry::date);
            let early = self.facts.figures.gifts.earlier_year_to.as_ref().zip(date);
            let early = early.is_some_and(|(to, date)| (self.facts.year_begin..=to.0).contains(&date));
            if early && !cells.contains_key("used") {
                let message =
                    "Was this gift claimed for the year before? Those of January and February could be.";
                self.blocks(
                    "C-63-used",
                    Place::row(&paper.id, cells, "used"),
                    message,
                    "Answer in the line.",
                );
            }
        }
    }

    fn gifts_carried(&mut self, paper: &Paper) {
        let year = i64::from(self.facts.figures.year);
        let oldest = year - self.facts.figures.gifts.carried_years;
        for cells in &paper.rows {
            let given = cells.get("year").and_then(Entry::count);
            if given.is_none_or(|g| g < oldest || g >= year) {
                let message = format!("Gifts are carried from {oldest} to {} only.", year - 1);
                self.blocks(
                    "C-63",
                    Place::row(&paper.id, cells, "year"),
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
            let line = |id: &'static str| self.trail.amount(id, Scope::Return(place)).unwrap_or_default();
            let name = self.household.people[person].name.clone();
            let at = Place::person(&self.household.people[person].id, "name");
            if minimum_tax(self.facts.figures, &line) > line(federal::FEDERAL_TAX) {
                let message = format!("Minimum tax (form T691) may be due from {name}: not computed yet.");
                self.not_covered("C-92", at.clone(), message);
            }
            self.workers_benefit(person);
        }
        self.medical_divided();
    }

    /// What of the workers benefit is not known: whether a student is excluded, a couple of whom one is, and the table
    /// of a province that is not held.
    fn workers_benefit(&mut self, person: usize) {
        let facts = self.facts;
        let (own, partner) = workers_benefit::working(facts, person);
        let standing = workers_benefit::standing(facts, person);
        let class = workers_benefit::class(facts, standing);
        let net = |p: usize| {
            let place = facts.returns.iter().position(|&r| r == p);
            place.and_then(|r| self.trail.amount(income::NET, Scope::Return(r))).unwrap_or_default()
        };
        let family = net(person) + facts.partner(person).map_or(Money::ZERO, net);
        let income = workers_benefit::adjusted(facts, person, family);
        let due = own + partner > facts.figures.workers_benefit.above && income < class.nil;
        if standing == Standing::None || !due {
            return;
        }
        let name = &facts.people[person].name;
        let at = |field: &str| Place::person(&facts.people[person].id, field);
        if standing == Standing::Unclear {
            let message = format!(
                "Workers benefit of {name}: of the couple one is a full-time student, not computed yet."
            );
            return self.not_covered("C-87", at(ask::FULL_TIME_STUDENT), message);
        }
        if !workers_benefit::held(facts) {
            let message = format!("Workers benefit of {name}: the table of this province is not held.");
            return self.not_covered("C-87", at("name"), message);
        }
        let both = [Some(person), facts.partner(person)].into_iter().flatten();
        let students: Vec<usize> = both.filter(|&p| self.studies(p)).collect();
        for student in students {
            let who = &facts.people[student];
            if who.full_time_student.is_none() {
                let place = Place::person(&who.id, ask::FULL_TIME_STUDENT);
                let message = format!("Was {} a full-time student for over 13 weeks?", who.name);
                self.not_known("C-87-student", place, message, "It decides on the workers benefit.");
            }
        }
    }

    /// Whether a certificate of the school tells of months as a full-time student.
    fn studies(&self, person: usize) -> bool {
        let id = &self.facts.people[person].id;
        let mine = |p: &&Paper| p.kind == kind::T2202 && p.owners.iter().any(|o| &o.person == id);
        let months = |p: &Paper| p.boxes.get("25").and_then(Entry::count).unwrap_or(0);
        self.household.papers.iter().filter(mine).any(|p| months(p) > 0)
    }

    /// Receipts may be divided, and each partner may have twelve months of one's own: weighed only where both may have
    /// the supplement, and with the same months.
    fn medical_divided(&mut self) {
        let facts = self.facts;
        let lost = |place: usize| {
            let line = |id: &'static str| self.trail.amount(id, Scope::Return(place)).unwrap_or_default();
            !line(medical::ALLOWED).is_zero() && line(federal::CREDIT) > line(federal::TAX)
        };
        let open = facts.windows.len() > 1 || (0..facts.filers.len()).any(lost);
        if !facts.couple || !open || !self.both_above_threshold {
            return;
        }
        let receipt = facts.medical.first().map(|r| &self.household.papers[r.item.paper].id);
        let Some(place) = receipt.map(|paper| Place::paper(paper, "amount")) else { return };
        let message =
            "Both partners could claim a part, each with twelve months of their own: not weighed in full.";
        let remedy = "Worth it only where one of them has too little tax, or receipts lie in no one window.";
        self.look("medical-divided", place, message, remedy);
    }
}

/// Whether the minimum tax (ITA 127.5) could be above the ordinary one: as form T691 makes it from what this pack
/// knows, without the credits that would lower it further.
fn minimum_tax(figures: &Figures, line: &impl Fn(&'static str) -> Money) -> Money {
    let figures_of = &figures.minimum_tax;
    let gross_up = line(dividends::ALL) - actual_dividends(figures, line);
    let adjusted =
        line(income::TAXABLE) + cents(line(cpp_ei::ENHANCED), figures_of.deductions_part) - gross_up;
    let tax = cents((adjusted - figures_of.exemption).or_zero(), figures_of.rate);
    let credits = cents(line(federal::FOR_AMOUNTS), figures_of.credits_part);
    (tax - credits - cents(line(gifts::CREDIT), figures_of.gifts_part)).or_zero()
}

fn actual_dividends(figures: &Figures, line: &impl Fn(&'static str) -> Money) -> Money {
    let (all, other) = (line(dividends::ALL), line(dividends::OTHER));
    let figures = &figures.dividends;
    let actual = |taxable: Money, factor| taxable.divided_by(factor, Money::CENT, Rounding::HalfUp);
    actual(all - other, figures.eligible) + actual(other, figures.other)
}
