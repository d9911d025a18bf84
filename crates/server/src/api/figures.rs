//! Rule figures: read by everyone, replaced for the practice by an administrator. What a replacement would change is weighed
//! before it is kept, household by household.

use super::Input;
use crate::{
    App,
    auth::{Administrator, By},
    error::{Answer, Problem},
    rules,
    store::figures as store,
    work::{self, Then},
};
use axum::{
    Json,
    extract::{Path, State},
    http::StatusCode,
};
use hembo_core::{
    Registry, check,
    figures::{self, Replacement, Table, replacing},
};
use serde::{Deserialize, Serialize};
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// How many households one answer weighs.
const AT_ONCE: i64 = 5;
/// How long the source and the reason may be.
const LONGEST: usize = 500;

/// The rule figures of a pack.
#[derive(Serialize, ToSchema)]
pub struct RuleFigures {
    /// The years that stand side by side, latest first.
    pub years: Vec<i32>,
    /// Those that are for planning only.
    pub planning: Vec<i32>,
    /// Every table, in the order of the latest rule file, with the practice's own figures in place.
    pub tables: Vec<Table>,
    /// What the practice replaced, the newest first, with what has ended.
    pub replaced: Vec<Replaced>,
}

/// A figure of the practice's own.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Replaced {
    pub id: Uuid,
    pub year: i32,
    pub table: String,
    pub figure: String,
    /// What stood there before.
    pub was: String,
    pub value: String,
    pub source: String,
    pub why: String,
    pub by: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
    /// Who took it back or replaced it again.
    pub ended_by: Option<String>,
    #[serde(with = "time::serde::rfc3339::option")]
    pub ended_at: Option<OffsetDateTime>,
}

/// The rule figures of a country: every table over its years, with its source and what it is used for.
#[utoipa::path(
    get, path = "/api/packs/{id}/figures", params(("id" = String, Path, description = "The pack, by its id.")),
    responses((status = 200, body = RuleFigures), (status = 404, body = Problem))
)]
pub async fn rule_figures(
    State(app): State<App>,
    _: By,
    Path(id): Path<String>,
) -> Answer<Json<RuleFigures>> {
    shown(&app, &id).await.map(Json)
}

async fn shown(app: &App, country: &str) -> Answer<RuleFigures> {
    let registry = app.rules.now(&app.database).await?;
    let pack = registry.pack(country).ok_or_else(|| Problem::not_found("country"))?;
    // A rule file that cannot be read fails the pack's own test: there is none at run time.
    let tables = figures::tables(pack.rules(), pack.declared()).unwrap_or_default();
    let replaced = |one: store::Replaced| Replaced {
        id: one.id,
        year: one.year,
        table: one.in_table,
        figure: one.figure,
        was: one.was,
        value: one.value,
        source: one.source,
        why: one.why,
        by: one.by_name,
        at: one.at,
        ended_by: one.ended_by,
        ended_at: one.ended_at,
    };
    let replaced = store::all(&app.database, country).await?.into_iter().map(replaced).collect();
    let planning = pack.years().into_iter().filter(|&year| pack.is_planning(year)).collect();
    Ok(RuleFigures { years: pack.years(), planning, tables, replaced })
}

/// A figure that may be replaced.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Weigh {
    /// The return year.
    year: i32,
    /// The table.
    table: String,
    /// The figure's place in the table.
    figure: String,
    /// What would stand there; that of the committed rules where it is left out.
    #[serde(default)]
    value: Option<String>,
    /// The last household that was weighed; the first ones where it is left out.
    #[serde(default)]
    after: Option<Uuid>,
}

/// What a replacement would change, for some of the households.
#[derive(Serialize, ToSchema)]
pub struct Weighed {
    /// What stands there now.
    was: String,
    /// What would stand there.
    becomes: String,
    /// How many households the year has.
    reached: i64,
    /// How many of them this answer weighed.
    weighed: usize,
    /// Those whose result moves.
    moved: Vec<Moved>,
    /// From where to go on; none when all were weighed.
    after: Option<Uuid>,
}

/// A household whose result moves.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Moved {
    pub id: Uuid,
    pub name: String,
    pub before: Then,
    pub after: Then,
}

/// What a replacement would change: nothing is kept. Households are weighed a few at a time; `after` of the answer goes on.
#[utoipa::path(post, path = "/api/packs/{id}/figures/weigh",
    params(("id" = String, Path, description = "The pack, by its id.")), request_body = Weigh,
    responses((status = 200, body = Weighed), (status = 403, body = Problem), (status = 404, body = Problem),
        (status = 422, body = Problem)))]
pub async fn weigh(
    State(app): State<App>,
    _: Administrator,
    Path(id): Path<String>,
    Input(wanted): Input<Weigh>,
) -> Answer<Json<Weighed>> {
    let place = (wanted.year, &*wanted.table, &*wanted.figure);
    let now = app.rules.now(&app.database).await?;
    let was = stands(&now, &id, place)?;
    let then = app.rules.trying(&app.database, &id, place, wanted.value.as_deref()).await?;
    let becomes = stands(&then, &id, place)?;
    let reached = store::reached(&app.database, &id, wanted.year).await?;
    let from = wanted.after.unwrap_or(Uuid::nil());
    let next = store::next_reached(&app.database, &id, wanted.year, from, AT_ONCE).await?;
    let mut moved = Vec::new();
    for &household in &next {
        moved.extend(weighed(&app, household, [&now, &then]).await?);
    }
    let after = next.last().copied().filter(|_| next.len() as i64 == AT_ONCE);
    Ok(Json(Weighed { was, becomes, reached, weighed: next.len(), moved, after }))
}

