//! What the authority and the payers hold: the family's consent, what was fetched, and each offered slip beside the
//! paper that was keyed.

use super::{
    Input,
    edits::{self, Edit},
    trials,
    views::Opened,
};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    offered::{Offered, Settling, Slip, Table, of_household, slips_of},
    outside::{Outside, Trouble},
    store::outside as store,
    work::{self, Then},
};
use axum::{
    Json,
    extract::{Path, Query, State},
};
use hembo_authority::wire::{self, Scope, Taxpayer};
use hembo_core::{
    Fault,
    check::{LONGEST_NAME, digits},
    held,
    household::date,
};
use serde::{Deserialize, Serialize};
use std::{collections::BTreeSet, sync::Arc};
use time::OffsetDateTime;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// How many slips are taken from a fetch.
const MOST_SLIPS: usize = 300;

/// The service outside.
///
/// # Errors
/// When there is none.
pub fn outside(app: &App) -> Answer<Arc<dyn Outside>> {
    app.outside
        .clone()
        .ok_or_else(|| Problem::outside("No service of an authority is connected to this server."))
}

/// What is held outside, as it stands to what was keyed.
#[derive(Serialize, ToSchema)]
#[schema(as = OutsideView)]
#[allow(missing_docs)]
pub struct View {
    /// A service is connected.
    pub connected: bool,
    /// The family's consents, the newest first.
    pub consents: Vec<Consent>,
    /// The last fetch.
    pub fetched: Option<Fetched>,
    pub offered: Vec<Offered>,
    /// What only the family has.
    pub ask: Vec<Ask>,
}

/// A family's consent.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Consent {
    pub id: Uuid,
    pub number: String,
    pub people: Vec<String>,
    /// papers, filing.
    pub scope: Vec<String>,
    /// ISO 8601.
    pub from: String,
    pub until: String,
    /// pending, granted, refused or ended.
    pub state: String,
    pub words: String,
    pub by: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
}

/// A fetch, and what it found otherwise than the one before.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Fetched {
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
    pub by: String,
    /// Slips of people who are not in the household: they were left out.
    pub strangers: i32,
    /// There is one before it.
    pub again: bool,
    pub new: Vec<String>,
    pub changed: Vec<String>,
    pub gone: Vec<String>,
}

/// A kind of paper to ask the family for.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Ask {
    pub kind: String,
    pub name: String,
    /// How many are filled.
    pub papers: usize,
    /// An answer or last year calls for it, and none is there.
    pub called_for: bool,
    pub asked_by: Option<String>,
    #[serde(with = "time::serde::rfc3339::option")]
    pub asked_at: Option<OffsetDateTime>,
}

/// What the last fetch found otherwise than the one before.
fn fetched(fetches: &[store::Fetch]) -> Answer<Option<Fetched>> {
    let Some(last) = fetches.first() else { return Ok(None) };
    let now = slips_of(last)?;
    let then = fetches.get(1).map(slips_of).transpose()?;
    let then_or_none = then.as_deref().unwrap_or_default();
    let earlier = |slip: &Slip| then_or_none.iter().find(|other| other.id == slip.id);
    let other = |slip: &Slip| {
        earlier(slip).is_some_and(|before| before.boxes != slip.boxes || before.rows != slip.rows)
    };
    let names = |slips: Vec<&Slip>| slips.into_iter().map(Slip::name).collect();
    let again = then.is_some();
    Ok(Some(Fetched {
        at: last.at,
        by: last.by_name.clone(),
        strangers: last.strangers,
        again,
        new: names(now.iter().filter(|slip| again && earlier(slip).is_none()).collect()),
        changed: names(now.iter().filter(|slip| other(slip)).collect()),
        gone: names(
            then_or_none.iter().filter(|other| !now.iter().any(|slip| slip.id == other.id)).collect(),
        ),
    }))
}

