//! The practice's keys that the database knows, and what each of them sealed.

use serde_json::Value;
use sqlx::{Connection, PgConnection, PgPool};
use uuid::Uuid;

/// What the one key of before keys had names is called until the file tells its name.
pub const UNNAMED: &str = "first";
/// So many rows are read at once to be sealed anew.
const BATCH: i64 = 50;
/// The number of the lock that who seals anew holds.
const LOCK: i64 = 0x4845_4d42_4f4b;

/// A key that the database knows.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Known {
    pub name: String,
    /// The text by which it is known, sealed with it. Empty in a database from before there was one.
    pub known: String,
}

/// The keys, the newest last.
///
/// # Errors
/// When the database fails.
pub async fn known(database: &PgPool) -> Result<Vec<Known>, sqlx::Error> {
    sqlx::query_as!(Known, "select name, known from keys order by at, name").fetch_all(database).await
}

/// Makes a key known; one that is stays.
///
/// # Errors
/// When the database fails.
pub async fn add(database: &PgPool, name: &str, known: &str) -> Result<(), sqlx::Error> {
    sqlx::query!("insert into keys (name, known) values ($1, $2) on conflict do nothing", name, known)
        .execute(database)
        .await?;
    Ok(())
}

/// Names the key of before keys had names.
///
/// # Errors
/// When the database fails.
pub async fn name(database: &PgPool, name: &str, known: &str) -> Result<(), sqlx::Error> {
    sqlx::query!("update keys set name = $1, known = $2 where name = $3", name, known, UNNAMED)
        .execute(database)
        .await?;
    Ok(())
}

/// Lets a key go. Whether it went: not while something is sealed with it.
///
/// # Errors
/// When the database fails.
pub async fn let_go(database: &PgPool, name: &str) -> Result<bool, sqlx::Error> {
    match sqlx::query!("delete from keys where name = $1", name).execute(database).await {
        Ok(_) => Ok(true),
        Err(sqlx::Error::Database(error)) if error.is_foreign_key_violation() => Ok(false),
        Err(error) => Err(error),
    }
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

/// Holds the right to seal anew as long as the connection lives; nothing where somebody else has it.
///
/// # Errors
/// When the database fails.
pub async fn hold(database: &PgPool) -> Result<Option<PgConnection>, sqlx::Error> {
    let mut connection = database.acquire().await?.detach();
    let held = sqlx::query_scalar!(r#"select pg_try_advisory_lock($1) as "held!""#, LOCK);
    let held = held.fetch_one(&mut connection).await?;
    Ok(held.then_some(connection))
}

/// Gives the right to seal anew back: at once, and not when the database finds that the connection is gone.
///
/// # Errors
/// When the database fails.
pub async fn release(mut held: PgConnection) -> Result<(), sqlx::Error> {
    sqlx::query("select pg_advisory_unlock($1)").bind(LOCK).execute(&mut held).await?;
    held.close().await
}

/// How much is sealed with other keys than this one.
///
/// # Errors
/// When the database fails.
pub async fn left(database: &PgPool, present: &str) -> Result<i64, sqlx::Error> {
    sqlx::query_scalar!(
        r#"select (select count(*) from revisions where sealed_with <> $1)
             + (select count(*) from filings where sealed_with <> $1)
             + (select count(*) from files where sealed_with <> $1)
             + (select count(*) from file_pages where sealed_with <> $1)
             + (select count(*) from users where second_sealed_with <> $1) as "left!""#,
        present
    )
    .fetch_one(database)
    .await
}

/// A stored household that another key sealed.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct SealedRevision {
    pub household: Uuid,
    pub revision: i64,
    pub state: Value,
}

/// Some revisions that other keys than this one sealed.
///
/// # Errors
/// When the database fails.
pub async fn revisions(database: &PgPool, present: &str) -> Result<Vec<SealedRevision>, sqlx::Error> {
    sqlx::query_as!(
        SealedRevision,
        "select household, revision, state from revisions where sealed_with <> $1 limit $2",
        present,
        BATCH
    )
    .fetch_all(database)
    .await
}

/// Some newest revisions of households, deleted ones and trials too, by their id after this one.
///
/// # Errors
/// When the database fails.
pub async fn newest_after(database: &PgPool, after: Uuid) -> Result<Vec<SealedRevision>, sqlx::Error> {
    sqlx::query_as!(
        SealedRevision,
        "select r.household, r.revision, r.state from households h
         join revisions r on r.household = h.id and r.revision = h.revision
         where h.id > $1 order by h.id limit $2",
        after,
        BATCH
    )
    .fetch_all(database)
    .await
}

/// Stores a revision's household as another key sealed it.
///
/// # Errors
/// When the database fails.
pub async fn reseal_revision(database: &PgPool, new: &SealedRevision, with: &str) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "update revisions set state = $3, sealed_with = $4 where household = $1 and revision = $2",
        new.household,
        new.revision,
        new.state,
        with
    )
    .execute(database)
    .await?;
    Ok(())
}

