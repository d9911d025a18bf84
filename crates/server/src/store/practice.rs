//! The practice: what tells the right key from a wrong one.

use serde_json::Value;
use sqlx::PgPool;
use uuid::Uuid;

/// The known text sealed with the practice's key, if the database has it.
///
/// # Errors
/// When the database fails.
pub async fn key_check(database: &PgPool) -> Result<Option<String>, sqlx::Error> {
    sqlx::query_scalar!("select key_check from practice").fetch_optional(database).await
}

/// Keeps the known text; one that is there stays.
///
/// # Errors
/// When the database fails.
pub async fn keep_key_check(database: &PgPool, sealed: &str) -> Result<(), sqlx::Error> {
    sqlx::query!("insert into practice (key_check) values ($1) on conflict do nothing", sealed)
        .execute(database)
        .await?;
    Ok(())
}

/// Any stored household with a sealed number.
///
/// # Errors
/// When the database fails.
pub async fn any_sealed(database: &PgPool) -> Result<Option<(Uuid, Value)>, sqlx::Error> {
    let found =
        sqlx::query!(r#"select household, state from revisions where state::text like '%"sealed:%' limit 1"#)
            .fetch_optional(database)
            .await?;
    Ok(found.map(|row| (row.household, row.state)))
}
