//! Households and their revisions. Every change is a new revision; nothing is overwritten.

use serde_json::Value;
use sqlx::{PgPool, PgTransaction};
use time::OffsetDateTime;
use uuid::Uuid;

/// A household in a list.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Listed {
    pub id: Uuid,
    pub revision: i64,
    pub name: String,
    pub country: String,
    pub year: i32,
    pub stage: String,
    pub summary: Value,
    pub touched_at: OffsetDateTime,
}

/// A revision as it stands.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Revision {
    pub revision: i64,
    pub state: Value,
    pub undo_to: Option<i64>,
    pub redo_to: Option<i64>,
    pub at: OffsetDateTime,
}

/// A revision to write.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct NewRevision<'a> {
    pub household: Uuid,
    pub revision: i64,
    pub kind: &'a str,
    pub commands: &'a Value,
    pub state: &'a Value,
    pub undo_to: Option<i64>,
    pub redo_to: Option<i64>,
    pub by: Uuid,
}

/// What a list shows.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Heading<'a> {
    pub name: &'a str,
    pub country: &'a str,
    pub year: i32,
    pub summary: &'a Value,
}

/// An entry of the history.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Entry {
    pub revision: i64,
    pub kind: String,
    pub commands: Value,
    pub by_name: String,
    pub at: OffsetDateTime,
}

/// The households that are there, or those deleted, newest touch first.
///
/// # Errors
/// When the database fails.
pub async fn list(database: &PgPool, deleted: bool) -> Result<Vec<Listed>, sqlx::Error> {
    sqlx::query_as!(
        Listed,
        "select id, revision, name, country, year, stage, summary, touched_at from households
         where (deleted_at is not null) = $1 order by touched_at desc, id",
        deleted
    )
    .fetch_all(database)
    .await
}

/// The newest revision of a household that is not deleted.
///
/// # Errors
/// When the database fails.
pub async fn newest(database: &PgPool, id: Uuid) -> Result<Option<Revision>, sqlx::Error> {
    sqlx::query_as!(
        Revision,
        "select r.revision, r.state, r.undo_to, r.redo_to, r.at from households h
         join revisions r on r.household = h.id and r.revision = h.revision
         where h.id = $1 and h.deleted_at is null",
        id
    )
    .fetch_optional(database)
    .await
}

/// The same, held against other changes until the transaction ends.
///
/// # Errors
/// When the database fails.
pub async fn hold(transaction: &mut PgTransaction<'_>, id: Uuid) -> Result<Option<Revision>, sqlx::Error> {
    sqlx::query_as!(
        Revision,
        "select r.revision, r.state, r.undo_to, r.redo_to, r.at from households h
         join revisions r on r.household = h.id and r.revision = h.revision
         where h.id = $1 and h.deleted_at is null for update of h",
        id
    )
    .fetch_optional(&mut **transaction)
    .await
}

/// An earlier revision.
///
/// # Errors
/// When the database fails.
pub async fn revision(
    transaction: &mut PgTransaction<'_>,
    id: Uuid,
    revision: i64,
) -> Result<Option<Revision>, sqlx::Error> {
    sqlx::query_as!(
        Revision,
        "select revision, state, undo_to, redo_to, at from revisions where household = $1 and revision = $2",
        id,
        revision
    )
    .fetch_optional(&mut **transaction)
    .await
}

/// Adds a household; its first revision follows.
///
/// # Errors
/// When the database fails.
pub async fn add(
    transaction: &mut PgTransaction<'_>,
    id: Uuid,
    heading: &Heading<'_>,
) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "insert into households (id, revision, name, country, year, summary) values ($1, 1, $2, $3, $4, $5)",
        id,
        heading.name,
        heading.country,
        heading.year,
        heading.summary
    )
    .execute(&mut **transaction)
    .await?;
    Ok(())
}

/// Makes a revision the newest.
///
/// # Errors
/// When the database fails.
pub async fn advance(
    transaction: &mut PgTransaction<'_>,
    id: Uuid,
    revision: i64,
    heading: &Heading<'_>,
) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "update households set revision = $2, name = $3, country = $4, year = $5, summary = $6, touched_at = now()
         where id = $1",
        id,
        revision,
        heading.name,
        heading.country,
        heading.year,
        heading.summary
    )
    .execute(&mut **transaction)
    .await?;
    Ok(())
}

/// Writes a revision.
///
/// # Errors
/// When the database fails.
pub async fn write(transaction: &mut PgTransaction<'_>, new: NewRevision<'_>) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "insert into revisions (household, revision, kind, commands, state, undo_to, redo_to, by_user)
         values ($1, $2, $3, $4, $5, $6, $7, $8)",
        new.household,
        new.revision,
        new.kind,
        new.commands,
        new.state,
        new.undo_to,
        new.redo_to,
        new.by
    )
    .execute(&mut **transaction)
    .await?;
    Ok(())
}

/// Marks a household as deleted, or brings it back. Whether there was one to mark.
///
/// # Errors
/// When the database fails.
pub async fn set_deleted(database: &PgPool, id: Uuid, deleted: bool) -> Result<bool, sqlx::Error> {
    let done = sqlx::query!(
        "update households set deleted_at = case when $2 then now() end, touched_at = now()
         where id = $1 and (deleted_at is null) = $2",
        id,
        deleted
    )
    .execute(database)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// The history after a revision, oldest first, at most two hundred entries.
///
/// # Errors
/// When the database fails.
pub async fn history(database: &PgPool, id: Uuid, after: i64) -> Result<Vec<Entry>, sqlx::Error> {
    let mut entries = sqlx::query_as!(
        Entry,
        "select r.revision, r.kind, r.commands, u.name as by_name, r.at from revisions r
         join users u on u.id = r.by_user where r.household = $1 and r.revision > $2
         order by r.revision desc limit 200",
        id,
        after
    )
    .fetch_all(database)
    .await?;
    entries.reverse();
    Ok(entries)
}

/// Notes that numbers were shown.
///
/// # Errors
/// When the database fails.
pub async fn note_reveal(
    database: &PgPool,
    id: Uuid,
    person: Option<&str>,
    by: Uuid,
) -> Result<(), sqlx::Error> {
    sqlx::query!("insert into reveals (household, person, by_user) values ($1, $2, $3)", id, person, by)
        .execute(database)
        .await?;
    Ok(())
}
