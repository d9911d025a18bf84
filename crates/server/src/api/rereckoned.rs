//! What moved when households were reckoned by other rules: before and after, until somebody has looked at it.

use super::Input;
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    store::{rereckoned as store, sight},
    work::{Summary, Then},
};
use axum::{Json, extract::State, http::StatusCode};
use serde::{Deserialize, Serialize};
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// How many are told at once.
const MOST: i64 = 500;

/// What moved when households were reckoned by other rules, and nobody has looked at yet.
#[derive(Serialize, ToSchema)]
pub struct Rereckoned {
    /// How many moved.
    moved: i64,
    /// How many still wait for their turn.
    waiting: i64,
    /// The latest of those that moved.
    rows: Vec<Row>,
}

/// A household whose result moved.
#[derive(Serialize, ToSchema)]
#[schema(as = RereckonedRow)]
#[allow(missing_docs)]
pub struct Row {
    pub household: Uuid,
    pub name: String,
    pub year: i32,
    pub country: String,
    pub before: Then,
    pub after: Then,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
}

/// What moved when households were reckoned by other rules.
#[utoipa::path(get, path = "/api/rereckoned", responses((status = 200, body = Rereckoned)))]
pub async fn rereckoned(State(app): State<App>, By(by): By) -> Answer<Json<Rereckoned>> {
    let only_of = sight::only_of(&app.database, by).await?;
    let registry = app.rules.now(&app.database).await?;
    let rules: Vec<String> = registry.packs().map(|pack| pack.version().to_owned()).collect();
    let (moved, waiting) = store::counts(&app.database, only_of, &rules).await?;
    let found = if moved == 0 { Vec::new() } else { store::unseen(&app.database, only_of, MOST).await? };
    let rows = found.into_iter().map(row).collect::<Answer<_>>()?;
    Ok(Json(Rereckoned { moved, waiting, rows }))
}

fn row(moved: store::Moved) -> Answer<Row> {
    let then = |summary| {
        let summary: Summary = serde_json::from_value(summary).map_err(Problem::internal)?;
        Ok::<Then, Problem>(Then::of(&summary))
    };
    let store::Moved { household, name, year, country, was, came, at } = moved;
    Ok(Row { household, name, year, country, before: then(was)?, after: then(came)?, at })
}

/// What somebody has looked at.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Seen {
    /// The moment of the earliest that was shown.
    #[serde(with = "time::serde::rfc3339")]
    from: OffsetDateTime,
    /// The moment of the latest.
    #[serde(with = "time::serde::rfc3339")]
    until: OffsetDateTime,
}

/// Note that what moved was looked at.
#[utoipa::path(post, path = "/api/rereckoned/seen", request_body = Seen, responses((status = 204)))]
pub async fn see_rereckoned(
    State(app): State<App>,
    By(by): By,
    Input(seen): Input<Seen>,
) -> Answer<StatusCode> {
    let only_of = sight::only_of(&app.database, by).await?;
    store::see(&app.database, (seen.from, seen.until), only_of, by).await?;
    Ok(StatusCode::NO_CONTENT)
}
