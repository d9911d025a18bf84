//! What is filed: a return of the chosen way as a package, and what became of it beside what was filed.

use crate::error::{Answer, Problem};
use hembo_authority::wire::{self, Package, Taxpayer};
use hembo_core::{Household, Outcome, Pack, check::digits, outcome::ReturnSchedules};
use hembo_money::Money;
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// The package of a return to an authority, with the schedules' values and the papers behind them; nothing of the practice's own work.
///
/// # Errors
/// Someone on it who has no number.
pub fn package(
    household: &Household,
    outcome: &Outcome,
    pack: &dyn Pack,
    of: &ReturnSchedules,
    authority: &str,
    amends: Option<&str>,
) -> Answer<Package> {
    let filer = |id: &String| {
        let person = household.person(id).ok_or_else(|| Problem::not_found("person"))?;
        let number = person.id_number.as_deref();
        let number = number.ok_or_else(|| {
            Problem::outside(format!("{} has no identification number: enter it first.", person.name))
        })?;
        Ok(Taxpayer { name: person.name.clone(), number: digits(number) })
    };
    let (total, balance) = outcome.of_return(&of.scope, authority, pack);
    let forms = of.going_to(authority).map(|form| wire::Form {
        name: form.name.clone(),
        lines: form
            .rows
            .iter()
            .filter_map(|row| {
                Some(wire::Line {
                    line: row.line.clone(),
                    scope: row.scope.clone(),
                    number: row.number.clone(),
                    title: row.title.clone(),
                    amount: row.amount?,
                })
            })
            .collect(),
    });
    let mut sent = without_own_work(household);
    for paper in &mut sent.papers {
        paper.held = None;
        paper.before.clear();
    }
    Ok(Package {
        scope: of.scope.clone(),
        authority: authority.to_owned(),
        filers: of.people.iter().map(filer).collect::<Answer<_>>()?,
        amends: amends.map(str::to_owned),
        total,
        balance,
        forms: forms.collect(),
        way: outcome.ways.first().map(|way| way.options.clone()).unwrap_or_default(),
        household: sent,
    })
}

/// A household without the practice's own work.
pub fn without_own_work(household: &Household) -> Household {
    let mut sent = without_keeping(household);
    sent.dismissed.clear();
    sent.refused.clear();
    sent.pins.clear();
    sent.pin_reasons.clear();
    sent.worth.clear();
    sent.before = None;
    sent
}

/// A household without how its papers are kept and looked after, and without the practice's own number: what of it no
/// return says.
pub fn without_keeping(household: &Household) -> Household {
    let mut kept = household.clone();
    kept.reference = String::new();
    for paper in &mut kept.papers {
        paper.checked = false;
        paper.changed.clear();
        paper.proof = false;
        paper.proven.clear();
        paper.files.clear();
    }
    kept
}

/// A line that was assessed otherwise than it was filed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct AssessedLine {
    /// The form and the printed number.
    pub form: String,
    pub number: String,
    pub title: String,
    pub line: String,
    pub scope: String,
    pub filed: Option<Money>,
    pub assessed: Option<Money>,
}

/// What was assessed otherwise, in the order of the forms that were filed.
pub fn otherwise(package: &Package, assessment: &wire::Assessment) -> Vec<AssessedLine> {
    let mut assessed: BTreeMap<(&str, &str), Money> = BTreeMap::new();
    for line in &assessment.lines {
        assessed.insert((&line.line, &line.scope), line.amount);
    }
    let mut found: Vec<AssessedLine> = Vec::new();
    for form in &package.forms {
        for line in &form.lines {
            let now = assessed.get(&(line.line.as_str(), line.scope.as_str())).copied();
            let same = now == Some(line.amount) || (now.is_none() && line.amount.is_zero());
            let told = found.iter().any(|one| (&one.line, &one.scope) == (&line.line, &line.scope));
            if !same && !told {
                found.push(AssessedLine {
                    form: form.name.clone(),
                    number: line.number.clone(),
                    title: line.title.clone(),
                    line: line.line.clone(),
                    scope: line.scope.clone(),
                    filed: Some(line.amount),
                    assessed: now,
                });
            }
        }
    }
    let filed = |line: &&wire::Line| {
        package
            .forms
            .iter()
            .flat_map(|form| &form.lines)
            .any(|one| one.line == line.line && one.scope == line.scope)
    };
    let new = assessment.lines.iter().filter(|line| !line.amount.is_zero() && !filed(line));
    found.extend(new.map(|line| AssessedLine {
        form: String::new(),
        number: line.number.clone(),
        title: line.title.clone(),
        line: line.line.clone(),
        scope: line.scope.clone(),
        filed: None,
        assessed: Some(line.amount),
    }));
    found
}
