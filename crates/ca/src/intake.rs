//! Papers become facts once: the household's loose papers as typed amounts, each with its box.

use crate::{
    bringing::Bringing,
    cpp_ei,
    facts::{Contributions, Facts, PersonFacts},
    figures::Figures,
    homes, law, medical, people, personal, province, residence, workers_benefit,
};
use hembo_core::{
    Household, Person,
    household::{Entry, Role},
    outcome::age_on,
    pack::calendar_year,
    reading::Reading,
};
use std::sync::Arc;
use time::Date;

/// Reads a checked household.
pub fn read(household: &Household, figures: &Arc<Figures>) -> Facts {
    let (year_begin, year_end) = calendar_year(figures.year);
    let answer = |id: &str| household.answers.get(id);
    let text = |id: &str| answer(id).and_then(Entry::text);
    let filers: Vec<usize> = household.filers().map(|(i, _)| i).collect();
    let partnered = match text(people::ask::MARITAL) {
        Some(status) => matches!(status, "married" | "common_law"),
        None => filers.len() == 2,
    };
    let mut facts = Facts {
        figures: Arc::clone(figures),
        year_begin,
        year_end,
        people: household.people.iter().map(|p| person(p, year_end)).collect(),
        couple: partnered && filers.len() == 2,
        partnered,
        filers,
        returns: Vec::new(),
        months_together: answer(people::ask::MONTHS_TOGETHER).and_then(Entry::count).unwrap_or(12),
        province: text(residence::ask::PROVINCE).and_then(province::computed),
        province_code: text(residence::ask::PROVINCE).map(str::to_owned),
        medical: Vec::new(),
        windows: Vec::new(),
        gifts: Vec::new(),
    };
    for paper in Reading::all(household) {
        law::read(&mut Bringing { paper, facts: &mut facts });
    }
    let dependants = (0..facts.people.len()).filter(|p| !facts.filers.contains(p));
    let own = dependants.filter(|&p| facts.people[p].files);
    facts.returns = facts.filers.iter().copied().chain(own).collect();
    for person in 0..facts.people.len() {
        facts.people[person].contributed = cpp_ei::read(&facts, person);
    }
    facts.medical.sort_by_key(|r| r.date);
    facts.windows = medical::windows(&facts);
    facts
}

fn person(person: &Person, year_end: Date) -> PersonFacts {
    let flag = |id: &str| person.answers.get(id).and_then(Entry::flag).unwrap_or(false);
    let relationship = person.answers.get(people::ask::RELATIONSHIP).and_then(Entry::text).unwrap_or("child");
    PersonFacts {
        name: person.name.clone(),
        id: person.id.clone(),
        filer: person.role == Role::Filer,
        born: person.born,
        died: person.died,
        age: person.born.map(|born| age_on(born, year_end)),
        child: relationship == "child",
        elder: matches!(relationship, "parent" | "grandparent"),
        descendant: matches!(relationship, "child" | "grandchild"),
        full_time_student: person.answers.get(workers_benefit::ask::FULL_TIME_STUDENT).and_then(Entry::flag),
        young_relative: matches!(relationship, "child" | "grandchild" | "sibling"),
        infirm: flag(people::ask::INFIRM),
        support_paid: flag(personal::ask::SUPPORT_PAID),
        claimed_elsewhere: flag(personal::ask::CLAIMED_ELSEWHERE),
        maintains_home: flag(homes::ask::MAINTAINS_HOME),
        lives_here: person.lived_with.values().any(|&months| months > 0),
        other_net_income: person
            .answers
            .get(people::ask::NET_INCOME)
            .and_then(Entry::money)
            .unwrap_or_default(),
        contributed: Contributions::default(),
        ..PersonFacts::default()
    }
}
