//! Slips as files: looked at before anything is stored, kept with their papers, shown page by page.

use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    store::files::{self as store, NewFile},
    work,
};
use axum::{
    Json,
    body::Bytes,
    extract::{Path, Query, State},
    http::{StatusCode, header},
    response::IntoResponse,
};
use base64::{Engine, engine::general_purpose::STANDARD};
use hembo_core::{
    Fault,
    check::LONGEST_NAME,
    command::Command,
    household::SlipFile,
    search::Stop,
    slip::{
        Proposal, Word,
        file::{self, FileKind, Page, Unreadable},
        propose,
    },
};
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// The largest body, in bytes: a file that is a little too large is told to be so.
pub const LARGEST_BODY: usize = file::LARGEST + 1024 * 1024;

/// A slip as a file, before it is kept.
#[derive(Serialize, ToSchema)]
#[schema(as = SlipLook)]
#[allow(missing_docs)]
pub struct Look {
    /// Its pages as PNG, in base64.
    pub pages: Vec<String>,
    /// What it seems to be.
    pub proposal: Proposal,
    /// Why nothing was read of it, where nothing was.
    pub no_words: Option<String>,
}

/// Which kind of paper it is, where somebody says so.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct As {
    /// The kind, by its code.
    #[serde(default)]
    kind: Option<String>,
}

/// Look at a slip as a file: its pages, and what it seems to be. Nothing is stored.
#[utoipa::path(post, path = "/api/households/{id}/files", params(("id" = Uuid, Path), As),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = 200, body = Look), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn look_at_file(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Query(As { kind }): Query<As>,
    body: Result<Bytes, axum::extract::rejection::BytesRejection>,
) -> Answer<Json<Look>> {
    let (_, household) = work::load(&app, id).await?;
    let (media, pages, file) = read(&app, body).await?;
    let (words, no_words) = words(&app, media, &file, &pages).await;
    let registry = app.registry.clone();
    let read = move |_: &Stop| {
        let pack = registry.pack(&household.country)?;
        Some(propose(&words, &household, pack, kind.as_deref()))
    };
    let proposal = work::on_a_core(&app, read).await?.ok_or_else(|| Problem::not_found("country"))?;
    Ok(Json(Look { pages: pages.into_iter().map(|page| page.picture).collect(), proposal, no_words }))
}

/// What a file is and its pages.
async fn read(
    app: &App,
    body: Result<Bytes, axum::extract::rejection::BytesRejection>,
) -> Answer<(FileKind, Vec<Page>, Bytes)> {
    let file = body.map_err(|_| refused(Unreadable("The file is larger than 10 MB.".into())))?;
    let kind = file::kind_of(&file).map_err(refused)?;
    let _core = app.cores.acquire().await.map_err(Problem::internal)?;
    let pages = app.reader.read(&file).await.map_err(refused)?;
    Ok((kind, pages, file))
}

fn refused(Unreadable(why): Unreadable) -> Problem {
    Problem::invalid(vec![Fault::new("file", why)])
}

/// The words of each page: a PDF's own, of a picture those that the scanner reads.
async fn words(app: &App, kind: FileKind, file: &[u8], pages: &[Page]) -> (Vec<Vec<Word>>, Option<String>) {
    let own: Vec<Vec<Word>> = pages.iter().map(|page| page.words.clone()).collect();
    if own.iter().any(|words| !words.is_empty()) {
        return (own, None);
    }
    let scanner = app.outside.as_ref().filter(|_| kind != FileKind::Pdf);
    let Some(scanner) = scanner else {
        return (own, Some("There is no text in this file: type its boxes beside it.".into()));
    };
    match scanner.scan(file).await {
        Ok(scan) => (vec![scan.words], None),
        Err(trouble) => (own, Some(format!("{trouble} Type its boxes beside it."))),
    }
}

/// What a file is called.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Named {
    /// The name.
    name: String,
}

/// Keep a slip as a file, sealed; an edit (`add_file`) adds it to its paper.
#[utoipa::path(put, path = "/api/households/{id}/files", params(("id" = Uuid, Path), Named),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = 200, body = SlipFile), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn keep_file(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Query(Named { name }): Query<Named>,
    body: Result<Bytes, axum::extract::rejection::BytesRejection>,
) -> Answer<Json<SlipFile>> {
    work::load(&app, id).await?;
    let (kind, pages, file) = read(&app, body).await?;
    let hash: String = Sha256::digest(&file).iter().map(|byte| format!("{byte:02x}")).collect();
    let pictures = pages.iter().zip(0..).map(|(page, n)| {
        let png = STANDARD.decode(&page.picture).map_err(Problem::internal)?;
        Ok(app.sealer.seal_bytes(&page_place(&hash, n), &png))
    });
    let pictures: Vec<Vec<u8>> = pictures.collect::<Answer<_>>()?;
    let bytes = app.sealer.seal_bytes(&place(&hash), &file);
    let new = NewFile { id: &hash, media: kind.media(), bytes: &bytes, pages: &pictures, by };
    store::keep(&app.database, &new).await?;
    Ok(Json(SlipFile {
        id: hash,
        name: short(&name),
        pages: u32::try_from(pages.len()).map_err(Problem::internal)?,
    }))
}

