//! What a screen asks about an open household: the household with its outcome, what a paper does, a curve.

use super::Input;
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    seal::masked,
    store::households::{self as store, Revision},
    work::{self, Then},
};
use axum::{
    Json,
    extract::{Path, Query, State},
};
use hembo_core::{
    Household, Outcome, Pack,
    about_box::{AboutBox, about_box},
    asking::{self, Asked},
    date_edges::{DateEdges, Dates, date_edges},
    effect::{self, Curve, Effect, Spot},
    lever::{self, Advice},
    outcome::{
        self, Beside, Comparison, DecisionOutcome, Line, NAMED_WAYS, NamedWay, ReturnSchedules, Wanted,
    },
    point::Place,
    search::Stop,
    secret,
    withholding::Withholding,
};
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use std::{collections::BTreeMap, convert::Infallible};
use time::OffsetDateTime;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// By how much a paper's main amount is raised to see what that does.
const STEP: Money = Money::whole(1_000);
/// How many points a curve has.
const POINTS: i64 = 100;

/// A household with its outcome: what every view needs. Trails, comparisons and forms are asked for when they are
/// opened ([`trail`], [`lines`], [`ways`], [`schedules`]).
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Opened {
    pub id: Uuid,
    pub revision: i64,
    #[serde(with = "time::serde::rfc3339")]
    pub saved_at: OffsetDateTime,
    pub can_undo: bool,
    pub can_redo: bool,
    /// Secrets are hidden but for the last four digits.
    pub household: Household,
    pub outcome: Outcome,
    /// What the change did that led here, in words, where this answers one.
    pub did: Vec<String>,
    /// How many rule figures of the year are the practice's own.
    pub own_figures: usize,
    /// What came out when this revision was stored, where the rules of today give something else.
    pub then: Option<Then>,
    /// Of a trial: what it is a trial of.
    pub trial: Option<TrialOf>,
}

/// What a trial is a trial of.
#[derive(Serialize, ToSchema)]
pub struct TrialOf {
    /// The household.
    of: Uuid,
    /// What the trial is called.
    name: String,
}

impl Opened {
    /// What is shown of a worked-out household; its trails are kept at hand.
    pub fn new(
        app: &App,
        id: Uuid,
        revision: &Revision,
        mut worked: work::Worked,
        pack: &dyn Pack,
    ) -> Opened {
        let then = then(revision, &worked);
        app.trails.keep(id, revision.revision, &worked.rules, std::mem::take(&mut worked.outcome.lines));
        Opened {
            then,
            own_figures: app.rules.own(&worked.household.country, worked.household.year),
            id,
            revision: revision.revision,
            saved_at: revision.at,
            can_undo: revision.undo_to.is_some(),
            can_redo: revision.redo_to.is_some(),
            household: masked(worked.household, pack),
            outcome: worked.outcome,
            did: Vec::new(),
            trial: revision.trial_of.zip(revision.trial_name.clone()).map(|(of, name)| TrialOf { of, name }),
        }
    }
}

/// The newest revision of a household with its outcome.
///
/// # Errors
/// When there is no such household.
pub async fn newest(app: &App, id: Uuid) -> Answer<Opened> {
    let (revision, household) = work::load(app, id).await?;
    let worked = work::out(app, household).await?;
    let pack = work::pack(app, &worked.household)?;
    Ok(Opened::new(app, id, &revision, worked, pack))
}

fn then(revision: &Revision, worked: &work::Worked) -> Option<Then> {
    let other_rules = revision.rules.as_deref().is_some_and(|rules| rules != worked.rules);
    let stored = revision.totals.clone().filter(|_| other_rules)?;
    let stored: work::Summary = serde_json::from_value(stored).ok()?;
    let now = &worked.outcome;
    let same = (stored.total, stored.balance, stored.covered) == (now.total, now.balance, now.covered);
    (!same).then_some(Then { total: stored.total, balance: stored.balance, covered: stored.covered })
}

