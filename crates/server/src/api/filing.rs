//! Filing: what it needs, the returns that go out as packages, and what the authority makes of them.

use super::{
    Input, files,
    filing_view::{Assessed, Filing, OneReturn, Refused, Sending, View, asked_document, refused},
    outside,
    progress::Desk,
    trials,
};
use crate::{
    App,
    auth::Member,
    error::{Answer, Problem},
    filing::{otherwise, package},
    outside::Trouble,
    stage::{STEPS, Stage},
    store::{
        filings::{self as store, NewFiling},
        progress::{self, NewMove},
    },
    work,
};
use axum::{
    Json,
    extract::{Path, State},
};
use base64::{Engine, engine::general_purpose::STANDARD};
use hembo_authority::wire::{self, DocumentFile, Filed, Package, Receipt, Scope, SendDocument, checksum};
use hembo_core::{
    Fault, Household, Outcome,
    filing::Need,
    household::SlipFile,
    outcome::{ReturnSchedules, Wanted},
    slip::file,
};
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// How much is said about a document that is sent.
const LONGEST_DOCUMENT: usize = 300;

/// The refusals that stand: those of the latest filing of each return.
///
/// # Errors
/// When the database fails.
pub async fn refusals(app: &App, id: Uuid) -> Answer<Vec<Refused>> {
    let filings = store::of(&app.database, id).await?;
    let latest = latest(&filings).filter(|filing| filing.state == "refused");
    Ok(latest.filter_map(receipt_of).flat_map(|receipt| receipt.refusals).map(refused).collect())
}

/// The latest filing of each return.
pub(super) fn latest(filings: &[store::Filing]) -> impl Iterator<Item = &store::Filing> {
    let mut seen = std::collections::BTreeSet::new();
    filings.iter().filter(move |filing| seen.insert(filing.scope.clone()))
}

pub(super) fn receipt_of(filing: &store::Filing) -> Option<Receipt> {
    filing.receipt.clone().and_then(|json| serde_json::from_value(json).ok())
}

/// A household with its outcome and what was filed of it.
pub(super) struct Table<'a> {
    app: &'a App,
    id: Uuid,
    revision: i64,
    pub(super) household: Household,
    outcome: Outcome,
    pub(super) filings: Vec<store::Filing>,
}

