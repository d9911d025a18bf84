//! Households and their revisions. Every change is a new revision; nothing is overwritten.

use serde_json::Value;
use sqlx::{PgPool, PgTransaction};
use time::OffsetDateTime;
use uuid::Uuid;

/// A household in a list.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Listed {
    pub id: Uuid,
    pub revision: i64,
    pub name: String,
    pub country: String,
    pub year: i32,
    pub stage: String,
    pub summary: Value,
    pub touched_at: OffsetDateTime,
    /// How its first revision came about: created, imported, copied or carried forward.
    pub origin: String,
    pub reference: String,
    pub worked_by: Option<String>,
    pub reviewer: Option<String>,
    pub archived_at: Option<OffsetDateTime>,
    pub deleted_at: Option<OffsetDateTime>,
}

/// What a search finds; all in use where nothing else is said.
#[derive(Debug, Default)]
pub struct Found<'a> {
    /// Those deleted in the last thirty days instead of those that are there.
    pub deleted: bool,
    /// Those that are put away instead of those in use.
    pub archived: bool,
    /// Words that must all be there, in small letters; each as often as there are hashes of it.
    pub words: Vec<String>,
    /// Beside each word a hash by which the last digits of a number are found.
    pub digits: Vec<String>,
    /// In that state of work alone.
    pub stage: Option<&'a str>,
    /// In the hands of that person alone: to work on, or to review now.
    pub whose: Option<Uuid>,
    /// Those that this person sees, where that are not all.
    pub only_of: Option<Uuid>,
    /// Of that law alone.
    pub country: Option<&'a str>,
    /// Of that return year alone.
    pub year: Option<i32>,
    /// Those that something blocks, or those that nothing does.
    pub held_up: Option<bool>,
}

/// Which households a list shows, and in which order.
#[derive(Debug)]
pub struct Wanted<'a> {
    /// Of those that a search finds.
    pub found: Found<'a>,
    /// The column: name, law, year, stage, checked, points, total, ways, saved, balance or touched.
    pub order: &'a str,
    /// The largest first.
    pub down: bool,
    /// How many to pass over.
    pub from: i64,
    /// How many to show.
    pub most: i64,
}

/// All households that a search finds, counted.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Counted {
    pub count: i64,
    pub blocked: i64,
    pub years: Vec<i32>,
}

/// A revision as it stands.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Revision {
    pub revision: i64,
    pub state: Value,
    pub undo_to: Option<i64>,
    pub redo_to: Option<i64>,
    pub rules: Option<String>,
    pub totals: Option<Value>,
    pub at: OffsetDateTime,
    /// Of a trial: of which household, and what it is called.
    pub trial_of: Option<Uuid>,
    pub trial_name: Option<String>,
}

/// A revision to write.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct NewRevision<'a> {
    pub household: Uuid,
    pub revision: i64,
    pub kind: &'a str,
    pub commands: &'a Value,
    pub words: &'a Value,
    pub rules: &'a str,
    pub totals: &'a Value,
    pub state: &'a Value,
    /// The name of the key that sealed the secrets in it.
    pub sealed_with: &'a str,
    pub undo_to: Option<i64>,
    pub redo_to: Option<i64>,
    pub by: Uuid,
    /// Names the edit, where its window does.
    pub key: Option<Uuid>,
}

/// What a list shows.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Heading<'a> {
    pub name: &'a str,
    pub country: &'a str,
    pub year: i32,
    pub search: &'a str,
    /// By which last digits of its numbers it is found, hashed.
    pub digits: &'a [String],
    pub reference: &'a str,
    pub summary: &'a Value,
    /// The version of the rules that made the summary.
    pub rules: &'a str,
}

