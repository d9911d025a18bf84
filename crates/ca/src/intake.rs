//! Papers become facts once: the household's loose papers as typed amounts, each with its box.

use crate::{
    cpp_ei,
    facts::{Contributions, Facts, Own, PersonFacts, Receipt},
    figures::Figures,
    medical,
    papers::kind,
    provinces::Province,
    questions::ask,
};
use hembo_core::{
    Household, Person,
    household::{Answers, Entry, Role},
    pack::calendar_year,
    reading::Reading,
    trail::Item,
};
use hembo_money::{Money, Rounding};
use time::Date;

/// Reads a checked household.
pub fn read(household: &Household, figures: &'static Figures) -> Facts {
    let (year_begin, year_end) = calendar_year(figures.year);
    let answer = |id: &str| household.answers.get(id);
    let text = |id: &str| answer(id).and_then(Entry::text);
    let filers: Vec<usize> = household.filers().map(|(i, _)| i).collect();
    let partnered = match text(ask::MARITAL) {
        Some(status) => matches!(status, "married" | "common_law"),
        None => filers.len() == 2,
    };
    let mut facts = Facts {
        figures,
        year_begin,
        year_end,
        people: household.people.iter().map(person).collect(),
        couple: partnered && filers.len() == 2,
        partnered,
        filers,
        returns: Vec::new(),
        months_together: answer(ask::MONTHS_TOGETHER).and_then(Entry::count).unwrap_or(12),
        province: text(ask::PROVINCE).and_then(Province::of),
        province_code: text(ask::PROVINCE).map(str::to_owned),
        medical: Vec::new(),
        windows: Vec::new(),
        gifts: Vec::new(),
    };
    for paper in Reading::all(household) {
        Bringing { paper, facts: &mut facts }.read();
    }
    let dependants = (0..facts.people.len()).filter(|p| !facts.filers.contains(p));
    let own = dependants.filter(|&p| facts.people[p].own.files);
    facts.returns = facts.filers.iter().copied().chain(own).collect();
    for person in 0..facts.people.len() {
        facts.people[person].contributed = cpp_ei::read(&facts, person);
    }
    facts.medical.sort_by_key(|r| r.date);
    facts.windows = medical::windows(&facts);
    facts
}

fn person(person: &Person) -> PersonFacts {
    let flag = |id: &str| person.answers.get(id).and_then(Entry::flag).unwrap_or(false);
    let relationship = person.answers.get(ask::RELATIONSHIP).and_then(Entry::text).unwrap_or("child");
    PersonFacts {
        name: person.name.clone(),
        id: person.id.clone(),
        filer: person.role == Role::Filer,
        born: person.born,
        died: person.died,
        child: relationship == "child",
        elder: matches!(relationship, "parent" | "grandparent"),
        descendant: matches!(relationship, "child" | "grandchild"),
        full_time_student: person.answers.get(ask::FULL_TIME_STUDENT).and_then(Entry::flag),
        young_relative: matches!(relationship, "child" | "grandchild" | "sibling"),
        infirm: flag(ask::INFIRM),
        support_paid: flag(ask::SUPPORT_PAID),
        claimed_elsewhere: flag(ask::CLAIMED_ELSEWHERE),
        maintains_home: flag(ask::MAINTAINS_HOME),
        lives_here: person.lived_with.values().any(|&months| months > 0),
        other_net_income: person.answers.get(ask::NET_INCOME).and_then(Entry::money).unwrap_or_default(),
        own: Own::default(),
        contributed: Contributions::default(),
    }
}

/// One paper on its way to its owners.
struct Bringing<'a> {
    paper: Reading<'a>,
    facts: &'a mut Facts,
}

