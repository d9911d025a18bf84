//! What a screen asks about an open household: the household with its outcome, what a paper does, a curve.

use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    seal::masked,
    store::households::{self as store, Revision},
    work,
};
use axum::{
    Json,
    extract::{Path, Query, State},
};
use hembo_core::{
    Household, Outcome,
    effect::{self, CurvePoint, Effect},
};
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use time::OffsetDateTime;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// By how much a paper's main amount is raised to see what that does.
const STEP: Money = Money::whole(1_000);
/// How many points a curve has.
const POINTS: i64 = 100;

/// A household with its outcome.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Opened {
    pub id: Uuid,
    pub revision: i64,
    #[serde(with = "time::serde::rfc3339")]
    pub saved_at: OffsetDateTime,
    pub can_undo: bool,
    pub can_redo: bool,
    /// Identification numbers are hidden but for the last four digits.
    pub household: Household,
    pub outcome: Outcome,
}

impl Opened {
    /// What is shown of a worked-out household.
    pub fn new(id: Uuid, revision: &Revision, worked: work::Worked) -> Opened {
        Opened {
            id,
            revision: revision.revision,
            saved_at: revision.at,
            can_undo: revision.undo_to.is_some(),
            can_redo: revision.redo_to.is_some(),
            household: masked(worked.household),
            outcome: worked.outcome,
        }
    }
}

/// A paper, and for a curve one of its boxes.
#[derive(Deserialize, IntoParams)]
pub struct At {
    /// The paper.
    paper: String,
    /// The box.
    field: Option<String>,
}

/// What a paper does to the tax.
#[utoipa::path(get, path = "/api/households/{id}/effect", params(("id" = Uuid, Path), At),
    responses((status = 200, body = Effect), (status = 404, body = Problem)))]
pub async fn effect(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(at): Query<At>,
) -> Answer<Json<Effect>> {
    let (_, household) = work::load(&app, id).await?;
    let found =
        tokio::task::spawn_blocking(move || effect::of_paper(&household, &app.registry, &at.paper, STEP));
    found.await?.map(Json).ok_or_else(|| Problem::not_found("paper"))
}

/// The lowest tax along a box.
#[utoipa::path(get, path = "/api/households/{id}/curve", params(("id" = Uuid, Path), At),
    responses((status = 200, body = Vec<CurvePoint>), (status = 404, body = Problem)))]
pub async fn curve(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(at): Query<At>,
) -> Answer<Json<Vec<CurvePoint>>> {
    let (_, household) = work::load(&app, id).await?;
    let field = at.field.unwrap_or_default();
    let run = move || effect::curve(&household, &app.registry, &at.paper, &field, POINTS);
    Ok(Json(tokio::task::spawn_blocking(run).await?))
}

/// A number in full.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Revealed {
    pub id_number: Option<String>,
}

/// Show a person's identification number; noted in the audit.
#[utoipa::path(post, path = "/api/households/{id}/people/{person}/reveal",
    params(("id" = Uuid, Path), ("person" = String, Path)),
    responses((status = 200, body = Revealed), (status = 404, body = Problem)))]
pub async fn reveal(
    State(app): State<App>,
    By(by): By,
    Path((id, person)): Path<(Uuid, String)>,
) -> Answer<Json<Revealed>> {
    let (_, household) = work::load(&app, id).await?;
    let found = household.person(&person).ok_or_else(|| Problem::not_found("person"))?;
    store::note_reveal(&app.database, id, Some(&person), by).await?;
    Ok(Json(Revealed { id_number: found.id_number.clone() }))
}
