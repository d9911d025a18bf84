//! Papers become facts once: the household's loose papers as typed amounts, each with its box.

use crate::{
    bringing::Bringing,
    british_columbia, child_care,
    days::{self, Answered},
    disability,
    facts::{Facts, PersonFacts, Volunteer},
    family_benefits,
    figures::Figures,
    homes, law, medical_division, medical_months, net_income,
    papers::insurance::brings::{ASSISTANCE, ASSISTANCE_PAID},
    part_year, partner_elsewhere, people, personal, province, provinces, told, volunteers, workers_benefit,
};
use hembo_core::{
    Household, Person,
    household::{Entry, Role},
    outcome::age_on,
    pack::calendar_year,
    reading::Reading,
    settled,
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
        Some("widowed") => of_couple_died(household, [year_begin, year_end]),
        Some(status) => matches!(status, "married" | "common_law"),
        None => filers.len() == 2,
    };
    let apart_since = answer(people::ask::SEPARATED_ON).and_then(Entry::date);
    let separated = text(people::ask::MARITAL) == Some("separated")
        && apart_since.is_some_and(|day| (year_begin..=year_end).contains(&day));
    let mut facts = Facts {
        figures: Arc::clone(figures),
        year_begin,
        year_end,
        people: household.people.iter().map(|p| person(p, [year_begin, year_end], figures)).collect(),
        couple: partnered && filers.len() == 2,
        elsewhere: household
            .people
            .iter()
            .position(partner_elsewhere::is_one)
            .filter(|_| partnered && filers.len() == 1),
        former: answer(people::ask::FORMER_NET).and_then(Entry::money).filter(|_| separated),
        partnered,
        filers,
        returns: Vec::new(),
        months_together: answer(people::ask::MONTHS_TOGETHER).and_then(Entry::count).unwrap_or(12),
        province: text(provinces::ask::PROVINCE).and_then(province::computed),
        province_code: text(provinces::ask::PROVINCE).map(str::to_owned),
        care_by_agreement: false,
        care_weeks_both: answer(child_care::ask::WEEKS_BOTH).and_then(Entry::count).unwrap_or(0),
        counts_benefits: answer(family_benefits::ask::COUNTED).and_then(Entry::flag).unwrap_or(false),
        assistance_settled: true,
        rented_months: answer(british_columbia::ask::RENTED).and_then(Entry::count).unwrap_or(0),
        medical: Vec::new(),
        medical_of_dead: vec![Vec::new(); household.people.len()],
        claimed_of_dead: Vec::new(),
        medical_of_others: vec![Vec::new(); household.people.len()],
        windows: Vec::new(),
        division: None,
        gifts: Vec::new(),
        businesses: Vec::new(),
    };
    if let Some(deceased) = facts.deceased() {
        facts.months_together = settled::lesser(facts.months_together, facts.last_month(deceased));
    }
    for paper in Reading::all(household) {
        law::read(&mut Bringing { paper, facts: &mut facts });
    }
    let dependants = (0..facts.people.len()).filter(|p| !facts.filers.contains(p));
    let own = dependants.filter(|&p| facts.people[p].files && facts.elsewhere != Some(p));
    facts.returns = facts.filers.iter().copied().chain(own).collect();
    facts.medical.sort_by_key(|r| r.date);
    for receipts in facts.medical_of_others.iter_mut().chain(&mut facts.medical_of_dead) {
        receipts.sort_by_key(|r| r.date);
    }
    assistance(&mut facts);
    facts.claimed_of_dead = medical_months::claimed_of_dead(&facts);
    facts.windows = medical_months::windows(&facts);
    facts.division = medical_division::division(&facts);
    facts.care_by_agreement = net_income::same_before_care(&facts);
    facts
}

/// Whether there is a couple of whom one died in the year, so that the other is widowed at its end.
fn of_couple_died(household: &Household, [year_begin, year_end]: [Date; 2]) -> bool {
    let adults = household.people.iter().filter(|p| p.role == Role::Filer || partner_elsewhere::is_one(p));
    let died = adults.clone().filter(|p| p.died.is_some_and(|day| (year_begin..=year_end).contains(&day)));
    adults.count() == 2 && died.count() > 0
}