impl Bringing<'_> {
    fn read(&mut self) {
        match self.paper.paper.kind.as_str() {
            kind::T4 => self.employment(),
            kind::T4A => self.pension(),
            kind::OAS => self.give_all(&[
                ("18", |own| &mut own.oas),
                ("20", |own| &mut own.oas_recovered),
                ("21", |own| &mut own.supplements),
                ("22", |own| &mut own.withheld),
            ]),
            kind::CPP => {
                self.give_all(&[("20", |own| &mut own.cpp_benefits), ("22", |own| &mut own.withheld)]);
            }
            kind::T5 => self.investments(),
            kind::T2202 => self.tuition(),
            kind::TUITION_CARRIED => self.give_all(&[
                ("federal", |own| &mut own.tuition_carried),
                ("provincial", |own| &mut own.tuition_carried_provincial),
            ]),
            kind::RRSP => self.contributions(),
            kind::MEDICAL => self.medical(),
            kind::GIFTS | kind::GIFTS_CARRIED => self.gifts(),
            kind::INSTALMENTS => {
                for (row, _, amount) in self.paper.lines("amount") {
                    self.put("amount", Some(row), amount, |own| &mut own.instalments);
                }
            }
            _ => {}
        }
    }

    fn put(
        &mut self,
        field: &'static str,
        row: Option<usize>,
        amount: Money,
        place: fn(&mut Own) -> &mut Vec<Item>,
    ) {
        for (person, item) in self.paper.parts(field, row, amount) {
            place(&mut self.facts.people[person].own).push(item);
        }
    }

    fn amount(&self, field: &str) -> Money {
        self.paper.paper.amount(field)
    }

    fn has(&self, field: &str) -> bool {
        self.paper.paper.boxes.contains_key(field)
    }

    #[allow(clippy::type_complexity)]
    fn give_all(&mut self, boxes: &[(&'static str, fn(&mut Own) -> &mut Vec<Item>)]) {
        for &(field, place) in boxes {
            self.put(field, None, self.amount(field), place);
        }
        self.files();
    }

    fn files(&mut self) {
        for (person, _) in self.paper.shares(Money::ZERO) {
            self.facts.people[person].own.files = true;
        }
    }

    fn employment(&mut self) {
        self.give_all(&[
            ("14", |own| &mut own.employment),
            ("16", |own| &mut own.cpp),
            ("16A", |own| &mut own.cpp_second),
            ("18", |own| &mut own.ei),
            ("20", |own| &mut own.rpp),
            ("22", |own| &mut own.withheld),
            ("44", |own| &mut own.dues),
        ]);
        let earnings = |field: &str, exempt: &str| match self.has(field) {
            _ if self.paper.paper.flag(exempt) => Money::ZERO,
            true => self.amount(field),
            false => self.amount("14"),
        };
        let (pensionable, insurable) = (earnings("26", "28.cpp"), earnings("24", "28.ei"));
        for (person, _) in self.paper.shares(Money::ZERO) {
            let own = &mut self.facts.people[person].own;
            own.pensionable += pensionable;
            own.insurable += insurable;
        }
        self.gift("46", None, self.amount("46"));
    }

    fn pension(&mut self) {
        self.give_all(&[
            ("016", |own| &mut own.life_pensions),
            ("018", |own| &mut own.other),
            ("022", |own| &mut own.withheld),
            ("028", |own| &mut own.other),
            ("032", |own| &mut own.rpp),
        ]);
        let on_death = self.paper.paper.flag("on_death");
        for field in ["024", "133", "194"] {
            let place: fn(&mut Own) -> &mut Vec<Item> =
                if on_death { |own| &mut own.life_pensions } else { |own| &mut own.age_pensions };
            self.put(field, None, self.amount(field), place);
        }
        // Of the tax on a slip, what falls on its pensions may move with them (form T1032, step 4).
        let pensions: Money = ["016", "024", "133", "194"].iter().map(|f| self.amount(f)).sum();
        let all = pensions + self.amount("018") + self.amount("028");
        let withheld = self.amount("022").in_proportion(pensions, all, Money::CENT, Rounding::HalfUp);
        self.put("022", None, withheld, |own| &mut own.withheld_pension);
    }

    fn investments(&mut self) {
        let figures = &self.facts.figures.dividends;
        let taxable = |own: &'static str, actual: &'static str, factor| match self.has(own) {
            true => (own, self.amount(own)),
            false => (actual, self.amount(actual).times(factor, Money::CENT, Rounding::HalfUp)),
        };
        let eligible = taxable("25", "24", figures.eligible);
        let other = taxable("11", "10", figures.other);
        self.put(eligible.0, None, eligible.1, |own| &mut own.eligible_dividends);
        self.put(other.0, None, other.1, |own| &mut own.other_dividends);
        for field in ["13", "14", "15", "19"] {
            self.put(field, None, self.amount(field), |own| &mut own.interest);
        }
        self.files();
    }

    /// Fees count where they are above the least for a school.
    fn tuition(&mut self) {
        if self.amount("26") > self.facts.figures.tuition.school_least {
            self.give_all(&[("26", |own| &mut own.tuition)]);
        }
        self.files();
    }

    fn contributions(&mut self) {
        self.give_all(&[
            ("limit", |own| &mut own.rrsp_limit),
            ("unused", |own| &mut own.contributions),
            ("repaid", |own| &mut own.repaid),
        ]);
        let figures = &self.facts.figures.rrsp;
        let counted = figures.first_day.0..=figures.last_day.0;
        for (row, cells, amount) in self.paper.lines("amount") {
            let date = cells.get("date").and_then(Entry::date);
            let counts = date.is_none_or(|date| counted.contains(&date));
            if counts && !self.too_old(cells, date) {
                self.put("amount", Some(row), amount, |own| &mut own.contributions);
            }
        }
    }

    /// Whether a contribution came after the year in which the annuitant reaches the last age (ITA 146(5), (5.1)).
    fn too_old(&self, cells: &Answers, date: Option<Date>) -> bool {
        let owner = self.paper.paper.owners.first().and_then(|o| self.paper.household.index_of(&o.person));
        owner.is_some_and(|owner| self.facts.contribution_too_late(owner, cells, date))
    }

    fn medical(&mut self) {
        let payer = self.paper.paper.owners.first().and_then(|o| self.paper.household.index_of(&o.person));
        for (row, cells, paid) in self.paper.lines("amount") {
            let named = cells.get("patient").and_then(Entry::text);
            let patient = named.and_then(|id| self.paper.household.index_of(id)).or(payer);
            let used = cells.get("used").and_then(Entry::flag).unwrap_or(false);
            let back = cells.get("reimbursed").and_then(Entry::money).unwrap_or_default();
            let (Some(date), Some(patient)) = (cells.get("date").and_then(Entry::date), patient) else {
                continue;
            };
            let amount = (paid - back).or_zero();
            if !used && !amount.is_zero() && self.facts.medical_counts(patient) {
                let item = self.paper.item("amount", Some(row), amount);
                self.facts.medical.push(Receipt { date, item });
            }
        }
    }

    fn gifts(&mut self) {
        let year = i64::from(self.facts.figures.year);
        let counted = year - self.facts.figures.gifts.carried_years..=year;
        for (row, cells, amount) in self.paper.lines("amount") {
            let given = cells.get("date").and_then(Entry::date).map(|d| i64::from(d.year()));
            let given = cells.get("year").and_then(Entry::count).or(given).unwrap_or(year);
            let used = cells.get("used").and_then(Entry::flag).unwrap_or(false);
            if counted.contains(&given) && !used {
                self.gift("amount", Some(row), amount);
            }
        }
    }

    /// Partners pool their gifts; those of a dependant are the dependant's own.
    fn gift(&mut self, field: &'static str, row: Option<usize>, amount: Money) {
        let filers = self.paper.shares(Money::ZERO).iter().all(|(p, _)| self.facts.people[*p].filer);
        if filers && !amount.is_zero() {
            self.facts.gifts.push(self.paper.item(field, row, amount));
        }
    }
}
