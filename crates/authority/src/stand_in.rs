//! The stand-in: an HTTP service on loopback that plays the authority and the payers.

use crate::{
    assess::{assess, own},
    books::{Asked, Books, Return},
    data::{Answering, Data, HeldSlip},
    examine::refusals,
    printed::{self, Camera},
    wire::{
        AskAssessment, AskConsent, Consent, Consenting, Document, DocumentFile, Fault, Filed, Filing, No,
        OwnAssessment, Package, Receipt, Scan, Scope, SendDocument, Slip, TryFault, checksum,
    },
};
use axum::{
    Json, Router,
    body::Bytes,
    extract::{DefaultBodyLimit, Path, Query, State},
    http::{StatusCode, header},
    response::{Html, IntoResponse, Response},
    routing::{get, post, put},
};
use base64::{Engine, engine::general_purpose::STANDARD};
use hembo_core::{
    Pack, Registry,
    household::date,
    slip::file::{Unreadable, kind_of},
};
use serde::Deserialize;
use std::{
    collections::BTreeMap,
    io,
    path::PathBuf,
    sync::{Arc, Mutex, MutexGuard, PoisonError},
    time::Duration,
};
use time::{OffsetDateTime, format_description::well_known::Rfc3339};
use uuid::Uuid;

/// How late a slow answer comes: later than anybody waits.
pub const SLOW: Duration = Duration::from_secs(20);

/// The largest thing that is sent to it, in bytes: files with a document, as text.
const LARGEST_BODY: usize = 16 * 1024 * 1024;

/// The stand-in with what it knows and was told.
#[derive(Clone)]
pub struct StandIn {
    data: Arc<Data>,
    registry: Registry,
    books: Arc<Mutex<Books>>,
    faults: Arc<Mutex<BTreeMap<Uuid, Fault>>>,
    camera: Option<Camera>,
}

/// What the stand-in answers, or why not.
type Answer<T> = Result<Json<T>, Response>;

fn no(status: StatusCode, why: &str) -> Response {
    (status, Json(No { why: why.into() })).into_response()
}

fn unknown() -> Response {
    no(StatusCode::NOT_FOUND, "Nothing is known under this number.")
}

impl StandIn {
    /// A stand-in with its data, which keeps what it is told in a file.
    ///
    /// # Errors
    /// A file that cannot be read.
    pub fn new(data: Data, registry: Registry, file: Option<PathBuf>) -> io::Result<StandIn> {
        let books = Arc::new(Mutex::new(Books::open(file)?));
        Ok(StandIn { data: Arc::new(data), registry, books, faults: Arc::default(), camera: None })
    }

    /// The same, with a camera: without one it issues no pictures and reads none.
    pub fn with_camera(self, camera: Camera) -> StandIn {
        StandIn { camera: Some(camera), ..self }
    }

    /// Its routes.
    pub fn router(self) -> Router {
        Router::new()
            .route("/consents", post(ask_consent))
            .route("/consents/{number}", get(look_at_consent).delete(end_consent))
            .route("/consents/{number}/slips", get(slips))
            .route("/consents/{number}/assessments", post(own_assessments))
            .route("/returns", post(file))
            .route("/returns/{number}", get(look_at_return))
            .route("/returns/{number}/documents", post(send_document))
            .route("/slips", get(issued))
            .route("/slips/{law}/{file}", get(slip_file))
            .route("/scans", post(scan))
            .route("/faults", put(try_fault))
            .layer(DefaultBodyLimit::max(LARGEST_BODY))
            .with_state(self)
    }

    fn books(&self) -> MutexGuard<'_, Books> {
        self.books.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Does what a fault that is tried for a household does.
    async fn fault(&self, household: Uuid) -> Result<(), Response> {
        let fault = self.faults.lock().unwrap_or_else(PoisonError::into_inner).get(&household).copied();
        match fault {
            None => Ok(()),
            Some(Fault::Down) => Err(no(StatusCode::SERVICE_UNAVAILABLE, "The service has an outage.")),
            Some(Fault::Nonsense) => Err((StatusCode::OK, "<p>Welcome to the portal</p>").into_response()),
            Some(Fault::Slow) => {
                tokio::time::sleep(SLOW).await;
                Ok(())
            }
        }
    }

