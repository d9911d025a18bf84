//! The payers that the practice knows.

use hembo_core::payer::Payer;
use serde::Serialize;
use serde_json::Value;
use sqlx::{PgConnection, PgPool};
use std::collections::BTreeSet;
use utoipa::ToSchema;
use uuid::Uuid;

/// A payer that is known.
#[derive(Debug, Serialize, ToSchema)]
#[schema(as = Payer)]
#[allow(missing_docs)]
pub struct Known {
    pub id: Uuid,
    pub name: String,
    /// The number under which the authority knows it; may be empty.
    pub number: String,
}

/// Learns payers: what is known stays as it is, but for a number where none was known.
///
/// # Errors
/// When the database fails.
pub async fn learn(
    connection: &mut PgConnection,
    country: &str,
    payers: &BTreeSet<Payer>,
    by: Uuid,
) -> Result<(), sqlx::Error> {
    if payers.is_empty() {
        return Ok(());
    }
    let names: Vec<String> = payers.iter().map(|payer| payer.name.clone()).collect();
    let numbers: Vec<String> = payers.iter().map(|payer| payer.number.clone()).collect();
    sqlx::query!(
        "update payers p set number = n.number, by_user = $4, at = now()
         from unnest($2::text[], $3::text[]) as n (name, number)
         where p.country = $1 and lower(p.name) = lower(n.name) and p.number = '' and n.number <> ''
             and not exists (select 1 from payers o where o.country = $1 and lower(o.name) = lower(n.name)
                 and o.number = n.number)",
        country,
        &names,
        &numbers,
        by
    )
    .execute(&mut *connection)
    .await?;
    sqlx::query!(
        "insert into payers (country, name, number, by_user)
         select $1, n.name, n.number, $4 from unnest($2::text[], $3::text[]) as n (name, number)
         where n.number <> '' or not exists
             (select 1 from payers o where o.country = $1 and lower(o.name) = lower(n.name))
         on conflict do nothing",
        country,
        &names,
        &numbers,
        by
    )
    .execute(&mut *connection)
    .await?;
    Ok(())
}

/// Known payers by the first letters of their names, or of any word in them, or by their numbers.
///
/// # Errors
/// When the database fails.
pub async fn find(
    database: &PgPool,
    country: &str,
    text: &str,
    most: i64,
) -> Result<Vec<Known>, sqlx::Error> {
    let plain = text.to_lowercase().replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_");
    sqlx::query_as!(
        Known,
        "select id, name, number from payers where country = $1
             and (lower(name) like $2 || '%' or lower(name) like '% ' || $2 || '%'
                 or replace(number, '-', '') like replace($2, '-', '') || '%')
         order by lower(name) like $2 || '%' desc, lower(name), number limit $3",
        country,
        plain,
        most
    )
    .fetch_all(database)
    .await
}

/// Sets the name and number of a payer; what they were. Nothing where there is none, a conflict where another one has both.
///
/// # Errors
/// When the database fails, or another payer has that name and number.
pub async fn correct(
    database: &PgPool,
    country: &str,
    id: Uuid,
    name: &str,
    number: &str,
    by: Uuid,
) -> Result<Option<Known>, sqlx::Error> {
    sqlx::query_as!(
        Known,
        "update payers p set name = $3, number = $4, by_user = $5, at = now()
         from (select id, name, number from payers where id = $1 and country = $2 for update) was
         where p.id = was.id returning was.id, was.name, was.number",
        id,
        country,
        name,
        number,
        by
    )
    .fetch_optional(database)
    .await
}

/// A household in whose newest revision a paper has a title.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Using {
    pub id: Uuid,
    pub name: String,
    pub year: i32,
    pub revision: i64,
    pub papers: Option<Value>,
}

/// The households in which a paper has a title, the latest year first.
///
/// # Errors
/// When the database fails.
pub async fn using(database: &PgPool, country: &str, title: &str) -> Result<Vec<Using>, sqlx::Error> {
    sqlx::query_as!(
        Using,
        r#"select h.id, h.name, h.year, h.revision, r.state -> 'papers' as papers
         from households h join revisions r on r.household = h.id and r.revision = h.revision
         where h.country = $1 and h.deleted_at is null
             and r.state -> 'papers' @> jsonb_build_array(jsonb_build_object('title', $2::text))
         order by h.year desc, h.name limit 500"#,
        country,
        title
    )
    .fetch_all(database)
    .await
}