/// A line and at whose returns or people it is looked at.
#[derive(Deserialize, IntoParams)]
pub struct LineAt {
    /// The line.
    line: String,
    /// The scopes, with commas: `return/0,return/1`.
    scopes: String,
    /// The way, where it is not the chosen one: what it takes of each decision, `decision=option` with commas.
    #[serde(default)]
    way: Option<String>,
}

/// `decision=option` with commas as pins.
fn pins(way: &str) -> BTreeMap<String, String> {
    let pairs = way.split(',').filter_map(|taken| taken.split_once('='));
    pairs.map(|(decision, option)| (decision.to_owned(), option.to_owned())).collect()
}

/// How many ways are listed where they are compared.
const LISTED_WAYS: usize = 10 * NAMED_WAYS;

/// How many steps below a line its trail reaches at once.
const STEPS: usize = 2;

/// The trail of a line: what it is made from, down two steps, and what it feeds.
#[utoipa::path(get, path = "/api/households/{id}/revisions/{revision}/trail",
    params(("id" = Uuid, Path), ("revision" = i64, Path), LineAt),
    responses((status = 200, body = Vec<Line>), (status = 404, body = Problem)))]
pub async fn trail(
    State(app): State<App>,
    _: By,
    Path((id, revision)): Path<(Uuid, i64)>,
    Query(at): Query<LineAt>,
) -> Answer<Json<Vec<Line>>> {
    let lines = match &at.way {
        Some(way) => work::lines_of_way(&app, id, revision, pins(way)).await?,
        None => work::lines(&app, id, revision).await?,
    };
    let scopes: Vec<&str> = at.scopes.split(',').collect();
    Ok(Json(outcome::trail(&lines, &at.line, &scopes, STEPS).into_iter().cloned().collect()))
}

/// Which lines.
#[derive(Deserialize, IntoParams)]
pub struct WhichLines {
    /// With what each is made from.
    #[serde(default)]
    whole: bool,
}

/// Every line of the chosen way in the order of the computation, without what it is made from unless that is wanted.
#[utoipa::path(get, path = "/api/households/{id}/revisions/{revision}/lines",
    params(("id" = Uuid, Path), ("revision" = i64, Path), WhichLines),
    responses((status = 200, body = Vec<Line>), (status = 404, body = Problem)))]
pub async fn lines(
    State(app): State<App>,
    _: By,
    Path((id, revision)): Path<(Uuid, i64)>,
    Query(WhichLines { whole }): Query<WhichLines>,
) -> Answer<Json<Vec<Line>>> {
    let lines = work::lines(&app, id, revision).await?;
    if whole {
        return Ok(Json(lines.to_vec()));
    }
    let bare = |line: &Line| Line { inputs: Vec::new(), ..line.clone() };
    Ok(Json(lines.iter().map(bare).collect()))
}

/// How the lowest ways differ, and what amounts cost.
#[derive(Serialize, ToSchema)]
pub struct WaysOpened {
    /// The chosen way beside others.
    pub compared: Comparison,
    /// The lowest ways, those at the ends of amounts among them.
    pub ways: Vec<NamedWay>,
    /// What the law leaves open, with the ends of amounts priced and the tax along them.
    pub decisions: Vec<DecisionOutcome>,
}

/// How the lowest ways differ, and what amounts cost.
#[utoipa::path(get, path = "/api/households/{id}/revisions/{revision}/ways",
    params(("id" = Uuid, Path), ("revision" = i64, Path)),
    responses((status = 200, body = WaysOpened), (status = 404, body = Problem)))]
pub async fn ways(
    State(app): State<App>,
    _: By,
    Path((id, revision)): Path<(Uuid, i64)>,
) -> Answer<Json<WaysOpened>> {
    let wanted = Wanted { comparisons: true, ..Wanted::least(LISTED_WAYS) };
    let Outcome { compared, ways, decisions, .. } = work::of_revision(&app, id, revision, wanted).await?;
    Ok(Json(WaysOpened { compared, ways, decisions }))
}