    async fn household_of(&self, consent: &str) -> Result<Uuid, Response> {
        let household = self.books().consents.get(consent).map(|asked| asked.asked.household);
        let household = household.ok_or_else(unknown)?;
        self.fault(household).await?;
        Ok(household)
    }

    /// How a consent stands now, for the first time or when it is looked at again.
    fn stands(&self, asked: &AskConsent, again: bool) -> (Consenting, String) {
        let answers = asked.people.iter().map(|one| {
            let known = self.data.find(&asked.law, &one.number);
            (one.name.as_str(), known.map_or(Answering::GrantsLater, |known| known.answers))
        });
        let mut pending = None;
        for (name, answer) in answers {
            match answer {
                Answering::Refuses => return (Consenting::Refused, format!("{name} does not agree.")),
                Answering::GrantsLater if !again => pending = Some(name),
                _ => {}
            }
        }
        match pending {
            Some(name) => (Consenting::Pending, format!("{name} has not answered yet.")),
            None => (Consenting::Granted, String::new()),
        }
    }

    /// A consent by which something may be done today.
    fn granted(&self, number: &str, scope: Scope) -> Result<AskConsent, Response> {
        let books = self.books();
        let found = books.consents.get(number).ok_or_else(unknown)?;
        if found.consent.state != Consenting::Granted || is_over(&found.asked) {
            return Err(no(StatusCode::FORBIDDEN, "The consent is not given, or has ended."));
        }
        if !found.asked.scope.contains(&scope) {
            return Err(no(StatusCode::FORBIDDEN, "The consent does not allow this."));
        }
        Ok(found.asked.clone())
    }
}

fn kept(books: &Books) -> Result<(), Response> {
    books.keep().map_err(|error| no(StatusCode::INTERNAL_SERVER_ERROR, &error.to_string()))
}

fn today() -> time::Date {
    OffsetDateTime::now_utc().date()
}

fn is_over(asked: &AskConsent) -> bool {
    date::parse(&asked.until).is_none_or(|until| until < today())
}

async fn ask_consent(State(here): State<StandIn>, Json(asked): Json<AskConsent>) -> Answer<Consent> {
    here.fault(asked.household).await?;
    if asked.people.is_empty() || asked.scope.is_empty() || is_over(&asked) {
        return Err(no(
            StatusCode::UNPROCESSABLE_ENTITY,
            "A consent needs people, a scope and a last day to come.",
        ));
    }
    let (state, words) = here.stands(&asked, false);
    let mut books = here.books();
    let number = format!("C-{:06}", 100_000 + books.consents.len());
    let consent = Consent { number: number.clone(), state, words };
    books.consents.insert(number, Asked { asked, consent: consent.clone(), fetches: BTreeMap::new() });
    kept(&books)?;
    Ok(Json(consent))
}

async fn look_at_consent(State(here): State<StandIn>, Path(number): Path<String>) -> Answer<Consent> {
    here.household_of(&number).await?;
    let mut books = here.books();
    let found = books.consents.get_mut(&number).ok_or_else(unknown)?;
    let open = matches!(found.consent.state, Consenting::Pending | Consenting::Granted);
    if open && is_over(&found.asked) {
        found.consent.state = Consenting::Ended;
        found.consent.words = format!("It ended on {}.", found.asked.until);
    } else if found.consent.state == Consenting::Pending {
        (found.consent.state, found.consent.words) = here.stands(&found.asked, true);
    }
    let consent = found.consent.clone();
    kept(&books)?;
    Ok(Json(consent))
}