fn stands(registry: &Registry, country: &str, (year, table, figure): (i32, &str, &str)) -> Answer<String> {
    let pack = registry.pack(country).ok_or_else(|| Problem::not_found("country"))?;
    let rules = pack.rules().iter().find(|(of, _)| *of == year).map(|(_, rules)| rules);
    let found = rules.and_then(|rules| replacing::stands(rules, table, figure));
    found.ok_or_else(|| Problem::not_found("figure"))
}

/// A household by both rules; none where nothing moves, or where it was deleted meanwhile.
async fn weighed(app: &App, id: Uuid, rules: [&Registry; 2]) -> Answer<Option<Moved>> {
    let household = match work::load(app, id).await {
        Ok((_, household)) => household,
        Err(problem) if problem.status == StatusCode::NOT_FOUND.as_u16() => return Ok(None),
        Err(problem) => return Err(problem),
    };
    let name = household.name.clone();
    let [before, after] = rules.map(|registry| work::comes_to(app, household.clone(), registry));
    let (before, after) = (before.await?, after.await?);
    Ok((before != after).then_some(Moved { id, name, before, after }))
}

/// A figure to replace, with who says so and why.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Keep {
    /// The return year.
    year: i32,
    /// The table.
    table: String,
    /// The figure's place in the table.
    figure: String,
    /// What stood there when it was weighed.
    was: String,
    /// What stands there from now on.
    value: String,
    /// Where the figure is from.
    source: String,
    /// Why it is replaced.
    why: String,
}

/// Replace a figure for the practice.
#[utoipa::path(post, path = "/api/packs/{id}/figures",
    params(("id" = String, Path, description = "The pack, by its id.")), request_body = Keep,
    responses((status = 200, body = RuleFigures), (status = 403, body = Problem), (status = 404, body = Problem),
        (status = 409, body = Problem), (status = 422, body = Problem)))]
pub async fn keep(
    State(app): State<App>,
    Administrator(by): Administrator,
    Path(id): Path<String>,
    Input(wanted): Input<Keep>,
) -> Answer<Json<RuleFigures>> {
    let Keep { year, table, figure, was, value, source, why } = wanted;
    let source = told("source", source)?;
    let why = told("why", why)?;
    let place = (year, &*table, &*figure);
    let at_work = store::at_work(&app.database).await?;
    let seen = at_work.into_iter().find(|one| one.is_at(&id, place)).map(|one| one.value);
    let now = stands(&app.rules.now(&app.database).await?, &id, place)?;
    if now != was {
        return Err(Problem::moved(format!(
            "This figure is {now} by now, and not {was}. Weigh the change again."
        )));
    }
    let then = app.rules.trying(&app.database, &id, place, Some(&value)).await?;
    let value = stands(&then, &id, place)?;
    if value == was {
        return Err(Problem::not_fitting(format!("The figure already is {was}.")));
    }
    let replacement = Replacement { year, table, figure, value };
    let new =
        store::New { country: &id, replacement: &replacement, was: &was, source: &source, why: &why, by };
    if !store::keep(&app.database, &new, seen.as_deref()).await? {
        let told = "Somebody else replaced this figure just now. Weigh the change again.";
        return Err(Problem::moved(told.into()));
    }
    tracing::info!(user = %by, country = id, year, "a figure was replaced");
    tokio::spawn(rules::renew(app.clone()));
    shown(&app, &id).await.map(Json)
}

/// Take a figure of the practice's own back: that of the rules counts again.
#[utoipa::path(delete, path = "/api/packs/{id}/figures/{replaced}",
    params(("id" = String, Path, description = "The pack, by its id."), ("replaced" = Uuid, Path)),
    responses((status = 200, body = RuleFigures), (status = 403, body = Problem), (status = 404, body = Problem)))]
pub async fn take_back(
    State(app): State<App>,
    Administrator(by): Administrator,
    Path((id, replaced)): Path<(String, Uuid)>,
) -> Answer<Json<RuleFigures>> {
    if !store::end(&app.database, &id, replaced, by).await? {
        return Err(Problem::not_found("figure of the practice's own"));
    }
    tracing::info!(user = %by, country = id, "a replaced figure was taken back");
    tokio::spawn(rules::renew(app.clone()));
    shown(&app, &id).await.map(Json)
}

/// A text that must say something.
fn told(field: &str, text: String) -> Answer<String> {
    let text = text.trim().to_owned();
    if text.is_empty() || text.chars().count() > LONGEST {
        let message = format!("Say it in one to {LONGEST} characters.");
        return Err(Problem::invalid(vec![check::Fault::new(field, message)]));
    }
    Ok(text)
}
