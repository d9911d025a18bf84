//! Consents, what was fetched, and what was asked of the family.

use serde_json::Value;
use sqlx::PgPool;
use time::{Date, OffsetDateTime};
use uuid::Uuid;

/// A consent.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Consent {
    pub id: Uuid,
    pub number: String,
    pub people: Vec<String>,
    pub scope: Vec<String>,
    pub from_day: Date,
    pub until_day: Date,
    pub state: String,
    pub words: String,
    pub by_name: String,
    pub at: OffsetDateTime,
    pub looked_at: OffsetDateTime,
}

/// A consent to keep.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct NewConsent<'a> {
    pub household: Uuid,
    pub number: &'a str,
    pub people: &'a [String],
    pub scope: &'a [String],
    pub from_day: Date,
    pub until_day: Date,
    pub state: &'a str,
    pub words: &'a str,
    pub by: Uuid,
}

/// Keeps a consent.
///
/// # Errors
/// When the database fails.
pub async fn add_consent(database: &PgPool, new: &NewConsent<'_>) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "insert into consents (id, household, number, people, scope, from_day, until_day, state, words, by_user)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)",
        Uuid::new_v4(),
        new.household,
        new.number,
        new.people,
        new.scope,
        new.from_day,
        new.until_day,
        new.state,
        new.words,
        new.by
    )
    .execute(database)
    .await?;
    Ok(())
}

/// The consents of a household that is not deleted, the newest first.
///
/// # Errors
/// When the database fails.
pub async fn consents(database: &PgPool, household: Uuid) -> Result<Vec<Consent>, sqlx::Error> {
    sqlx::query_as!(
        Consent,
        "select c.id, c.number, c.people, c.scope, c.from_day, c.until_day, c.state, c.words, u.name as by_name, c.at,
             c.looked_at
         from consents c join users u on u.id = c.by_user
         join households h on h.id = c.household and h.deleted_at is null
         where c.household = $1 order by c.at desc limit 100",
        household
    )
    .fetch_all(database)
    .await
}

/// Sets how a consent stands.
///
/// # Errors
/// When the database fails.
pub async fn set_consent(database: &PgPool, id: Uuid, state: &str, words: &str) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "update consents set state = $2, words = $3, looked_at = now() where id = $1",
        id,
        state,
        words
    )
    .execute(database)
    .await?;
    Ok(())
}

/// What was held when it was fetched.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Fetch {
    pub slips: Value,
    /// How many slips were of people who are not in the household.
    pub strangers: i32,
    pub by_name: String,
    pub at: OffsetDateTime,
}

/// Keeps what was fetched.
///
/// # Errors
/// When the database fails.
pub async fn add_fetch(
    database: &PgPool,
    (household, consent): (Uuid, Uuid),
    slips: &Value,
    strangers: i32,
    by: Uuid,
) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "insert into fetches (id, household, consent, slips, strangers, by_user) values ($1, $2, $3, $4, $5, $6)",
        Uuid::new_v4(),
        household,
        consent,
        slips,
        strangers,
        by
    )
    .execute(database)
    .await?;
    Ok(())
}

/// The last two fetches of a household that is not deleted, the newest first.
///
/// # Errors
/// When the database fails.
pub async fn fetches(database: &PgPool, household: Uuid) -> Result<Vec<Fetch>, sqlx::Error> {
    sqlx::query_as!(
        Fetch,
        "select f.slips, f.strangers, u.name as by_name, f.at from fetches f join users u on u.id = f.by_user
         join households h on h.id = f.household and h.deleted_at is null
         where f.household = $1 order by f.at desc limit 2",
        household
    )
    .fetch_all(database)
    .await
}

/// A kind of paper that the family was asked for.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Asked {
    pub kind: String,
    pub by_name: String,
    pub at: OffsetDateTime,
}

/// What the family was asked for.
///
/// # Errors
/// When the database fails.
pub async fn asked(database: &PgPool, household: Uuid) -> Result<Vec<Asked>, sqlx::Error> {
    sqlx::query_as!(
        Asked,
        "select a.kind, u.name as by_name, a.at from asked a join users u on u.id = a.by_user where a.household = $1",
        household
    )
    .fetch_all(database)
    .await
}

/// Notes that the family was asked for a kind of paper, or was not.
///
/// # Errors
/// When the database fails.
pub async fn set_asked(
    database: &PgPool,
    household: Uuid,
    kind: &str,
    asked: bool,
    by: Uuid,
) -> Result<(), sqlx::Error> {
    if asked {
        sqlx::query!(
            "insert into asked (household, kind, by_user) values ($1, $2, $3) on conflict do nothing",
            household,
            kind,
            by
        )
        .execute(database)
        .await?;
    } else {
        sqlx::query!("delete from asked where household = $1 and kind = $2", household, kind)
            .execute(database)
            .await?;
    }
    Ok(())
}