/// Some filed returns that other keys than this one sealed, with their household: of each, its package.
///
/// # Errors
/// When the database fails.
pub async fn filings(database: &PgPool, present: &str) -> Result<Vec<(Uuid, Uuid, String)>, sqlx::Error> {
    let found = sqlx::query!(
        "select household, id, package from filings where sealed_with <> $1 limit $2",
        present,
        BATCH
    );
    let found = found.fetch_all(database).await?;
    Ok(found.into_iter().map(|row| (row.household, row.id, row.package)).collect())
}

/// Stores a filed return's package as another key sealed it.
///
/// # Errors
/// When the database fails.
pub async fn reseal_filing(
    database: &PgPool,
    id: Uuid,
    package: &str,
    with: &str,
) -> Result<(), sqlx::Error> {
    sqlx::query!("update filings set package = $2, sealed_with = $3 where id = $1", id, package, with)
        .execute(database)
        .await?;
    Ok(())
}

/// A file that other keys than this one sealed.
///
/// # Errors
/// When the database fails.
pub async fn file(database: &PgPool, present: &str) -> Result<Option<(String, Vec<u8>)>, sqlx::Error> {
    let found = sqlx::query!("select id, bytes from files where sealed_with <> $1 limit 1", present);
    Ok(found.fetch_optional(database).await?.map(|row| (row.id, row.bytes)))
}

/// Stores a file as another key sealed it.
///
/// # Errors
/// When the database fails.
pub async fn reseal_file(database: &PgPool, id: &str, bytes: &[u8], with: &str) -> Result<(), sqlx::Error> {
    sqlx::query!("update files set bytes = $2, sealed_with = $3 where id = $1", id, bytes, with)
        .execute(database)
        .await?;
    Ok(())
}

/// A page that other keys than this one sealed: its file, its number, its picture.
///
/// # Errors
/// When the database fails.
pub async fn page(database: &PgPool, present: &str) -> Result<Option<(String, i32, Vec<u8>)>, sqlx::Error> {
    let found =
        sqlx::query!("select file, page, picture from file_pages where sealed_with <> $1 limit 1", present);
    Ok(found.fetch_optional(database).await?.map(|row| (row.file, row.page, row.picture)))
}

/// Stores a page as another key sealed it.
///
/// # Errors
/// When the database fails.
pub async fn reseal_page(
    database: &PgPool,
    file: &str,
    page: i32,
    picture: &[u8],
    with: &str,
) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "update file_pages set picture = $3, sealed_with = $4 where file = $1 and page = $2",
        file,
        page,
        picture,
        with
    )
    .execute(database)
    .await?;
    Ok(())
}

/// Secrets of second factors that other keys than this one sealed, with whose they are.
///
/// # Errors
/// When the database fails.
pub async fn seconds(database: &PgPool, present: &str) -> Result<Vec<(Uuid, String)>, sqlx::Error> {
    let found = sqlx::query!(
        r#"select id, second_secret as "secret!" from users where second_sealed_with <> $1 limit $2"#,
        present,
        BATCH
    );
    Ok(found.fetch_all(database).await?.into_iter().map(|row| (row.id, row.secret)).collect())
}

/// Stores a second factor's secret as another key sealed it, if it still is the same.
///
/// # Errors
/// When the database fails.
pub async fn reseal_second(
    database: &PgPool,
    user: Uuid,
    (was, secret): (&str, &str),
    with: &str,
) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "update users set second_secret = $3, second_sealed_with = $4 where id = $1 and second_secret = $2",
        user,
        was,
        secret,
        with
    )
    .execute(database)
    .await?;
    Ok(())
}

/// By which last digits a household is found from now on, if the revision that they are of still is the newest.
///
/// # Errors
/// When the database fails.
pub async fn set_digits(
    database: &PgPool,
    household: Uuid,
    revision: i64,
    digits: &[String],
) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "update households set digits = $3 where id = $1 and revision = $2",
        household,
        revision,
        digits
    )
    .execute(database)
    .await?;
    Ok(())
}
