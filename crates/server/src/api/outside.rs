//! What the authority and the payers hold: the family's consent, what was fetched, and each offered slip beside the
//! paper that was keyed.

use super::{
    Input,
    edits::{self, Edit},
    views::Opened,
};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    outside::Outside,
    store::outside as store,
    work::{self, Then},
};
use axum::{
    Json,
    extract::{Path, State},
};
use hembo_authority::wire::{self, Scope, Source, Taxpayer};
use hembo_core::{
    Fault, Household, Pack,
    check::{self, LONGEST_NAME, LONGEST_REASON, digits},
    command::Command,
    held::{self, Beside, Held},
    household::{Answers, Dismissal, Paper, Role, Share, date},
    paper::PaperKind,
};
use hembo_money::Rate;
use serde::{Deserialize, Serialize};
use std::{
    collections::{BTreeMap, BTreeSet},
    sync::Arc,
};
use time::{Date, OffsetDateTime};
use utoipa::ToSchema;
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

/// How a slip stands to what was keyed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stands {
    /// No such paper was keyed.
    New,
    /// It says what was keyed.
    Agrees,
    /// It says something else.
    Differs,
    /// It says something else, and what was keyed stays, with a reason.
    Kept,
    /// It was refused with a reason.
    Refused,
    /// It was taken, and is no longer held.
    Gone,
    /// It is no paper of this law and year, or cannot be right.
    Unusable,
}

/// A slip that is offered.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Offered {
    pub slip: String,
    pub kind: String,
    pub title: String,
    /// Whose it is.
    pub person: String,
    /// Who sent it in: authority, employer, bank, broker, lender, payer.
    pub source: String,
    /// ISO 8601.
    pub issued: String,
    pub state: Stands,
    /// It is marked on the paper, or was refused: nothing is left to decide.
    pub settled: bool,
    /// The keyed paper that it is.
    pub paper: Option<String>,
    pub boxes: Vec<Beside>,
    /// Why it was refused, what was keyed stays, or it cannot be used.
    pub reason: Option<String>,
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

/// A slip as it was fetched, with a person of the household in the number's place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
struct Kept {
    id: String,
    person: String,
    kind: String,
    title: String,
    source: Source,
    issued: String,
    boxes: Answers,
}

impl Kept {
    fn name(&self) -> String {
        format!("{} {}", self.kind, self.title).trim_end().to_owned()
    }

    fn held(&self, on: Date) -> Held {
        Held { slip: self.id.clone(), by: self.title.clone(), on, boxes: self.boxes.clone(), kept: None }
    }

    /// The paper that it makes.
    fn paper(&self, id: &str, held: Held) -> Paper {
        let hundred = Rate::from_billionths(100 * Rate::ONE.billionths());
        Paper {
            id: id.to_owned(),
            kind: self.kind.clone(),
            title: self.title.clone(),
            owners: vec![Share { person: self.person.clone(), percent: hundred }],
            boxes: self.boxes.clone(),
            rows: Vec::new(),
            rows_made: 0,
            checked: false,
            proof: false,
            changed: BTreeSet::new(),
            before: Answers::new(),
            held: Some(held),
        }
    }

    fn fingerprint(&self) -> String {
        held::fingerprint(&self.kind, &self.title, &self.boxes)
    }
}

/// A household beside what was fetched last.
struct Table<'a> {
    app: &'a App,
    household: Household,
    pack: &'a dyn Pack,
    slips: Vec<Kept>,
    on: Date,
}

impl<'a> Table<'a> {
    /// A household with the slips of its last fetch; none where nothing was fetched.
    async fn of(app: &'a App, id: Uuid) -> Answer<(Table<'a>, Vec<store::Fetch>)> {
        let (_, household) = work::load(app, id).await?;
        let pack = work::pack(app, &household)?;
        let fetches = store::fetches(&app.database, id).await?;
        let slips = fetches.first().map(kept).transpose()?.unwrap_or_default();
        let on = fetches.first().map_or_else(OffsetDateTime::now_utc, |fetch| fetch.at).date();
        Ok((Table { app, household, pack, slips, on }, fetches))
    }

