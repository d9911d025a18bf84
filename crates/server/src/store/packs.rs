//! The packs that were made, and the choices of parts that the practice keeps under a name.

use serde::Serialize;
use sqlx::PgPool;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// A pack that was made.
#[derive(Debug, Serialize, ToSchema)]
#[schema(as = PackMade)]
#[allow(missing_docs)]
pub struct Made {
    pub id: Uuid,
    pub revision: i64,
    pub parts: Vec<String>,
    pub pages: i32,
    /// Points blocked, or the figures were no result: every page says so.
    pub unsettled: bool,
    pub by: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
}

/// A pack to keep.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct NewPack<'a> {
    pub household: Uuid,
    pub revision: i64,
    pub rules: &'a str,
    pub parts: &'a [String],
    pub pages: i32,
    pub unsettled: bool,
    pub file: &'a [u8],
    pub by: Uuid,
}

/// Keeps a pack.
///
/// # Errors
/// When the database fails.
pub async fn add(database: &PgPool, new: NewPack<'_>) -> Result<Uuid, sqlx::Error> {
    let id = Uuid::new_v4();
    sqlx::query!(
        "insert into packs (id, household, revision, rules, parts, pages, unsettled, file, by_user)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9)",
        id,
        new.household,
        new.revision,
        new.rules,
        new.parts,
        new.pages,
        new.unsettled,
        new.file,
        new.by
    )
    .execute(database)
    .await?;
    Ok(id)
}

/// The packs of a household that is not deleted, the newest first.
///
/// # Errors
/// When the database fails.
pub async fn of(database: &PgPool, household: Uuid) -> Result<Vec<Made>, sqlx::Error> {
    sqlx::query_as!(
        Made,
        r#"select p.id, p.revision, p.parts, p.pages, p.unsettled, u.name as "by", p.at
         from packs p join users u on u.id = p.by_user
         join households h on h.id = p.household and h.deleted_at is null where p.household = $1 order by p.at desc limit 100"#,
        household
    )
    .fetch_all(database)
    .await
}

/// The file of a pack of a household that is not deleted.
///
/// # Errors
/// When the database fails.
pub async fn file(database: &PgPool, household: Uuid, id: Uuid) -> Result<Option<Vec<u8>>, sqlx::Error> {
    sqlx::query_scalar!(
        "select p.file from packs p join households h on h.id = p.household
         where p.household = $1 and p.id = $2 and h.deleted_at is null",
        household,
        id
    )
    .fetch_optional(database)
    .await
}

/// A choice of parts under a name.
#[derive(Debug, Serialize, ToSchema)]
#[schema(as = PackSet)]
#[allow(missing_docs)]
pub struct Set {
    pub id: Uuid,
    pub name: String,
    pub parts: Vec<String>,
}

/// The choices that the practice keeps, the oldest first.
///
/// # Errors
/// When the database fails.
pub async fn sets(database: &PgPool) -> Result<Vec<Set>, sqlx::Error> {
    sqlx::query_as!(Set, "select id, name, parts from pack_sets order by at, name").fetch_all(database).await
}

/// Keeps a choice under a name; one of that name is replaced.
///
/// # Errors
/// When the database fails.
pub async fn keep_set(database: &PgPool, name: &str, parts: &[String]) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "insert into pack_sets (name, parts) values ($1, $2) on conflict (name) do update set parts = $2",
        name,
        parts
    )
    .execute(database)
    .await?;
    Ok(())
}

/// Lets a choice go. Whether there was one.
///
/// # Errors
/// When the database fails.
pub async fn drop_set(database: &PgPool, id: Uuid) -> Result<bool, sqlx::Error> {
    let done = sqlx::query!("delete from pack_sets where id = $1", id).execute(database).await?;
    Ok(done.rows_affected() == 1)
}
