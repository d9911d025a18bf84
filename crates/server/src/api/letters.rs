//! The letter to the family: made by a template of the practice, edited on the desk, written as DOCX and PDF.

use super::{
    Input,
    handover::{self, Worked},
};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    store::letters::{self as store, Kept, Template},
    work,
};
use axum::{
    Json,
    extract::{Path, State},
    http::{StatusCode, header},
    response::IntoResponse,
};
use hembo_core::Fault;
use hembo_documents::{
    letter::{self, FIELDS, FieldInfo, Fields, Language, Letter},
    pack,
};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::collections::BTreeMap;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

const LONGEST_NAME: usize = 60;
const LONGEST_TEMPLATE: usize = 20_000;
const DOCX: &str = "application/vnd.openxmlformats-officedocument.wordprocessingml.document";

/// A version of a letter, as the editor keeps it.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct LetterKept {
    pub version: i32,
    /// The revision whose figures it was made or kept at.
    pub revision: i64,
    #[schema(value_type = Object)]
    pub body: Value,
    pub by: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
}

/// The letter, the figures as they are now, and what letters are made from.
#[derive(Serialize, ToSchema)]
pub struct LetterOpened {
    /// The newest version; none where nothing was written yet.
    letter: Option<LetterKept>,
    /// The figures as they are now, by their fields: those of the letter that are others were changed since.
    figures: BTreeMap<String, String>,
    /// The templates of the practice.
    templates: Vec<Template>,
    /// What templates can name.
    fields: Vec<FieldInfo>,
    /// The languages in which amounts and days can be written.
    languages: Vec<Language>,
}

/// The letter of a household.
#[utoipa::path(get, path = "/api/households/{id}/letter", params(("id" = Uuid, Path)),
    responses((status = 200, body = LetterOpened), (status = 404, body = Problem)))]
pub async fn letter(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<LetterOpened>> {
    opened(&app, id).await
}

async fn opened(app: &App, id: Uuid) -> Answer<Json<LetterOpened>> {
    let worked = Worked::of(app, id).await?;
    let newest = store::newest(&app.database, id).await?;
    let figures = fields_of(app, &worked, language_of(newest.as_ref()))?.figures;
    let kept = |kept: Kept| LetterKept {
        version: kept.version,
        revision: kept.revision,
        body: kept.body,
        by: kept.by_name,
        at: kept.at,
    };
    Ok(Json(LetterOpened {
        letter: newest.map(kept),
        figures: figures.into_iter().map(|(name, figure)| (name.to_owned(), figure)).collect(),
        templates: store::templates(&app.database).await?,
        fields: FIELDS.into(),
        languages: Language::ALL.into(),
    }))
}

fn fields_of(app: &App, worked: &Worked, language: Language) -> Answer<Fields> {
    Ok(Fields::of(worked.source(work::pack(app, &worked.household)?), language))
}

/// The language of a letter; the database holds no other than there are.
fn language_of(letter: Option<&Kept>) -> Language {
    letter.and_then(|kept| Language::named(&kept.language)).unwrap_or_default()
}

/// The newest version of a letter as it is written.
///
/// # Errors
/// A body that cannot be read, which must not happen.
pub async fn newest(app: &App, id: Uuid) -> Answer<Option<Letter>> {
    let kept = store::newest(&app.database, id).await?;
    kept.map(|kept| Letter::read(kept.body).map_err(Problem::internal)).transpose()
}

/// A letter to make by a template.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MakeLetter {
    /// The template.
    template: Uuid,
    /// The version that was seen; 0 where there was none.
    base_version: i32,
}

/// Make the letter anew by a template, from the figures of the newest revision.
#[utoipa::path(post, path = "/api/households/{id}/letter", params(("id" = Uuid, Path)), request_body = MakeLetter,
    responses((status = 200, body = LetterOpened), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
pub async fn make_letter(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(wanted): Input<MakeLetter>,
) -> Answer<Json<LetterOpened>> {
    let template = store::template(&app.database, wanted.template).await?;
    let template = template.ok_or_else(|| Problem::not_found("template"))?;
    let worked = Worked::of(&app, id).await?;
    let language = Language::named(&template.language).unwrap_or_default();
    let made = merged(&template.body, &fields_of(&app, &worked, language)?)?;
    keep_version(&app, id, wanted.base_version, worked.revision, (&made, language), by).await?;
    opened(&app, id).await
}

fn merged(template: &str, fields: &Fields) -> Answer<Letter> {
    letter::merge(template, fields).map_err(|fault| {
        Problem::invalid(vec![Fault::new(format!("line {}", fault.line), fault.to_string())])
    })
}

async fn keep_version(
    app: &App,
    id: Uuid,
    after: i32,
    revision: i64,
    (letter, language): (&Letter, Language),
    by: Uuid,
) -> Answer<()> {
    if store::keep(&app.database, id, after, revision, (&letter.value(), language.code()), by).await? {
        return Ok(());
    }
    let who = store::newest(&app.database, id).await?;
    let who = who.map_or_else(|| "someone else".to_owned(), |kept| kept.by_name);
    Err(Problem::moved(format!("The letter was changed meanwhile by {who}. Yours is not kept yet.")))
}

/// A letter as it was edited.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KeepLetter {
    /// The version that was edited.
    base_version: i32,
    /// The revision whose figures it has.
    revision: i64,
    /// The letter, as the editor keeps it.
    #[schema(value_type = Object)]
    body: Value,
}

