//! Checking: notes of the practice, and lines that somebody read and found right.

use serde_json::Value;
use sqlx::PgPool;
use time::OffsetDateTime;
use uuid::Uuid;

/// A note.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Note {
    pub id: Uuid,
    pub place: Value,
    pub about: String,
    pub words: String,
    pub answers: Option<Uuid>,
    pub by_user: Uuid,
    pub by_name: String,
    pub at: OffsetDateTime,
    pub settled_by: Option<String>,
    pub settled_at: Option<OffsetDateTime>,
}

/// A note to add.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct NewNote<'a> {
    pub household: Uuid,
    pub place: &'a Value,
    pub about: &'a str,
    pub words: &'a str,
    pub answers: Option<Uuid>,
    pub by: Uuid,
}

/// The notes of a household that is not deleted, the oldest first.
///
/// # Errors
/// When the database fails.
pub async fn notes(database: &PgPool, household: Uuid) -> Result<Vec<Note>, sqlx::Error> {
    sqlx::query_as!(
        Note,
        r#"select n.id, n.place, n.about, n.words, n.answers, n.by_user, u.name as by_name, n.at,
             (select s.name from users s where s.id = n.settled_by) as settled_by, n.settled_at
         from notes n join users u on u.id = n.by_user
         join households h on h.id = n.household and h.deleted_at is null
         where n.household = $1 and n.removed_at is null order by n.at, n.id limit 1000"#,
        household
    )
    .fetch_all(database)
    .await
}

/// Adds a note to a household that is not deleted; an answer to a note of the same household. Whether there are such.
///
/// # Errors
/// When the database fails.
pub async fn add_note(database: &PgPool, new: &NewNote<'_>) -> Result<bool, sqlx::Error> {
    let done = sqlx::query!(
        "insert into notes (id, household, place, about, words, answers, by_user)
         select $1, h.id, $3, $4, $5, $6, $7 from households h
         where h.id = $2 and h.deleted_at is null and ($6::uuid is null
             or exists (select 1 from notes n where n.id = $6 and n.household = h.id and n.removed_at is null))",
        Uuid::new_v4(),
        new.household,
        new.place,
        new.about,
        new.words,
        new.answers,
        new.by
    )
    .execute(database)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Settles a note, or opens it again. Whether there was one.
///
/// # Errors
/// When the database fails.
pub async fn settle(
    database: &PgPool,
    household: Uuid,
    note: Uuid,
    settled: bool,
    by: Uuid,
) -> Result<bool, sqlx::Error> {
    let done = sqlx::query!(
        "update notes set settled_by = case when $3 then $4::uuid end, settled_at = case when $3 then now() end
         where household = $1 and id = $2 and removed_at is null",
        household,
        note,
        settled,
        by
    )
    .execute(database)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Removes a note of one's own, or brings it back. Whether there was one.
///
/// # Errors
/// When the database fails.
pub async fn remove(
    database: &PgPool,
    household: Uuid,
    note: Uuid,
    removed: bool,
    by: Uuid,
) -> Result<bool, sqlx::Error> {
    let done = sqlx::query!(
        "update notes set removed_by = case when $3 then $4::uuid end, removed_at = case when $3 then now() end
         where household = $1 and id = $2 and by_user = $4",
        household,
        note,
        removed,
        by
    )
    .execute(database)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// A line that was found right.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Tick {
    pub line: String,
    pub scope: String,
    /// The amount that it had, as decimal text.
    pub amount: String,
    pub by_name: String,
    pub at: OffsetDateTime,
}

/// The lines of a household that is not deleted that were found right.
///
/// # Errors
/// When the database fails.
pub async fn ticks(database: &PgPool, household: Uuid) -> Result<Vec<Tick>, sqlx::Error> {
    sqlx::query_as!(
        Tick,
        r#"select t.line, t.scope, t.amount::text as "amount!", u.name as by_name, t.at
         from ticks t join users u on u.id = t.by_user
         join households h on h.id = t.household and h.deleted_at is null where t.household = $1 and t.ended_at is null"#,
        household
    )
    .fetch_all(database)
    .await
}

/// Ends what was ticked on these lines, and ticks them anew where amounts are given; all of it or nothing. Whether there is such a
/// household.
///
/// # Errors
/// When the database fails.
pub async fn tick(
    database: &PgPool,
    household: Uuid,
    places: (&[String], &[String]),
    amounts: Option<&[String]>,
    by: Uuid,
) -> Result<bool, sqlx::Error> {
    let (lines, scopes) = places;
    let mut transaction = database.begin().await?;
    let there = sqlx::query_scalar!(
        "select id from households where id = $1 and deleted_at is null for update",
        household
    );
    if there.fetch_optional(&mut *transaction).await?.is_none() {
        return Ok(false);
    }
    sqlx::query!(
        "update ticks set ended_at = now(), ended_by = $4 where household = $1 and ended_at is null
             and (line, scope) in (select * from unnest($2::text[], $3::text[]))",
        household,
        lines,
        scopes,
        by
    )
    .execute(&mut *transaction)
    .await?;
    if let Some(amounts) = amounts {
        sqlx::query!(
            "insert into ticks (household, line, scope, amount, by_user)
             select $1, line, scope, amount::numeric, $5
             from unnest($2::text[], $3::text[], $4::text[]) as t (line, scope, amount)",
            household,
            lines,
            scopes,
            amounts,
            by
        )
        .execute(&mut *transaction)
        .await?;
    }
    transaction.commit().await?;
    Ok(true)
}
