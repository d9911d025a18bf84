//! What goes to the family: the pack as PDF, its parts to look at, what was made so far, and choices kept under a name.

use super::{Input, files, letters, trials};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    seal::masked,
    store::{
        checking, outside,
        packs::{self as store, Made, NewPack, Set},
        practice,
    },
    work,
};
use axum::{
    Json,
    extract::{Path, Query, State},
    http::{StatusCode, header},
    response::IntoResponse,
};
use hembo_core::{
    Fault, Household, Outcome, Pack,
    certificate::{Certificate, certificate},
    outcome::NAMED_WAYS,
    outcome::Wanted,
};
use hembo_documents::{
    Written,
    document::{Block, Document, Picture},
    letter::{DAY, Letter},
    pack::{self, Note, Part, Source},
    sheets,
};
use serde::{Deserialize, Serialize};
use time::OffsetDateTime;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// How a day stands on what is handed over.
/// How long the name of a choice is.
const LONGEST_SET: usize = 60;

/// A part that a pack can have.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct PartInfo {
    pub part: Part,
    pub title: String,
}

/// What can go into a pack, the choices that are kept, and what was made for a household.
#[derive(Serialize, ToSchema)]
pub struct Packs {
    /// The parts, in their usual order.
    parts: Vec<PartInfo>,
    /// The choices that the practice keeps.
    sets: Vec<Set>,
    /// What was made, the newest first.
    made: Vec<Made>,
}

/// What can go into a pack, the choices that are kept, and what was made for a household.
#[utoipa::path(get, path = "/api/households/{id}/packs", params(("id" = Uuid, Path)),
    responses((status = 200, body = Packs)))]
pub async fn packs(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<Packs>> {
    shown(&app, id).await
}

async fn shown(app: &App, id: Uuid) -> Answer<Json<Packs>> {
    let parts = Part::ALL.map(|part| PartInfo { part, title: part.title().into() });
    let (sets, made) = (store::sets(&app.database).await?, store::of(&app.database, id).await?);
    Ok(Json(Packs { parts: parts.into(), sets, made }))
}

/// The newest revision of a household, worked out whole, as packs show it.
pub(super) struct Worked {
    pub(super) revision: i64,
    pub(super) household: Household,
    outcome: Outcome,
    rules: String,
    pub(super) practice: String,
    made: String,
    notes: Vec<Note>,
    letter: Option<Letter>,
    slips: Vec<Picture>,
    asked: Vec<String>,
    certificate: Certificate,
}

impl Worked {
    pub(super) async fn of(app: &App, id: Uuid) -> Answer<Worked> {
        let (revision, household) = work::load(app, id).await?;
        let (household, outcome, rules) = work::whole(app, household, Wanted::all(NAMED_WAYS)).await?;
        let pack = work::pack(app, &household)?;
        let made = OffsetDateTime::now_utc().date().format(DAY).map_err(Problem::internal)?;
        Ok(Worked {
            revision: revision.revision,
            certificate: certificate(&household, &outcome, pack),
            household: masked(household, pack),
            outcome,
            rules,
            practice: practice::of(&app.database).await?.name,
            made,
            notes: notes(app, id).await?,
            letter: letters::newest(app, id).await?,
            slips: Vec::new(),
            asked: outside::asked(&app.database, id).await?.into_iter().map(|asked| asked.kind).collect(),
        })
    }

    /// The same with the pages of its slips, where these parts have them.
    async fn with_slips(mut self, app: &App, parts: &[Part]) -> Answer<Worked> {
        if parts.contains(&Part::Slips) {
            self.slips = slips(app, &self.household).await?;
        }
        Ok(self)
    }

    pub(super) fn source<'a>(&'a self, rules: &'a dyn Pack) -> Source<'a> {
        let Worked {
            revision,
            household,
            outcome,
            practice,
            made,
            notes,
            letter,
            slips,
            asked,
            certificate,
            ..
        } = self;
        Source {
            household,
            outcome,
            rules,
            practice,
            revision: Some(*revision),
            made,
            notes,
            letter: letter.as_ref(),
            slips,
            asked,
            certificate,
        }
    }
}

/// The pages of a household's slips that were added as files, paper by paper.
async fn slips(app: &App, household: &Household) -> Answer<Vec<Picture>> {
    let mut pages = Vec::new();
    for paper in &household.papers {
        for file in &paper.files {
            for page in 0..i32::try_from(file.pages).map_err(Problem::internal)? {
                // A household that came from elsewhere names files that are not here.
                let Some(png) = files::picture(app, &file.id, page).await? else { continue };
                let name = format!("{} {}", paper.kind, paper.title);
                let words =
                    format!("{}: {}, page {} of {}", name.trim_end(), file.name, page + 1, file.pages);
                pages.push(Picture { png: png.into(), words, file: file.id.clone(), page });
            }
        }
    }
    Ok(pages)
}

/// The notes on a household, as a pack has them.
async fn notes(app: &App, id: Uuid) -> Answer<Vec<Note>> {
    let note = |note: checking::Note| {
        let day = note.at.date().format(DAY).map_err(Problem::internal)?;
        let by = format!("{}, {day}", note.by_name);
        Ok(Note { about: note.about, words: note.words, by, settled: note.settled_at.is_some() })
    };
    checking::notes(&app.database, id).await?.into_iter().map(note).collect()
}

/// Which part to look at.
#[derive(Deserialize, IntoParams)]
pub struct Look {
    /// The part.
    part: Part,
}

/// A part of the pack of the newest revision, to look at.
#[utoipa::path(get, path = "/api/households/{id}/pack-part", params(("id" = Uuid, Path), Look),
    responses((status = 200, body = Vec<Block>), (status = 404, body = Problem)))]