    fn kind(&self, slip: &Kept) -> Option<&'static PaperKind> {
        self.pack.paper_kinds().iter().find(|kind| kind.id == slip.kind)
    }

    /// Why a slip cannot be used.
    fn unusable(&self, slip: &Kept) -> Option<String> {
        let probe = slip.paper("offered-slip", slip.held(self.on));
        let at = format!("/papers/{}/", self.household.papers.len());
        let mut household = self.household.clone();
        household.papers.push(probe);
        let found = check::faults(&household, &self.app.registry);
        found.into_iter().find(|fault| fault.at.starts_with(&at)).map(|fault| fault.message)
    }

    /// The keyed paper that each slip is, where there is one: no paper is two slips'.
    fn papers(&self) -> BTreeMap<&str, &Paper> {
        let mut found: BTreeMap<&str, &Paper> = BTreeMap::new();
        let mut others: BTreeSet<String> = BTreeSet::new();
        let marked = |slip: &&Kept| {
            self.household.papers.iter().any(|p| p.held.as_ref().is_some_and(|held| held.slip == slip.id))
        };
        let (first, then): (Vec<_>, Vec<_>) = self.slips.iter().partition(marked);
        for slip in first.into_iter().chain(then) {
            let Some(kind) = self.kind(slip) else { continue };
            let paper = held::find(&slip.held(self.on), kind, &slip.person, &self.household, &others);
            if let Some(paper) = paper {
                others.insert(paper.id.clone());
                found.insert(&slip.id, paper);
            }
        }
        found
    }

    fn offered(&self) -> Vec<Offered> {
        let papers = self.papers();
        let mut all: Vec<Offered> =
            self.slips.iter().map(|slip| self.one(slip, papers.get(slip.id.as_str()).copied())).collect();
        all.extend(self.household.papers.iter().filter_map(|paper| self.gone(paper)));
        all
    }

    fn one(&self, slip: &Kept, paper: Option<&Paper>) -> Offered {
        let kind = self.kind(slip);
        let boxes = kind.map(|kind| held::beside(kind, &slip.boxes, paper.map(|paper| &paper.boxes)));
        let boxes = boxes.unwrap_or_default();
        let refused = self.household.refused.get(&slip.id).filter(|refused| {
            refused.about.is_none() || refused.about.as_deref() == Some(&slip.fingerprint())
        });
        let marked = paper.and_then(|paper| paper.held.as_ref()).filter(|held| held.slip == slip.id);
        let as_marked = marked.filter(|held| held.boxes == slip.boxes);
        let kept = as_marked.and_then(|held| held.kept.clone());
        let unusable = self.unusable(slip);
        let (state, reason) = match (unusable, refused, paper) {
            (Some(why), ..) => (Stands::Unusable, Some(why)),
            (_, Some(Dismissal { reason, .. }), _) => (Stands::Refused, Some(reason.clone())),
            (_, _, None) => (Stands::New, None),
            _ if boxes.iter().all(|of| of.agrees) => (Stands::Agrees, None),
            _ if kept.is_some() => (Stands::Kept, kept),
            _ => (Stands::Differs, None),
        };
        let settled = match state {
            Stands::Refused | Stands::Kept => true,
            Stands::Agrees => as_marked.is_some(),
            _ => false,
        };
        Offered {
            slip: slip.id.clone(),
            kind: slip.kind.clone(),
            title: slip.title.clone(),
            person: slip.person.clone(),
            source: source(slip.source),
            issued: slip.issued.clone(),
            state,
            settled,
            paper: paper.map(|paper| paper.id.clone()),
            boxes,
            reason,
        }
    }

    /// A paper that was taken from a slip that is no longer held.
    fn gone(&self, paper: &Paper) -> Option<Offered> {
        let held = paper.held.as_ref()?;
        if self.slips.is_empty() || self.slips.iter().any(|slip| slip.id == held.slip) {
            return None;
        }
        let kind = self.pack.paper_kinds().iter().find(|kind| kind.id == paper.kind)?;
        Some(Offered {
            slip: held.slip.clone(),
            kind: paper.kind.clone(),
            title: paper.title.clone(),
            person: paper.owners.first().map(|owner| owner.person.clone()).unwrap_or_default(),
            source: String::new(),
            issued: held.on.to_string(),
            state: Stands::Gone,
            settled: false,
            paper: Some(paper.id.clone()),
            boxes: held::beside(kind, &Answers::new(), Some(&paper.boxes)),
            reason: None,
        })
    }
}