/// Keep the letter as it was edited, as a new version.
#[utoipa::path(put, path = "/api/households/{id}/letter", params(("id" = Uuid, Path)), request_body = KeepLetter,
    responses((status = 200, body = LetterOpened), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
pub async fn keep_letter(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(kept): Input<KeepLetter>,
) -> Answer<Json<LetterOpened>> {
    let letter = Letter::read(kept.body);
    let letter = letter.map_err(|why| Problem::invalid(vec![Fault::new("body", why.to_string())]))?;
    let language = language_of(store::newest(&app.database, id).await?.as_ref());
    keep_version(&app, id, kept.base_version, kept.revision, (&letter, language), by).await?;
    opened(&app, id).await
}

async fn written(app: &App, id: Uuid) -> Answer<(Worked, Letter, Language)> {
    let kept = store::newest(&app.database, id).await?.ok_or_else(|| Problem::not_found("letter"))?;
    let language = language_of(Some(&kept));
    Ok((Worked::of(app, id).await?, Letter::read(kept.body).map_err(Problem::internal)?, language))
}

fn file(kind: &'static str, name: &'static str, bytes: Vec<u8>) -> impl IntoResponse {
    let disposition = format!("attachment; filename=\"{name}\"");
    ([(header::CONTENT_TYPE, kind.to_owned()), (header::CONTENT_DISPOSITION, disposition)], bytes)
}

/// The letter as DOCX.
#[utoipa::path(get, path = "/api/households/{id}/letter.docx", params(("id" = Uuid, Path)),
    responses((status = 200, content_type = "application/octet-stream"), (status = 404, body = Problem)))]
pub async fn letter_docx(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<impl IntoResponse> {
    let (worked, letter, _) = written(&app, id).await?;
    let bytes = letter::docx(&letter, &worked.practice).map_err(Problem::internal)?;
    Ok(file(DOCX, "letter.docx", bytes))
}

/// The letter as PDF.
#[utoipa::path(get, path = "/api/households/{id}/letter.pdf", params(("id" = Uuid, Path)),
    responses((status = 200, content_type = "application/pdf"), (status = 404, body = Problem)))]
pub async fn letter_pdf(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<impl IntoResponse> {
    let (worked, letter, language) = written(&app, id).await?;
    let sheet = pack::sheet(work::pack(&app, &worked.household)?);
    let document = letter.document(&worked.practice, "Letter", sheet, language);
    Ok(file("application/pdf", "letter.pdf", handover::written(&app, document).await?.bytes))
}

/// A template to keep.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KeepTemplate {
    /// Its name; one of that name is replaced.
    name: String,
    /// Its text.
    body: String,
    /// The language of its letters.
    #[serde(default)]
    language: Language,
    /// A household by whose figures it is tried.
    try_with: Uuid,
}

/// Keep a template of the practice; one that cannot be merged is refused with the line at fault.
#[utoipa::path(put, path = "/api/letter-templates", request_body = KeepTemplate,
    responses((status = 204), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn keep_template(
    State(app): State<App>,
    By(by): By,
    Input(kept): Input<KeepTemplate>,
) -> Answer<StatusCode> {
    let name = kept.name.trim();
    if name.is_empty() || name.chars().count() > LONGEST_NAME || name.chars().any(char::is_control) {
        let message = format!("A template has a name of 1 to {LONGEST_NAME} letters.");
        return Err(Problem::invalid(vec![Fault::new("name", message)]));
    }
    let unseen = kept.body.chars().any(|c| c.is_control() && c != '\n' && c != '\r' && c != '\t');
    if kept.body.trim().is_empty() || kept.body.chars().count() > LONGEST_TEMPLATE || unseen {
        let message = format!("A template has text, at most {LONGEST_TEMPLATE} letters.");
        return Err(Problem::invalid(vec![Fault::new("body", message)]));
    }
    let worked = Worked::of(&app, kept.try_with).await?;
    merged(&kept.body, &fields_of(&app, &worked, kept.language)?)?;
    store::keep_template(&app.database, name, (&kept.body, kept.language.code()), by).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Let a template go.
#[utoipa::path(delete, path = "/api/letter-templates/{template}", params(("template" = Uuid, Path)),
    responses((status = 204), (status = 404, body = Problem)))]
pub async fn drop_template(State(app): State<App>, _: By, Path(template): Path<Uuid>) -> Answer<StatusCode> {
    if store::drop_template(&app.database, template).await? {
        Ok(StatusCode::NO_CONTENT)
    } else {
        Err(Problem::not_found("template"))
    }
}