impl<'a> Table<'a> {
    pub(super) async fn of(app: &'a App, id: Uuid) -> Answer<Table<'a>> {
        let (found, household) = work::load(app, id).await?;
        let wanted = Wanted { schedules: true, ..Wanted::least(1) };
        let (household, outcome, _) = work::whole(app, household, wanted).await?;
        let filings = store::of(&app.database, id).await?;
        Ok(Table { app, id, revision: found.revision, household, outcome, filings })
    }

    /// The package that was filed.
    pub(super) fn filed(&self, filing: &store::Filing) -> Answer<Package> {
        let text =
            self.app.sealer.open_text(&at(self.id, filing.id), &filing.package).map_err(Problem::internal)?;
        serde_json::from_str(&text).map_err(Problem::internal)
    }

    /// The latest return of a scope that counts as filed.
    fn standing(&self, scope: &str) -> Option<&store::Filing> {
        self.filings.iter().find(|filing| filing.scope == scope && filing.state != "refused")
    }

    /// How a return stands to what was filed, with the receipt that an amended one names.
    fn sending(&self, one: &Going<'_>) -> Answer<(Sending, Option<String>)> {
        let Some(filing) = self.standing(&one.key()) else { return Ok((Sending::New, None)) };
        let earlier = self.filed(filing)?;
        let pack = work::pack(self.app, &self.household)?;
        let now =
            package(&self.household, &self.outcome, pack, one.of, one.authority, earlier.amends.as_deref())?;
        // What it says counts, not how the papers behind it are kept.
        let same = (&now.forms, &now.filers, now.total, now.balance)
            == (&earlier.forms, &earlier.filers, earlier.total, earlier.balance);
        match (same, filing.number.clone()) {
            (true, _) => Ok((Sending::AsFiled, earlier.amends)),
            (false, Some(number)) => Ok((Sending::Amended, Some(number))),
            // It is on its way: what becomes of it is asked first.
            (false, None) => Ok((Sending::AsFiled, None)),
        }
    }

    fn shown(&self, filing: &store::Filing) -> Answer<Filing> {
        let receipt = receipt_of(filing);
        let assessment = receipt.as_ref().and_then(|receipt| receipt.assessment.as_ref());
        let assessed = assessment.map(|assessment| {
            let package = self.filed(filing)?;
            Ok::<_, Problem>(Assessed {
                on: assessment.on.clone(),
                filed_total: package.total,
                filed_balance: package.balance,
                total: assessment.total,
                balance: assessment.balance,
                otherwise: assessment.otherwise.clone(),
                lines: otherwise(&package, assessment),
            })
        });
        let pack = work::pack(self.app, &self.household)?;
        let document = |of: wire::Document| asked_document(of, pack, self.household.year);
        let open = receipt.iter().flat_map(|receipt| &receipt.documents).any(|of| of.sent.is_none());
        let refund_held = open && self.filed(filing)?.balance.is_negative();
        let receipt_or = |of: fn(Receipt) -> Vec<wire::Refusal>| receipt.clone().map(of).unwrap_or_default();
        Ok(Filing {
            id: filing.id,
            scope: filing.scope.clone(),
            whose: filing.whose.clone(),
            revision: filing.revision,
            state: filing.state.clone(),
            number: filing.number.clone(),
            received_at: receipt.as_ref().map(|receipt| receipt.received_at.clone()),
            checksum: filing.checksum.clone(),
            amends: filing.amends.clone(),
            by: filing.by_name.clone(),
            at: filing.at,
            refusals: receipt_or(|receipt| receipt.refusals).into_iter().map(refused).collect(),
            assessment: assessed.transpose()?,
            refund_held,
            documents: receipt.map(|r| r.documents).unwrap_or_default().into_iter().map(document).collect(),
        })
    }

    /// The returns that are filed, to each authority to which forms go.
    fn returns(&self) -> impl Iterator<Item = Going<'_>> {
        let of =
            |of| ReturnSchedules::authorities(of).into_iter().map(move |authority| Going { of, authority });
        self.outcome.schedules.iter().flat_map(of)
    }
}

/// A return on its way to an authority; the law's first one has no name.
#[derive(Debug, Clone, Copy)]
struct Going<'a> {
    of: &'a ReturnSchedules,
    authority: &'a str,
}

impl Going<'_> {
    /// What its filings are kept under.
    fn key(&self) -> String {
        match self.authority {
            "" => self.of.scope.clone(),
            authority => format!("{}/{authority}", self.of.scope),
        }
    }

    /// What holds up this return and no other one.
    fn held_by(&self, needs: &[Need]) -> Option<String> {
        let missing = needs.iter().find(|need| {
            need.blocks && !need.ready && need.authority == self.authority && !self.authority.is_empty()
        });
        missing.map(|need| format!("{}: {}.", need.what, need.words))
    }
}

/// The place at which a package is sealed.
/// Where a package is sealed for.
pub fn at(household: Uuid, filing: Uuid) -> String {
    format!("{household}/filings/{filing}")
}

async fn shown(app: &App, id: Uuid, member: &Member) -> Answer<Json<View>> {
    let table = Table::of(app, id).await?;
    let pack = work::pack(app, &table.household)?;
    let mut needs = hembo_core::filing::needs(&table.household, &table.outcome, pack);
    needs.push(consent(app, id).await?);
    let mut returns = Vec::new();
    for one in table.returns() {
        let Going { of, authority } = one;
        let (total, balance) = table.outcome.of_return(&of.scope, authority, pack);
        let forms = of.going_to(authority).count();
        // Without a number nothing was filed of it, and nothing can be.
        let sending = table.sending(&one).map_or(Sending::New, |(sending, _)| sending);
        returns.push(OneReturn {
            scope: one.key(),
            whose: of.whose.clone(),
            authority: authority.to_owned(),
            held_by: one.held_by(&needs),
            forms,
            total,
            balance,
            sending,
        });
    }
    let why_not = why_not(app, id, member, &table, &needs).await?;
    let filings = table.filings.iter().map(|filing| table.shown(filing)).collect::<Answer<_>>()?;
    Ok(Json(View { connected: app.outside.is_some(), needs, returns, why_not, filings }))
}

