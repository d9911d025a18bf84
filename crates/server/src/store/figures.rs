//! Figures of the practice's own, and the households that they reach. Nothing is overwritten: a replacement ends, and stays.

use hembo_core::figures::Replacement;
use sqlx::PgPool;
use time::OffsetDateTime;
use uuid::Uuid;

/// A replacement at work.
#[derive(Debug, Clone, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct AtWork {
    pub country: String,
    pub year: i32,
    pub in_table: String,
    pub figure: String,
    pub value: String,
}

impl AtWork {
    /// Whether it is of that figure: its year, table and place.
    pub fn is_at(&self, country: &str, place: (i32, &str, &str)) -> bool {
        self.country == country && (self.year, &*self.in_table, &*self.figure) == place
    }

    /// As the rules take it.
    pub fn replacement(&self) -> Replacement {
        Replacement {
            year: self.year,
            table: self.in_table.clone(),
            figure: self.figure.clone(),
            value: self.value.clone(),
        }
    }
}

/// A replacement with who and why.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Replaced {
    pub id: Uuid,
    pub year: i32,
    pub in_table: String,
    pub figure: String,
    pub was: String,
    pub value: String,
    pub source: String,
    pub why: String,
    pub by_name: String,
    pub at: OffsetDateTime,
    pub ended_by: Option<String>,
    pub ended_at: Option<OffsetDateTime>,
}

/// A replacement to keep.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct New<'a> {
    pub country: &'a str,
    pub replacement: &'a Replacement,
    pub was: &'a str,
    pub source: &'a str,
    pub why: &'a str,
    pub by: Uuid,
}

/// The replacements at work, in a settled order.
///
/// # Errors
/// When the database fails.
pub async fn at_work(database: &PgPool) -> Result<Vec<AtWork>, sqlx::Error> {
    sqlx::query_as!(
        AtWork,
        "select country, year, in_table, figure, value from replaced_figures where ended_at is null
         order by country, year, in_table, figure"
    )
    .fetch_all(database)
    .await
}

/// Every replacement of a country, the newest first.
///
/// # Errors
/// When the database fails.
pub async fn all(database: &PgPool, country: &str) -> Result<Vec<Replaced>, sqlx::Error> {
    sqlx::query_as!(
        Replaced,
        r#"select r.id, r.year, r.in_table, r.figure, r.was, r.value, r.source, r.why, u.name as by_name, r.at,
             e.name as "ended_by?", r.ended_at
         from replaced_figures r join users u on u.id = r.by_user left join users e on e.id = r.ended_by
         where r.country = $1 order by r.at desc limit 500"#,
        country
    )
    .fetch_all(database)
    .await
}

/// Keeps a replacement; one that is at work in its place ends. Whether the one at work there, or none, still was as it was seen.
///
/// # Errors
/// When the database fails.
pub async fn keep(database: &PgPool, new: &New<'_>, seen: Option<&str>) -> Result<bool, sqlx::Error> {
    let Replacement { year, table, figure, value } = new.replacement;
    let mut transaction = database.begin().await?;
    sqlx::query!("lock table replaced_figures in share row exclusive mode")
        .execute(&mut *transaction)
        .await?;
    let at_work = sqlx::query_scalar!(
        "select value from replaced_figures
         where country = $1 and year = $2 and in_table = $3 and figure = $4 and ended_at is null",
        new.country,
        year,
        table,
        figure
    )
    .fetch_optional(&mut *transaction)
    .await?;
    if at_work.as_deref() != seen {
        return Ok(false);
    }
    sqlx::query!(
        "update replaced_figures set ended_at = now(), ended_by = $5
         where country = $1 and year = $2 and in_table = $3 and figure = $4 and ended_at is null",
        new.country,
        year,
        table,
        figure,
        new.by
    )
    .execute(&mut *transaction)
    .await?;
    sqlx::query!(
        "insert into replaced_figures (id, country, year, in_table, figure, was, value, source, why, by_user)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)",
        Uuid::new_v4(),
        new.country,
        year,
        table,
        figure,
        new.was,
        value,
        new.source,
        new.why,
        new.by
    )
    .execute(&mut *transaction)
    .await?;
    transaction.commit().await?;
    Ok(true)
}

/// Ends a replacement; whether it was at work.
///
/// # Errors
/// When the database fails.
pub async fn end(database: &PgPool, country: &str, id: Uuid, by: Uuid) -> Result<bool, sqlx::Error> {
    let done = sqlx::query!(
        "update replaced_figures set ended_at = now(), ended_by = $3
         where country = $1 and id = $2 and ended_at is null",
        country,
        id,
        by
    )
    .execute(database)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// How many households a return year has.
///
/// # Errors
/// When the database fails.
pub async fn reached(database: &PgPool, country: &str, year: i32) -> Result<i64, sqlx::Error> {
    sqlx::query_scalar!(
        r#"select count(*) as "count!" from households where country = $1 and year = $2 and deleted_at is null and trial_of is null"#,
        country,
        year
    )
    .fetch_one(database)
    .await
}

/// The next households of a return year, by id.
///
/// # Errors
/// When the database fails.
pub async fn next_reached(
    database: &PgPool,
    country: &str,
    year: i32,
    after: Uuid,
    most: i64,
) -> Result<Vec<Uuid>, sqlx::Error> {
    sqlx::query_scalar!(
        "select id from households where country = $1 and year = $2 and deleted_at is null and trial_of is null and id > $3
         order by id limit $4",
        country,
        year,
        after,
        most
    )
    .fetch_all(database)
    .await
}

/// Takes the next household whose summary other rules made, for a minute; one that another server has taken is passed over.
///
/// # Errors
/// When the database fails.
pub async fn take_outdated(
    database: &PgPool,
    country: &str,
    rules: &str,
    after: Uuid,
) -> Result<Option<Uuid>, sqlx::Error> {
    sqlx::query_scalar!(
        "update households set renewed_until = now() + interval '1 minute' where id = (
             select id from households where country = $1 and rules is distinct from $2 and deleted_at is null
                 and trial_of is null and id > $3 and coalesce(renewed_until < now(), true)
             order by id for update skip locked limit 1)
         returning id",
        country,
        rules,
        after
    )
    .fetch_optional(database)
    .await
}

/// Lets a household go that was taken.
///
/// # Errors
/// When the database fails.
pub async fn let_go(database: &PgPool, id: Uuid) -> Result<(), sqlx::Error> {
    sqlx::query!("update households set renewed_until = null where id = $1", id).execute(database).await?;
    Ok(())
}

/// Whether a household whose summary other rules made is in another server's hands.
///
/// # Errors
/// When the database fails.
pub async fn any_taken(database: &PgPool, country: &str, rules: &str) -> Result<bool, sqlx::Error> {
    sqlx::query_scalar!(
        r#"select exists (select 1 from households where country = $1 and rules is distinct from $2
             and deleted_at is null and trial_of is null and renewed_until >= now()) as "taken!""#,
        country,
        rules
    )
    .fetch_one(database)
    .await
}