/// Gives assistance to whose income it is (56(1)(u)): of a couple to the one with more net income, where no way changes which; with
/// the same to whom it was paid.
fn assistance(facts: &mut Facts) {
    let pair = facts.pair().filter(|pair| pair.iter().any(|&p| facts.people[p].own.has(&ASSISTANCE_PAID)));
    let higher = pair.and_then(|pair| {
        let [one, other] = pair.map(|person| net_income::widest(facts, person));
        facts.assistance_settled = one.0 > other.1 || other.0 > one.1 || (one == other && one.0 == one.1);
        match () {
            () if one.0 > other.1 => Some(pair[0]),
            () if other.0 > one.1 => Some(pair[1]),
            () => None,
        }
    });
    for person in 0..facts.people.len() {
        let paid = facts.people[person].own.of(&ASSISTANCE_PAID).to_vec();
        let in_pair = pair.is_some_and(|pair| pair.contains(&person));
        let whose = higher.filter(|_| in_pair).unwrap_or(person);
        for item in paid {
            facts.people[whose].own.add(&ASSISTANCE, item);
        }
    }
}

fn person(person: &Person, [year_begin, year_end]: [Date; 2], figures: &Figures) -> PersonFacts {
    let flag = |id: &str| person.answers.get(id).and_then(Entry::flag).unwrap_or(false);
    let count = |id: &str| person.answers.get(id).and_then(Entry::count).unwrap_or(0);
    let money = |id: &str| person.answers.get(id).and_then(Entry::money).unwrap_or_default();
    let day = |id: &str| person.answers.get(id).and_then(Entry::date);
    let relationship = person.answers.get(people::ask::RELATIONSHIP).and_then(Entry::text).unwrap_or("child");
    PersonFacts {
        name: person.name.clone(),
        id: person.id.clone(),
        filer: person.role == Role::Filer,
        born: person.born,
        part_year: days::part_year(
            [year_begin, year_end],
            figures.part_year.canadian_least,
            Answered {
                came: day(part_year::ask::CAME),
                left: day(part_year::ask::LEFT),
                world: money(part_year::ask::WORLD),
                canadian: money(part_year::ask::CANADIAN),
            },
        ),
        died: person.died,
        age: person
            .born
            .map(|born| age_on(born, person.died.map_or(year_end, |died| settled::lesser(died, year_end)))),
        child: relationship == "child",
        elder: matches!(relationship, "parent" | "grandparent"),
        descendant: matches!(relationship, "child" | "grandchild"),
        full_time_student: person.answers.get(workers_benefit::ask::FULL_TIME_STUDENT).and_then(Entry::flag),
        young_relative: matches!(relationship, "child" | "grandchild" | "sibling"),
        related: !matches!(relationship, "other" | partner_elsewhere::RELATIONSHIP),
        infirm: flag(people::ask::INFIRM),
        disabled: flag(people::ask::DISABILITY) && !flag(disability::ask::ATTENDANT),
        volunteer: person
            .answers
            .get(volunteers::ask::VOLUNTEER)
            .and_then(Entry::text)
            .and_then(Volunteer::read),
        care_weeks: count(child_care::ask::WEEKS),
        care_months: count(child_care::ask::MONTHS),
        care_claimed: money(disability::ask::CARE),
        support_paid: flag(personal::ask::SUPPORT_PAID),
        claimed_elsewhere: flag(personal::ask::CLAIMED_ELSEWHERE),
        maintains_home: flag(homes::ask::MAINTAINS_HOME),
        shared_custody: flag(people::ask::SHARED_CUSTODY),
        lives_here: person.lived_with.values().any(|&months| months > 0),
        other_net_income: money(people::ask::NET_INCOME),
        not_taxed: money(people::ask::NOT_TAXED),
        told: told::read(person),
        ..PersonFacts::default()
    }
}
