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
    slip::{Area, Proposal, Read, ReadBox, Word, propose},
};
use hembo_documents::{
    pack::sheet,
    slip::{Cell, Printed, Table, print},
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
    let cells = proposal.rows.iter().flatten();
    let faults = proposal.boxes.iter().chain(cells).filter(|of| of.fault.is_some()).count();
    let (lines, of_slip) = (lines(proposal), slip.rows.iter().map(plain).collect::<Vec<_>>());
    let same = plain(&read) == plain(&issued) && lines.iter().map(plain).collect::<Vec<_>>() == of_slip;
    (!same || faults > 0).then(|| {
        let lost: Vec<_> = plain(&issued).into_iter().filter(|one| !plain(&read).contains(one)).collect();
        let more: Vec<_> = plain(&read).into_iter().filter(|one| !plain(&issued).contains(one)).collect();
        format!("{faults} faults, not read: {lost:?}, read instead: {more:?}; lines {lines:?}")
    })
}

/// The lines that were read, without what could not stand in its cell.
fn lines(proposal: &Proposal) -> Vec<Answers> {
    let entry = |of: &ReadBox| Some((of.field.clone(), of.entry.clone()?));
    proposal.rows.iter().map(|line| line.iter().filter_map(entry).collect()).collect()
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
        for slip in &known.slips {
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

const SMALL: i32 = 150;

/// Words that begin there, or end there where they stand at the right.
fn words(text: &str, (at, top): (i32, i32), right: bool) -> Vec<Word> {
    let width = |word: &str| i32::try_from(word.len()).expect("short") * 90;
    let whole: i32 = text.split(' ').map(|word| width(word) + 60).sum::<i32>() - 60;
    let mut left = if right { at - whole } else { at };
    let word = |word: &str| {
        let at = Area { left, top, width: width(word), height: SMALL };
        left += width(word) + 60;
        Word { text: word.into(), at }
    };
    text.split(' ').map(word).collect()
}

/// A page of a broker as some print it: amounts at the right of their columns, long names in two lines, a sum below.
fn statement() -> Vec<Word> {
    let line = |top: i32, cells: [&str; 5]| {
        let at = [(400, false), (3_000, false), (4_300, false), (7_000, true), (8_900, true)];
        let cells = cells.into_iter().zip(at).filter(|(text, _)| !text.is_empty());
        cells.flat_map(move |(text, (at, right))| words(text, (at, top), right)).collect::<Vec<_>>()
    };
    [
        words("1099-B Proceeds from broker transactions 2025", (400, 300), false),
        words("Delphine Fennimore 831-26-3358", (400, 600), false),
        line(1_500, ["1a What", "1b Acquired", "1c Sold", "1d Proceeds", "1e Cost or basis"]),
        line(1_800, ["Clover Ridge Apiaries", "03/04/2021", "02/11/2025", "1,204.50", "(38.00)"]),
        line(2_000, ["common shares", "", "", "", ""]),
        line(2_300, ["Tidewater Kelp", "", "12/30/2025", "17.00", "12.00"]),
        line(2_600, ["Saltmarsh Reed", "02/29/2023", "12/31/2025", "5", "1,000,000.00"]),
        line(2_900, ["Totals", "", "", "1,226.50", "1,000,050.00"]),
        words("Keep 3 years", (400, 3_200), false),
    ]
    .concat()
}

#[test]
fn the_lines_of_a_list_are_read_below_its_columns_until_their_sum() {
    let registry = every_law();
    let household = household("us", 2025, "Delphine Fennimore", "831-26-3358");
    let proposal = propose(&[statement()], &household, registry.pack("us").expect("the law"), None);
    assert_eq!(proposal.kind.as_ref().map(|read| read.words.as_str()), Some("1099-B"));
    let told = |line: &Vec<ReadBox>| {
        let cell = |of: &ReadBox| match (&of.entry, &of.fault) {
            (Some(entry), _) => entry.text().unwrap_or("?").to_owned(),
            (None, fault) => format!("{} ({})", of.read.words, fault.is_some()),
        };
        line.iter().map(|of| format!("{}: {}", of.field, cell(of))).collect::<Vec<_>>().join(", ")
    };
    let lines: Vec<String> = proposal.rows.iter().map(told).collect();
    assert_eq!(
        lines,
        [
            "what: Clover Ridge Apiaries common shares, acquired: 2021-03-04, sold: 2025-02-11, proceeds: 1204.50, basis: (38.00) (true)",
            "what: Tidewater Kelp, sold: 2025-12-30, proceeds: 17.00, basis: 12.00",
            "what: Saltmarsh Reed, acquired: 02/29/2023 (true), sold: 2025-12-31, proceeds: 5, basis: 1000000.00",
        ]
    );
    // What is marked on the page is the cell.
    assert_eq!(proposal.rows[1][2].read.at.top, 2_300);
    assert!(proposal.boxes.is_empty(), "{:?}", proposal.boxes);
}

#[test]
fn a_list_of_several_pages_is_read_whole() {
    let registry = every_law();
    let pack = registry.pack("us").expect("the law");
    let line = |n: i32| {
        [format!("Lot {n} of Clover Ridge"), "2021-03-04".into(), "2025-07-01".into(), format!("{n}.25")]
            .to_vec()
    };
    let cell = |label: &str, value: &str| Cell { label: label.into(), value: value.into() };
    let printed = Printed {
        code: "1099-B".into(),
        name: "Sales of securities and digital assets 2025".into(),
        cells: vec![
            cell("Broker", "Harbour Light Securities"),
            cell("Issued to", "Delphine Fennimore"),
            cell("4 Federal tax withheld", "12.00"),
        ],
        table: Some(Table {
            head: ["1a What", "1b Acquired", "1c Sold", "1d Proceeds"].map(String::from).to_vec(),
            lines: (1..=90).map(line).collect(),
        }),
        foot: "Made up".into(),
        sheet: sheet(pack),
    };
    let pages = hembo_reader::read(&print(&printed).expect("a PDF")).expect("its pages");
    assert!(pages.len() > 2, "{}", pages.len());
    let pages: Vec<Vec<Word>> = pages.into_iter().map(|page| page.words).collect();
    let household = household("us", 2025, "Delphine Fennimore", "831-26-3358");
    let proposal = propose(&pages, &household, pack, None);
    let proceeds: Vec<Option<&Entry>> =
        proposal.rows.iter().map(|line| line.last().and_then(|of| of.entry.as_ref())).collect();
    let expected: Vec<Entry> = (1..=90).map(|n| Entry::Text(format!("{n}.25"))).collect();
    assert_eq!(proceeds, expected.iter().map(Some).collect::<Vec<_>>());
    assert_eq!(proposal.boxes.len(), 1);
    assert_eq!(proposal.title.map(|read| read.words).as_deref(), Some("Harbour Light Securities"));
}
