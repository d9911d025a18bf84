//! Papers become facts once: the household's loose papers as typed amounts, each with its box.

use crate::{
    bringing::Bringing,
    business, california, care, community, dependents, earned_income_credit, educators, elderly,
    excess_deferrals,
    facts::{Facts, Marital, PersonFacts, Relationship, Residency},
    figures::Figures,
    foreign_accounts, income, kiddie, law, multiple_support, nonresident,
    papers::tuition,
    people, release, retirement, saver, schedule_a, scholarships, standard_deduction, states, status,
    tie_breaker,
};
use hembo_core::{
    Household, Person,
    household::{Entry, Role},
    pack::calendar_year,
    reading::Reading,
};
use std::sync::Arc;

/// Reads a checked household: the facts of every return, and those of separate ones where they divide community property.
pub fn read(household: &Household, figures: &Arc<Figures>) -> (Facts, Option<Facts>) {
    let Some(divided) = community::divided(household) else {
        return (read_as(household, household, figures), None);
    };
    let apart = Facts { divided: true, ..read_as(household, &divided, figures) };
    (read_as(household, household, figures), Some(apart))
}

/// The facts of a household with the owners of its papers that `owned` has.
fn read_as(household: &Household, owned: &Household, figures: &Arc<Figures>) -> Facts {
    let (_, year_end) = calendar_year(figures.year);
    let answer = |id: &str| household.answers.get(id);
    let flag = |id: &str| answer(id).and_then(Entry::flag).unwrap_or(false);
    let filers: Vec<usize> = household.filers().map(|(i, _)| i).collect();
    let marital = match answer(status::ask::MARITAL).and_then(Entry::text) {
        Some("married") => Marital::Married,
        Some("widowed") => Marital::Widowed,
        Some(_) => Marital::Unmarried,
        None if filers.len() == 2 => Marital::Married,
        None => Marital::Unmarried,
    };
    let mut facts = Facts {
        figures: Arc::clone(figures),
        year_end,
        people: household.people.iter().map(|p| person(household, p)).collect(),
        marital,
        apart: answer(status::ask::APART).and_then(Entry::flag),
        apart_all_year: answer(status::ask::APART_ALL_YEAR).and_then(Entry::flag),
        spouse_itemizes: flag(status::ask::SPOUSE_ITEMIZES),
        foreign_account: answer(foreign_accounts::ask::FOREIGN_ACCOUNT).and_then(Entry::flag),
        state: answer(states::ask::STATE).and_then(Entry::text).map(str::to_owned),
        of_state: california::read::read(household, figures),
        estimated_together: Vec::new(),
        alone: Vec::new(),
        divided: false,
        own_returns: Vec::new(),
        filers,
    };
    for (titled, paper) in Reading::all(household).zip(Reading::all(owned)) {
        law::read(&mut Bringing { paper, titled, facts: &mut facts });
    }
    business::join_statutory(&mut facts);
    business::join_offices(&mut facts);
    for person in 0..facts.people.len() {
        let alone = income::alone(&facts, person);
        let about = &mut facts.people[person];
        about.gross_income = alone.gross + about.other_gross_income;
        about.unearned_alone = alone.unearned;
        about.agi_alone = alone.agi;
    }
    facts.alone = facts.filers.iter().map(|&f| status::alone(&facts, f)).collect();
    for person in 0..facts.people.len() {
        let taught = educators::any_rest(&facts, person);
        let about = &mut facts.people[person];
        about.can_itemize = taught || schedule_a::anything(&about.own);
    }
    for student in tuition::students(&facts) {
        facts.people[student].scholarship = scholarships::amounts(&facts, student);
    }
    let has_return = |&p: &usize| facts.people[p].has_income || facts.people[p].scholarship.len() > 1;
    facts.own_returns = facts.candidates().filter(has_return).collect();
    facts
}

fn person(household: &Household, person: &Person) -> PersonFacts {
    let said = |id: &str| person.answers.get(id).and_then(Entry::flag);
    let flag = |id: &str| said(id).unwrap_or(false);
    let count = |id: &str| person.answers.get(id).and_then(Entry::count);
    let amount = |id: &str| person.answers.get(id).and_then(Entry::money).unwrap_or_default();
    let text = |id: &str| person.answers.get(id).and_then(Entry::text);
    // A child of age is in nobody's custody, and nothing is released (Reg. §1.152-4(c)).
    let in_custody = said(release::ask::CUSTODY) != Some(false);
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
        relationship: text(dependents::ask::RELATIONSHIP).and_then(relationship),
        relationship_second: text(dependents::ask::RELATIONSHIP_SECOND).and_then(relationship),
        student_months_said: person.answers.contains_key(dependents::ask::STUDENT_MONTHS),
        student_months: count(dependents::ask::STUDENT_MONTHS).unwrap_or(0),
        blind: flag(standard_deduction::ask::BLIND),
        disabled: flag(dependents::ask::DISABLED),
        married: said(dependents::ask::MARRIED),
        files_joint: flag(dependents::ask::FILES_JOINT),
        self_support: flag(dependents::ask::SELF_SUPPORT),
        supported: said(dependents::ask::SUPPORTED),
        supported_alone_by: text(dependents::ask::SUPPORTED_ALONE_BY).and_then(|id| household.index_of(id)),
        multiple_support: text(multiple_support::ask::NAMED).and_then(|id| household.index_of(id)),
        residency: match text(dependents::ask::RESIDENCY) {
            Some("canada_mexico") => Residency::CanadaOrMexico,
            Some("other") => Residency::Other,
            _ => Residency::UnitedStates,
        },
        work_ssn: said(people::ask::WORK_SSN).unwrap_or_else(|| people::number_for_work(person)),
        other_gross_income: amount(dependents::ask::OTHER_GROSS_INCOME),
        claimable: flag(dependents::ask::CLAIMABLE),
        in_custody: said(release::ask::CUSTODY),
        released_away: flag(release::ask::AWAY) && in_custody,
        released_to: text(release::ask::TO).filter(|_| in_custody).and_then(|id| household.index_of(id)),
        child_elsewhere: flag(dependents::ask::CHILD_ELSEWHERE),
        parent_could_claim: said(tie_breaker::ask::PARENT),
        parent_income: amount(tie_breaker::ask::PARENT_INCOME),
        parent_alive: said(kiddie::ask::PARENT_ALIVE),
        earned_over_half: said(kiddie::ask::EARNED_OVER_HALF),
        nonresident_alien: flag(nonresident::ask::NONRESIDENT_ALIEN),
        income_from_us: said(nonresident::ask::FROM_HERE),
        paid_home: said(status::ask::PAID_HOME),
        home_abroad: flag(earned_income_credit::ask::HOME_ABROAD),
        spouse_died: count(status::ask::SPOUSE_DIED),
        incapable: flag(care::ask::INCAPABLE),
        deemed_months: count(care::ask::DEEMED).unwrap_or(0),
        disability_income: amount(elderly::ask::DISABILITY_INCOME),
        untaxed_pensions: amount(elderly::ask::UNTAXED_PENSIONS),
        testing_distributions: amount(saver::ask::TESTING),
        ira_deducted_since: amount(retirement::ask::DEDUCTED_SINCE),
        fifteen_years_catch_up: amount(excess_deferrals::ask::FIFTEEN_YEARS),
        ..PersonFacts::default()
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
