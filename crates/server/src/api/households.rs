//! Households: list, make, import, copy, export, delete with undo.

use super::{
    Input,
    edits::Stored,
    too_large, trials,
    views::{self, Opened},
};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    stage::Stage,
    store::{
        households::{self as store, Mark},
        payers, sight,
    },
    work,
};
use axum::{
    Json,
    body::Bytes,
    extract::{Path, Query, State, rejection::BytesRejection},
    http::{StatusCode, header},
    response::IntoResponse,
};
use hembo_core::{
    Household, Pack, Person, check, file,
    household::{Entry, FORMAT, Role, date},
    secret,
};
use serde::{Deserialize, Serialize};
use sqlx::PgTransaction;
use time::OffsetDateTime;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// A household in the list.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct HouseholdRow {
    pub id: Uuid,
    pub revision: i64,
    pub name: String,
    pub country: String,
    pub year: i32,
    pub stage: Stage,
    #[serde(with = "time::serde::rfc3339")]
    pub touched_at: OffsetDateTime,
    /// How it came about: created, imported, copied or carried.
    pub origin: String,
    /// The practice's own number of it; may be empty.
    pub reference: String,
    /// Who works on it.
    pub worked_by: Option<String>,
    /// Who is asked to review it.
    pub reviewer: Option<String>,
    #[serde(with = "time::serde::rfc3339::option")]
    pub archived_at: Option<OffsetDateTime>,
    #[serde(with = "time::serde::rfc3339::option")]
    pub deleted_at: Option<OffsetDateTime>,
    pub summary: work::Summary,
}

/// A page of the households that a search finds.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct HouseholdPage {
    pub rows: Vec<HouseholdRow>,
    /// How many the search finds in all.
    pub count: i64,
    /// How many of them have something that blocks.
    pub blocked: i64,
    pub years: Vec<i32>,
}

/// Which households to list.
#[derive(Deserialize, IntoParams)]
pub struct Which {
    /// Those deleted in the last thirty days instead of those that are there.
    #[serde(default)]
    deleted: bool,
    /// Those that are put away instead of those in use.
    #[serde(default)]
    archived: bool,
    /// Words of names, number, law or year, or the last four digits of an identification number: all must be there.
    #[serde(default)]
    search: String,
    /// Of that law alone.
    #[serde(default)]
    country: Option<String>,
    /// Of that return year alone.
    #[serde(default)]
    year: Option<i32>,
    /// Those that something blocks, or those that nothing does.
    #[serde(default)]
    held_up: Option<bool>,
    /// In that state of work alone.
    #[serde(default)]
    stage: Option<Stage>,
    /// In the hands of that person alone: to work on, or to review now.
    #[serde(default)]
    whose: Option<Uuid>,
    /// The column to sort by: name, law, year, stage, who, checked, points, total, ways, saved, balance or touched.
    #[serde(default)]
    order: Option<String>,
    /// The largest or newest first.
    #[serde(default)]
    down: Option<bool>,
    /// How many to pass over.
    #[serde(default)]
    from: u32,
}

/// How many households a page has.
const PAGE: i64 = 100;

/// The households, a hundred a page.
#[utoipa::path(get, path = "/api/households", params(Which), responses((status = 200, body = HouseholdPage)))]
pub async fn list(
    State(app): State<App>,
    By(by): By,
    Query(which): Query<Which>,
) -> Answer<Json<HouseholdPage>> {
    let plain = |word: &str| word.chars().filter(|c| !c.is_control()).collect::<String>().to_lowercase();
    let words: Vec<String> = which.search.split_whitespace().take(20).map(plain).collect();
    let sought = |word: String| app.sealer.digits(&word).into_iter().map(move |hash| (word.clone(), hash));
    let (words, digits) = words.into_iter().flat_map(sought).unzip();
    let order = which.order.as_deref().unwrap_or("touched");
    let found = store::Found {
        deleted: which.deleted,
        archived: which.archived,
        words,
        digits,
        stage: which.stage.map(Stage::stored),
        whose: which.whose,
        only_of: sight::only_of(&app.database, by).await?,
        country: which.country.as_deref(),
        year: which.year,
        held_up: which.held_up,
    };
    let counted = store::count(&app.database, &found).await?;
    let wanted = store::Wanted {
        found,
        order,
        down: which.down.unwrap_or(order == "touched"),
        from: which.from.into(),
        most: PAGE,
    };
    let rows = store::list(&app.database, &wanted).await?;
    let row = |l: store::Listed| HouseholdRow {
        id: l.id,
        revision: l.revision,
        name: l.name,
        country: l.country,
        year: l.year,
        stage: Stage::read(&l.stage),
        reference: l.reference,
        worked_by: l.worked_by,
        reviewer: l.reviewer,
        archived_at: l.archived_at,
        touched_at: l.touched_at,
        origin: l.origin,
        deleted_at: l.deleted_at,
        // One that cannot be read shows as nothing until the household is opened and changed.
        summary: serde_json::from_value(l.summary).unwrap_or_default(),
    };
    let store::Counted { count, blocked, years } = counted;
    Ok(Json(HouseholdPage { rows: rows.into_iter().map(row).collect(), count, blocked, years }))
}