/// Which ways stand beside the chosen one.
#[derive(Deserialize, IntoParams)]
pub struct OfChoice {
    /// Each by what it takes of each decision, `decision=option` with commas; semicolons between them.
    #[serde(default)]
    ways: String,
    /// All rows, also those in which they are the same.
    #[serde(default)]
    all_rows: bool,
}

/// The chosen way beside others of choice, four columns at the most.
#[utoipa::path(get, path = "/api/households/{id}/revisions/{revision}/ways/beside",
    params(("id" = Uuid, Path), ("revision" = i64, Path), OfChoice),
    responses((status = 200, body = Comparison), (status = 404, body = Problem)))]
pub async fn ways_beside(
    State(app): State<App>,
    _: By,
    Path((id, revision)): Path<(Uuid, i64)>,
    Query(OfChoice { ways, all_rows }): Query<OfChoice>,
) -> Answer<Json<Comparison>> {
    let ways = ways.split(';').filter(|way| !way.is_empty()).map(pins).collect();
    Ok(Json(work::compared(&app, id, revision, Beside { ways, all_rows }).await?))
}

/// Of which way.
#[derive(Deserialize, IntoParams)]
pub struct OfWay {
    /// The way, where it is not the chosen one: what it takes of each decision, `decision=option` with commas.
    #[serde(default)]
    way: Option<String>,
}

/// The official forms of every return: which are filed, line by line, and why the others are not.
#[utoipa::path(get, path = "/api/households/{id}/revisions/{revision}/schedules",
    params(("id" = Uuid, Path), ("revision" = i64, Path), OfWay),
    responses((status = 200, body = Vec<ReturnSchedules>), (status = 404, body = Problem)))]
pub async fn schedules(
    State(app): State<App>,
    _: By,
    Path((id, revision)): Path<(Uuid, i64)>,
    Query(of): Query<OfWay>,
) -> Answer<Json<Vec<ReturnSchedules>>> {
    let wanted = Wanted { schedules: true, ..Wanted::least(NAMED_WAYS) };
    let outcome = match of.way {
        Some(way) => work::of_way(&app, id, revision, pins(&way), wanted).await?,
        None => work::of_revision(&app, id, revision, wanted).await?,
    };
    Ok(Json(outcome.schedules))
}

/// The forms of the year before, as the household of that year stands now; none where it was not carried forward.
#[utoipa::path(get, path = "/api/households/{id}/schedules-before", params(("id" = Uuid, Path)),
    responses((status = 200, body = Vec<ReturnSchedules>), (status = 404, body = Problem)))]
pub async fn schedules_before(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
) -> Answer<Json<Vec<ReturnSchedules>>> {
    let years = store::years(&app.database, id).await?.ok_or_else(|| Problem::not_found("household"))?;
    let Some(before) = years.before else { return Ok(Json(Vec::new())) };
    let (_, household) = work::load(&app, before).await?;
    let wanted = Wanted { schedules: true, ..Wanted::least(NAMED_WAYS) };
    let (_, outcome, _) = work::whole(&app, household, wanted).await?;
    Ok(Json(outcome.schedules))
}

/// A paper, and for a curve one of its boxes or a cell of its list.
#[derive(Deserialize, IntoParams)]
pub struct At {
    /// The paper.
    paper: String,
    /// The line of its list.
    row: Option<String>,
    /// The box or column.
    field: Option<String>,
}

/// What a paper does to the tax.
#[utoipa::path(get, path = "/api/households/{id}/effect", params(("id" = Uuid, Path), At),
    responses((status = 200, body = Effect), (status = 404, body = Problem)))]
