//! Returns that were filed, and what became of them.

use crate::seal::key_of_text;
use serde_json::Value;
use sqlx::PgPool;
use time::OffsetDateTime;
use uuid::Uuid;

/// A return that was filed.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Filing {
    pub id: Uuid,
    pub revision: i64,
    pub scope: String,
    pub whose: String,
    /// Sealed.
    pub package: String,
    pub checksum: String,
    pub amends: Option<String>,
    /// The number of the receipt, once it came in.
    pub number: Option<String>,
    /// sending, received, accepted, refused or assessed.
    pub state: String,
    pub receipt: Option<Value>,
    pub by_name: String,
    pub at: OffsetDateTime,
}

/// A return to file.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct NewFiling<'a> {
    pub id: Uuid,
    pub household: Uuid,
    pub revision: i64,
    pub scope: &'a str,
    pub whose: &'a str,
    pub consent: Uuid,
    pub package: &'a str,
    pub checksum: &'a str,
    pub amends: Option<&'a str>,
    pub by: Uuid,
}

/// Notes that a return is on its way, before it is sent.
///
/// # Errors
/// When the database fails.
pub async fn begin(database: &PgPool, new: &NewFiling<'_>) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "insert into filings (id, household, revision, scope, whose, consent, package, checksum, amends, state, by_user,
             sealed_with)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9, 'sending', $10, $11)",
        new.id,
        new.household,
        new.revision,
        new.scope,
        new.whose,
        new.consent,
        new.package,
        new.checksum,
        new.amends,
        new.by,
        key_of_text(new.package)
    )
    .execute(database)
    .await?;
    Ok(())
}

/// Takes a return back that was never sent: the authority said no before it came in.
///
/// # Errors
/// When the database fails.
pub async fn forget(database: &PgPool, id: Uuid) -> Result<(), sqlx::Error> {
    sqlx::query!("delete from filings where id = $1 and state = 'sending'", id).execute(database).await?;
    Ok(())
}

/// What became of a return.
///
/// # Errors
/// When the database fails.
pub async fn keep(
    database: &PgPool,
    id: Uuid,
    number: &str,
    state: &str,
    receipt: &Value,
) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "update filings set number = $2, state = $3, receipt = $4, looked_at = now() where id = $1",
        id,
        number,
        state,
        receipt
    )
    .execute(database)
    .await?;
    Ok(())
}

/// The returns of a household that is not deleted that were filed, the newest first.
///
/// # Errors
/// When the database fails.
pub async fn of(database: &PgPool, household: Uuid) -> Result<Vec<Filing>, sqlx::Error> {
    sqlx::query_as!(
        Filing,
        "select f.id, f.revision, f.scope, f.whose, f.package, f.checksum, f.amends, f.number, f.state, f.receipt,
             u.name as by_name, f.at
         from filings f join users u on u.id = f.by_user
         join households h on h.id = f.household and h.deleted_at is null
         where f.household = $1 order by f.at desc, f.id limit 200",
        household
    )
    .fetch_all(database)
    .await
}
