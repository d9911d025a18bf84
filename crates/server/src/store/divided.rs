//! Households that were divided in two, and the two that came of it.

use sqlx::{PgPool, PgTransaction};
use uuid::Uuid;

/// From which household one was divided, with its name, and into which two it was, as far as they are not deleted.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Divided {
    pub from: Option<Uuid>,
    pub from_name: Option<String>,
    pub into: Vec<Uuid>,
    pub into_names: Vec<String>,
}

/// From which household one was divided, and into which.
///
/// # Errors
/// When the database fails.
pub async fn of(database: &PgPool, id: Uuid) -> Result<Option<Divided>, sqlx::Error> {
    sqlx::query_as!(
        Divided,
        r#"select h.divided_from as "from", f.name as "from_name?",
             array(select d.id from households d where d.divided_from = h.id and d.deleted_at is null
                 order by d.created_at, d.name) as "into!",
             array(select d.name from households d where d.divided_from = h.id and d.deleted_at is null
                 order by d.created_at, d.name) as "into_names!"
         from households h left join households f on f.id = h.divided_from
         where h.id = $1 and h.deleted_at is null"#,
        id
    )
    .fetch_optional(database)
    .await
}

/// Notes that a household is one of the two into which another was divided.
///
/// # Errors
/// When the database fails.
pub async fn note(transaction: &mut PgTransaction<'_>, half: Uuid, from: Uuid) -> Result<(), sqlx::Error> {
    sqlx::query!("update households set divided_from = $2 where id = $1", half, from)
        .execute(&mut **transaction)
        .await?;
    Ok(())
}
