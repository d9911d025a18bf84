//! What is said between a practice and an authority, as JSON over HTTP. Days are ISO 8601.

use hembo_core::{Household, household::Answers, slip::Word};
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use uuid::Uuid;

/// Someone who is taxed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Taxpayer {
    /// The name.
    pub name: String,
    /// The identification number, digits alone.
    pub number: String,
}

/// What a consent allows.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Scope {
    /// To see what is held of papers.
    Papers,
    /// To file returns and to be told what becomes of them.
    Filing,
}

/// A practice asks for a family's consent.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct AskConsent {
    /// The practice's own name of the household.
    pub household: Uuid,
    /// The law, such as `us`.
    pub law: String,
    /// Whose consent.
    pub people: Vec<Taxpayer>,
    /// What it allows.
    pub scope: Vec<Scope>,
    /// The first day.
    pub from: String,
    /// The last day.
    pub until: String,
}

/// Where a consent stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Consenting {
    /// Asked, and not answered by everyone.
    Pending,
    /// Given by everyone.
    Granted,
    /// Refused by someone.
    Refused,
    /// Ended, by its last day or by whom it was given or asked.
    Ended,
}

/// A family's consent.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Consent {
    /// Its number there.
    pub number: String,
    /// Where it stands.
    pub state: Consenting,
    /// Why it is refused or has ended, or for whom it waits.
    pub words: String,
}

/// Who sends a slip.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Source {
    Authority,
    Employer,
    Bank,
    Broker,
    Lender,
    Payer,
}

/// A slip as it is held.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Slip {
    /// Its name there; it stays when the slip is corrected.
    pub id: String,
    /// Whose it is, by number.
    pub number: String,
    /// The kind of paper, by its code.
    pub kind: String,
    /// Who issued it.
    pub title: String,
    /// Who sent it in.
    pub source: Source,
    /// The day on which it was issued or corrected.
    pub issued: String,
    /// What stands in its boxes.
    pub boxes: Answers,
    /// The lines of its list.
    #[serde(default)]
    pub rows: Vec<Answers>,
}

/// What a scanner read of a picture.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Scan {
    /// The words on it.
    pub words: Vec<Word>,
}

/// A return that is filed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Filing {
    /// Names it: sent again after an answer that was lost, it is filed once.
    pub key: Uuid,
    /// The consent by which it is filed.
    pub consent: String,
    /// The package as JSON text.
    pub package: String,
    /// Its SHA-256 in hexadecimal digits.
    pub checksum: String,
}

/// The checksum of a package or of a file: its SHA-256 in hexadecimal digits.
pub fn checksum(sent: impl AsRef<[u8]>) -> String {
    Sha256::digest(sent).iter().map(|byte| format!("{byte:02x}")).collect()
}

/// What is filed: the schedules' values of one return, with the facts and papers behind them.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Package {
    /// The return among those of the household: `return/0`.
    pub scope: String,
    /// To whom it goes where that is not the law's first authority.
    #[serde(default)]
    pub authority: String,
    /// Whose return it is.
    pub filers: Vec<Taxpayer>,
    /// The receipt of the return that it amends.
    pub amends: Option<String>,
    /// Total tax.
    pub total: Money,
    /// Due (above zero) or back (below).
    pub balance: Money,
    /// The forms.
    pub forms: Vec<Form>,
    /// What was decided: decision → option.
    pub way: std::collections::BTreeMap<String, String>,
    /// The people, answers and papers.
    pub household: Household,
}

/// A form of a package.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Form {
    /// Its official number.
    pub name: String,
    /// Its lines.
    pub lines: Vec<Line>,
}

/// A line of a form.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Line {
    /// The line's id.
    pub line: String,
    /// Whose: `return/0`.
    pub scope: String,
    /// The printed number.
    pub number: String,
    /// Its words.
    pub title: String,
    /// The amount.
    pub amount: Money,
}

/// Why a return is refused, and where.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Refusal {
    /// What is wrong.
    pub words: String,
    /// The person.
    #[serde(default)]
    pub person: Option<String>,
    /// The paper.
    #[serde(default)]
    pub paper: Option<String>,
    /// The box, or what of a person.
    #[serde(default)]
    pub field: Option<String>,
}

/// Where a filed return stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Filed {
    /// It came in and is being read.
    Received,
    /// It was taken.
    Accepted,
    /// It was refused: it counts as not filed.
    Refused,
    /// It was assessed.
    Assessed,
}

/// What became of a filed return.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Receipt {
    /// The receipt's number.
    pub number: String,
    /// When it came in (RFC 3339).
    pub received_at: String,
    /// The checksum of what came in.
    pub checksum: String,
    /// Where it stands.
    pub state: Filed,
    /// Why it was refused.
    #[serde(default)]
    pub refusals: Vec<Refusal>,
    /// The assessment, once there is one.
    #[serde(default)]
    pub assessment: Option<Assessment>,
    /// Documents that are asked for.
    #[serde(default)]
    pub documents: Vec<Document>,
}

/// An assessment.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Assessment {
    /// Its day.
    pub on: String,
    /// Total tax.
    pub total: Money,
    /// Due (above zero) or back (below).
    pub balance: Money,
    /// Its lines.
    pub lines: Vec<Line>,
    /// What it took otherwise than it was filed.
    pub otherwise: Vec<String>,
}

/// Asks for what the authority assesses by itself.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct AskAssessment {
    /// The people and answers of a year, without any paper.
    pub household: Household,
}

/// What the authority assesses by itself of a return: the total of what it holds, before anybody files.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OwnAssessment {
    /// The return among those of the household: `return/0`.
    pub scope: String,
    /// What it comes to; `otherwise` names the papers that it is made of.
    pub assessment: Assessment,
}

/// A document that is asked for.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Document {
    /// Its name there.
    pub id: String,
    /// What is asked for.
    pub words: String,
    /// The day on which it was asked for.
    #[serde(default)]
    pub asked: String,
    /// The last day.
    pub due: String,
    /// What was sent.
    #[serde(default)]
    pub sent: Option<String>,
    /// The names of the files that came with it.
    #[serde(default)]
    pub files: Vec<String>,
}

/// What is sent for a document that is asked for.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct SendDocument {
    /// Which.
    pub id: String,
    /// What it is, in words.
    pub words: String,
    /// The files that go with it.
    #[serde(default)]
    pub files: Vec<DocumentFile>,
}

/// A file that goes with a document.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct DocumentFile {
    /// What it is called.
    pub name: String,
    /// Its bytes, in base64.
    pub bytes: String,
    /// The SHA-256 of its bytes, in hexadecimal digits.
    pub checksum: String,
}

/// Why something is not done.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct No {
    /// In words.
    pub why: String,
}

/// A fault to try: what the stand-in does to everything that is asked about a household.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Fault {
    /// It has an outage.
    Down,
    /// It answers late.
    Slow,
    /// It answers what nobody understands.
    Nonsense,
}

/// A fault to try for one household; nothing ends it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct TryFault {
    /// The practice's name of the household.
    pub household: Uuid,
    /// What happens.
    pub fault: Option<Fault>,
}