/// The family's consent to file, by what was last heard of it.
async fn consent(app: &App, id: Uuid) -> Answer<Need> {
    let all = crate::store::outside::consents(&app.database, id).await?;
    let given =
        all.iter().find(|one| one.state == "granted" && one.scope.iter().any(|scope| scope == "filing"));
    let words = match given {
        Some(one) => {
            let until = hembo_documents::words_of_day(one.until_day);
            format!("given by {} until {until}", one.people.join(" and "))
        }
        None => "not given: ask for it where the papers are held".to_owned(),
    };
    Ok(Need {
        what: "Consent to file".into(),
        ready: given.is_some(),
        blocks: true,
        words,
        place: None,
        authority: String::new(),
    })
}

/// Why nothing can be filed as things stand.
async fn why_not(
    app: &App,
    id: Uuid,
    member: &Member,
    table: &Table<'_>,
    needs: &[Need],
) -> Answer<Option<String>> {
    if app.outside.is_none() {
        return Ok(Some("No service of an authority is connected to this server.".into()));
    }
    let desk = Desk::of(app, id, member).await?;
    let step = STEPS.iter().find(|step| step.from == desk.stage() && step.to == Stage::Sent);
    let Some(step) = step else {
        return Ok(Some(match desk.stage() {
            stage if stage > Stage::HandedOver => format!("It is {stage} already."),
            stage => format!("It is {stage}: it is filed once it is handed over to the family."),
        }));
    };
    let missing = needs.iter().find(|need| need.blocks && !need.ready && need.authority.is_empty());
    let missing = missing.map(|need| format!("{}: {}.", need.what, need.words));
    let step = step.why_not(desk.standing_now().await?);
    let nothing = table.returns().next().is_none().then(|| "No return is filed in this way.".to_owned());
    Ok(step.or(missing).or(nothing))
}

/// What filing needs, and what was filed.
#[utoipa::path(get, path = "/api/households/{id}/filings", params(("id" = Uuid, Path)),
    responses((status = 200, body = View), (status = 404, body = Problem)))]
pub async fn filings(State(app): State<App>, member: Member, Path(id): Path<Uuid>) -> Answer<Json<View>> {
    shown(&app, id, &member).await
}

/// The revision to file.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct File {
    /// The revision that was seen.
    base_revision: i64,
}

/// File every return that was not filed as it is. One whose answer was lost is sent again under the same name.
#[utoipa::path(post, path = "/api/households/{id}/filings", params(("id" = Uuid, Path)), request_body = File,
    responses((status = 200, body = View), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 502, body = Problem)))]
pub async fn file_returns(
    State(app): State<App>,
    member: Member,
    Path(id): Path<Uuid>,
    Input(File { base_revision }): Input<File>,
) -> Answer<Json<View>> {
    trials::refuse(&app, id, "Not filed").await?;
    let table = Table::of(&app, id).await?;
    if table.revision != base_revision {
        let detail = format!("Revision {} came meanwhile. Look at what changed first.", table.revision);
        return Err(Problem::moved(detail));
    }
    let pack = work::pack(&app, &table.household)?;
    let mut needs = hembo_core::filing::needs(&table.household, &table.outcome, pack);
    let granted = outside::granted(&app, id, Scope::Filing).await?;
    needs.push(consent(&app, id).await?);
    if let Some(why) = why_not(&app, id, &member, &table, &needs).await? {
        return Err(Problem::cannot_move(why));
    }
    resend(&table, &granted.number).await?;
    let table = Table { filings: store::of(&app.database, id).await?, ..table };
    for one in table.returns().filter(|one| one.held_by(&needs).is_none()) {
        let (sending, amends) = table.sending(&one)?;
        if sending != Sending::AsFiled {
            let Going { of, authority } = one;
            let out = package(&table.household, &table.outcome, pack, of, authority, amends.as_deref())?;
            send(&table, one, &out, &granted, member.0.id).await?;
        }
    }
    let table = Table { filings: store::of(&app.database, id).await?, ..table };
    settle(&table, &member).await?;
    shown(&app, id, &member).await
}