pub async fn pack_part(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(look): Query<Look>,
) -> Answer<Json<Vec<Block>>> {
    let worked = Worked::of(&app, id).await?.with_slips(&app, &[look.part]).await?;
    let rules = work::pack(&app, &worked.household)?;
    Ok(Json(pack::chapter(worked.source(rules), look.part).blocks))
}

/// A pack to make.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MakePack {
    /// The revision that was seen.
    base_revision: i64,
    /// The parts in their order.
    parts: Vec<Part>,
}

/// Make the pack of the newest revision; its file is kept.
#[utoipa::path(post, path = "/api/households/{id}/packs", params(("id" = Uuid, Path)), request_body = MakePack,
    responses((status = 201, body = Packs), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
pub async fn make_pack(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(wanted): Input<MakePack>,
) -> Answer<(StatusCode, Json<Packs>)> {
    check_parts(&wanted.parts)?;
    trials::refuse(&app, id, "No pack is made").await?;
    let worked = Worked::of(&app, id).await?.with_slips(&app, &wanted.parts).await?;
    if worked.revision != wanted.base_revision {
        return Err(Problem::moved(format!(
            "Revision {} came meanwhile. Look at what changed first.",
            worked.revision
        )));
    }
    let rules = work::pack(&app, &worked.household)?;
    let document = pack::document(worked.source(rules), &wanted.parts);
    let unsettled = document.watermark.is_some();
    let written = written(&app, document).await?;
    let parts: Vec<String> = wanted.parts.iter().map(|part| part.name().to_owned()).collect();
    let new = NewPack {
        household: id,
        revision: worked.revision,
        rules: &worked.rules,
        parts: &parts,
        pages: i32::try_from(written.pages).map_err(Problem::internal)?,
        unsettled,
        file: &written.bytes,
        by,
    };
    store::add(&app.database, new).await?;
    Ok((StatusCode::CREATED, shown(&app, id).await?))
}

/// A document as a PDF.
///
/// # Errors
/// When it cannot be written, which must not happen.
pub async fn written(app: &App, document: Document) -> Answer<Written> {
    work::on_a_core(app, move |_| hembo_documents::write(&document)).await?.map_err(Problem::internal)
}

fn check_parts(parts: &[Part]) -> Answer<()> {
    let twice = (1..parts.len()).any(|at| parts[..at].contains(&parts[at]));
    if parts.is_empty() || twice {
        let message = "Choose at least one part, and each once.";
        return Err(Problem::invalid(vec![Fault::new("parts", message)]));
    }
    Ok(())
}

/// The file of a pack that was made.
#[utoipa::path(get, path = "/api/households/{id}/packs/{pack}",
    params(("id" = Uuid, Path), ("pack" = Uuid, Path)),
    responses((status = 200, content_type = "application/pdf"), (status = 404, body = Problem)))]
