//! Where households stand in the practice's hands: their states of work, who works on them and who reviews them.

use super::audit;
use crate::stage::Stage;
use serde_json::Value;
use sqlx::{PgPool, PgTransaction};
use time::{Date, OffsetDateTime};
use uuid::Uuid;

/// Where a household stands.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Standing {
    pub revision: i64,
    pub stage: String,
    pub worked_by: Option<Uuid>,
    pub reviewer: Option<Uuid>,
    pub held_until: Option<Date>,
    pub filed_revision: Option<i64>,
    pub country: String,
    pub year: i32,
    /// What lists show of it.
    pub summary: Value,
}

/// A step from one state of work to another.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Move {
    /// moved, changed, unchanged or taken_back.
    pub kind: String,
    pub from_stage: String,
    pub to_stage: String,
    pub revision: i64,
    pub words: String,
    pub by_user: Uuid,
    pub by_name: String,
    pub at: OffsetDateTime,
}

/// A step to write.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct NewMove<'a> {
    pub household: Uuid,
    pub kind: &'a str,
    pub from: Stage,
    pub to: Stage,
    pub revision: i64,
    pub words: &'a str,
    pub by: Uuid,
}

/// Where a household stands that is not deleted.
///
/// # Errors
/// When the database fails.
pub async fn standing(database: &PgPool, id: Uuid) -> Result<Option<Standing>, sqlx::Error> {
    sqlx::query_as!(
        Standing,
        "select revision, stage, worked_by, reviewer, held_until, filed_revision, country, year, summary
         from households
         where id = $1 and deleted_at is null",
        id
    )
    .fetch_optional(database)
    .await
}

/// The steps of a household, the newest first.
///
/// # Errors
/// When the database fails.
pub async fn moves(database: &PgPool, id: Uuid) -> Result<Vec<Move>, sqlx::Error> {
    sqlx::query_as!(
        Move,
        "select m.kind, m.from_stage, m.to_stage, m.revision, m.words, m.by_user, u.name as by_name, m.at
         from moves m join users u on u.id = m.by_user where m.household = $1 order by m.id desc limit 200",
        id
    )
    .fetch_all(database)
    .await
}

/// Takes a step, if the household still stands where it begins, at that revision: whether it did.
///
/// # Errors
/// When the database fails.
pub async fn take(database: &PgPool, step: &NewMove<'_>) -> Result<bool, sqlx::Error> {
    let mut transaction = database.begin().await?;
    let done = sqlx::query!(
        "update households set stage = $3, touched_at = now(),
             filed_revision = case when $3 = 'sent' and $5 = 'moved' then revision else filed_revision end
         where id = $1 and stage = $2 and revision = $4 and deleted_at is null",
        step.household,
        step.from.stored(),
        step.to.stored(),
        step.revision,
        step.kind
    )
    .execute(&mut *transaction)
    .await?;
    if done.rows_affected() == 0 {
        return Ok(false);
    }
    write(&mut transaction, step).await?;
    transaction.commit().await?;
    Ok(true)
}

async fn write(transaction: &mut PgTransaction<'_>, step: &NewMove<'_>) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "insert into moves (household, kind, from_stage, to_stage, revision, words, by_user)
         values ($1, $2, $3, $4, $5, $6, $7)",
        step.household,
        step.kind,
        step.from.stored(),
        step.to.stored(),
        step.revision,
        step.words,
        step.by
    )
    .execute(&mut **transaction)
    .await?;
    Ok(())
}

/// A change of the household: one that was settled goes back into work, and where the state of the revision comes back at
/// which it left, it is settled again. `revision` is the one before the change, `back_to` the one whose state comes back.
///
/// # Errors
/// When the database fails.
pub async fn changed(
    transaction: &mut PgTransaction<'_>,
    id: Uuid,
    revision: i64,
    back_to: Option<i64>,
    by: Uuid,
) -> Result<(), sqlx::Error> {
    let stage = sqlx::query_scalar!("select stage from households where id = $1 for update", id);
    let stage = Stage::read(&stage.fetch_one(&mut **transaction).await?);
    let step = if stage.is_settled() {
        let why = match stage {
            Stage::Cleared | Stage::HandedOver => "Changed after it was cleared",
            Stage::Refused => "Changed after it was refused",
            _ => "Changed after it was sent: what goes out now is an amended return",
        };
        NewMove { household: id, kind: "changed", from: stage, to: Stage::InWork, revision, words: why, by }
    } else {
        let Some(back_to) = back_to.filter(|_| stage == Stage::InWork) else { return Ok(()) };
        let Some(left) = left_at(transaction, id).await?.filter(|left| left.revision == back_to) else {
            return Ok(());
        };
        let to = Stage::read(&left.from_stage);
        let words = "As it was before it was changed";
        NewMove { household: id, kind: "unchanged", from: stage, to, revision, words, by }
    };
    sqlx::query!("update households set stage = $2 where id = $1", id, step.to.stored())
        .execute(&mut **transaction)
        .await?;
    write(transaction, &step).await
}

/// From where and at which revision a change took a household back into work, where that was the last step.
struct Left {
    revision: i64,
    from_stage: String,
}

async fn left_at(transaction: &mut PgTransaction<'_>, id: Uuid) -> Result<Option<Left>, sqlx::Error> {
    let last = sqlx::query!(
        "select kind, revision, from_stage from moves where household = $1 order by id desc limit 1",
        id
    )
    .fetch_optional(&mut **transaction)
    .await?;
    let changed = last.filter(|last| last.kind == "changed");
    Ok(changed.map(|last| Left { revision: last.revision, from_stage: last.from_stage }))
}

/// Who has a household in hand.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Hands {
    pub worked_by: Option<Uuid>,
    pub reviewer: Option<Uuid>,
    pub held_until: Option<Date>,
}

/// Puts a household into people's hands, noted in the audit where other people have it then. Whether there was one.
///
/// # Errors
/// When the database fails.
pub async fn put_in_hands(
    database: &PgPool,
    id: Uuid,
    hands: &Hands,
    by: Uuid,
    noted: Option<&str>,
) -> Result<bool, sqlx::Error> {
    let mut transaction = database.begin().await?;
    let done = sqlx::query!(
        "update households set worked_by = $2, reviewer = $3, held_until = $4
         where id = $1 and deleted_at is null",
        id,
        hands.worked_by,
        hands.reviewer,
        hands.held_until
    )
    .execute(&mut *transaction)
    .await?
    .rows_affected();
    if let (1, Some(noted)) = (done, noted) {
        audit::note(&mut *transaction, "hands", Some(by), Some(id), noted).await?;
    }
    transaction.commit().await?;
    Ok(done == 1)
}
