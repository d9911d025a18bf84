//! The practice: its name, and how it works.

use sqlx::PgPool;

/// How the practice works.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Practice {
    /// Its name, as it stands on what it hands out.
    pub name: String,
    /// People may review their own work: for a practice of one.
    pub own_review: bool,
    /// Households are seen by those alone in whose hands they lie, and by administrators.
    pub own_sight: bool,
}

/// How the practice works.
///
/// # Errors
/// When the database fails.
pub async fn of(database: &PgPool) -> Result<Practice, sqlx::Error> {
    let found = sqlx::query_as!(Practice, "select name, own_review, own_sight from practice");
    let nothing = Practice { name: String::new(), own_review: false, own_sight: false };
    Ok(found.fetch_optional(database).await?.unwrap_or(nothing))
}

/// Sets how the practice works.
///
/// # Errors
/// When the database fails.
pub async fn set(database: &PgPool, practice: &Practice) -> Result<(), sqlx::Error> {
    let Practice { name, own_review, own_sight } = practice;
    sqlx::query!(
        "update practice set name = $1, own_review = $2, own_sight = $3",
        name,
        *own_review,
        *own_sight
    )
    .execute(database)
    .await?;
    Ok(())
}