async fn shown(app: &App, id: Uuid) -> Answer<Json<View>> {
    let (table, fetches) = Table::of(app, id).await?;
    let consent = |of: store::Consent| Consent {
        id: of.id,
        number: of.number,
        people: of.people,
        scope: of.scope,
        from: of.from_day.to_string(),
        until: of.until_day.to_string(),
        state: of.state,
        words: of.words,
        by: of.by_name,
        at: of.at,
    };
    let asked = store::asked(&app.database, id).await?;
    let ask = held::from_family(&table.household, table.pack).into_iter().map(|of| {
        let kind = table.pack.paper_kinds().iter().find(|kind| kind.id == of.kind);
        let once = asked.iter().find(|asked| asked.kind == of.kind);
        Ask {
            name: kind.map_or("", |kind| kind.name).to_owned(),
            papers: of.papers,
            called_for: of.called_for,
            asked_by: once.map(|asked| asked.by_name.clone()),
            asked_at: once.map(|asked| asked.at),
            kind: of.kind,
        }
    });
    Ok(Json(View {
        connected: app.outside.is_some(),
        consents: store::consents(&app.database, id).await?.into_iter().map(consent).collect(),
        fetched: fetched(&fetches)?,
        ask: ask.collect(),
        offered: table.offered(),
    }))
}

/// What is held outside, as it stands to what was keyed.
#[utoipa::path(get, path = "/api/households/{id}/outside", params(("id" = Uuid, Path)),
    responses((status = 200, body = View), (status = 404, body = Problem)))]
pub async fn outside_view(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<View>> {
    shown(&app, id).await
}

/// A consent to ask for.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AskConsent {
    /// Whose: people of the household who have numbers.
    people: Vec<String>,
    /// To see what is held, to file, or both.
    #[schema(value_type = Vec<String>)]
    scope: Vec<Scope>,
    /// The last day, ISO 8601.
    until: String,
}

/// Ask the family for its consent.
#[utoipa::path(post, path = "/api/households/{id}/consents", params(("id" = Uuid, Path)), request_body = AskConsent,
    responses((status = 200, body = View), (status = 404, body = Problem), (status = 422, body = Problem),
        (status = 502, body = Problem)))]
pub async fn ask_consent(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(asked): Input<AskConsent>,
) -> Answer<Json<View>> {
    trials::refuse(&app, id, "No consent is asked for").await?;
    let (_, household) = work::load(&app, id).await?;
    let wrong = |at: &str, message: String| Problem::invalid(vec![Fault::new(at, message)]);
    let from = OffsetDateTime::now_utc().date();
    let until = date::parse(&asked.until).filter(|until| *until >= from);
    let until =
        until.ok_or_else(|| wrong("until", "A consent ends on a day to come, written 2027-03-31.".into()))?;
    if asked.scope.is_empty() || asked.people.is_empty() {
        return Err(wrong("scope", "Say who agrees, and to what.".into()));
    }
    let find = |id: &String| {
        let person = household.person(id);
        let person = person.ok_or_else(|| wrong("people", format!("There is no person '{id}'.")))?;
        let number = person.id_number.as_deref();
        let number = number
            .ok_or_else(|| wrong("people", format!("{} has no identification number.", person.name)))?;
        Ok(Taxpayer { name: person.name.clone(), number: digits(number) })
    };
    let people = asked.people.iter().map(find).collect::<Answer<Vec<Taxpayer>>>()?;
    let names: Vec<String> = people.iter().map(|one| one.name.clone()).collect();
    let ask = wire::AskConsent {
        household: id,
        law: household.country.clone(),
        people,
        scope: asked.scope.clone(),
        from: from.to_string(),
        until: until.to_string(),
    };
    let answer = outside(&app)?.ask_consent(&ask).await?;
    let scope: Vec<String> = asked.scope.iter().map(word).collect();
    let new = store::NewConsent {
        household: id,
        number: &answer.number,
        people: &names,
        scope: &scope,
        from_day: from,
        until_day: until,
        state: &word(&answer.state),
        words: &answer.words,
        by,
    };
    store::add_consent(&app.database, &new).await?;
    shown(&app, id).await
}

