//! What people see of filing: what it needs, the returns that go out, what was filed and what became of it.

use crate::filing::AssessedLine;
use hembo_authority::wire;
use hembo_core::{Pack, filing::Need, household::date, point::Place};
use hembo_money::Money;
use serde::Serialize;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// What filing needs, and what was filed.
#[derive(Serialize, ToSchema)]
#[schema(as = FilingView)]
#[allow(missing_docs)]
pub struct View {
    /// A service is connected.
    pub connected: bool,
    pub needs: Vec<Need>,
    /// The returns of the chosen way.
    pub returns: Vec<OneReturn>,
    /// Why nothing can be filed now; none where it can.
    pub why_not: Option<String>,
    /// What was filed, the newest first.
    pub filings: Vec<Filing>,
}

/// How a return stands to what was filed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Sending {
    /// It was not filed, or refused: it goes out.
    New,
    /// It was filed as it is.
    AsFiled,
    /// It is other than what was filed: an amended one goes out.
    Amended,
}

/// A return of the chosen way.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct OneReturn {
    /// Its scope, with the authority where that is not the law's first one.
    pub scope: String,
    pub whose: String,
    /// To whom it goes where that is not the law's first authority.
    pub authority: String,
    /// What holds up this return alone; none where nothing does.
    pub held_by: Option<String>,
    /// How many forms go out.
    pub forms: usize,
    pub total: Money,
    pub balance: Money,
    pub sending: Sending,
}

/// A return that was filed.
#[derive(Serialize, ToSchema)]
#[schema(as = ReturnFiled)]
#[allow(missing_docs)]
pub struct Filing {
    pub id: Uuid,
    pub scope: String,
    pub whose: String,
    pub revision: i64,
    /// sending, received, accepted, refused or assessed.
    pub state: String,
    /// The receipt's number.
    pub number: Option<String>,
    /// RFC 3339, by the authority's clock.
    pub received_at: Option<String>,
    pub checksum: String,
    /// The receipt of the return that it amends.
    pub amends: Option<String>,
    pub by: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
    pub refusals: Vec<Refused>,
    pub assessment: Option<Assessed>,
    pub documents: Vec<Document>,
    /// A refund waits until the documents are there.
    pub refund_held: bool,
}

/// Why a return was refused, and where.
#[derive(Debug, Clone, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Refused {
    pub words: String,
    pub place: Place,
}

/// An assessment beside what was filed.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Assessed {
    pub on: String,
    pub filed_total: Money,
    pub filed_balance: Money,
    pub total: Money,
    pub balance: Money,
    /// What it took otherwise than it was filed.
    pub otherwise: Vec<String>,
    /// The lines that differ.
    pub lines: Vec<AssessedLine>,
}

/// A document that is asked for.
#[derive(Serialize, ToSchema)]
#[schema(as = AskedDocument)]
#[allow(missing_docs)]
pub struct Document {
    pub id: String,
    pub words: String,
    /// The last day, ISO 8601.
    pub due: String,
    /// How that is counted by the law: "21 business days from 1 October 2026".
    pub counted: String,
    /// How many days are left; below zero it is over.
    pub days_left: Option<i64>,
    /// What was sent.
    pub sent: Option<String>,
    /// The names of the files that went with it.
    pub files: Vec<String>,
}

/// A document that is asked for, with its deadline as the law counts it.
pub(super) fn asked_document(of: wire::Document, pack: &dyn Pack, year: i32) -> Document {
    let wire::Document { id, words, asked, due, sent, files } = of;
    let counted = date::parse(&asked).map(|asked| {
        let deadline = pack.document_deadline(year, asked);
        format!("{} from {}. {}", deadline.counted, hembo_documents::words_of_day(asked), deadline.cite)
    });
    let today = OffsetDateTime::now_utc().date();
    let days_left = date::parse(&due).map(|due| (due - today).whole_days());
    let counted = counted.unwrap_or_default().trim_end().to_owned();
    Document { id, words, due, counted, days_left, sent, files }
}

/// A refusal at its place.
pub(super) fn refused(refusal: wire::Refusal) -> Refused {
    let wire::Refusal { words, person, paper, field } = refusal;
    Refused { words, place: Place { person, paper, field, ..Place::default() } }
}
