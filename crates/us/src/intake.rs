//! Papers become facts once: the household's loose papers as typed amounts, each with its box.

use crate::{
    facts::{Carried, Facts, Loan, Marital, MedicalItem, Own, PersonFacts, Relationship, Residency},
    figures::Figures,
    papers::{W2_BOX_12, kind},
    questions::ask,
};
use hembo_core::{
    Household, Paper, Person,
    check::digits,
    household::{Answers, Entry, Role},
    pack::calendar_year,
    reading::Reading,
    trail::Item,
};
use hembo_money::{Money, Rounding};

/// Reads a checked household.
pub fn read(household: &Household, figures: &'static Figures) -> Facts {
    let (_, year_end) = calendar_year(figures.year);
    let answer = |id: &str| household.answers.get(id);
    let flag = |id: &str| answer(id).and_then(Entry::flag).unwrap_or(false);
    let filers: Vec<usize> = household.filers().map(|(i, _)| i).collect();
    let marital = match answer(ask::MARITAL).and_then(Entry::text) {
        Some("married") => Marital::Married,
        Some("widowed") => Marital::Widowed,
        Some(_) => Marital::Unmarried,
        None if filers.len() == 2 => Marital::Married,
        None => Marital::Unmarried,
    };
    let mut facts = Facts {
        figures,
        year_end,
        people: household.people.iter().map(|p| person(household, p)).collect(),
        marital,
        apart: flag(ask::APART),
        spouse_itemizes: flag(ask::SPOUSE_ITEMIZES),
        foreign_account: answer(ask::FOREIGN_ACCOUNT).and_then(Entry::flag),
        state: answer(ask::STATE).and_then(Entry::text).map(str::to_owned),
        estimated_together: Vec::new(),
        filers,
    };
    for paper in Reading::all(household) {
        Bringing { paper, facts: &mut facts }.read();
    }
    facts
}

fn person(household: &Household, person: &Person) -> PersonFacts {
    let said = |id: &str| person.answers.get(id).and_then(Entry::flag);
    let flag = |id: &str| said(id).unwrap_or(false);
    let count = |id: &str| person.answers.get(id).and_then(Entry::count);
    let text = |id: &str| person.answers.get(id).and_then(Entry::text);
    let itin = person.id_number.as_deref().is_some_and(|n| n.starts_with('9'));
    PersonFacts {
        name: person.name.clone(),
        id: person.id.clone(),
        filer: person.role == Role::Filer,
        born: person.born,
        died: person.died,
        has_number: person.id_number.is_some(),
        months_with: person
            .lived_with
            .iter()
            .filter_map(|(with, months)| Some((household.index_of(with)?, i64::from(*months))))
            .collect(),
        relationship: text(ask::RELATIONSHIP).and_then(relationship),
        student_months: count(ask::STUDENT_MONTHS).unwrap_or(0),
        blind: flag(ask::BLIND),
        disabled: flag(ask::DISABLED),
        married: flag(ask::MARRIED),
        files_joint: flag(ask::FILES_JOINT),
        self_support: flag(ask::SELF_SUPPORT),
        supported: flag(ask::SUPPORTED),
        supported_alone_by: text(ask::SUPPORTED_ALONE_BY).and_then(|id| household.index_of(id)),
        residency: match text(ask::RESIDENCY) {
            Some("canada_mexico") => Residency::CanadaOrMexico,
            Some("other") => Residency::Other,
            _ => Residency::UnitedStates,
        },
        work_ssn: said(ask::WORK_SSN).unwrap_or(!itin),
        other_gross_income: person
            .answers
            .get(ask::OTHER_GROSS_INCOME)
            .and_then(Entry::money)
            .unwrap_or_default(),
        claimable: flag(ask::CLAIMABLE),
        child_elsewhere: flag(ask::CHILD_ELSEWHERE),
        parent_alive: said(ask::PARENT_ALIVE),
        earned_over_half: said(ask::EARNED_OVER_HALF),
        nonresident_alien: flag(ask::NONRESIDENT_ALIEN),
        paid_home: flag(ask::PAID_HOME),
        home_abroad: flag(ask::HOME_ABROAD),
        spouse_died: count(ask::SPOUSE_DIED),
        own: Own::default(),
    }
}

