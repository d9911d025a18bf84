//! What was done to a household: its revisions in words, with who and when.

use serde_json::Value;
use sqlx::PgPool;
use time::OffsetDateTime;
use uuid::Uuid;

/// An entry of the history: a revision, or that the household was deleted or brought back.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Entry {
    pub revision: Option<i64>,
    pub kind: String,
    pub words: Value,
    pub totals: Option<Value>,
    pub by_name: String,
    pub at: OffsetDateTime,
}

/// The history before a moment, newest first.
///
/// # Errors
/// When the database fails.
pub async fn history(
    database: &PgPool,
    id: Uuid,
    before: Option<OffsetDateTime>,
    most: i64,
) -> Result<Vec<Entry>, sqlx::Error> {
    sqlx::query_as!(
        Entry,
        r#"select e.revision, e.kind as "kind!", e.words as "words!", e.totals, u.name as by_name, e.at as "at!"
         from (select revision, kind, words, totals, by_user, at from revisions where household = $1
             union all
             select null, kind, '[]'::jsonb, null, by_user, at from marks where household = $1
             union all
             select null, kind, jsonb_build_array(from_stage, to_stage, words), null, by_user, at
             from moves where household = $1) e
         join users u on u.id = e.by_user
         where $2::timestamptz is null or e.at < $2
         order by e.at desc, e.revision desc limit $3"#,
        id,
        before,
        most
    )
    .fetch_all(database)
    .await
}

/// The revisions after one, oldest first.
///
/// # Errors
/// When the database fails.
pub async fn since(database: &PgPool, id: Uuid, after: i64) -> Result<Vec<Entry>, sqlx::Error> {
    sqlx::query_as!(
        Entry,
        r#"select r.revision as "revision?", r.kind, r.words, r.totals, u.name as by_name, r.at from revisions r
         join users u on u.id = r.by_user where r.household = $1 and r.revision > $2
         order by r.revision limit 200"#,
        id,
        after
    )
    .fetch_all(database)
    .await
}

/// Who made a revision, and by which commands; none where it is an earlier state brought back.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Doing {
    pub by_name: String,
    pub commands: Value,
}

/// What was done after a revision, newest first.
///
/// # Errors
/// When the database fails.
pub async fn done_since(database: &PgPool, id: Uuid, after: i64) -> Result<Vec<Doing>, sqlx::Error> {
    sqlx::query_as!(
        Doing,
        "select u.name as by_name, r.commands from revisions r join users u on u.id = r.by_user
         where r.household = $1 and r.revision > $2 order by r.revision desc limit 200",
        id,
        after
    )
    .fetch_all(database)
    .await
}

/// Who made a revision, when and how, by which commands.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Making {
    pub kind: String,
    pub by_name: String,
    pub at: OffsetDateTime,
    pub commands: Value,
}

/// How every revision up to one was made, newest first.
///
/// # Errors
/// When the database fails.
pub async fn makings(database: &PgPool, id: Uuid, until: i64) -> Result<Vec<Making>, sqlx::Error> {
    sqlx::query_as!(
        Making,
        "select r.kind, u.name as by_name, r.at, r.commands from revisions r join users u on u.id = r.by_user
         where r.household = $1 and r.revision <= $2 order by r.revision desc",
        id,
        until
    )
    .fetch_all(database)
    .await
}

/// The first revision of a household.
///
/// # Errors
/// When the database fails.
pub async fn first(database: &PgPool, id: Uuid) -> Result<Option<i64>, sqlx::Error> {
    sqlx::query_scalar!("select min(revision) from revisions where household = $1", id)
        .fetch_one(database)
        .await
}

/// The words of the latest edit whose undo leads to a revision.
///
/// # Errors
/// When the database fails.
pub async fn words_from(database: &PgPool, id: Uuid, undo_to: i64) -> Result<Option<Value>, sqlx::Error> {
    sqlx::query_scalar!(
        "select words from revisions where household = $1 and undo_to = $2 and kind <> 'undone'
         order by revision desc limit 1",
        id,
        undo_to
    )
    .fetch_optional(database)
    .await
}