async fn end_consent(State(here): State<StandIn>, Path(number): Path<String>) -> Answer<Consent> {
    here.household_of(&number).await?;
    let mut books = here.books();
    let found = books.consents.get_mut(&number).ok_or_else(unknown)?;
    found.consent.state = Consenting::Ended;
    found.consent.words = format!("Ended by the practice on {}.", today());
    let consent = found.consent.clone();
    kept(&books)?;
    Ok(Json(consent))
}

#[derive(Deserialize)]
struct OfYear {
    year: i32,
}

async fn slips(
    State(here): State<StandIn>,
    Path(number): Path<String>,
    Query(OfYear { year }): Query<OfYear>,
) -> Answer<Vec<Slip>> {
    here.household_of(&number).await?;
    let asked = here.granted(&number, Scope::Papers)?;
    let mut books = here.books();
    let found = books.consents.get_mut(&number).ok_or_else(unknown)?;
    let fetch = found.fetches.entry(year).or_insert(0);
    *fetch += 1;
    let fetch = *fetch;
    kept(&books)?;
    let known = asked.people.iter().filter_map(|one| here.data.find(&asked.law, &one.number));
    let of_year = known.flat_map(|known| known.slips.iter().map(move |slip| (known, slip)));
    let of_year = of_year.filter(|(_, slip)| slip.year == year);
    Ok(Json(of_year.filter_map(|(known, slip)| slip.at(fetch, &known.number)).collect()))
}

async fn own_assessments(
    State(here): State<StandIn>,
    Path(number): Path<String>,
    Json(AskAssessment { household }): Json<AskAssessment>,
) -> Answer<Vec<OwnAssessment>> {
    here.household_of(&number).await?;
    let asked = here.granted(&number, Scope::Papers)?;
    if household.country != asked.law || !household.papers.is_empty() {
        let why = "An assessment is asked for with people and answers of the consent's law, and no papers.";
        return Err(no(StatusCode::UNPROCESSABLE_ENTITY, why));
    }
    Ok(Json(own(&household, &asked.people, &here.data, &here.registry, today())))
}

async fn file(State(here): State<StandIn>, Json(filing): Json<Filing>) -> Answer<Receipt> {
    here.household_of(&filing.consent).await?;
    let asked = here.granted(&filing.consent, Scope::Filing)?;
    if let Some(there) = here.books().returns.values().find(|there| there.key == filing.key) {
        return Ok(Json(there.receipt.clone()));
    }
    if checksum(&filing.package) != filing.checksum {
        return Err(no(
            StatusCode::UNPROCESSABLE_ENTITY,
            "The checksum does not fit: the package came in damaged.",
        ));
    }
    let package: Package = serde_json::from_str(&filing.package).map_err(|error| {
        no(StatusCode::UNPROCESSABLE_ENTITY, &format!("The package cannot be read: {error}"))
    })?;
    if package.filers.iter().any(|filer| !asked.people.contains(filer)) {
        return Err(no(StatusCode::FORBIDDEN, "The consent is not that of everyone who files."));
    }
    let mut books = here.books();
    check_once(&books, &package)?;
    let number = format!("R-{:07}", 3_000_000 + books.returns.len());
    let now = OffsetDateTime::now_utc();
    let receipt = Receipt {
        number: number.clone(),
        received_at: now.format(&Rfc3339).unwrap_or_default(),
        checksum: filing.checksum,
        state: Filed::Received,
        refusals: Vec::new(),
        assessment: None,
        documents: Vec::new(),
    };
    let there = Return {
        key: filing.key,
        consent: filing.consent,
        package: filing.package,
        receipt: receipt.clone(),
    };
    books.returns.insert(number, there);
    kept(&books)?;
    Ok(Json(receipt))
}