/// A new household.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct NewHousehold {
    pub name: String,
    pub country: String,
    pub year: i32,
    /// One or two filers.
    pub filers: Vec<NewFiler>,
    /// The part of the country, by the id of the choice.
    #[serde(default)]
    pub locality: Option<String>,
    /// The practice's own number of it.
    #[serde(default)]
    pub reference: String,
    /// Who may depend on them.
    #[serde(default)]
    pub dependents: Vec<NewDependent>,
}

/// A dependent of a new household.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct NewDependent {
    pub name: String,
    /// Date of birth, ISO 8601.
    #[serde(default)]
    pub born: Option<String>,
    /// The relationship to a filer, by the id of the choice.
    #[serde(default)]
    pub relationship: Option<String>,
}

/// A filer of a new household.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct NewFiler {
    pub name: String,
    /// Date of birth, ISO 8601.
    #[serde(default)]
    pub born: Option<String>,
}

/// The id of a household that was made.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Made {
    pub id: Uuid,
}

/// Make a household.
#[utoipa::path(post, path = "/api/households", request_body = NewHousehold,
    responses((status = 201, body = Made), (status = 422, body = Problem)))]
pub async fn make(
    State(app): State<App>,
    By(by): By,
    Input(new): Input<NewHousehold>,
) -> Answer<(StatusCode, Json<Made>)> {
    let about = app.registry.pack(&new.country).map(Pack::about);
    let mut people = Vec::new();
    for (i, filer) in new.filers.into_iter().enumerate() {
        people.push(person(people.len(), format!("filer{}", i + 1), Role::Filer, filer.name, filer.born)?);
    }
    for (i, dependent) in new.dependents.into_iter().enumerate() {
        let NewDependent { name, born, relationship } = dependent;
        let mut person = person(people.len(), format!("dependent{}", i + 1), Role::Dependent, name, born)?;
        let answer = about.zip(relationship);
        person.answers.extend(answer.map(|(about, of)| (about.relationship.into(), Entry::Text(of))));
        people.push(person);
    }
    let locality = about.zip(new.locality);
    let answers = locality.map(|(about, of)| (about.locality.into(), Entry::Text(of))).into_iter().collect();
    let household = Household {
        hembo: FORMAT,
        country: new.country,
        year: new.year,
        name: new.name,
        reference: new.reference.trim().into(),
        people,
        answers,
        papers: Vec::new(),
        pins: Default::default(),
        pin_reasons: Default::default(),
        worth: Default::default(),
        dismissed: Default::default(),
        refused: Default::default(),
        retired: Default::default(),
        before: None,
    };
    let id = store_new(&app, household, "created", by).await?;
    Ok((StatusCode::CREATED, Json(Made { id })))
}

/// A person of a new household, by the place among the people.
fn person(at: usize, id: String, role: Role, name: String, born: Option<String>) -> Answer<Person> {
    let text = born.filter(|born| !born.is_empty());
    let born = text.as_deref().map(|born| date::parse(born).ok_or_else(|| not_a_day(at, born)));
    Ok(Person {
        id,
        name,
        role,
        born: born.transpose()?,
        died: None,
        id_number: None,
        lived_with: Default::default(),
        answers: Default::default(),
    })
}