/// A word of the wire as it is stored.
fn word(value: &impl Serialize) -> String {
    let json = serde_json::to_value(value).unwrap_or_default();
    json.as_str().unwrap_or_default().to_owned()
}

async fn consent_of(app: &App, id: Uuid, consent: Uuid) -> Answer<store::Consent> {
    let all = store::consents(&app.database, id).await?;
    all.into_iter().find(|one| one.id == consent).ok_or_else(|| Problem::not_found("consent"))
}

async fn keep_answer(app: &App, consent: Uuid, answer: &wire::Consent) -> Answer<()> {
    Ok(store::set_consent(&app.database, consent, &word(&answer.state), &answer.words).await?)
}

/// Look again how a consent stands.
#[utoipa::path(post, path = "/api/households/{id}/consents/{consent}",
    params(("id" = Uuid, Path), ("consent" = Uuid, Path)),
    responses((status = 200, body = View), (status = 404, body = Problem), (status = 502, body = Problem)))]
pub async fn look_at_consent(
    State(app): State<App>,
    _: By,
    Path((id, consent)): Path<(Uuid, Uuid)>,
) -> Answer<Json<View>> {
    let found = consent_of(&app, id, consent).await?;
    let answer = outside(&app)?.consent(&found.number).await?;
    keep_answer(&app, consent, &answer).await?;
    shown(&app, id).await
}

/// End a consent.
#[utoipa::path(delete, path = "/api/households/{id}/consents/{consent}",
    params(("id" = Uuid, Path), ("consent" = Uuid, Path)),
    responses((status = 200, body = View), (status = 404, body = Problem), (status = 502, body = Problem)))]
pub async fn end_consent(
    State(app): State<App>,
    _: By,
    Path((id, consent)): Path<(Uuid, Uuid)>,
) -> Answer<Json<View>> {
    let found = consent_of(&app, id, consent).await?;
    let answer = outside(&app)?.end_consent(&found.number).await?;
    keep_answer(&app, consent, &answer).await?;
    shown(&app, id).await
}

/// The newest consent that allows something and is given, looked at again where its answer was waited for.
///
/// # Errors
/// When there is none.
pub async fn granted(app: &App, id: Uuid, scope: Scope) -> Answer<store::Consent> {
    let scope = word(&scope);
    let all = store::consents(&app.database, id).await?;
    let open = |one: &store::Consent| {
        one.scope.contains(&scope) && (one.state == "granted" || one.state == "pending")
    };
    for mut consent in all.into_iter().filter(open) {
        let answer = match outside(app)?.consent(&consent.number).await {
            // It is not known there any more: another one may be.
            Err(Trouble::Refused(words)) => {
                let number = consent.number.clone();
                wire::Consent { number, state: wire::Consenting::Ended, words }
            }
            answer => answer?,
        };
        keep_answer(app, consent.id, &answer).await?;
        if answer.state == wire::Consenting::Granted {
            consent.state = word(&answer.state);
            return Ok(consent);
        }
    }
    Err(Problem::outside("The family's consent is not given: ask for it, or wait for its answer."))
}

/// Fetch what the authority and the payers hold.
#[utoipa::path(post, path = "/api/households/{id}/fetches", params(("id" = Uuid, Path)),
    responses((status = 200, body = View), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 502, body = Problem)))]
