//! The official forms of the chosen way: which are filed with each return and why the others are not, line by line.

use super::shown::Shown;
use crate::{
    forms::{Form, FormLine, Forms, Required},
    point::{Place, Point, PointDef},
    trail::{Input, Recorded, Scope},
};
use hembo_money::Money;
use serde::Serialize;
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// The forms of one return.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ReturnSchedules {
    /// The return: `return/0`.
    pub scope: String,
    /// Whose it is and what: "Ada Reef · joint".
    pub whose: String,
    /// The people who file it.
    pub people: Vec<String>,
    /// Every form of the year, in official order.
    pub forms: Vec<FormOutcome>,
    /// The return reckoned again from its lines alone.
    pub again: Again,
}

/// A return reckoned again: its results from the lines of the forms alone, as these print it, and nothing of the rules.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Again {
    /// How many results were reckoned again; none where the forms do not say how.
    pub sums: usize,
    /// Those that came out otherwise.
    pub apart: Vec<Apart>,
}

/// A result that came out otherwise.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Apart {
    /// The line.
    pub line: String,
    /// What it is called.
    pub label: String,
    /// What stands there.
    pub amount: Money,
    /// What the other lines make.
    pub again: Money,
}

/// One official form of a return.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormOutcome {
    /// The id.
    pub id: String,
    /// The official number, as it is printed.
    pub name: String,
    /// What it is, in a few words.
    pub title: String,
    /// A worksheet: kept with the return, not filed.
    pub kept: bool,
    /// To whom it goes where that is not the law's first authority: a state.
    pub authority: String,
    /// Whether it is filed, or kept.
    pub required: bool,
    /// Why it is not filed; empty where it is.
    pub why_not: String,
    /// Its lines in the printed order; none where it is not filed.
    pub rows: Vec<FormRow>,
}

/// One line of a form.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormRow {
    /// The printed number; may be empty.
    pub number: String,
    /// Its words, with the person of whom it is where there is a row for each.
    pub title: String,
    /// The line that it shows.
    pub line: String,
    /// Whose: `return/0`, `person/ID`.
    pub scope: String,
    /// The amount; none where the return has no such line.
    pub amount: Option<Money>,
    /// What limits took from it.
    pub lost: Money,
    /// A result.
    pub result: bool,
    /// The other form of the return that the amount comes from as it is: its id.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub from: Option<String>,
}

const APART: PointDef =
    PointDef::blocks("sums-apart", "", "The rules and the forms disagree: do not file, and report it.");

/// Returns whose lines do not make their results.
pub(super) fn points(shown: &Shown<'_>) -> Vec<Point> {
    let forms = shown.pack.forms(shown.household.year);
    let of_return = |place: usize| -> Vec<Point> {
        let person = shown.returns[place].people.first().map(|&p| shown.household.people[p].id.clone());
        let at = Place { person, ..Place::default() };
        let point = |one: Apart| {
            let Apart { label, amount, again, .. } = one;
            APART.at(at.clone(), format!("{label}: {amount:#}, but from the lines of the forms {again:#}."))
        };
        again(shown, forms, place).apart.into_iter().map(point).collect()
    };
    (0..shown.returns.len()).flat_map(of_return).collect()
}

/// A return from its lines alone.
fn again(shown: &Shown<'_>, forms: &Forms, place: usize) -> Again {
    let scope = Scope::Return(place);
    let stands = |line: &str| shown.recorded(line).find(|r| r.scope == scope).map(|r| r.amount);
    let filed = |form: &str| {
        let at = forms.forms.iter().position(|one| one.id == form);
        at.is_some_and(|at| shown.required[place][at] == Required::Yes)
    };
    let made = forms.again(stands, filed);
    let label = |line: &str| shown.pack.declared().line(line).map_or("", |line| line.label).to_owned();
    let apart = made.iter().filter(|(_, there, again)| there != again).map(|&(line, amount, again)| Apart {
        line: line.into(),
        label: label(line),
        amount,
        again,
    });
    Again { sums: made.len(), apart: apart.collect() }
}

/// The forms of every return in the chosen way.
pub(super) fn of(shown: &Shown<'_>) -> Vec<ReturnSchedules> {
    let forms = shown.pack.forms(shown.household.year);
    (0..shown.returns.len()).map(|place| of_return(shown, forms, place)).collect()
}