/// Returns whose answer was lost go out once more, under the names that they had.
async fn resend(table: &Table<'_>, consent: &str) -> Answer<()> {
    for filing in table.filings.iter().filter(|filing| filing.state == "sending") {
        let sealed = table.app.sealer.open_text(&at(table.id, filing.id), &filing.package);
        let package = sealed.map_err(Problem::internal)?;
        send_one(table.app, filing.id, consent, package, &filing.checksum).await?;
    }
    Ok(())
}

async fn send(
    table: &Table<'_>,
    one: Going<'_>,
    package: &Package,
    consent: &crate::store::outside::Consent,
    by: Uuid,
) -> Answer<()> {
    let id = Uuid::new_v4();
    let text = serde_json::to_string(package).map_err(Problem::internal)?;
    let sum = checksum(&text);
    let new = NewFiling {
        id,
        household: table.id,
        revision: table.revision,
        scope: &one.key(),
        whose: &one.of.whose,
        consent: consent.id,
        package: &table.app.sealer.seal_text(&at(table.id, id), &text),
        checksum: &sum,
        amends: package.amends.as_deref(),
        by,
    };
    store::begin(&table.app.database, &new).await?;
    send_one(table.app, id, &consent.number, text, &sum).await
}

async fn send_one(app: &App, id: Uuid, consent: &str, package: String, checksum: &str) -> Answer<()> {
    let filing =
        wire::Filing { key: id, consent: consent.to_owned(), package, checksum: checksum.to_owned() };
    match outside::outside(app)?.file(&filing).await {
        Ok(receipt) if receipt.checksum == checksum => keep(app, id, &receipt).await,
        Ok(_) => Err(Trouble::Nonsense.into()),
        Err(Trouble::Refused(why)) => {
            store::forget(&app.database, id).await?;
            Err(Problem::outside(why))
        }
        // Nobody knows whether it came in: it is sent again under the same name.
        Err(trouble) => Err(trouble.into()),
    }
}

async fn keep(app: &App, id: Uuid, receipt: &Receipt) -> Answer<()> {
    let state = serde_json::to_value(receipt.state).map_err(Problem::internal)?;
    let json = serde_json::to_value(receipt).map_err(Problem::internal)?;
    let state = state.as_str().unwrap_or("received");
    Ok(store::keep(&app.database, id, &receipt.number, state, &json).await?)
}

/// Moves the return on to where all that was filed of it stands.
async fn settle(table: &Table<'_>, member: &Member) -> Answer<()> {
    let Table { app, id, .. } = table;
    let scopes: Vec<String> = table.returns().map(|one| one.key()).collect();
    let of_now: Vec<&store::Filing> =
        latest(&table.filings).filter(|filing| scopes.contains(&filing.scope)).collect();
    let states: Vec<Filed> = of_now.iter().filter_map(|filing| receipt_of(filing)).map(|r| r.state).collect();
    if states.len() < scopes.len() || scopes.is_empty() {
        return Ok(());
    }
    let numbers: Vec<&str> = of_now.iter().filter_map(|filing| filing.number.as_deref()).collect();
    let all = |least: &[Filed]| states.iter().all(|state| least.contains(state));
    let reasons: Vec<String> =
        of_now.iter().filter_map(|f| receipt_of(f)).flat_map(|r| r.refusals).map(|r| r.words).collect();
    // Each step where the return stands at its beginning: several may follow one another.
    let steps = [
        (Stage::HandedOver, Stage::Sent, true, format!("Filed: {}", numbers.join(", "))),
        (Stage::Sent, Stage::Refused, states.contains(&Filed::Refused), reasons.join(" ")),
        (Stage::Sent, Stage::Accepted, all(&[Filed::Accepted, Filed::Assessed]), numbers.join(", ")),
        (Stage::Accepted, Stage::Assessed, all(&[Filed::Assessed]), numbers.join(", ")),
    ];
    for (from, to, holds, words) in steps {
        if !holds {
            continue;
        }
        let words: String = words.chars().take(2000).collect();
        let step = NewMove {
            household: *id,
            kind: "moved",
            from,
            to,
            revision: table.revision,
            words: &words,
            by: member.0.id,
        };
        progress::take(&app.database, &step).await?;
    }
    Ok(())
}

