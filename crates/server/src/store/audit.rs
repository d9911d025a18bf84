//! The audit: who did what and when. Most of it the database writes by itself.

use sqlx::{PgExecutor, PgPool};
use time::OffsetDateTime;
use uuid::Uuid;

/// Something that was done.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Row {
    pub id: i64,
    pub at: OffsetDateTime,
    pub what: String,
    pub by_name: Option<String>,
    pub household: Option<Uuid>,
    /// Its name and year, while it is there.
    pub name: Option<String>,
    pub year: Option<i32>,
    pub detail: String,
}

/// Which rows, the newest first.
#[derive(Debug, Default)]
pub struct Wanted<'a> {
    /// Those before this one.
    pub before: Option<i64>,
    /// By that person alone.
    pub who: Option<Uuid>,
    /// These doings alone.
    pub what: Option<&'a [String]>,
    /// At households whose name or law has these words in it, in small letters.
    pub household: Option<&'a str>,
    /// From then on.
    pub from: Option<OffsetDateTime>,
    /// Before then.
    pub until: Option<OffsetDateTime>,
    /// How many.
    pub most: i64,
}

/// What was done.
///
/// # Errors
/// When the database fails.
pub async fn rows(database: &PgPool, wanted: &Wanted<'_>) -> Result<Vec<Row>, sqlx::Error> {
    sqlx::query_as!(
        Row,
        r#"select a.id, a.at, a.what, u.name as "by_name?", a.household, h.name as "name?", h.year as "year?", a.detail
         from audit a left join users u on u.id = a.by_user left join households h on h.id = a.household
         where ($1::bigint is null or a.id < $1) and ($2::uuid is null or a.by_user = $2)
             and ($3::text[] is null or a.what = any($3))
             and ($4::text is null or strpos(h.search, $4) > 0)
             and ($5::timestamptz is null or a.at >= $5) and ($6::timestamptz is null or a.at < $6)
         order by a.id desc limit $7"#,
        wanted.before,
        wanted.who,
        wanted.what,
        wanted.household,
        wanted.from,
        wanted.until,
        wanted.most
    )
    .fetch_all(database)
    .await
}

/// Notes what the database does not write by itself.
///
/// # Errors
/// When the database fails.
pub async fn note(
    database: impl PgExecutor<'_>,
    what: &str,
    by: Option<Uuid>,
    household: Option<Uuid>,
    detail: &str,
) -> Result<(), sqlx::Error> {
    sqlx::query!("select audit_note($1, $2, $3, $4)", what, by, household, detail).execute(database).await?;
    Ok(())
}

/// Notes that someone opened a household, once an hour.
///
/// # Errors
/// When the database fails.
pub async fn opened(database: &PgPool, by: Uuid, household: Uuid) -> Result<(), sqlx::Error> {
    sqlx::query!("select audit_opened($1, $2)", by, household).execute(database).await?;
    Ok(())
}

/// Whether the table belongs to somebody else than the application's user of the database, who cannot change it then.
///
/// # Errors
/// When the database fails.
pub async fn is_guarded(database: &PgPool) -> Result<bool, sqlx::Error> {
    sqlx::query_scalar!(
        r#"select not (has_table_privilege('audit', 'update') or has_table_privilege('audit', 'delete')
             or has_table_privilege('audit', 'truncate') or pg_has_role(relowner, 'usage')) as "guarded!"
         from pg_class where oid = 'audit'::regclass"#
    )
    .fetch_one(database)
    .await
}