fn source(source: Source) -> String {
    let json = serde_json::to_value(source).unwrap_or_default();
    json.as_str().unwrap_or_default().to_owned()
}

fn kept(fetch: &store::Fetch) -> Answer<Vec<Kept>> {
    serde_json::from_value(fetch.slips.clone()).map_err(Problem::internal)
}

/// What the last fetch found otherwise than the one before.
fn fetched(fetches: &[store::Fetch]) -> Answer<Option<Fetched>> {
    let Some(last) = fetches.first() else { return Ok(None) };
    let now = kept(last)?;
    let then = fetches.get(1).map(kept).transpose()?;
    let then_or_none = then.as_deref().unwrap_or_default();
    let earlier = |slip: &Kept| then_or_none.iter().find(|other| other.id == slip.id);
    let names = |slips: Vec<&Kept>| slips.into_iter().map(Kept::name).collect();
    let again = then.is_some();
    Ok(Some(Fetched {
        at: last.at,
        by: last.by_name.clone(),
        strangers: last.strangers,
        again,
        new: names(now.iter().filter(|slip| again && earlier(slip).is_none()).collect()),
        changed: names(
            now.iter().filter(|slip| earlier(slip).is_some_and(|other| other.boxes != slip.boxes)).collect(),
        ),
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
        let person = household.person(id).filter(|person| person.role == Role::Filer);
        let person = person.ok_or_else(|| wrong("people", format!("There is no filer '{id}'.")))?;
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
        let answer = outside(app)?.consent(&consent.number).await?;
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
        return Err(crate::outside::Trouble::Nonsense.into());
    }
    let all = slips.len();
    let ours: Vec<Kept> = slips.into_iter().filter_map(|slip| of_household(slip, &household)).collect();
    let strangers = i32::try_from(all - ours.len()).unwrap_or(i32::MAX);
    let json = serde_json::to_value(&ours).map_err(Problem::internal)?;
    store::add_fetch(&app.database, (id, consent.id), &json, strangers, by).await?;
    shown(&app, id).await
}

fn of_household(slip: wire::Slip, household: &Household) -> Option<Kept> {
    let number = digits(&slip.number);
    let is_it = |text: Option<&str>| text.is_some_and(|text| digits(text) == number);
    let person = household.people.iter().find(|person| is_it(person.id_number.as_deref()))?;
    let wire::Slip { id, kind, title, source, issued, boxes, .. } = slip;
    Some(Kept { id, person: person.id.clone(), kind, title, source, issued, boxes })
}

/// What becomes of a slip.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Settling {
    /// It is taken: a new paper, or its boxes on the one that was keyed.
    Take,
    /// What was keyed stays, with a reason.
    Keep,
    /// It is refused with a reason.
    Refuse,
    /// It is offered again.
    TakeUp,
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
    let commands = table.commands(&wanted)?;
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
#[derive(Deserialize, ToSchema, utoipa::IntoParams)]
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
    axum::extract::Query(OfSlip { slip }): axum::extract::Query<OfSlip>,
) -> Answer<Json<IfTaken>> {
    let (table, _) = Table::of(&app, id).await?;
    let wanted =
        Settle { base_revision: 0, key: None, slips: vec![slip], how: Settling::Take, reason: String::new() };
    let mut household = table.household.clone();
    for command in table.commands(&wanted)? {
        command.apply(&mut household).map_err(|fault| Problem::invalid(vec![fault]))?;
    }
    let rules = app.rules.now(&app.database).await?;
    let now = work::comes_to(&app, table.household, &rules).await?;
    Ok(Json(IfTaken { now, then: work::comes_to(&app, household, &rules).await? }))
}

impl Table<'_> {
    /// The commands that settle slips.
    fn commands(&self, wanted: &Settle) -> Answer<Vec<Command>> {
        let reason = wanted.reason.trim();
        let needs_reason = matches!(wanted.how, Settling::Keep | Settling::Refuse);
        if needs_reason && (reason.is_empty() || reason.chars().count() > LONGEST_REASON) {
            let message = format!("Say why, in at most {LONGEST_REASON} letters.");
            return Err(Problem::invalid(vec![Fault::new("reason", message)]));
        }
        let papers = self.papers();
        let mut commands = Vec::new();
        let mut new = 0;
        for id in &wanted.slips {
            let slip =
                self.slips.iter().find(|slip| slip.id == *id).ok_or_else(|| Problem::not_found("slip"))?;
            let paper = papers.get(slip.id.as_str()).copied();
            match wanted.how {
                Settling::Take => {
                    if let Some(why) = self.unusable(slip) {
                        return Err(Problem::invalid(vec![Fault::new("slips", why)]));
                    }
                    commands.extend(self.take(slip, paper, &mut new));
                }
                Settling::Keep => {
                    let paper = paper.ok_or_else(|| Problem::not_found("paper for this slip"))?;
                    let held = Held { kept: Some(reason.into()), ..slip.held(self.on) };
                    commands.push(Command::SetHeld { paper: paper.id.clone(), held: Some(held) });
                }
                Settling::Refuse => commands.push(Command::RefuseSlip {
                    slip: slip.id.clone(),
                    reason: Some(reason.into()),
                    about: Some(slip.fingerprint()),
                }),
                Settling::TakeUp => {
                    let marked = paper.filter(|paper| paper.held.is_some());
                    commands
                        .extend(marked.map(|paper| Command::SetHeld { paper: paper.id.clone(), held: None }));
                    commands.push(Command::RefuseSlip { slip: slip.id.clone(), reason: None, about: None });
                }
            }
        }
        Ok(commands)
    }

    /// A slip taken: into the paper that was keyed, or as a new one.
    fn take(&self, slip: &Kept, paper: Option<&Paper>, new: &mut usize) -> Vec<Command> {
        let held = slip.held(self.on);
        let again = self.household.refused.contains_key(&slip.id);
        let taken_up =
            again.then(|| Command::RefuseSlip { slip: slip.id.clone(), reason: None, about: None });
        let mut commands: Vec<Command> = taken_up.into_iter().collect();
        let Some(paper) = paper else {
            let id = self.free_id(new);
            commands.push(Command::AddPaper { paper: slip.paper(&id, held) });
            return commands;
        };
        let boxes = self.kind(slip).map(|kind| held::beside(kind, &slip.boxes, Some(&paper.boxes)));
        let apart = boxes.unwrap_or_default().into_iter().filter(|of| !of.agrees);
        commands.extend(apart.map(|of| Command::SetBox {
            paper: paper.id.clone(),
            field: of.field,
            value: of.held,
        }));
        commands.push(Command::SetHeld { paper: paper.id.clone(), held: Some(held) });
        commands
    }

    /// An id that no paper has or had.
    fn free_id(&self, new: &mut usize) -> String {
        loop {
            *new += 1;
            let id = format!("held-{new}");
            if self.household.paper(&id).is_none() && !self.household.retired.contains(&id) {
                return id;
            }
        }
    }
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
