//! Households erased for good.

use serde::{Deserialize, Serialize};
use sqlx::{PgPool, PgTransaction, types::Json};
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// How much of a household is or was erased.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[allow(missing_docs)]
pub struct Erasing {
    pub revisions: i64,
    /// Trials beside it, which go with it.
    pub trials: i64,
    /// Slips as files that no other household names.
    pub files: i64,
    /// Filed returns, packs, letters, notes, ticks, consents and fetches.
    pub filings: i64,
    pub packs: i64,
    pub letters: i64,
    pub notes: i64,
    pub fetches: i64,
}

/// A household as it stands before it is erased.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Stands {
    pub name: String,
    pub country: String,
    pub year: i32,
    /// Put away, or deleted: on nobody's desk.
    pub away: bool,
    /// It went to the family or to the authority.
    pub handed_over: bool,
}

/// A household that was erased.
#[derive(Debug, Serialize, ToSchema)]
#[schema(as = ErasedHousehold)]
#[allow(missing_docs)]
pub struct Erased {
    pub household: Uuid,
    pub country: String,
    pub year: i32,
    #[schema(value_type = Erasing)]
    pub counts: Json<Erasing>,
    pub by: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
}

/// How a household stands, deleted or not.
///
/// # Errors
/// When the database fails.
pub async fn stands(database: &PgPool, id: Uuid) -> Result<Option<Stands>, sqlx::Error> {
    sqlx::query_as!(
        Stands,
        r#"select name, country, year, (archived_at is not null or deleted_at is not null) as "away!",
             (stage in ('handed_over', 'sent', 'accepted', 'refused', 'assessed')
                 or exists (select 1 from filings f where f.household = h.id)
                 or exists (select 1 from moves m where m.household = h.id and m.to_stage in ('handed_over', 'sent')))
                 as "handed_over!"
         from households h where id = $1 and trial_of is null"#,
        id
    )
    .fetch_optional(database)
    .await
}

/// How much of it would be erased.
///
/// # Errors
/// When the database fails.
pub async fn erasing(database: &PgPool, id: Uuid) -> Result<Erasing, sqlx::Error> {
    let mut transaction = database.begin().await?;
    let all = all(&mut transaction, id).await?;
    let counted = count(&mut transaction, &all, id).await?;
    transaction.rollback().await?;
    Ok(counted)
}

/// A household with its trials.
async fn all(transaction: &mut PgTransaction<'_>, id: Uuid) -> Result<Vec<Uuid>, sqlx::Error> {
    sqlx::query_scalar!("select id from households where id = $1 or trial_of = $1 order by id for update", id)
        .fetch_all(&mut **transaction)
        .await
}

async fn count(transaction: &mut PgTransaction<'_>, all: &[Uuid], id: Uuid) -> Result<Erasing, sqlx::Error> {
    let files = i64::try_from(files(transaction, all).await?.len()).unwrap_or(i64::MAX);
    let counted = sqlx::query!(
        r#"select (select count(*) from revisions where household = any($1)) as "revisions!",
             (select count(*) from households where trial_of = $2) as "trials!",
             (select count(*) from filings where household = any($1)) as "filings!",
             (select count(*) from packs where household = any($1)) as "packs!",
             (select count(*) from letters where household = any($1)) as "letters!",
             (select count(*) from notes where household = any($1)) as "notes!",
             (select count(*) from fetches where household = any($1)) as "fetches!""#,
        all,
        id
    )
    .fetch_one(&mut **transaction)
    .await?;
    Ok(Erasing {
        revisions: counted.revisions,
        trials: counted.trials,
        files,
        filings: counted.filings,
        packs: counted.packs,
        letters: counted.letters,
        notes: counted.notes,
        fetches: counted.fetches,
    })
}

/// The files that these households name or named, and no other does.
async fn files(transaction: &mut PgTransaction<'_>, all: &[Uuid]) -> Result<Vec<String>, sqlx::Error> {
    sqlx::query_scalar!(
        r#"with named as (
             select distinct household = any($1) as ours, file #>> '{}' as id from revisions,
                 jsonb_path_query(state, 'lax $.papers[*].files[*].id') as file
         )
         select f.id from files f where exists (select 1 from named where ours and named.id = f.id)
             and not exists (select 1 from named where not ours and named.id = f.id)"#,
        all
    )
    .fetch_all(&mut **transaction)
    .await
}

/// Erases a household with all that hangs on it, and keeps that it was.
///
/// # Errors
/// When the database fails; then nothing was erased.
pub async fn erase(database: &PgPool, id: Uuid, by: Uuid) -> Result<(), sqlx::Error> {
    let mut transaction = database.begin().await?;
    let all = all(&mut transaction, id).await?;
    let counts = count(&mut transaction, &all, id).await?;
    sqlx::query!(
        "insert into erased (household, country, year, counts, by_user)
         select id, country, year, $2, $3 from households where id = $1",
        id,
        serde_json::to_value(counts).unwrap_or_default(),
        by
    )
    .execute(&mut *transaction)
    .await?;
    let files = files(&mut transaction, &all).await?;
    sqlx::query!("delete from file_pages where file = any($1)", &files).execute(&mut *transaction).await?;
    sqlx::query!("delete from files where id = any($1)", &files).execute(&mut *transaction).await?;
    rows(&mut transaction, &all).await?;
    transaction.commit().await
}

/// Every row that hangs on these households, and they themselves.
async fn rows(transaction: &mut PgTransaction<'_>, all: &[Uuid]) -> Result<(), sqlx::Error> {
    macro_rules! delete {
        ($($from:literal)*) => {
            $(sqlx::query!($from, all).execute(&mut **transaction).await?;)*
        };
    }
    delete! {
        "delete from filings where household = any($1)"
        "delete from fetches where household = any($1)"
        "delete from consents where household = any($1)"
        "delete from asked where household = any($1)"
        "delete from packs where household = any($1)"
        "delete from letters where household = any($1)"
        "delete from notes where household = any($1)"
        "delete from ticks where household = any($1)"
        "delete from moves where household = any($1)"
        "delete from rereckoned where household = any($1)"
        "delete from reveals where household = any($1)"
        "delete from marks where household = any($1)"
        "delete from revisions where household = any($1)"
        "update households set carried_from = null where carried_from = any($1)"
        "update households set divided_from = null where divided_from = any($1)"
        "delete from households where id = any($1) and trial_of is not null"
        "delete from households where id = any($1)"
    }
    Ok(())
}

/// What was erased, the newest first.
///
/// # Errors
/// When the database fails.
pub async fn erased(database: &PgPool) -> Result<Vec<Erased>, sqlx::Error> {
    sqlx::query_as!(
        Erased,
        r#"select e.household, e.country, e.year, e.counts as "counts: Json<Erasing>", u.name as by, e.at
         from erased e join users u on u.id = e.by_user order by e.at desc limit 1000"#
    )
    .fetch_all(database)
    .await
}
