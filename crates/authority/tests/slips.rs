//! The slips that the stand-in issues, read back: every box, the owner and the payer, from the PDF and from a picture.

use axum::{
    body::{Body, Bytes, to_bytes},
    http::{Request, StatusCode},
};
use hembo_authority::{
    data::{Data, HeldSlip},
    stand_in::StandIn,
    wire::Scan,
};
use hembo_core::{
    Household, Pack,
    household::{Answers, Entry},
    slip::{Proposal, Read, Word, propose},
};
use hembo_testing::laws::every_law;
use serde_json::json;
use std::path::Path;
use tower::ServiceExt;

fn data() -> Data {
    Data::read(&Path::new(env!("CARGO_MANIFEST_DIR")).join("data")).expect("the made-up data")
}

async fn ask(request: Request<Body>) -> (StatusCode, Bytes) {
    let stand_in =
        StandIn::new(data(), every_law(), None).expect("no file").with_camera(hembo_reader::picture_of);
    let answer = stand_in.router().oneshot(request).await.expect("an answer");
    let status = answer.status();
    (status, to_bytes(answer.into_body(), usize::MAX).await.expect("a body"))
}

async fn get(path: &str) -> (StatusCode, Bytes) {
    ask(Request::get(path).body(Body::empty()).expect("a request")).await
}

/// A household of one, and of somebody else whom no slip is.
fn household(law: &str, year: i32, name: &str, number: &str) -> Household {
    let people = json!([
        { "id": "other", "name": "Wilhelmina Overwater", "role": "dependent" },
        { "id": "whose", "name": name, "role": "filer", "id_number": number }
    ]);
    let household = json!({ "hembo": 1, "country": law, "year": year, "name": "A", "people": people });
    serde_json::from_value(household).expect("a household")
}

/// What was read otherwise than it was issued.
fn difference(proposal: &Proposal, slip: &HeldSlip, pack: &dyn Pack) -> Option<String> {
    let words = |read: &Option<Read>| read.clone().map(|read| read.words).unwrap_or_default();
    let about = [&proposal.kind, &proposal.owner, &proposal.title].map(words);
    if about != [slip.kind.as_str(), "whose", &slip.title] || proposal.other_year.is_some() {
        return Some(format!("{about:?} {:?}", proposal.other_year));
    }
    let kind = pack.paper_kinds().iter().find(|kind| kind.id == slip.kind)?;
    let fields = kind.told_fields();
    let secret = |id: &str| fields.iter().find(|field| field.id == id).is_none_or(|of| of.secret);
    let mut issued = slip.boxes.clone();
    issued.retain(|field, entry| !secret(field) && *entry != Entry::Flag(false));
    let read: Answers =
        proposal.boxes.iter().filter_map(|of| Some((of.field.clone(), of.entry.clone()?))).collect();
    let faults = proposal.boxes.iter().filter(|of| of.fault.is_some()).count();
    (plain(&read) != plain(&issued) || faults > 0).then(|| {
        let lost: Vec<_> = plain(&issued).into_iter().filter(|one| !plain(&read).contains(one)).collect();
        let more: Vec<_> = plain(&read).into_iter().filter(|one| !plain(&issued).contains(one)).collect();
        format!("{faults} faults, not read: {lost:?}, read instead: {more:?}")
    })
}

/// Amounts by their worth, so that `204.00` is `204`.
fn plain(boxes: &Answers) -> Vec<(&str, String)> {
    let text = |entry: &Entry| match entry.money() {
        Some(money) => money.to_string(),
        None => format!("{entry:?}"),
    };
    boxes.iter().map(|(field, entry)| (field.as_str(), text(entry))).collect()
}

#[tokio::test]
async fn every_slip_that_is_issued_as_a_pdf_is_read_back_whole() {
    let (data, registry) = (data(), every_law());
    let (mut read, mut wrong) = (0, Vec::new());
    for (law, known) in data.everyone() {
        let pack: &dyn Pack = registry.pack(law).expect("a law");
        for slip in known.slips.iter().filter(|slip| slip.rows.is_empty()) {
            let (status, pdf) = get(&format!("/slips/{law}/{}.pdf", slip.id)).await;
            assert_eq!(status, StatusCode::OK, "{}", slip.id);
            let pages: Vec<Vec<Word>> =
                hembo_reader::read(&pdf).expect(&slip.id).into_iter().map(|page| page.words).collect();
            let household = household(law, slip.year, &known.name, &known.number);
            let proposal = propose(&pages, &household, pack, None);
            wrong.extend(difference(&proposal, slip, pack).map(|told| format!("{}: {told}", slip.id)));
            read += 1;
        }
    }
    assert!(read > 60, "{read} slips");
    assert!(wrong.is_empty(), "{wrong:#?}");
}

#[tokio::test]
async fn a_picture_is_read_by_the_scanner_and_another_one_is_not() {
    let (status, png) = get("/slips/us/W2-2025-delphine-1.png").await;
    assert_eq!(status, StatusCode::OK);
    assert!(png.starts_with(b"\x89PNG"));
    let pages = hembo_reader::read(&png).expect("a picture");
    assert_eq!((pages.len(), pages[0].words.len()), (1, 0));
    let (status, scan) = ask(Request::post("/scans").body(Body::from(png.clone())).expect("a request")).await;
    assert_eq!(status, StatusCode::OK);
    let scan: Scan = serde_json::from_slice(&scan).expect("words");
    let registry = every_law();
    let household = household("us", 2025, "Delphine Fennimore", "831-26-3358");
    let pack = registry.pack("us").expect("the law");
    let proposal = propose(&[scan.words], &household, pack, None);
    assert_eq!(proposal.kind.map(|read| read.words).as_deref(), Some("W-2"));
    assert!(proposal.boxes.iter().any(|of| of.field == "2" && of.entry == Some(Entry::Text("204".into()))));

    let own = &png[..png.windows(6).rposition(|part| part == b"\nslip:").expect("its text beside it")];
    let (status, why) = ask(Request::post("/scans").body(Body::from(own.to_vec())).expect("a request")).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(String::from_utf8_lossy(&why).contains("finds no text"));
    for path in
        ["/slips/us/nothing.pdf", "/slips/us/W2-2025-delphine-1.doc", "/slips/xx/W2-2025-delphine-1.pdf"]
    {
        assert_eq!(get(path).await.0, StatusCode::NOT_FOUND, "{path}");
    }
    let (status, list) = get("/slips").await;
    assert_eq!(status, StatusCode::OK);
    assert!(String::from_utf8_lossy(&list).contains("slips/us/W2-2025-delphine-1.pdf"));
}