fn of_return(shown: &Shown<'_>, forms: &Forms, place: usize) -> ReturnSchedules {
    let scope = Scope::Return(place);
    let decided = forms.forms.iter().zip(&shown.required[place]);
    let outcome = |(form, required): (&Form, &Required)| FormOutcome {
        id: form.id.clone(),
        name: form.name.clone(),
        title: form.title.clone(),
        kept: form.kept,
        authority: form.authority.clone(),
        required: *required == Required::Yes,
        why_not: match required {
            Required::No(why) => why.to_string(),
            Required::Yes | Required::Elsewhere => String::new(),
        },
        rows: match required {
            Required::Yes => Sheet { shown, forms, form, place }.rows(),
            Required::No(_) | Required::Elsewhere => Vec::new(),
        },
    };
    ReturnSchedules {
        scope: shown.scope(scope),
        whose: shown.whose(scope),
        people: shown.returns[place].people.iter().map(|&p| shown.household.people[p].id.clone()).collect(),
        forms: decided.filter(|(_, required)| **required != Required::Elsewhere).map(outcome).collect(),
        again: again(shown, forms, place),
    }
}

impl ReturnSchedules {
    /// The forms that go out to an authority, the law's first one where it has no name.
    pub fn going_to<'a>(&'a self, authority: &'a str) -> impl Iterator<Item = &'a FormOutcome> {
        self.forms.iter().filter(move |form| form.required && !form.kept && form.authority == authority)
    }

    /// To whom forms of it go, the law's first authority before others.
    pub fn authorities(&self) -> Vec<&str> {
        let mut all: Vec<&str> = Vec::new();
        for form in self.forms.iter().filter(|form| form.required && !form.kept) {
            if !all.contains(&form.authority.as_str()) {
                all.push(&form.authority);
            }
        }
        all.sort_unstable();
        all
    }
}

/// One form of one return.
struct Sheet<'a> {
    shown: &'a Shown<'a>,
    forms: &'a Forms,
    form: &'a Form,
    /// The return, by its place.
    place: usize,
}

impl Sheet<'_> {
    fn rows(&self) -> Vec<FormRow> {
        let scope = Scope::Return(self.place);
        let mut rows = Vec::new();
        for line in &self.form.lines {
            if line.each {
                rows.extend(self.people(line).map(|person| self.row(line, person)));
            } else {
                rows.push(self.row(line, scope));
            }
        }
        rows
    }

    fn row(&self, line: &FormLine, scope: Scope) -> FormRow {
        let recorded = self.shown.recorded(&line.line).find(|r| r.scope == scope);
        FormRow {
            number: line.number.clone(),
            title: match scope {
                Scope::Return(_) => line.title.clone(),
                Scope::Person(_) => format!("{}: {}", line.title, self.shown.whose(scope)),
            },
            line: line.line.clone(),
            scope: self.shown.scope(scope),
            amount: recorded.map(|r| r.amount),
            lost: self.shown.lost(&line.line, scope),
            result: line.result,
            from: recorded.and_then(|r| self.brought_from(line, r)),
        }
    }

    /// The people whose line of that id enters a line of the return, then those on the return whose line is anything but zero and goes
    /// into other lines of theirs.
    fn people<'s>(&'s self, line: &'s FormLine) -> impl Iterator<Item = Scope> + 's {
        let of_return = move |r: &&Recorded| r.scope == Scope::Return(self.place);
        let inputs = self.shown.trail.lines.iter().filter(of_return).flat_map(|r| &r.inputs.0);
        let entering = inputs.filter_map(move |input| match input {
            Input::Line(id, of @ Scope::Person(_), _) if *id == line.line => Some(*of),
            _ => None,
        });
        let people = self.shown.returns[self.place].people.iter().map(|&person| Scope::Person(person));
        let has =
            move |of: &Scope| self.shown.recorded(&line.line).any(|r| r.scope == *of && !r.amount.is_zero());
        let mut seen = BTreeSet::new();
        entering.chain(people.filter(has)).filter(move |of| seen.insert(*of))
    }

    /// The other form of the return that an amount comes from as it is: that on which the line stands on its own, or the
    /// only line of the same amount that it is made from.
    fn brought_from(&self, line: &FormLine, recorded: &Recorded) -> Option<String> {
        if recorded.amount.is_zero() {
            return None;
        }
        let filed = |form: usize| self.shown.required[self.place][form] == Required::Yes;
        let home = |id: &str| {
            let (at, _) = self.forms.home(id, filed).filter(|(at, _)| filed(*at))?;
            Some(&self.forms.forms[at]).filter(|form| form.id != self.form.id)
        };
        let lines: Vec<_> = recorded.inputs.0.iter().filter(|i| matches!(i, Input::Line(..))).collect();
        let same = match lines[..] {
            [Input::Line(id, of, amount)] if *of == recorded.scope && *amount == recorded.amount => Some(*id),
            _ => None,
        };
        let from = if line.repeats { home(recorded.id) } else { same.and_then(home) };
        from.map(|form| form.id.clone())
    }
}