fn not_a_day(person: usize, text: &str) -> Problem {
    let at = format!("/people/{person}/born");
    Problem::invalid(vec![check::Fault::new(
        at,
        format!("'{text}' is not a day; a day is written 2025-03-31."),
    )])
}

/// Checks a household and stores it as a new one.
///
/// # Errors
/// Its faults, or a database that fails.
pub async fn store_new(app: &App, household: Household, kind: &str, by: Uuid) -> Answer<Uuid> {
    let worked = work::out(app, household).await?;
    let mut transaction = app.database.begin().await?;
    let id = add(app, &mut transaction, &worked, kind, by, None).await?;
    transaction.commit().await?;
    Ok(id)
}

pub(super) async fn add(
    app: &App,
    transaction: &mut PgTransaction<'_>,
    worked: &work::Worked,
    kind: &str,
    by: Uuid,
    carried_from: Option<Uuid>,
) -> Answer<Uuid> {
    let id = Uuid::new_v4();
    let stored = Stored::of(app, id, worked)?;
    store::add(transaction, id, &stored.heading(&worked.household), carried_from, by).await?;
    let new = stored.revision(id, 1, kind, by);
    store::write(transaction, new).await?;
    payers::learn(transaction, &worked.household.country, &stored.payers, by).await?;
    Ok(id)
}

/// Import a household file.
#[utoipa::path(post, path = "/api/households/import", request_body(content = Object, description = "A household file"),
    responses((status = 201, body = Made), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub async fn import(
    State(app): State<App>,
    By(by): By,
    body: Result<Bytes, BytesRejection>,
) -> Answer<(StatusCode, Json<Made>)> {
    let body = body.map_err(|_| too_large())?;
    let mut household = file::read(&body, &app.registry).map_err(Problem::invalid)?;
    let Household { name, country, year, .. } = &household;
    if store::is_there(&app.database, name, country, *year).await? {
        household.name = told_apart(name, "imported");
    }
    let id = store_new(&app, household, "imported", by).await?;
    Ok((StatusCode::CREATED, Json(Made { id })))
}

/// Copy a household.
#[utoipa::path(post, path = "/api/households/{id}/copy", params(("id" = Uuid, Path)),
    responses((status = 201, body = Made), (status = 404, body = Problem)))]
pub async fn copy(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
) -> Answer<(StatusCode, Json<Made>)> {
    let (_, mut household) = work::load(&app, id).await?;
    household.name = told_apart(&household.name, "copy");
    let id = store_new(&app, household, "copied", by).await?;
    Ok((StatusCode::CREATED, Json(Made { id })))
}

/// A household that was carried forward.
#[derive(Serialize, ToSchema)]
pub struct Carried {
    /// The household of the next year.
    id: Uuid,
    /// Its year.
    year: i32,
    /// Whether it was made just now; otherwise it was there already.
    made: bool,
    /// How many of its open points block, and how many are worth a look, where it was made just now.
    blocking: Option<usize>,
    looking: Option<usize>,
}

/// Carry a household forward into the next year. One that was carried forward already is not carried again.
#[utoipa::path(post, path = "/api/households/{id}/carry-forward", params(("id" = Uuid, Path)),
    responses((status = 201, body = Carried), (status = 200, body = Carried), (status = 404, body = Problem),
        (status = 422, body = Problem)))]
pub async fn carry_forward(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
) -> Answer<(StatusCode, Json<Carried>)> {
    trials::refuse(&app, id, "Not carried forward").await?;
    let (_, household) = work::load(&app, id).await?;
    let next = work::next_year(&app, household).await?;
    let year = next.year;
    let worked = work::out(&app, next).await?;
    let mut transaction = app.database.begin().await?;
    if let Some(there) = store::carried_to(&mut transaction, id).await? {
        return Ok((
            StatusCode::OK,
            Json(Carried { id: there, year, made: false, blocking: None, looking: None }),
        ));
    }
    let made = add(&app, &mut transaction, &worked, "carried", by, Some(id)).await?;
    transaction.commit().await?;
    let (blocking, looking) = (Some(worked.summary.blocking), Some(worked.summary.looking));
    Ok((StatusCode::CREATED, Json(Carried { id: made, year, made: true, blocking, looking })))
}