/// A page of the households that a search finds. A summary that cannot be read sorts as nothing.
///
/// # Errors
/// When the database fails.
pub async fn list(database: &PgPool, wanted: &Wanted<'_>) -> Result<Vec<Listed>, sqlx::Error> {
    let found = &wanted.found;
    sqlx::query_as!(
        Listed,
        r#"select id, revision, name, country, year, stage, summary, touched_at, archived_at, deleted_at, reference,
             coalesce((select kind from revisions where household = id and revisions.revision = 1), '') as "origin!",
             (select u.name from users u where u.id = worked_by) as worked_by,
             (select u.name from users u where u.id = households.reviewer) as reviewer
         from households
         cross join lateral (select
             case $10 when 'name' then lower(name)
                 when 'who' then (select lower(u.name) from users u where u.id = worked_by)
                 when 'law' then concat_ws(' ', country, summary ->> 'locality')
                 when 'total' then country when 'saved' then country when 'balance' then country end as words,
             case when $10 in ('total', 'ways', 'saved', 'balance')
                     and summary ->> $10 ~ '^-?[0-9]+(\.[0-9]+)?$' then (summary ->> $10)::numeric
                 when $10 = 'year' then year
                 when $10 = 'stage' then array_position(array['in_work', 'ready', 'in_review', 'remarks', 'cleared',
                     'handed_over', 'sent', 'accepted', 'refused', 'assessed'], stage)
                 when $10 = 'touched' then extract(epoch from touched_at)
                 when $10 = 'checked' and jsonb_typeof(summary -> 'checked') = 'number'
                     and jsonb_typeof(summary -> 'papers') = 'number'
                     then (summary -> 'checked')::numeric / greatest(1, (summary -> 'papers')::numeric)
                 when $10 = 'points' and jsonb_typeof(summary -> 'blocking') = 'number'
                     and jsonb_typeof(summary -> 'looking') = 'number'
                     then (summary -> 'blocking')::numeric * 1000 + (summary -> 'looking')::numeric
                 end as number) sort
         where trial_of is null and (deleted_at is not null) = $1 and coalesce(deleted_at > now() - interval '30 days', true)
             and ((archived_at is not null) = $2 or deleted_at is not null)
             and (select coalesce(bool_and(hit), true)
                 from (select bool_or(search like '%' || word || '%' or digits @> array[hash]) hit
                     from unnest($3::text[], $4::text[]) as sought (word, hash) group by word) each_word)
             and ($5::text is null or country = $5) and ($6::integer is null or year = $6)
             and ($7::boolean is null or coalesce(summary -> 'blocking' > '0'::jsonb
                 and jsonb_typeof(summary -> 'blocking') = 'number', false) = $7)
             and ($8::text is null or stage = $8)
             and ($9::uuid is null or worked_by = $9 or (reviewer = $9 and stage in ('ready', 'in_review')))
             and ($14::uuid is null or $14 in (worked_by, reviewer))
         order by case when not $11 then sort.words end, case when $11 then sort.words end desc,
             case when not $11 then sort.number end nulls first, case when $11 then sort.number end desc nulls last,
             id
         offset $12 limit $13"#,
        found.deleted,
        found.archived,
        &patterns(&found.words),
        &found.digits,
        found.country,
        found.year,
        found.held_up,
        found.stage,
        found.whose,
        wanted.order,
        wanted.down,
        wanted.from,
        wanted.most,
        found.only_of
    )
    .fetch_all(database)
    .await
}

/// The same households counted, wherever the page stands.
///
/// # Errors
/// When the database fails.
pub async fn count(database: &PgPool, found: &Found<'_>) -> Result<Counted, sqlx::Error> {
    sqlx::query_as!(
        Counted,
        r#"select count(*) as "count!",
             count(*) filter (where summary -> 'blocking' > '0'::jsonb
                 and jsonb_typeof(summary -> 'blocking') = 'number') as "blocked!",
             coalesce(array_agg(distinct year), '{}') as "years!"
         from households
         where trial_of is null and (deleted_at is not null) = $1 and coalesce(deleted_at > now() - interval '30 days', true)
             and ((archived_at is not null) = $2 or deleted_at is not null)
             and (select coalesce(bool_and(hit), true)
                 from (select bool_or(search like '%' || word || '%' or digits @> array[hash]) hit
                     from unnest($3::text[], $4::text[]) as sought (word, hash) group by word) each_word)
             and ($5::text is null or country = $5) and ($6::integer is null or year = $6)
             and ($7::boolean is null or coalesce(summary -> 'blocking' > '0'::jsonb
                 and jsonb_typeof(summary -> 'blocking') = 'number', false) = $7)
             and ($8::text is null or stage = $8)
             and ($9::uuid is null or worked_by = $9 or (reviewer = $9 and stage in ('ready', 'in_review')))
             and ($10::uuid is null or $10 in (worked_by, reviewer))"#,
        found.deleted,
        found.archived,
        &patterns(&found.words),
        &found.digits,
        found.country,
        found.year,
        found.held_up,
        found.stage,
        found.whose,
        found.only_of
    )
    .fetch_one(database)
    .await
}