pub(super) fn filing_of<'t>(table: &'t Table<'_>, filing: Uuid) -> Answer<(&'t store::Filing, &'t str)> {
    let found = table.filings.iter().find(|one| one.id == filing);
    let found = found.ok_or_else(|| Problem::not_found("filing"))?;
    let number = found.number.as_deref();
    Ok((found, number.ok_or_else(|| Problem::outside("It has no receipt yet: send it again."))?))
}

/// Ask what became of a return.
#[utoipa::path(post, path = "/api/households/{id}/filings/{filing}",
    params(("id" = Uuid, Path), ("filing" = Uuid, Path)),
    responses((status = 200, body = View), (status = 404, body = Problem), (status = 502, body = Problem)))]
pub async fn look_at_filing(
    State(app): State<App>,
    member: Member,
    Path((id, filing)): Path<(Uuid, Uuid)>,
) -> Answer<Json<View>> {
    let table = Table::of(&app, id).await?;
    let (_, number) = filing_of(&table, filing)?;
    let receipt = outside::outside(&app)?.filed(number).await?;
    after(&app, table, filing, &receipt, &member).await
}

async fn after(
    app: &App,
    table: Table<'_>,
    filing: Uuid,
    receipt: &Receipt,
    member: &Member,
) -> Answer<Json<View>> {
    keep(app, filing, receipt).await?;
    let id = table.id;
    let table = Table { filings: store::of(&app.database, id).await?, ..table };
    settle(&table, member).await?;
    shown(app, id, member).await
}

/// A document that is sent.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = SendAskedDocument)]
pub struct Send {
    /// Which.
    document: String,
    /// What is sent, in words; nothing is needed where files tell it.
    words: String,
    /// The files of the household's papers that go with it.
    #[serde(default)]
    files: Vec<String>,
}

/// The files that go with a document.
async fn going_with(app: &App, id: Uuid, files: &[String]) -> Answer<Vec<DocumentFile>> {
    let mut going = Vec::new();
    let mut size = 0;
    for file in files {
        let (SlipFile { name, .. }, _, bytes) = files::opened(app, id, file).await?;
        size += bytes.len();
        if size > file::LARGEST {
            let message =
                "The files are larger than 10 MB together: send fewer, and say how the others come.";
            return Err(Problem::invalid(vec![Fault::new("files", message)]));
        }
        going.push(DocumentFile { name, checksum: checksum(&bytes), bytes: STANDARD.encode(&bytes) });
    }
    Ok(going)
}

/// Send a document that was asked for.
#[utoipa::path(post, path = "/api/households/{id}/filings/{filing}/documents",
    params(("id" = Uuid, Path), ("filing" = Uuid, Path)), request_body = Send,
    responses((status = 200, body = View), (status = 404, body = Problem), (status = 422, body = Problem),
        (status = 502, body = Problem)))]
pub async fn send_document(
    State(app): State<App>,
    member: Member,
    Path((id, filing)): Path<(Uuid, Uuid)>,
    Input(Send { document, words, files }): Input<Send>,
) -> Answer<Json<View>> {
    let words = words.trim();
    if (words.is_empty() && files.is_empty())
        || words.chars().count() > LONGEST_DOCUMENT
        || words.chars().any(char::is_control)
    {
        let message = format!("Say what is sent, in at most {LONGEST_DOCUMENT} letters.");
        return Err(Problem::invalid(vec![Fault::new("words", message)]));
    }
    let table = Table::of(&app, id).await?;
    let (_, number) = filing_of(&table, filing)?;
    let files = going_with(&app, id, &files).await?;
    let sent = SendDocument { id: document, words: words.to_owned(), files };
    let receipt = outside::outside(&app)?.send_document(number, &sent).await?;
    after(&app, table, filing, &receipt, &member).await
}