pub async fn fetch(State(app): State<App>, By(by): By, Path(id): Path<Uuid>) -> Answer<Json<View>> {
    trials::refuse(&app, id, "Nothing is fetched").await?;
    let (_, household) = work::load(&app, id).await?;
    let consent = granted(&app, id, Scope::Papers).await?;
    let slips = outside(&app)?.slips(&consent.number, household.year).await?;
    let sensible = |slip: &wire::Slip| {
        let texts = [&slip.id, &slip.kind, &slip.title, &slip.issued];
        texts
            .into_iter()
            .all(|text| text.chars().count() <= LONGEST_NAME && !text.chars().any(char::is_control))
    };
    let ids: BTreeSet<&String> = slips.iter().map(|slip| &slip.id).collect();
    if slips.len() > MOST_SLIPS || ids.len() < slips.len() || !slips.iter().all(sensible) {
        return Err(Trouble::Nonsense.into());
    }
    let all = slips.len();
    let ours: Vec<Slip> = slips.into_iter().filter_map(|slip| of_household(slip, &household)).collect();
    let strangers = i32::try_from(all - ours.len()).unwrap_or(i32::MAX);
    let json = serde_json::to_value(&ours).map_err(Problem::internal)?;
    store::add_fetch(&app.database, (id, consent.id), &json, strangers, by).await?;
    shown(&app, id).await
}

/// Slips to settle against a revision; all of them, or none.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Settle {
    /// The revision that was seen.
    base_revision: i64,
    /// Names the edit: sent again after an answer that was lost, it is made once.
    #[serde(default)]
    key: Option<Uuid>,
    /// The slips.
    slips: Vec<String>,
    /// What becomes of them.
    how: Settling,
    /// Why.
    #[serde(default)]
    reason: String,
}

/// Take, keep against or refuse offered slips; the answer is the household's new outcome.
#[utoipa::path(post, path = "/api/households/{id}/offered", params(("id" = Uuid, Path)), request_body = Settle,
    responses((status = 200, body = Opened), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
pub async fn settle_slips(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(wanted): Input<Settle>,
) -> Answer<Json<Opened>> {
    let (table, _) = Table::of(&app, id).await?;
    let commands = table.commands(&wanted.slips, wanted.how, &wanted.reason)?;
    let edit = Edit { base_revision: wanted.base_revision, commands, key: wanted.key, continues: None };
    edits::make(&app, by, id, edit).await.map(Json)
}

/// What the household would come to, were a slip taken.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct IfTaken {
    pub now: Then,
    pub then: Then,
}

/// A slip to look at.
#[derive(Deserialize, ToSchema, IntoParams)]
pub struct OfSlip {
    /// The slip.
    slip: String,
}

/// What the household would come to, were a slip taken.
#[utoipa::path(get, path = "/api/households/{id}/offered/effect", params(("id" = Uuid, Path), OfSlip),
    responses((status = 200, body = IfTaken), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn if_taken(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(OfSlip { slip }): Query<OfSlip>,
) -> Answer<Json<IfTaken>> {
    let (table, _) = Table::of(&app, id).await?;
    let mut household = table.household.clone();
    for command in table.commands(&[slip], Settling::Take, "")? {
        command.apply(&mut household).map_err(|fault| Problem::invalid(vec![fault]))?;
    }
    let rules = app.rules.now(&app.database).await?;
    let now = work::comes_to(&app, table.household, &rules).await?;
    Ok(Json(IfTaken { now, then: work::comes_to(&app, household, &rules).await? }))
}

/// A kind of paper that the family is asked for.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SetAsked {
    /// The kind.
    kind: String,
    /// Asked, or not.
    asked: bool,
}

/// Note that the family was asked for a kind of paper.
#[utoipa::path(put, path = "/api/households/{id}/asked", params(("id" = Uuid, Path)), request_body = SetAsked,
    responses((status = 200, body = View), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn set_asked(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(SetAsked { kind, asked }): Input<SetAsked>,
) -> Answer<Json<View>> {
    let (_, household) = work::load(&app, id).await?;
    if !work::pack(&app, &household)?.paper_kinds().iter().any(|known| known.id == kind) {
        let message = format!("There is no kind of paper '{kind}'.");
        return Err(Problem::invalid(vec![Fault::new("kind", message)]));
    }
    store::set_asked(&app.database, id, &kind, asked, by).await?;
    shown(&app, id).await
}