pub async fn effect(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(at): Query<At>,
) -> Answer<Json<Effect>> {
    let (_, household) = work::load(&app, id).await?;
    let registry = app.rules.now(&app.database).await?;
    let found =
        work::on_a_core(&app, move |stop| effect::of_paper(&household, &registry, &at.paper, STEP, stop))
            .await?;
    found.map(Json).ok_or_else(|| Problem::not_found("paper"))
}

/// What the family may still do beside the return, and what each step would be worth.
#[utoipa::path(get, path = "/api/households/{id}/advice", params(("id" = Uuid, Path)),
    responses((status = 200, body = Vec<Advice>), (status = 404, body = Problem)))]
pub async fn advice(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<Vec<Advice>>> {
    let (_, household) = work::load(&app, id).await?;
    let (household, outcome, _) = work::whole(&app, household, Wanted::least(1)).await?;
    let registry = app.rules.now(&app.database).await?;
    let run = move |stop: &Stop| lever::advice(&household, &outcome, &registry, stop);
    Ok(Json(work::on_a_core(&app, run).await?.unwrap_or_default()))
}

/// Which dates are looked at.
#[derive(Deserialize, IntoParams)]
pub struct OfDates {
    /// Of birth, or all others.
    #[param(inline)]
    of: Dates,
}

/// How near a household's dates are to ones with another tax.
#[utoipa::path(get, path = "/api/households/{id}/date-edges", params(("id" = Uuid, Path), OfDates),
    responses((status = 200, body = DateEdges), (status = 404, body = Problem)))]
pub async fn edges_by_date(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(OfDates { of }): Query<OfDates>,
) -> Answer<Json<DateEdges>> {
    let (_, household) = work::load(&app, id).await?;
    let registry = app.rules.now(&app.database).await?;
    let run = move |stop: &Stop| date_edges(&household, &registry, of, stop);
    Ok(Json(work::on_a_core(&app, run).await?.unwrap_or_default()))
}

/// What is withheld in the year that runs under each combination that may be asked for; nothing where the law has none.
#[utoipa::path(get, path = "/api/households/{id}/withholding", params(("id" = Uuid, Path)),
    responses((status = 200, body = Option<Withholding>), (status = 404, body = Problem)))]
pub async fn withholding(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
) -> Answer<Json<Option<Withholding>>> {
    let (_, household) = work::load(&app, id).await?;
    let (household, outcome, _) = work::whole(&app, household, Wanted::least(1)).await?;
    let registry = app.rules.now(&app.database).await?;
    Ok(Json(registry.pack(&household.country).and_then(|pack| pack.withholding(&household, &outcome))))
}

/// The lowest tax along an amount, and where decisions turn; of another way only what is lawful with it.
#[utoipa::path(get, path = "/api/households/{id}/curve", params(("id" = Uuid, Path), At, OfWay),
    responses((status = 200, body = Curve), (status = 404, body = Problem)))]
pub async fn curve(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(at): Query<At>,
    Query(of): Query<OfWay>,
) -> Answer<Json<Curve>> {
    let (_, household) = work::load(&app, id).await?;
    let registry = app.rules.now(&app.database).await?;
    let run = move |stop: &Stop| {
        let field = at.field.as_deref().unwrap_or_default();
        let spot = Spot { paper: &at.paper, row: at.row.as_deref(), field };
        let held = of.way.as_deref().map(pins).unwrap_or_default();
        effect::curve(&household, &registry, spot, &held, POINTS, stop)
    };
    Ok(Json(work::on_a_core(&app, run).await?))
}

/// Where a box, a cell of a list or a question stands.
#[derive(Deserialize, IntoParams)]
pub struct BoxAt {
    /// The person whose question it is; the household's where neither this nor a paper is named.
    #[serde(default)]
    person: Option<String>,
    /// The paper.
    #[serde(default)]
    paper: Option<String>,
    /// The line of its list.
    #[serde(default)]
    row: Option<String>,
    /// The box, column or question.
    field: String,
}

