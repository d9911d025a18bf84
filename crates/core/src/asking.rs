//! What each answer to a question would do here and now, and what is left blank: so that what decides something is asked
//! first, and nothing is assumed in silence.

use crate::{
    field::{Field, FieldKind},
    household::{Answers, Entry, Household, Role},
    outcome::{Outcome, Wanted, age_on, reckon_until},
    pack::{Pack, Question, Registry},
    point::Place,
    search::Stop,
    words::label_of,
};
use hembo_money::Money;
use serde::Serialize;
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// A question of a person or the household with what its answers would do.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Asked {
    /// The question.
    pub field: String,
    /// Whether an answer would change something here and now; also where that was not tried.
    pub decides: bool,
    /// What each answer would do, for questions of yes or no and of a few choices.
    pub answers: Vec<Answered>,
}

/// What an answer would do, against the household as it stands.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Answered {
    /// The answer.
    #[schema(value_type = Object)]
    pub value: Entry,
    /// The change of the lowest tax, where both are results.
    pub total: Option<Money>,
    /// How many open points it settles.
    pub settles: usize,
    /// How many it raises.
    pub raises: usize,
    /// Whether the figures would be a result.
    pub covered: bool,
}

/// A blank that is read as something.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Blank {
    /// Where.
    pub place: Place,
    /// The question or box.
    pub label: String,
    /// What it is read as: "No", "0", "Yes", a choice.
    pub read_as: String,
}

/// The amount that is tried where one is asked for.
const TRIED: Money = Money::whole(10_000);

/// Choices of more options than this are not tried.
const FEW: usize = 12;

/// The questions of a person, or of the household where none is named, with what their answers would do; nothing where
/// the household cannot be reckoned, or it was stopped.
pub fn asked(household: &Household, registry: &Registry, person: Option<&str>, stop: &Stop) -> Vec<Asked> {
    let Some(pack) = registry.pack(&household.country) else { return Vec::new() };
    let reckon = |household: &Household| reckon_until(household, registry, Wanted::least(1), stop).ok();
    let Some(now) = reckon(household) else { return Vec::new() };
    let ask = |(field, sensible): &(Field, bool)| {
        if !sensible {
            return Asked { field: field.id.into(), decides: false, answers: Vec::new() };
        }
        let tried = values(field, household).into_iter().filter_map(|value| {
            let then = reckon(&with(household, person, field, value.clone()))?;
            Some(answered(&now, &then, value))
        });
        let answers: Vec<_> = tried.collect();
        let change = |a: &Answered| {
            a.total.is_some_and(|t| !t.is_zero()) || a.settles + a.raises > 0 || a.covered != now.covered
        };
        Asked { field: field.id.into(), decides: answers.is_empty() || answers.iter().any(change), answers }
    };
    questions(household, pack, person).iter().map(ask).collect()
}

/// The questions that are asked of a person, or of the household, in its year, and whether they make sense for that person.
fn questions(household: &Household, pack: &dyn Pack, person: Option<&str>) -> Vec<(Field, bool)> {
    let held = |(field, _): &(Field, bool)| field.applies(household);
    let Some(person) = person else {
        return pack.household_questions().iter().map(|field| (*field, true)).filter(held).collect();
    };
    let Some(person) = household.person(person) else { return Vec::new() };
    let (_, end) = pack.span(household.year);
    let age = person.born.map(|born| age_on(born, end));
    let sensible =
        |q: &Question| age.is_none_or(|age| age >= q.from_age.into()) && pack.is_asked(household, person, q);
    of_role(pack, person.role).map(|q| (q.field, sensible(q))).filter(held).collect()
}

fn of_role(pack: &dyn Pack, role: Role) -> impl Iterator<Item = &Question> {
    pack.person_questions().iter().filter(move |q| q.of.contains(&role))
}

/// The answers that are tried: yes and no, each of a few choices, each filer, a large number, a large amount.
pub(crate) fn values(field: &Field, household: &Household) -> Vec<Entry> {
    match field.kind {
        FieldKind::YesNo => vec![Entry::Flag(true), Entry::Flag(false)],
        FieldKind::Choice { options } if options.len() <= FEW => {
            options.iter().map(|o| Entry::Text(o.id.into())).collect()
        }
        // A year is asked for as a number, too.
        FieldKind::Count { max } if max > 1_900 => vec![Entry::Count(i64::from(household.year) - 1)],
        FieldKind::Count { max } => vec![Entry::Count(max)],
        FieldKind::Amount { .. } => vec![Entry::Text(TRIED.to_string())],
        FieldKind::Person => household.filers().map(|(_, p)| Entry::Text(p.id.clone())).collect(),
        _ => Vec::new(),
    }
}

fn with(household: &Household, person: Option<&str>, field: &Field, value: Entry) -> Household {
    let mut changed = household.clone();
    let answers = match person {
        None => Some(&mut changed.answers),
        Some(id) => changed.people.iter_mut().find(|p| p.id == id).map(|p| &mut p.answers),
    };
    if let Some(answers) = answers {
        answers.insert(field.id.into(), value);
    }
    changed
}

fn answered(now: &Outcome, then: &Outcome, value: Entry) -> Answered {
    let open = |outcome: &Outcome| -> BTreeSet<String> {
        outcome.points.iter().filter(|p| p.dismissed.is_none()).map(|p| p.id.clone()).collect()
    };
    let (was, is) = (open(now), open(then));
    Answered {
        value,
        total: (now.covered && then.covered).then(|| then.total - now.total),
        settles: was.difference(&is).count(),
        raises: is.difference(&was).count(),
        covered: then.covered,
    }
}

fn told(field: &Field, entry: &Entry) -> String {
    match (field.kind, entry) {
        (_, Entry::Flag(yes)) => if *yes { "Yes" } else { "No" }.into(),
        // A year is asked for as a number, too: there is no year zero.
        (FieldKind::Count { max }, Entry::Count(0)) if max > 1_900 => "none".into(),
        (_, Entry::Count(count)) => count.to_string(),
        (FieldKind::Choice { options }, Entry::Text(id)) => label_of(options, id).unwrap_or(id).into(),
        (_, Entry::Text(text)) => text.clone(),
    }
}

/// What is left blank and read as something: questions, and boxes of yes or no on papers. What an open point asks for is
/// not among them.
pub fn blanks(household: &Household, pack: &dyn Pack, outcome: &Outcome) -> Vec<Blank> {
    let mut found = Vec::new();
    let mut add = |place: Place, field: &Field, read_as: Option<Entry>, answers: &Answers| {
        let Some(entry) = read_as else { return };
        let asked = outcome.points.iter().any(|p| p.place == place);
        if !answers.contains_key(field.id) && field.applies(household) && !asked {
            found.push(Blank { place, label: field.label.into(), read_as: told(field, &entry) });
        }
    };
    for field in pack.household_questions() {
        add(Place::household(field.id), field, field.blank_entry(), &household.answers);
    }
    for person in &household.people {
        for question in of_role(pack, person.role) {
            let field = &question.field;
            add(Place::person(&person.id, field.id), field, pack.blank(person, field), &person.answers);
        }
    }
    for paper in &household.papers {
        let kind = pack.paper_kinds().iter().find(|k| k.id == paper.kind);
        let boxes = kind.map_or(&[][..], |k| k.boxes).iter();
        for field in boxes.filter(|f| matches!(f.kind, FieldKind::YesNo)) {
            add(Place::paper(&paper.id, field.id), field, field.blank_entry(), &paper.boxes);
        }
    }
    found
}
