//! The letters to families, every version of them, and the templates of the practice.

use serde::Serialize;
use serde_json::Value;
use sqlx::PgPool;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// The newest version of a letter.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Kept {
    pub version: i32,
    pub revision: i64,
    pub body: Value,
    pub language: String,
    pub by_name: String,
    pub at: OffsetDateTime,
}

/// The newest version of the letter of a household.
///
/// # Errors
/// When the database fails.
pub async fn newest(database: &PgPool, household: Uuid) -> Result<Option<Kept>, sqlx::Error> {
    sqlx::query_as!(
        Kept,
        "select l.version, l.revision, l.body, l.language, u.name as by_name, l.at from letters l
         join users u on u.id = l.by_user where l.household = $1 order by l.version desc limit 1",
        household
    )
    .fetch_optional(database)
    .await
}

/// Keeps a version after another one, 0 for the first. Whether that other one still was the newest.
///
/// # Errors
/// When the database fails.
pub async fn keep(
    database: &PgPool,
    household: Uuid,
    after: i32,
    revision: i64,
    (body, language): (&Value, &str),
    by: Uuid,
) -> Result<bool, sqlx::Error> {
    let done = sqlx::query!(
        "insert into letters (household, version, revision, body, by_user, language)
         select $1, $2::integer + 1, $3, $4, $5, $6 from households h where h.id = $1 and h.deleted_at is null
             and coalesce((select max(version) from letters where household = $1), 0) = $2::integer
         on conflict do nothing",
        household,
        after,
        revision,
        body,
        by,
        language
    )
    .execute(database)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// A template.
#[derive(Debug, Serialize, ToSchema)]
#[schema(as = LetterTemplate)]
#[allow(missing_docs)]
pub struct Template {
    pub id: Uuid,
    pub name: String,
    /// The language of its letters.
    #[schema(value_type = hembo_documents::letter::Language)]
    pub language: String,
    pub body: String,
}

/// The templates of the practice, the English ones first, by name.
///
/// # Errors
/// When the database fails.
pub async fn templates(database: &PgPool) -> Result<Vec<Template>, sqlx::Error> {
    sqlx::query_as!(
        Template,
        "select id, name, language, body from letter_templates order by language <> 'en', language, name"
    )
    .fetch_all(database)
    .await
}

/// A template.
///
/// # Errors
/// When the database fails.
pub async fn template(database: &PgPool, id: Uuid) -> Result<Option<Template>, sqlx::Error> {
    sqlx::query_as!(Template, "select id, name, language, body from letter_templates where id = $1", id)
        .fetch_optional(database)
        .await
}

/// Keeps a template under a name; one of that name is replaced.
///
/// # Errors
/// When the database fails.
pub async fn keep_template(
    database: &PgPool,
    name: &str,
    (body, language): (&str, &str),
    by: Uuid,
) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "insert into letter_templates (name, body, by_user, language) values ($1, $2, $3, $4)
         on conflict (name) do update set body = $2, by_user = $3, language = $4, at = now()",
        name,
        body,
        by,
        language
    )
    .execute(database)
    .await?;
    Ok(())
}

/// Lets a template go. Whether there was one.
///
/// # Errors
/// When the database fails.
pub async fn drop_template(database: &PgPool, id: Uuid) -> Result<bool, sqlx::Error> {
    let done = sqlx::query!("delete from letter_templates where id = $1", id).execute(database).await?;
    Ok(done.rows_affected() == 1)
}