/// A file's name as it can stand in a household: without signs that nobody sees, and not too long.
fn short(name: &str) -> String {
    let plain: String = name.chars().filter(|c| !c.is_control()).take(LONGEST_NAME).collect();
    if plain.trim().is_empty() { "slip".into() } else { plain }
}

/// Where a file is sealed for.
pub fn place(file: &str) -> String {
    format!("file/{file}")
}

/// Where a page of a file is sealed for.
pub fn page_place(file: &str, page: i32) -> String {
    format!("file/{file}/{page}")
}

/// A file that a household names.
async fn of_household(app: &App, id: Uuid, file: &str) -> Answer<SlipFile> {
    let (_, household) = work::load(app, id).await?;
    let mut files = household.papers.into_iter().flat_map(|paper| paper.files);
    files.find(|there| there.id == file).ok_or_else(|| Problem::not_found("file"))
}

/// A file that a household names, with its media type and its bytes.
///
/// # Errors
/// One that it does not name, or that was sealed with another key.
pub async fn opened(app: &App, id: Uuid, file: &str) -> Answer<(SlipFile, String, Vec<u8>)> {
    let named = of_household(app, id, file).await?;
    let kept = store::bytes(&app.database, file).await?;
    let (media, sealed) = kept.ok_or_else(|| Problem::not_found("file"))?;
    let bytes = app.sealer.open_bytes(&place(file), &sealed).map_err(Problem::internal)?;
    Ok((named, media, bytes))
}

/// A file as it came.
#[utoipa::path(get, path = "/api/households/{id}/files/{file}",
    params(("id" = Uuid, Path), ("file" = String, Path)),
    responses((status = 200, content_type = "application/octet-stream"), (status = 404, body = Problem)))]
pub async fn file(
    State(app): State<App>,
    _: By,
    Path((id, file)): Path<(Uuid, String)>,
) -> Answer<impl IntoResponse> {
    let (_, media, bytes) = opened(&app, id, &file).await?;
    let ending = media.rsplit('/').next().unwrap_or("bin").to_owned();
    let disposition = format!("attachment; filename=\"slip.{ending}\"");
    Ok(([(header::CONTENT_TYPE, media), (header::CONTENT_DISPOSITION, disposition)], bytes))
}

/// A page of a file as a picture.
#[utoipa::path(get, path = "/api/households/{id}/files/{file}/pages/{page}",
    params(("id" = Uuid, Path), ("file" = String, Path), ("page" = i32, Path)),
    responses((status = 200, content_type = "image/png"), (status = 404, body = Problem)))]
pub async fn file_page(
    State(app): State<App>,
    _: By,
    Path((id, file, page)): Path<(Uuid, String, i32)>,
) -> Answer<impl IntoResponse> {
    of_household(&app, id, &file).await?;
    let picture = picture(&app, &file, page).await?.ok_or_else(|| Problem::not_found("page"))?;
    Ok((StatusCode::OK, [(header::CONTENT_TYPE, "image/png")], picture))
}

/// The picture of a page, opened.
///
/// # Errors
/// One that was sealed with another key.
pub async fn picture(app: &App, file: &str, page: i32) -> Answer<Option<Vec<u8>>> {
    let sealed = store::page(&app.database, file, page).await?;
    let open = sealed.map(|sealed| app.sealer.open_bytes(&page_place(file, page), &sealed));
    open.transpose().map_err(Problem::internal)
}

/// Whether the files that an edit adds are kept.
///
/// # Errors
/// A file that is not.
pub async fn check_kept(app: &App, commands: &[Command]) -> Answer<()> {
    let added = commands.iter().flat_map(|command| match command {
        Command::AddFile { file, .. } => std::slice::from_ref(file),
        Command::AddPaper { paper } => paper.files.as_slice(),
        _ => &[],
    });
    let added: Vec<String> = added.map(|file| file.id.clone()).collect();
    if added.is_empty() {
        return Ok(());
    }
    let kept = store::kept(&app.database, &added).await?;
    if added.iter().all(|id| kept.contains(id)) {
        return Ok(());
    }
    Err(Problem::invalid(vec![Fault::new("/papers", "The file was not kept: add it again.")]))
}