/// Nobody files twice for a year with an authority, unless the later return amends the earlier.
fn check_once(books: &Books, package: &Package) -> Result<(), Response> {
    let same = |there: &&Return| {
        let earlier: Option<Package> = serde_json::from_str(&there.package).ok();
        there.receipt.state != Filed::Refused
            && earlier.is_some_and(|earlier| {
                (&earlier.household.country, earlier.household.year, &earlier.authority)
                    == (&package.household.country, package.household.year, &package.authority)
                    && earlier.filers.iter().any(|filer| package.filers.contains(filer))
            })
    };
    let latest = books.returns.values().rfind(same).map(|there| there.receipt.number.as_str());
    match (latest, package.amends.as_deref()) {
        (Some(there), None) => {
            let why = format!("A return for the year was filed already, under {there}: send an amended one.");
            Err(no(StatusCode::CONFLICT, &why))
        }
        (there, Some(amends)) if there != Some(amends) => {
            Err(no(StatusCode::CONFLICT, "The return that it amends is not the latest one."))
        }
        _ => Ok(()),
    }
}

/// Each look moves a return one step on: it is examined, then assessed once nothing is asked for any more.
async fn look_at_return(State(here): State<StandIn>, Path(number): Path<String>) -> Answer<Receipt> {
    let consent = here.books().returns.get(&number).map(|there| there.consent.clone());
    here.household_of(&consent.ok_or_else(unknown)?).await?;
    let mut books = here.books();
    let there = books.returns.get_mut(&number).ok_or_else(unknown)?;
    if let Ok(package) = serde_json::from_str::<Package>(&there.package) {
        here.move_on(&mut there.receipt, &package);
    }
    let receipt = there.receipt.clone();
    kept(&books)?;
    Ok(Json(receipt))
}

impl StandIn {
    fn move_on(&self, receipt: &mut Receipt, package: &Package) {
        let Some(pack) = self.registry.pack(&package.household.country) else { return };
        match receipt.state {
            Filed::Received => {
                receipt.refusals = refusals(package, &self.data, pack);
                receipt.state = if receipt.refusals.is_empty() { Filed::Accepted } else { Filed::Refused };
                if receipt.state == Filed::Accepted {
                    receipt.documents = self.documents(package, pack);
                }
            }
            Filed::Accepted if receipt.documents.iter().all(|document| document.sent.is_some()) => {
                receipt.assessment = assess(package, &self.data, &self.registry, today());
                if receipt.assessment.is_some() {
                    receipt.state = Filed::Assessed;
                }
            }
            _ => {}
        }
    }

    fn documents(&self, package: &Package, pack: &dyn Pack) -> Vec<Document> {
        let law = package.household.country.as_str();
        let asked_on = today();
        let due = pack.document_deadline(package.household.year, asked_on).day.to_string();
        let known = package.filers.iter().filter_map(|filer| self.data.find(law, &filer.number));
        let asked = known
            .flat_map(|known| known.asked_for.iter().enumerate().map(move |(n, words)| (known, n, words)));
        let document = |(known, n, words): (&crate::data::Known, usize, &String)| Document {
            id: format!("{}-{}", known.number, n + 1),
            words: words.clone(),
            asked: asked_on.to_string(),
            due: due.clone(),
            sent: None,
            files: Vec::new(),
        };
        asked.map(document).collect()
    }
}

async fn send_document(
    State(here): State<StandIn>,
    Path(number): Path<String>,
    Json(sent): Json<SendDocument>,
) -> Answer<Receipt> {
    let consent = here.books().returns.get(&number).map(|there| there.consent.clone());
    here.household_of(&consent.ok_or_else(unknown)?).await?;
    sent.files.iter().try_for_each(taken)?;
    let mut books = here.books();
    let there = books.returns.get_mut(&number).ok_or_else(unknown)?;
    let document = there.receipt.documents.iter_mut().find(|document| document.id == sent.id);
    let document = document.ok_or_else(unknown)?;
    document.sent = Some(sent.words);
    document.files = sent.files.into_iter().map(|file| file.name).collect();
    let receipt = there.receipt.clone();
    kept(&books)?;
    Ok(Json(receipt))
}