fn relationship(id: &str) -> Option<Relationship> {
    Some(match id {
        "child" => Relationship::Child,
        "stepchild" => Relationship::Stepchild,
        "foster_child" => Relationship::FosterChild,
        "grandchild" => Relationship::Grandchild,
        "sibling" => Relationship::Sibling,
        "niece_nephew" => Relationship::NieceOrNephew,
        "parent" => Relationship::Parent,
        "stepparent" => Relationship::Stepparent,
        "grandparent" => Relationship::Grandparent,
        "aunt_uncle" => Relationship::AuntOrUncle,
        "in_law" => Relationship::InLaw,
        "none" => Relationship::None,
        _ => return None,
    })
}

/// One paper on its way to its owners.
struct Bringing<'a> {
    paper: Reading<'a>,
    facts: &'a mut Facts,
}

impl Bringing<'_> {
    fn read(&mut self) {
        match self.paper.paper.kind.as_str() {
            kind::W2 => self.wages(),
            kind::INTEREST => self.interest(),
            kind::HOME_LOAN => self.home_loan(),
            kind::PROPERTY_TAX => {
                self.give("real_estate", |own| &mut own.real_estate_tax);
                self.give("personal", |own| &mut own.personal_tax);
            }
            kind::SALES_TAX => self.sales_tax(),
            kind::STATE_TAX => self.rows(|own, item, _| own.state_income_tax.push(item)),
            kind::MEDICAL => self.medical(),
            kind::GIFTS => self.gifts(),
            kind::GIFT_CARRYOVER => self.rows(|own, item, row| {
                let year = row.get("year").and_then(Entry::count).unwrap_or(0);
                let cash = row.get("class").and_then(Entry::text) != Some("goods");
                own.carried.push(Carried { year, cash, item });
            }),
            kind::ESTIMATED => self.estimated(),
            _ => {}
        }
    }

    fn put(
        &mut self,
        field: &'static str,
        row: Option<usize>,
        amount: Money,
        mut place: impl FnMut(&mut Own, Item),
    ) {
        for (person, item) in self.paper.parts(field, row, amount) {
            place(&mut self.facts.people[person].own, item);
        }
    }

    fn give(&mut self, field: &'static str, place: impl Fn(&mut Own) -> &mut Vec<Item>) {
        self.put(field, None, self.paper.paper.amount(field), |own, item| place(own).push(item));
    }

    fn earns(&mut self) {
        for (person, _) in self.paper.shares(Money::ZERO) {
            self.facts.people[person].own.has_income = true;
        }
    }

    fn wages(&mut self) {
        self.earns();
        self.give("1", |own| &mut own.wages);
        self.give("2", |own| &mut own.withheld_wages);
        self.give("4", |own| &mut own.social_security_tax);
        self.give("5", |own| &mut own.medicare_wages);
        self.give("6", |own| &mut own.medicare_tax);
        self.give("11", |own| &mut own.nonqualified);
        for field in ["14", "17", "19", "17b", "19b"] {
            self.give(field, |own| &mut own.state_income_tax);
        }
        self.employer();
        for (code, amount) in W2_BOX_12 {
            if matches!(self.paper.paper.text(code), Some("A" | "B" | "M" | "N")) {
                self.give(amount, |own| &mut own.uncollected);
            }
        }
    }

    /// Employers are told apart by their number, or where that is missing by their name.
    fn employer(&mut self) {
        let number = self.paper.paper.text("b").map(digits).filter(|n| !n.is_empty());
        let employer = number.unwrap_or_else(|| self.paper.paper.title.clone());
        for (person, tax) in self.paper.shares(self.paper.paper.amount("4")) {
            *self.facts.people[person].own.employers.entry(employer.clone()).or_default() += tax;
        }
    }

    fn interest(&mut self) {
        self.earns();
        let box_of = |field| self.paper.paper.amount(field);
        let premium = box_of("11").min(box_of("1") + box_of("10"));
        let (treasury, exempt) = (box_of("12").min(box_of("3")), box_of("13").min(box_of("8")));
        for field in ["1", "3", "10"] {
            self.give(field, |own| &mut own.interest);
        }
        self.put("11", None, -premium, |own, item| own.interest.push(item));
        self.put("12", None, -treasury, |own, item| own.interest.push(item));
        self.give("2", |own| &mut own.penalty);
        self.give("4", |own| &mut own.withheld_other);
        self.give("8", |own| &mut own.exempt_interest);
        self.put("13", None, -exempt, |own, item| own.exempt_interest.push(item));
        self.give("9", |own| &mut own.private_activity);
        self.give("17", |own| &mut own.state_income_tax);
    }

    fn home_loan(&mut self) {
        let average = average_balance(self.paper.paper);
        let loan = |field: &str| self.paper.shares(self.paper.paper.amount(field));
        let (interest, points, other) = (loan("1"), loan("6"), loan("other_use"));
        let originated = self.paper.paper.boxes.get("3").and_then(Entry::date);
        let item = |amount, field| self.paper.item(field, None, amount);
        let averages = self.paper.shares(average);
        for (i, (person, average)) in averages.into_iter().enumerate() {
            self.facts.people[person].own.loans.push(Loan {
                interest: item(interest[i].1, "1"),
                points: item(points[i].1, "6"),
                average,
                other_use: other[i].1.min(average),
                originated,
            });
        }
        self.give("10", |own| &mut own.real_estate_tax);
    }

    fn sales_tax(&mut self) {
        self.give("actual", |own| &mut own.sales_tax_actual);
        self.give("table", |own| &mut own.sales_tax_table);
        self.give("table_separate", |own| &mut own.sales_tax_table_separate);
        self.give("vehicles", |own| &mut own.sales_tax_table);
        self.give("vehicles", |own| &mut own.sales_tax_table_separate);
    }

    fn rows(&mut self, place: impl Fn(&mut Own, Item, &Answers)) {
        for (r, row, amount) in self.paper.lines("amount") {
            self.put("amount", Some(r), amount, |own, item| place(own, item, row));
        }
    }

    fn medical(&mut self) {
        let mile = self.facts.figures.medical.mile;
        for (r, row, paid) in self.paper.lines("amount") {
            let text = |id: &str| row.get(id).and_then(Entry::text);
            let sort = text("sort").unwrap_or("bill");
            let amount = match sort {
                "travel" => miles(row).times(mile, Money::CENT, Rounding::HalfUp) + paid,
                "reimbursed" => -paid,
                _ => paid,
            };
            let named = text("patient").and_then(|id| self.paper.household.index_of(id));
            let payer =
                self.paper.paper.owners.first().and_then(|o| self.paper.household.index_of(&o.person));
            let Some(patient) = named.or(payer) else { continue };
            let long_term_care = sort == "long_term_care";
            self.put("amount", Some(r), amount, |own, item| {
                own.medical.push(MedicalItem { item, patient, long_term_care });
            });
        }
    }

    fn gifts(&mut self) {
        let mile = self.facts.figures.gifts.mile;
        for (r, row, given) in self.paper.lines("amount") {
            let sort = row.get("sort").and_then(Entry::text).unwrap_or("cash");
            let travel = if sort == "travel" {
                miles(row).times(mile, Money::CENT, Rounding::HalfUp)
            } else {
                Money::ZERO
            };
            let goods = sort == "goods";
            self.put("amount", Some(r), given + travel, |own, item| {
                if goods { own.gifts_goods.push(item) } else { own.gifts_cash.push(item) }
            });
        }
    }

    /// What both filers paid together stays whole: spouses may divide it as they agree (Reg. §1.6654-2(e)(5)).
    fn estimated(&mut self) {
        if self.paper.paper.owners.len() == 1 {
            return self.rows(|own, item, _| own.estimated.push(item));
        }
        for (r, _, amount) in self.paper.lines("amount") {
            self.facts.estimated_together.push(self.paper.item("amount", Some(r), amount));
        }
    }
}

/// Miles as an amount, so that a rate a mile makes money of them.
fn miles(row: &Answers) -> Money {
    Money::whole(row.get("miles").and_then(Entry::count).unwrap_or(0))
}

/// The average balance of a home loan (Pub. 936): the lender's figure, or half of the first and the last balance
/// of the year, or the first where the last is not known.
pub fn average_balance(paper: &Paper) -> Money {
    let (first, last) = (paper.amount("2"), paper.amount("year_end"));
    if paper.boxes.contains_key("average") {
        paper.amount("average")
    } else if paper.boxes.contains_key("year_end") {
        (first + last).split(&[1, 1])[0]
    } else {
        first
    }
}
