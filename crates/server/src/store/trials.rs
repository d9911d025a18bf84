//! Trials: what-ifs beside a return, households of their own that no list shows.

use serde_json::Value;
use sqlx::{PgPool, PgTransaction};
use time::OffsetDateTime;
use uuid::Uuid;

/// A trial in the list of its household.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Listed {
    pub id: Uuid,
    pub name: String,
    pub summary: Value,
    pub touched_at: OffsetDateTime,
    pub by_name: String,
    /// It was thrown away, and can be taken back.
    pub thrown_away: bool,
}

/// The trials of a household, the oldest first, with those thrown away in the last thirty days.
///
/// # Errors
/// When the database fails.
pub async fn of(database: &PgPool, household: Uuid) -> Result<Vec<Listed>, sqlx::Error> {
    sqlx::query_as!(
        Listed,
        r#"select t.id, t.trial_name as "name!", t.summary, t.touched_at, u.name as by_name,
             t.deleted_at is not null as "thrown_away!"
         from households t
         join revisions r on r.household = t.id and r.revision = 1
         join users u on u.id = r.by_user
         where t.trial_of = $1 and coalesce(t.deleted_at > now() - interval '30 days', true)
         order by t.created_at"#,
        household
    )
    .fetch_all(database)
    .await
}

/// What a trial stands on.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Standing {
    pub household: Uuid,
    pub base: i64,
    pub name: String,
}

/// What a trial stands on; nothing where it is none.
///
/// # Errors
/// When the database fails.
pub async fn standing(database: &PgPool, trial: Uuid) -> Result<Option<Standing>, sqlx::Error> {
    sqlx::query_as!(
        Standing,
        r#"select trial_of as "household!", trial_base as "base!", trial_name as "name!" from households
         where id = $1 and trial_of is not null and deleted_at is null"#,
        trial
    )
    .fetch_optional(database)
    .await
}

/// Notes that a household is a trial of another, on one of its revisions.
///
/// # Errors
/// When the database fails.
pub async fn note(
    transaction: &mut PgTransaction<'_>,
    trial: Uuid,
    of: Uuid,
    base: i64,
    name: &str,
) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "update households set trial_of = $2, trial_base = $3, trial_name = $4 where id = $1",
        trial,
        of,
        base,
        name
    )
    .execute(&mut **transaction)
    .await?;
    Ok(())
}
