//! The history of a household: what was done, by whom, and how it stood then.

use super::{edits::words_of, views::Opened};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    stage::Stage,
    store::{
        history,
        households::{self as store},
    },
    work,
};
use axum::{
    Json,
    extract::{Path, Query, State},
};
use hembo_core::command::{Command, Sought, Spot};
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use time::OffsetDateTime;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// How many entries an answer has.
const PAGE: i64 = 50;

/// An entry of the history.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct HistoryEntry {
    /// The revision; none where the household was deleted or restored.
    pub revision: Option<i64>,
    /// created, imported, copied, carried, divided, tried, followed, edited, undone, redone or brought_back; deleted, restored, archived or unarchived;
    /// of a state of work moved, changed, unchanged or taken_back.
    pub kind: String,
    /// What was done, in words.
    pub what: Vec<String>,
    /// The lowest tax as it was reckoned then, where it was a result.
    pub total: Option<Money>,
    pub by: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
}

impl HistoryEntry {
    fn of(e: history::Entry) -> HistoryEntry {
        let what = what(&e);
        let summary = e.totals.and_then(|t| serde_json::from_value::<work::Summary>(t).ok());
        HistoryEntry {
            what,
            total: summary.filter(|s| s.covered).map(|s| s.total),
            revision: e.revision,
            kind: e.kind,
            by: e.by_name,
            at: e.at,
        }
    }
}

/// What an entry tells: of a revision what was done, of a step from which state of work to which, and what was said.
fn what(entry: &history::Entry) -> Vec<String> {
    let words = words_of(&entry.words);
    if entry.revision.is_some() {
        return words;
    }
    match &words[..] {
        [from, to, said] => {
            let step = format!("{} → {}", Stage::read(from), Stage::read(to));
            [step, said.clone()].into_iter().filter(|text| !text.is_empty()).collect()
        }
        _ => words,
    }
}

/// Where a page of the history begins.
#[derive(Deserialize, IntoParams)]
pub struct Before {
    /// Entries before this moment; the newest where it is left out.
    #[serde(default, with = "time::serde::rfc3339::option")]
    #[param(value_type = Option<String>)]
    before: Option<OffsetDateTime>,
}

/// What was done to a household, newest first, fifty entries a page.
#[utoipa::path(get, path = "/api/households/{id}/history", params(("id" = Uuid, Path), Before),
    responses((status = 200, body = Vec<HistoryEntry>)))]
pub async fn history(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(page): Query<Before>,
) -> Answer<Json<Vec<HistoryEntry>>> {
    let entries = history::history(&app.database, id, page.before, PAGE).await?;
    Ok(Json(entries.into_iter().map(HistoryEntry::of).collect()))
}

/// What was done after a revision, oldest first: so that a window sees what another one changed.
#[utoipa::path(get, path = "/api/households/{id}/revisions/{revision}/since",
    params(("id" = Uuid, Path), ("revision" = i64, Path)),
    responses((status = 200, body = Vec<HistoryEntry>)))]
pub async fn since(
    State(app): State<App>,
    _: By,
    Path((id, revision)): Path<(Uuid, i64)>,
) -> Answer<Json<Vec<HistoryEntry>>> {
    let entries = history::since(&app.database, id, revision).await?;
    Ok(Json(entries.into_iter().map(HistoryEntry::of).collect()))
}

/// Who made entries of papers, when and how.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Entered {
    /// As in the history: edited, or how the household came with them.
    pub kind: String,
    pub by: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
    /// The entries.
    pub entries: Vec<Spot>,
}

/// Who put the entries of all papers there that stand in a revision, newest first. What nobody is known of is left out.
#[utoipa::path(get, path = "/api/households/{id}/revisions/{revision}/entered",
    params(("id" = Uuid, Path), ("revision" = i64, Path)),
    responses((status = 200, body = Vec<Entered>), (status = 404, body = Problem)))]
pub async fn entered(
    State(app): State<App>,
    _: By,
    Path((id, revision)): Path<(Uuid, i64)>,
) -> Answer<Json<Vec<Entered>>> {
    let state = async |revision: i64| {
        let found = store::revision(&app.database, id, revision).await?;
        work::read(&app, id, &found.ok_or_else(|| Problem::not_found("revision"))?.state)
    };
    let mut sought = Sought::of(&state(revision).await?);
    let first = history::first(&app.database, id).await?.unwrap_or(revision);
    let at_first = state(first).await?;
    let mut makings = history::makings(&app.database, id, revision).await?;
    let made_first = makings.pop();
    let mut told = Vec::new();
    for made in makings {
        if sought.is_empty() {
            break;
        }
        let commands: Vec<Command> = serde_json::from_value(made.commands.clone()).unwrap_or_default();
        told.push(Entered::of(made, commands.iter().rev().flat_map(|one| sought.found_in(one)).collect()));
    }
    told.extend(made_first.map(|made| Entered::of(made, sought.found_at_first(&at_first))));
    told.retain(|one| !one.entries.is_empty());
    Ok(Json(told))
}

impl Entered {
    fn of(made: history::Making, entries: Vec<Spot>) -> Entered {
        Entered { kind: made.kind, by: made.by_name, at: made.at, entries }
    }
}

/// A household as it was in a revision, by the rules of today.
#[utoipa::path(get, path = "/api/households/{id}/revisions/{revision}",
    params(("id" = Uuid, Path), ("revision" = i64, Path)),
    responses((status = 200, body = Opened), (status = 404, body = Problem)))]
pub async fn revision(
    State(app): State<App>,
    _: By,
    Path((id, revision)): Path<(Uuid, i64)>,
) -> Answer<Json<Opened>> {
    let found = store::revision(&app.database, id, revision).await?;
    let found = found.ok_or_else(|| Problem::not_found("revision"))?;
    let worked = work::out(&app, work::read(&app, id, &found.state)?).await?;
    let pack = work::pack(&app, &worked.household)?;
    Ok(Json(Opened::new(&app, id, &found, worked, pack)))
}
