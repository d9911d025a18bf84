//! Households whose result moved when they were reckoned by other rules.

use serde_json::Value;
use sqlx::PgPool;
use time::OffsetDateTime;
use uuid::Uuid;

/// A household whose result moved.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Moved {
    pub household: Uuid,
    pub name: String,
    pub year: i32,
    pub country: String,
    /// What lists showed of it.
    pub was: Value,
    pub came: Value,
    pub at: OffsetDateTime,
}

/// A summary that other rules made.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Renewed<'a> {
    pub household: Uuid,
    pub revision: i64,
    pub summary: &'a Value,
    pub rules: &'a str,
    pub digits: &'a [String],
}

/// Renews what lists show of a revision, if it still is the newest. Where `moves` says that a result moves from one summary
/// to another, that is noted: once for a household, from what stood when somebody last looked.
///
/// # Errors
/// When the database fails.
pub async fn renew(
    database: &PgPool,
    new: &Renewed<'_>,
    moves: impl Fn(&Value, &Value) -> bool,
) -> Result<(), sqlx::Error> {
    let mut transaction = database.begin().await?;
    let was = sqlx::query_scalar!(
        "select summary from households where id = $1 and revision = $2 for update",
        new.household,
        new.revision
    )
    .fetch_optional(&mut *transaction)
    .await?;
    let Some(was) = was else { return Ok(()) };
    sqlx::query!(
        "update households set summary = $2, rules = $3, digits = $4 where id = $1",
        new.household,
        new.summary,
        new.rules,
        new.digits
    )
    .execute(&mut *transaction)
    .await?;
    let noted = sqlx::query!(
        "delete from rereckoned where household = $1 and seen_at is null returning was, came",
        new.household
    )
    .fetch_optional(&mut *transaction)
    .await?;
    // What was edited meanwhile moved for another reason.
    let was = noted.filter(|noted| !moves(&noted.came, &was)).map_or(was, |noted| noted.was);
    if moves(&was, new.summary) {
        sqlx::query!(
            "insert into rereckoned (id, household, was, came) values ($1, $2, $3, $4)",
            Uuid::new_v4(),
            new.household,
            was,
            new.summary
        )
        .execute(&mut *transaction)
        .await?;
    }
    transaction.commit().await
}

/// Those that nobody has looked at yet, the latest first.
///
/// # Errors
/// When the database fails.
pub async fn unseen(database: &PgPool, only_of: Option<Uuid>, most: i64) -> Result<Vec<Moved>, sqlx::Error> {
    sqlx::query_as!(
        Moved,
        "select m.household, h.name, h.year, h.country, m.was, m.came, m.at from rereckoned m
         join households h on h.id = m.household
         where m.seen_at is null and h.deleted_at is null and ($2::uuid is null or $2 in (h.worked_by, h.reviewer))
         order by m.at desc, h.name limit $1",
        most,
        only_of
    )
    .fetch_all(database)
    .await
}

/// How many nobody has looked at yet, and how many households still wait for their turn: those that other rules than
/// these reckoned.
///
/// # Errors
/// When the database fails.
pub async fn counts(
    database: &PgPool,
    only_of: Option<Uuid>,
    rules: &[String],
) -> Result<(i64, i64), sqlx::Error> {
    let counted = sqlx::query!(
        r#"select (select count(*) from rereckoned m join households h on h.id = m.household
                 where m.seen_at is null and h.deleted_at is null
                 and ($2::uuid is null or $2 in (h.worked_by, h.reviewer))) as "moved!",
             (select count(*) from households where deleted_at is null and trial_of is null and rules <> all($1)) as "waiting!""#,
        rules,
        only_of
    )
    .fetch_one(database)
    .await?;
    Ok((counted.moved, counted.waiting))
}

/// Notes that someone has looked at those between two moments, both included.
///
/// # Errors
/// When the database fails.
pub async fn see(
    database: &PgPool,
    (from, until): (OffsetDateTime, OffsetDateTime),
    only_of: Option<Uuid>,
    by: Uuid,
) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "update rereckoned m set seen_by = $3, seen_at = now() from households h
         where h.id = m.household and m.seen_at is null and m.at between $1 and $2
             and ($4::uuid is null or $4 in (h.worked_by, h.reviewer))",
        from,
        until,
        by,
        only_of
    )
    .execute(database)
    .await?;
    Ok(())
}