/// Words as patterns in which every sign stands for itself.
fn patterns(words: &[String]) -> Vec<String> {
    let plain = |word: &String| word.replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_");
    words.iter().map(plain).collect()
}

/// Every household that is neither deleted nor a trial, by name and year.
///
/// # Errors
/// When the database fails.
pub async fn everyone(database: &PgPool) -> Result<Vec<Uuid>, sqlx::Error> {
    sqlx::query_scalar!(
        "select id from households where deleted_at is null and trial_of is null order by name, year, id"
    )
    .fetch_all(database)
    .await
}

/// The newest revision of a household that is not deleted.
///
/// # Errors
/// When the database fails.
pub async fn newest(database: &PgPool, id: Uuid) -> Result<Option<Revision>, sqlx::Error> {
    sqlx::query_as!(
        Revision,
        "select r.revision, r.state, r.undo_to, r.redo_to, r.rules, r.totals, r.at, h.trial_of, h.trial_name
         from households h
         join revisions r on r.household = h.id and r.revision = h.revision
         where h.id = $1 and h.deleted_at is null",
        id
    )
    .fetch_optional(database)
    .await
}

/// A revision of a household that is not deleted.
///
/// # Errors
/// When the database fails.
pub async fn revision(database: &PgPool, id: Uuid, revision: i64) -> Result<Option<Revision>, sqlx::Error> {
    sqlx::query_as!(
        Revision,
        "select r.revision, r.state, r.undo_to, r.redo_to, r.rules, r.totals, r.at, h.trial_of, h.trial_name
         from households h
         join revisions r on r.household = h.id
         where h.id = $1 and h.deleted_at is null and r.revision = $2",
        id,
        revision
    )
    .fetch_optional(database)
    .await
}

/// Whether there is a household of that name, law and year.
///
/// # Errors
/// When the database fails.
pub async fn is_there(database: &PgPool, name: &str, country: &str, year: i32) -> Result<bool, sqlx::Error> {
    let found = sqlx::query_scalar!(
        r#"select exists(select 1 from households where name = $1 and country = $2 and year = $3
             and deleted_at is null and trial_of is null) as "there!""#,
        name,
        country,
        year
    );
    found.fetch_one(database).await
}

/// The household that one was carried forward to. Until the transaction ends nobody else carries it forward.
///
/// # Errors
/// When the database fails.
pub async fn carried_to(
    transaction: &mut PgTransaction<'_>,
    from: Uuid,
) -> Result<Option<Uuid>, sqlx::Error> {
    sqlx::query!("select id from households where id = $1 for update", from)
        .fetch_optional(&mut **transaction)
        .await?;
    sqlx::query_scalar!(
        "select id from households where carried_from = $1 and deleted_at is null order by created_at limit 1",
        from
    )
    .fetch_optional(&mut **transaction)
    .await
}

/// The same household in the years around: the one that it was carried forward from, and the one that it was carried to.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Years {
    pub before: Option<Uuid>,
    pub after: Option<Uuid>,
}

/// The years around a household, as far as they are not deleted.
///
/// # Errors
/// When the database fails.
pub async fn years(database: &PgPool, id: Uuid) -> Result<Option<Years>, sqlx::Error> {
    sqlx::query_as!(
        Years,
        r#"select
             (select b.id from households b where b.id = h.carried_from and b.deleted_at is null) as before,
             (select a.id from households a where a.carried_from = h.id and a.deleted_at is null
                 order by a.created_at limit 1) as after
         from households h where h.id = $1 and h.deleted_at is null"#,
        id
    )
    .fetch_optional(database)
    .await
}

/// Adds a household, carried forward from another or not, for who makes it to work on; its first revision follows.
///
/// # Errors
/// When the database fails.
pub async fn add(
    transaction: &mut PgTransaction<'_>,
    id: Uuid,
    heading: &Heading<'_>,
    carried_from: Option<Uuid>,
    by: Uuid,
) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "insert into households (id, revision, name, country, year, search, summary, rules, carried_from, digits,
             reference, worked_by)
         values ($1, 1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)",
        id,
        heading.name,
        heading.country,
        heading.year,
        heading.search,
        heading.summary,
        heading.rules,
        carried_from,
        heading.digits,
        heading.reference,
        by
    )
    .execute(&mut **transaction)
    .await?;
    Ok(())
}

