//! The practice: what tells the right key from a wrong one, its name, and how it works.

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

/// How the practice works.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Practice {
    /// Its name, as it stands on what it hands out.
    pub name: String,
    /// People may review their own work: for a practice of one.
    pub own_review: bool,
}

/// How the practice works.
///
/// # Errors
/// When the database fails.
pub async fn of(database: &PgPool) -> Result<Practice, sqlx::Error> {
    let found = sqlx::query_as!(Practice, "select name, own_review from practice").fetch_optional(database);
    Ok(found.await?.unwrap_or(Practice { name: String::new(), own_review: false }))
}

/// Sets how the practice works.
///
/// # Errors
/// When the database fails.
pub async fn set(database: &PgPool, practice: &Practice) -> Result<(), sqlx::Error> {
    sqlx::query!("update practice set name = $1, own_review = $2", practice.name, practice.own_review)
        .execute(database)
        .await?;
    Ok(())
}