/// What a box, a cell of a list or a question is: which lines it goes to and by which rule, tried with an example.
#[utoipa::path(get, path = "/api/households/{id}/about-box", params(("id" = Uuid, Path), BoxAt),
    responses((status = 200, body = AboutBox), (status = 404, body = Problem)))]
pub async fn about(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(at): Query<BoxAt>,
) -> Answer<Json<AboutBox>> {
    let (_, household) = work::load(&app, id).await?;
    let registry = app.rules.now(&app.database).await?;
    let BoxAt { person, paper, row, field } = at;
    let place = Place { person, paper, row, field: Some(field), decision: None };
    let run = move |stop: &Stop| about_box(&household, &registry, &place, stop);
    work::on_a_core(&app, run).await?.map(Json).ok_or_else(|| Problem::not_found("box"))
}

/// Whose questions.
#[derive(Deserialize, IntoParams)]
pub struct Whose {
    /// The person; the household's own questions where it is left out.
    #[serde(default)]
    person: Option<String>,
}

/// What the answers to questions would do here and now.
#[utoipa::path(get, path = "/api/households/{id}/questions", params(("id" = Uuid, Path), Whose),
    responses((status = 200, body = Vec<Asked>), (status = 404, body = Problem)))]
pub async fn questions(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(whose): Query<Whose>,
) -> Answer<Json<Vec<Asked>>> {
    let (_, household) = work::load(&app, id).await?;
    let registry = app.rules.now(&app.database).await?;
    let run = move |stop: &Stop| asking::asked(&household, &registry, whose.person.as_deref(), stop);
    Ok(Json(work::on_a_core(&app, run).await?))
}

/// A secret in full.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Revealed {
    pub text: Option<String>,
}

/// Where a secret stands.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Secret {
    /// The person whose identification number it is, or who answers the question.
    #[serde(default)]
    person: Option<String>,
    /// The paper.
    #[serde(default)]
    paper: Option<String>,
    /// The line of its list.
    #[serde(default)]
    row: Option<String>,
    /// The box, column or question; none for the identification number.
    #[serde(default)]
    field: Option<String>,
}

impl Secret {
    /// The name of the place, as [`secret::each`] gives it.
    fn place(&self) -> Option<String> {
        let parts = match (&self.person, &self.paper, &self.row, &self.field) {
            (Some(person), None, None, None) => vec![person.as_str()],
            (Some(person), None, None, Some(field)) => vec!["people", person, field],
            (None, Some(paper), None, Some(field)) => vec!["papers", paper, field],
            (None, Some(paper), Some(row), Some(field)) => vec!["papers", paper, row, field],
            (None, None, None, Some(field)) => vec!["answers", field],
            _ => return None,
        };
        Some(parts.join("/"))
    }
}

/// Show an identification number or another secret; noted in the audit.
#[utoipa::path(post, path = "/api/households/{id}/reveal", params(("id" = Uuid, Path)), request_body = Secret,
    responses((status = 200, body = Revealed), (status = 404, body = Problem)))]
pub async fn reveal(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(wanted): Input<Secret>,
) -> Answer<Json<Revealed>> {
    let (_, mut household) = work::load(&app, id).await?;
    let pack = work::pack(&app, &household)?;
    let place = wanted.place().ok_or_else(|| Problem::not_found("secret"))?;
    let person = wanted.person.as_deref().filter(|_| wanted.field.is_none());
    if person.is_some_and(|person| household.person(person).is_none()) {
        return Err(Problem::not_found("person"));
    }
    let mut found = None;
    let Ok(()) = secret::each(&mut household, pack, |at, text| {
        if at == place {
            found = Some(text.clone());
        }
        Ok::<(), Infallible>(())
    });
    if found.is_none() && person.is_none() {
        return Err(Problem::not_found("secret"));
    }
    store::note_reveal(&app.database, id, Some(&place), by).await?;
    Ok(Json(Revealed { text: found }))
}
