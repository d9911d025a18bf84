//! What was filed, to read: the forms as they were filed or assessed, and the receipt to print.

use super::{
    filing::{Table, filing_of, latest, receipt_of},
    handover,
};
use crate::{
    App,
    auth::Member,
    error::{Answer, Problem},
    store::practice,
    work,
};
use axum::{
    Json,
    extract::{Path, Query, State},
    http::header,
    response::IntoResponse,
};
use hembo_authority::wire;
use hembo_core::outcome::{Again, FormOutcome, FormRow, ReturnSchedules};
use hembo_documents::receipt;
use hembo_money::Money;
use serde::Deserialize;
use utoipa::IntoParams;
use uuid::Uuid;

/// Which figures of what was filed.
#[derive(Deserialize, IntoParams)]
pub struct Which {
    /// Those that were assessed; else those that were filed.
    assessed: bool,
}

/// The forms as they were filed last, or as they were assessed: of the returns that were.
#[utoipa::path(get, path = "/api/households/{id}/schedules-filed", params(("id" = Uuid, Path), Which),
    responses((status = 200, body = Vec<ReturnSchedules>), (status = 404, body = Problem)))]
pub async fn schedules_filed(
    State(app): State<App>,
    _: Member,
    Path(id): Path<Uuid>,
    Query(Which { assessed }): Query<Which>,
) -> Answer<Json<Vec<ReturnSchedules>>> {
    let table = Table::of(&app, id).await?;
    let mut all = Vec::new();
    for filing in latest(&table.filings).filter(|filing| filing.state != "refused") {
        let package = table.filed(filing)?;
        let (scope, whose) = (package.scope.clone(), filing.whose.clone());
        let forms = if assessed {
            let Some(assessment) = receipt_of(filing).and_then(|receipt| receipt.assessment) else {
                continue;
            };
            vec![form("Assessment", assessment.lines)]
        } else {
            package.forms.into_iter().map(|of| form(&of.name, of.lines)).collect()
        };
        all.push(ReturnSchedules { scope, whose, people: Vec::new(), forms, again: Again::default() });
    }
    Ok(Json(all))
}

/// A form of the wire as views read it.
fn form(name: &str, lines: Vec<wire::Line>) -> FormOutcome {
    let row = |line: wire::Line| FormRow {
        number: line.number,
        title: line.title,
        line: line.line,
        scope: line.scope,
        amount: Some(line.amount),
        lost: Money::ZERO,
        result: false,
        from: None,
    };
    FormOutcome {
        id: name.to_owned(),
        name: name.to_owned(),
        title: String::new(),
        kept: false,
        authority: String::new(),
        required: true,
        why_not: String::new(),
        rows: lines.into_iter().map(row).collect(),
    }
}

/// The receipt of a return, to print.
#[utoipa::path(get, path = "/api/households/{id}/filings/{filing}/receipt",
    params(("id" = Uuid, Path), ("filing" = Uuid, Path)),
    responses((status = 200, content_type = "application/pdf"), (status = 404, body = Problem)))]
pub async fn receipt_file(
    State(app): State<App>,
    _: Member,
    Path((id, filing)): Path<(Uuid, Uuid)>,
) -> Answer<impl IntoResponse> {
    let table = Table::of(&app, id).await?;
    let (found, number) = filing_of(&table, filing)?;
    let package = table.filed(found)?;
    let receipt = receipt_of(found).ok_or_else(|| Problem::not_found("receipt"))?;
    let pack = work::pack(&app, &table.household)?;
    let about = pack.about();
    let money = |amount| format!("{} {}", about.symbol, about.numbers.amount(amount));
    let row = |what: &str, words: String| (what.to_owned(), words);
    let mut rows = vec![
        row("Receipt", number.to_owned()),
        row("Came in", receipt.received_at.clone()),
        row("State", found.state.clone()),
        row("Total tax", money(package.total)),
        row("Balance", money(package.balance)),
        row("Forms", package.forms.iter().map(|form| form.name.as_str()).collect::<Vec<_>>().join(", ")),
        row("From revision", found.revision.to_string()),
        row("Sent by", found.by_name.clone()),
        row("Checksum", receipt.checksum.clone()),
    ];
    rows.extend(found.amends.clone().map(|amends| row("Amends", amends)));
    let told = receipt::Receipt {
        about: format!("{} household · {}", table.household.name, table.household.year),
        whose: found.whose.clone(),
        rows,
        refusals: receipt.refusals.into_iter().map(|refusal| refusal.words).collect(),
    };
    let name = practice::of(&app.database).await?.name;
    let document = receipt::document(&told, &name, hembo_documents::pack::sheet(pack));
    let file = handover::written(&app, document).await?.bytes;
    let headers = [
        (header::CONTENT_TYPE, "application/pdf"),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"receipt.pdf\""),
    ];
    Ok((headers, file))
}
