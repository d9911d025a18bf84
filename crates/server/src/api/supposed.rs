//! What the results would be with other entries, tried without being made.

use super::Input;
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    work,
};
use axum::{
    Json,
    extract::{Path, Query, State},
};
use hembo_core::{
    command::Command,
    search::Stop,
    supposed::{self, SteppedTax, Supposed},
};
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// Commands that are tried.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Suppose {
    /// They are carried out one after another, on a copy.
    commands: Vec<Command>,
}

/// What the results would be after these commands. Nothing is stored.
#[utoipa::path(post, path = "/api/households/{id}/supposed", params(("id" = Uuid, Path)), request_body = Suppose,
    responses((status = 200, body = Supposed), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn suppose(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Input(Suppose { commands }): Input<Suppose>,
) -> Answer<Json<Supposed>> {
    let (_, household) = work::load(&app, id).await?;
    let registry = app.rules.now(&app.database).await?;
    let run = move |stop: &Stop| supposed::supposed(&household, &commands, &registry, stop);
    Ok(Json(work::on_a_core(&app, run).await?.map_err(work::unreckoned)?))
}

/// A line of a list.
#[derive(Deserialize, IntoParams)]
pub struct LineAt {
    /// The paper.
    paper: String,
    /// The line.
    row: String,
}

/// The lowest tax along the steps that the law's rules lay out for a line; nothing where they lay out none.
#[utoipa::path(get, path = "/api/households/{id}/steps", params(("id" = Uuid, Path), LineAt),
    responses((status = 200, body = Option<SteppedTax>), (status = 404, body = Problem)))]
pub async fn stepped(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(LineAt { paper, row }): Query<LineAt>,
) -> Answer<Json<Option<SteppedTax>>> {
    let (_, household) = work::load(&app, id).await?;
    let registry = app.rules.now(&app.database).await?;
    let run = move |stop: &Stop| supposed::stepped(&household, &registry, (&paper, &row), stop);
    Ok(Json(work::on_a_core(&app, run).await?))
}
