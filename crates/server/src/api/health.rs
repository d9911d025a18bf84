//! Whether the server can work.

use crate::{App, error::Answer};
use axum::extract::State;

/// Answers `ok` when the database answers.
#[utoipa::path(get, path = "/api/health", responses((status = 200, body = String)))]
pub async fn health(State(app): State<App>) -> Answer<&'static str> {
    sqlx::query_scalar!("select 1 as one").fetch_one(&app.database).await?;
    Ok("ok")
}