/// The same household in the years around.
#[derive(Serialize, ToSchema)]
pub struct YearsAround {
    /// The one that it was carried forward from.
    before: Option<Uuid>,
    /// The one that it was carried forward to.
    after: Option<Uuid>,
}

/// The same household in the years around.
#[utoipa::path(get, path = "/api/households/{id}/years", params(("id" = Uuid, Path)),
    responses((status = 200, body = YearsAround), (status = 404, body = Problem)))]
pub async fn years(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<YearsAround>> {
    let store::Years { before, after } =
        store::years(&app.database, id).await?.ok_or_else(|| Problem::not_found("household"))?;
    Ok(Json(YearsAround { before, after }))
}

/// A name that tells a household from the one it came from.
fn told_apart(name: &str, mark: &str) -> String {
    format!("{} ({mark})", name.chars().take(check::LONGEST_NAME - 13).collect::<String>())
}

/// Open a household with its outcome.
#[utoipa::path(get, path = "/api/households/{id}", params(("id" = Uuid, Path)),
    responses((status = 200, body = Opened), (status = 404, body = Problem)))]
pub async fn open(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<Opened>> {
    views::newest(&app, id).await.map(Json)
}

/// What an export holds.
#[derive(Deserialize, IntoParams)]
pub struct Exported {
    /// Identification and account numbers in full; left out where this is false.
    #[serde(default = "yes")]
    numbers: bool,
}

fn yes() -> bool {
    true
}

/// Export the household file. Numbers are in it in full, which is noted in the audit, or left out.
#[utoipa::path(get, path = "/api/households/{id}/file", params(("id" = Uuid, Path), Exported),
    responses((status = 200, body = Household), (status = 404, body = Problem)))]
pub async fn export(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Query(exported): Query<Exported>,
) -> Answer<impl IntoResponse> {
    let (_, mut household) = work::load(&app, id).await?;
    if exported.numbers {
        store::note_reveal(&app.database, id, None, by).await?;
    } else {
        let pack = work::pack(&app, &household)?;
        secret::leave_out(&mut household, pack);
    }
    let plain = |c: char| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' };
    let name: String = household.name.chars().map(plain).collect();
    let disposition = format!("attachment; filename=\"{name}-{}.json\"", household.year);
    Ok(([(header::CONTENT_DISPOSITION, disposition)], Json(household)))
}

/// Delete a household; it can be brought back.
#[utoipa::path(delete, path = "/api/households/{id}", params(("id" = Uuid, Path)),
    responses((status = 204), (status = 404, body = Problem)))]
pub async fn delete(State(app): State<App>, By(by): By, Path(id): Path<Uuid>) -> Answer<StatusCode> {
    mark(&app, id, Mark::Deleted, by).await
}

/// Bring a deleted household back.
#[utoipa::path(post, path = "/api/households/{id}/restore", params(("id" = Uuid, Path)),
    responses((status = 204), (status = 404, body = Problem)))]
pub async fn restore(State(app): State<App>, By(by): By, Path(id): Path<Uuid>) -> Answer<StatusCode> {
    mark(&app, id, Mark::Restored, by).await
}

/// Put a household away: lists show it where they are asked for those that are.
#[utoipa::path(post, path = "/api/households/{id}/archive", params(("id" = Uuid, Path)),
    responses((status = 204), (status = 404, body = Problem)))]
pub async fn archive(State(app): State<App>, By(by): By, Path(id): Path<Uuid>) -> Answer<StatusCode> {
    mark(&app, id, Mark::Archived, by).await
}

/// Take a household out again that was put away.
#[utoipa::path(post, path = "/api/households/{id}/unarchive", params(("id" = Uuid, Path)),
    responses((status = 204), (status = 404, body = Problem)))]
pub async fn unarchive(State(app): State<App>, By(by): By, Path(id): Path<Uuid>) -> Answer<StatusCode> {
    mark(&app, id, Mark::Unarchived, by).await
}

async fn mark(app: &App, id: Uuid, mark: Mark, by: Uuid) -> Answer<StatusCode> {
    if store::mark(&app.database, id, mark, by).await? {
        Ok(StatusCode::NO_CONTENT)
    } else {
        Err(Problem::not_found("household"))
    }
}