pub async fn pack_file(
    State(app): State<App>,
    _: By,
    Path((id, pack)): Path<(Uuid, Uuid)>,
) -> Answer<impl IntoResponse> {
    let file = store::file(&app.database, id, pack).await?.ok_or_else(|| Problem::not_found("pack"))?;
    let headers = [
        (header::CONTENT_TYPE, "application/pdf"),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"return.pdf\""),
    ];
    Ok((headers, file))
}

/// The Spread, the ways, the forms and the papers as XLSX.
#[utoipa::path(get, path = "/api/households/{id}/sheets.xlsx", params(("id" = Uuid, Path)),
    responses((status = 200, content_type = "application/octet-stream"), (status = 404, body = Problem)))]
pub async fn xlsx(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<impl IntoResponse> {
    let worked = Worked::of(&app, id).await?;
    let sheets = sheets::sheets(worked.source(work::pack(&app, &worked.household)?));
    let file = sheets::xlsx(&sheets).map_err(Problem::internal)?;
    let headers = [
        (header::CONTENT_TYPE, "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"return.xlsx\""),
    ];
    Ok((headers, file))
}

/// One of the sheets as CSV: Spread, Ways, Forms or Papers.
#[utoipa::path(get, path = "/api/households/{id}/sheets/{sheet}", params(("id" = Uuid, Path), ("sheet" = String, Path)),
    responses((status = 200, content_type = "text/csv"), (status = 404, body = Problem)))]
pub async fn csv(
    State(app): State<App>,
    _: By,
    Path((id, sheet)): Path<(Uuid, String)>,
) -> Answer<impl IntoResponse> {
    let worked = Worked::of(&app, id).await?;
    let sheets = sheets::sheets(worked.source(work::pack(&app, &worked.household)?));
    let found = sheets.iter().find(|one| one.name == sheet).ok_or_else(|| Problem::not_found("sheet"))?;
    let file = sheets::csv(found).map_err(Problem::internal)?;
    let disposition = format!("attachment; filename=\"{}.csv\"", found.name);
    let kind = "text/csv; charset=utf-8".to_owned();
    Ok(([(header::CONTENT_TYPE, kind), (header::CONTENT_DISPOSITION, disposition)], file))
}

/// A choice of parts to keep under a name.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KeepSet {
    /// The name; one of that name is replaced.
    name: String,
    /// The parts in their order.
    parts: Vec<Part>,
}

/// Keep a choice of parts under a name, for the whole practice.
#[utoipa::path(put, path = "/api/pack-sets", request_body = KeepSet,
    responses((status = 204), (status = 422, body = Problem)))]
pub async fn keep_set(State(app): State<App>, _: By, Input(set): Input<KeepSet>) -> Answer<StatusCode> {
    check_parts(&set.parts)?;
    let name = set.name.trim();
    if name.is_empty() || name.chars().count() > LONGEST_SET || name.chars().any(char::is_control) {
        let message = format!("A choice has a name of 1 to {LONGEST_SET} letters.");
        return Err(Problem::invalid(vec![Fault::new("name", message)]));
    }
    let parts: Vec<String> = set.parts.iter().map(|part| part.name().to_owned()).collect();
    store::keep_set(&app.database, name, &parts).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Let a choice of parts go.
#[utoipa::path(delete, path = "/api/pack-sets/{set}", params(("set" = Uuid, Path)),
    responses((status = 204), (status = 404, body = Problem)))]
pub async fn drop_set(State(app): State<App>, _: By, Path(set): Path<Uuid>) -> Answer<StatusCode> {
    if store::drop_set(&app.database, set).await? {
        Ok(StatusCode::NO_CONTENT)
    } else {
        Err(Problem::not_found("choice"))
    }
}