/// Whether a file can be taken: whole, and of a kind that is read.
fn taken(file: &DocumentFile) -> Result<(), Response> {
    let damaged = || no(StatusCode::UNPROCESSABLE_ENTITY, &format!("{} came in damaged.", file.name));
    let bytes = STANDARD.decode(&file.bytes).map_err(|_| damaged())?;
    if checksum(&bytes) != file.checksum {
        return Err(damaged());
    }
    let unreadable = |Unreadable(why)| no(StatusCode::UNPROCESSABLE_ENTITY, &format!("{}: {why}", file.name));
    kind_of(&bytes).map(|_| ()).map_err(unreadable)
}

async fn try_fault(
    State(here): State<StandIn>,
    Json(TryFault { household, fault }): Json<TryFault>,
) -> StatusCode {
    let mut faults = here.faults.lock().unwrap_or_else(PoisonError::into_inner);
    match fault {
        Some(fault) => faults.insert(household, fault),
        None => faults.remove(&household),
    };
    StatusCode::NO_CONTENT
}

/// A page with every slip that is issued, as a PDF and as a picture.
async fn issued(State(here): State<StandIn>) -> Html<String> {
    let row = |law: &str, name: &str, slip: &HeldSlip| {
        let HeldSlip { id, kind, title, year, .. } = slip;
        format!(
            "<tr><td>{name}</td><td>{year}</td><td>{kind}</td><td>{title}</td>\
             <td><a href=\"slips/{law}/{id}.pdf\" download>PDF</a></td>\
             <td><a href=\"slips/{law}/{id}.png\" download>picture</a></td></tr>"
        )
    };
    let of_one = |(law, known): (&str, &crate::data::Known)| -> String {
        let slips = known.slips.iter().filter(|slip| slip.rows.is_empty());
        slips.map(|slip| row(law, &known.name, slip)).collect()
    };
    let rows: String = here.data.everyone().map(of_one).collect();
    Html(format!("<!doctype html><title>Slips</title><h1>Slips that were issued</h1><table>{rows}</table>"))
}

/// A slip as a file: `W2-2025-ignacio-1.pdf`, or `.png` for a picture of it.
async fn slip_file(
    State(here): State<StandIn>,
    Path((law, file)): Path<(String, String)>,
) -> Result<Response, Response> {
    let (id, form) = file.rsplit_once('.').ok_or_else(unknown)?;
    let pdf = here.pdf(&law, id)?;
    match form {
        "pdf" => Ok(([(header::CONTENT_TYPE, "application/pdf")], pdf).into_response()),
        "png" => {
            let (png, _) = here.camera.and_then(|camera| camera(&pdf)).ok_or_else(unknown)?;
            let picture = printed::picture(png, &format!("{law}/{id}"));
            Ok(([(header::CONTENT_TYPE, "image/png")], picture).into_response())
        }
        _ => Err(unknown()),
    }
}

impl StandIn {
    fn pdf(&self, law: &str, id: &str) -> Result<Vec<u8>, Response> {
        let (known, slip) = self.data.slip(law, id).ok_or_else(unknown)?;
        let pack = self.registry.pack(law).ok_or_else(unknown)?;
        let written = printed::pdf(known, slip, pack);
        let written = written.map_err(|why| no(StatusCode::INTERNAL_SERVER_ERROR, &why.to_string()))?;
        written.ok_or_else(unknown)
    }
}

/// Reads a picture: of those that it issued the text stands beside it.
async fn scan(State(here): State<StandIn>, picture: Bytes) -> Answer<Scan> {
    let strange = || no(StatusCode::UNPROCESSABLE_ENTITY, "The scanner finds no text on this picture.");
    let (law, id) = printed::name_of(&picture).and_then(|name| name.split_once('/')).ok_or_else(strange)?;
    let pdf = here.pdf(law, id)?;
    let (_, words) = here.camera.and_then(|camera| camera(&pdf)).ok_or_else(strange)?;
    Ok(Json(Scan { words }))
}
