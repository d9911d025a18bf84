//! Whether the server lives, and whether it can work.

use crate::{App, error::Answer};
use axum::extract::State;

/// Answers `ok` while the server lives, whatever becomes of the database.
#[utoipa::path(get, path = "/api/live", responses((status = 200, body = String)))]
pub async fn live() -> &'static str {
    "ok"
}

/// Answers `ok` when the database answers: the server can work.
#[utoipa::path(get, path = "/api/health", responses((status = 200, body = String)))]
pub async fn health(State(app): State<App>) -> Answer<&'static str> {
    sqlx::query_scalar!("select 1 as one").fetch_one(&app.database).await?;
    Ok("ok")
}
