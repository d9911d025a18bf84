//! What an authority assesses by itself of what it holds, beside what was keyed: line by line, with the papers that make the difference.

use super::outside::{granted, outside};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    filing::{AssessedLine, otherwise, package, without_own_work},
    offered::{Offered, Stands, Table},
    work,
};
use axum::{
    Json,
    extract::{Path, State},
};
use hembo_authority::wire::{AskAssessment, OwnAssessment, Scope};
use hembo_core::{
    Household, Outcome, Pack,
    dates::DueDate,
    household::{Entry, Paper, date},
    outcome::Wanted,
    own_assessment::ASKED,
};
use hembo_money::Money;
use serde::Serialize;
use std::collections::BTreeSet;
use utoipa::ToSchema;
use uuid::Uuid;

/// What the authority assesses by itself.
#[derive(Serialize, ToSchema)]
#[schema(as = OwnAssessmentView)]
#[allow(missing_docs)]
pub struct View {
    pub returns: Vec<OwnReturn>,
    /// Papers that were keyed and that it does not hold.
    pub not_held: Vec<String>,
    /// Slips that it holds and that were not keyed, or say something else.
    pub not_keyed: Vec<String>,
}

/// Its assessment of one return beside ours.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct OwnReturn {
    pub scope: String,
    pub whose: String,
    /// Whose answer says what becomes of it.
    pub person: String,
    /// What was answered: `accept`, `change`.
    pub taken: Option<String>,
    /// Until when it may be changed, and how.
    pub dates: Vec<DueDate>,
    /// ISO 8601.
    pub on: String,
    /// What it is made of.
    pub made_of: Vec<String>,
    /// Ours.
    pub total: Money,
    pub balance: Money,
    /// Its own.
    pub own_total: Money,
    pub own_balance: Money,
    /// The lines that differ: ours as filed, its own as assessed.
    pub lines: Vec<AssessedLine>,
}

/// The authority's own assessment beside what was keyed.
#[utoipa::path(get, path = "/api/households/{id}/own-assessment", params(("id" = Uuid, Path)),
    responses((status = 200, body = View), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 502, body = Problem)))]
pub async fn own_assessment(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<View>> {
    let (table, _) = Table::of(&app, id).await?;
    if !table.pack.assesses_itself() {
        return Err(Problem::outside("Under this law nobody is assessed before a return is filed."));
    }
    let consent = granted(&app, id, Scope::Papers).await?;
    let people = Household { papers: Vec::new(), ..without_own_work(&table.household) };
    let asked = AskAssessment { household: people };
    let own = outside(&app)?.own_assessments(&consent.number, &asked).await?;
    let offered = table.offered();
    let (not_held, not_keyed) = (not_held(&table.household, &offered), not_keyed(&offered));
    let wanted = Wanted { schedules: true, ..Wanted::least(1) };
    let (household, outcome, _) = work::whole(&app, table.household.clone(), wanted).await?;
    let pack = table.pack;
    let returns =
        own.iter().map(|own| of_return(&household, &outcome, pack, own)).collect::<Answer<Vec<_>>>()?;
    Ok(Json(View { returns: returns.into_iter().flatten().collect(), not_held, not_keyed }))
}

/// One return beside ours; nothing where there is none of that scope here.
fn of_return(
    household: &Household,
    outcome: &Outcome,
    pack: &dyn Pack,
    own: &OwnAssessment,
) -> Answer<Option<OwnReturn>> {
    let Some(of) = outcome.schedules.iter().find(|of| of.scope == own.scope) else { return Ok(None) };
    let ours = package(household, outcome, pack, of, "", None)?;
    // Under such a law each files alone: the return is of one person.
    let person = of.people.first().and_then(|id| household.person(id));
    let taken = person.and_then(|person| person.answers.get(ASKED)).and_then(Entry::text);
    let issued = date::parse(&own.assessment.on);
    Ok(Some(OwnReturn {
        person: person.map(|person| person.id.clone()).unwrap_or_default(),
        taken: taken.map(str::to_owned),
        dates: issued.map(|on| pack.own_assessment_dates(household.year, on)).unwrap_or_default(),
        scope: own.scope.clone(),
        whose: of.whose.clone(),
        on: own.assessment.on.clone(),
        made_of: own.assessment.otherwise.clone(),
        total: ours.total,
        balance: ours.balance,
        own_total: own.assessment.total,
        own_balance: own.assessment.balance,
        lines: otherwise(&ours, &own.assessment),
    }))
}

/// Papers that no slip is.
fn not_held(household: &Household, offered: &[Offered]) -> Vec<String> {
    let held: BTreeSet<&str> = offered
        .iter()
        .filter(|one| !matches!(one.state, Stands::Gone))
        .filter_map(|one| one.paper.as_deref())
        .collect();
    let name = |paper: &Paper| format!("{} {}", paper.kind, paper.title).trim_end().to_owned();
    household.papers.iter().filter(|paper| !held.contains(paper.id.as_str())).map(name).collect()
}

/// Slips that are no paper here, or say something else than it.
fn not_keyed(offered: &[Offered]) -> Vec<String> {
    let apart = |one: &&Offered| !matches!(one.state, Stands::Agrees | Stands::Gone);
    offered
        .iter()
        .filter(apart)
        .map(|one| format!("{} {}", one.kind, one.title).trim_end().to_owned())
        .collect()
}