/// Makes a revision the newest, if the one before it still is: whether it was.
///
/// # Errors
/// When the database fails.
pub async fn advance(
    transaction: &mut PgTransaction<'_>,
    id: Uuid,
    revision: i64,
    heading: &Heading<'_>,
) -> Result<bool, sqlx::Error> {
    let done = sqlx::query!(
        "update households set revision = $2::bigint, name = $3, country = $4, year = $5, search = $6, summary = $7,
             rules = $8, digits = $9, reference = $10, touched_at = now()
         where id = $1 and revision = $2::bigint - 1 and deleted_at is null",
        id,
        revision,
        heading.name,
        heading.country,
        heading.year,
        heading.search,
        heading.summary,
        heading.rules,
        heading.digits,
        heading.reference
    )
    .execute(&mut **transaction)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Writes a revision.
///
/// # Errors
/// When the database fails.
pub async fn write(transaction: &mut PgTransaction<'_>, new: NewRevision<'_>) -> Result<(), sqlx::Error> {
    sqlx::query!(
        "insert into revisions
             (household, revision, kind, commands, words, rules, totals, state, undo_to, redo_to, by_user, edit_key,
              sealed_with)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)",
        new.household,
        new.revision,
        new.kind,
        new.commands,
        new.words,
        new.rules,
        new.totals,
        new.state,
        new.undo_to,
        new.redo_to,
        new.by,
        new.key,
        new.sealed_with
    )
    .execute(&mut **transaction)
    .await?;
    Ok(())
}

/// How a household is marked beside its revisions.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum Mark {
    Deleted,
    Restored,
    /// Put away.
    Archived,
    /// Taken out again.
    Unarchived,
}

impl Mark {
    fn stored(self) -> &'static str {
        match self {
            Mark::Deleted => "deleted",
            Mark::Restored => "restored",
            Mark::Archived => "archived",
            Mark::Unarchived => "unarchived",
        }
    }
}

/// Marks a household and notes who did. Whether there was one that was not marked so yet.
///
/// # Errors
/// When the database fails.
pub async fn mark(database: &PgPool, id: Uuid, mark: Mark, by: Uuid) -> Result<bool, sqlx::Error> {
    let mut transaction = database.begin().await?;
    let done = mark_in(&mut transaction, id, mark, by).await?;
    transaction.commit().await?;
    Ok(done)
}

/// The same, as a part of something larger.
///
/// # Errors
/// When the database fails.
pub async fn mark_in(
    transaction: &mut PgTransaction<'_>,
    id: Uuid,
    mark: Mark,
    by: Uuid,
) -> Result<bool, sqlx::Error> {
    let kind = mark.stored();
    let done = sqlx::query!(
        "update households set touched_at = now(),
             deleted_at = case $2 when 'deleted' then now() when 'restored' then null else deleted_at end,
             archived_at = case $2 when 'archived' then now() when 'unarchived' then null else archived_at end
         where id = $1 and case $2 when 'deleted' then deleted_at is null when 'restored' then deleted_at is not null
             when 'archived' then archived_at is null and deleted_at is null else archived_at is not null end",
        id,
        kind
    )
    .execute(&mut **transaction)
    .await?;
    if done.rows_affected() == 0 {
        return Ok(false);
    }
    sqlx::query!("insert into marks (household, kind, by_user) values ($1, $2, $3)", id, kind, by)
        .execute(&mut **transaction)
        .await?;
    Ok(true)
}

/// Whether an edit that a window named was made.
///
/// # Errors
/// When the database fails.
pub async fn has_edit(database: &PgPool, id: Uuid, key: Uuid) -> Result<bool, sqlx::Error> {
    let found = sqlx::query_scalar!(
        r#"select exists(select 1 from revisions where household = $1 and edit_key = $2) as "made!""#,
        id,
        key
    );
    found.fetch_one(database).await
}

/// Notes that numbers were shown.
///
/// # Errors
/// When the database fails.
pub async fn note_reveal(
    database: &PgPool,
    id: Uuid,
    place: Option<&str>,
    by: Uuid,
) -> Result<(), sqlx::Error> {
    sqlx::query!("insert into reveals (household, person, by_user) values ($1, $2, $3)", id, place, by)
        .execute(database)
        .await?;
    Ok(())
}
