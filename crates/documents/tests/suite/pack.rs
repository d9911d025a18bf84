//! The pack of every demo household: it can be written, keeps to PDF/UA-1, and says what the outcome says.

use hembo_core::{Household, Outcome, certificate::certificate, file, outcome};
use hembo_documents::{
    document::{Block, Document, Picture},
    pack::{self, Note, Part, Source},
    write,
};
use hembo_testing::laws::every_law;
use std::{fs, path::PathBuf, sync::Arc};

/// A picture of two by three dots.
const PICTURE: &[u8] = b"\
    \x89\x50\x4e\x47\x0d\x0a\x1a\x0a\x00\x00\x00\x0d\x49\x48\x44\x52\x00\x00\x00\x02\x00\x00\x00\x03\
    \x08\x02\x00\x00\x00\x36\x88\x49\xd6\x00\x00\x00\x10\x49\x44\x41\x54\x78\x9c\x63\x68\x48\x70\x00\
    \x22\x06\x14\x0a\x00\x48\x75\x06\xc1\x6b\x94\x47\xc8\x00\x00\x00\x00\x49\x45\x4e\x44\xae\x42\x60\
    \x82";

fn demo(path: &str) -> (Household, Outcome) {
    let path = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo").join(path);
    let household = file::read(&fs::read(path).unwrap(), &every_law()).unwrap();
    let outcome = outcome::reckon(&household, &every_law()).unwrap();
    (household, outcome)
}

fn pack_of(household: &Household, outcome: &Outcome, parts: &[Part]) -> Document {
    let registry = every_law();
    let rules = registry.pack(&household.country).unwrap();
    let notes = &[Note {
        about: "Wages".into(),
        words: "June bill missing?".into(),
        by: "M. Tarrow, 11 Feb".into(),
        settled: true,
    }];
    let (practice, made) = ("Quay Street Practice", "3 March 2026");
    let source = Source {
        household,
        outcome,
        rules,
        practice,
        revision: Some(7),
        made,
        notes,
        letter: None,
        slips: &[Picture {
            png: Arc::new(PICTURE.to_vec()),
            words: "W-2: wages.pdf, page 1 of 1".into(),
            file: "ab".into(),
            page: 0,
        }],
        asked: &[],
        certificate: &certificate(household, outcome, rules),
    };
    pack::document(source, parts)
}

/// Every word of a part, cell by cell.
fn words(document: &Document, part: Part) -> Vec<String> {
    let found = document.parts.iter().find(|chapter| chapter.title == part.title()).unwrap();
    let of_block = |block: &Block| match block {
        Block::Heading(words) => vec![words.clone()],
        Block::Text(runs) => vec![runs.iter().map(|run| run.words.as_str()).collect()],
        Block::List(items) => items.iter().flatten().map(|run| run.words.clone()).collect(),
        Block::Table(table) => table.rows.iter().flat_map(|row| row.cells.clone()).collect(),
        Block::Bars(bars) => bars.iter().map(|bar| bar.label.clone()).collect(),
        Block::Picture(picture) => vec![picture.words.clone()],
    };
    found.blocks.iter().flat_map(of_block).collect()
}

#[test]
fn the_certificate_says_what_was_weighed_and_has_its_digest() {
    let (household, outcome) = demo("us/vreeland-mbeki.json");
    let told = words(&pack_of(&household, &outcome, &[Part::Certificate]), Part::Certificate);
    assert!(
        told.iter().any(|words| words.starts_with("23 ways are lawful; every one was weighed")),
        "{told:?}"
    );
    assert!(told.contains(&"lived together after June".to_owned()));
    let digest = told.last().unwrap().replace(' ', "");
    assert!(digest.len() == 64 && digest.chars().all(|digit| digit.is_ascii_hexdigit()), "{digest}");
}

#[test]
fn every_demo_household_has_a_pack_that_can_be_written() {
    let folder = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let mut files = 0;
    for country in ["us", "ca"] {
        for entry in fs::read_dir(folder.join(country)).unwrap() {
            let name = entry.unwrap().file_name().into_string().unwrap();
            let (household, outcome) = demo(&format!("{country}/{name}"));
            let document = pack_of(&household, &outcome, &Part::ALL);
            let written = write(&document).unwrap();
            assert!(written.bytes.starts_with(b"%PDF-"), "{name}");
            assert!(written.pages >= Part::ALL.len(), "{name}: {} pages", written.pages);
            assert_eq!(document.parts.len(), Part::ALL.len() - 1, "no letter was written");
            assert_eq!(words(&document, Part::Slips), ["W-2: wages.pdf, page 1 of 1"]);
            let tax = format!("{:#}", outcome.total.max(-outcome.total));
            assert!(words(&document, Part::Summary)[0].contains(&tax), "{name}");
            for paper in household.papers.iter().filter(|paper| !paper.title.is_empty()) {
                assert!(words(&document, Part::Papers).contains(&paper.title), "{name}: {}", paper.title);
            }
            files += 1;
        }
    }
    assert!(files > 10);
}

#[test]
fn the_summary_tells_tax_balance_and_what_the_next_way_costs() {
    let (household, outcome) = demo("us/vreeland-mbeki.json");
    let document = pack_of(&household, &outcome, &[Part::Summary, Part::Ways]);
    let summary = words(&document, Part::Summary);
    assert_eq!(
        summary[0],
        format!(
            "For 2025, the tax of Tamsin Vreeland and Osric Mbeki is $\u{a0}{:#}. $\u{a0}{:#} was paid during the year, so $\u{a0}{:#} comes back.",
            outcome.total, outcome.paid, -outcome.balance
        )
    );
    let told = summary.join(" ");
    assert!(told.contains(&format!(
        "All {} lawful ways to file were weighed. This is the lowest.",
        outcome.lawful_ways
    )));
    let next = outcome.ways.iter().find(|way| !way.more.is_zero()).unwrap();
    assert!(
        told.contains(&format!("$\u{a0}{:#} {}, $\u{a0}{:#} more", next.total, next.but, next.more)),
        "{told}"
    );
    assert!(document.watermark.is_none());
    // Credits beyond the tax, and two ways.
    let (household, outcome) = demo("us/fennimore.json");
    let told = words(&pack_of(&household, &outcome, &[Part::Summary]), Part::Summary).join(" ");
    assert!(
        told.starts_with("For 2025, no tax is left to pay: credits bring Delphine Fennimore $\u{a0}9,690."),
        "{told}"
    );
    assert!(told.contains("Both lawful ways to file were weighed."), "{told}");
}

#[test]
fn a_pack_with_blocking_points_says_on_every_page_that_it_is_not_final() {
    let (household, outcome) = demo("us/ravensworth.json");
    let document = pack_of(&household, &outcome, &[Part::Points]);
    assert_eq!(document.watermark.as_deref(), Some("Not final: 1 open point blocks"));
    assert!(document.about.contains(&"Not final: 1 open point blocks".into()));
    assert!(words(&document, Part::Points).contains(&"blocks".into()));
    // An empty household is no result at all.
    let mut none = household.clone();
    none.papers.clear();
    none.answers.clear();
    let outcome = outcome::reckon(&none, &every_law()).unwrap();
    let document = pack_of(&none, &outcome, &Part::ALL);
    assert_eq!(document.watermark.as_deref(), Some("The figures are not a result"));
    write(&document).unwrap();
}

#[test]
fn a_year_for_planning_and_a_way_that_costs_more_say_so() {
    let (household, outcome) = demo("us/thornquist-abara.json");
    assert!(outcome.planning);
    let document = pack_of(&household, &outcome, &[Part::Summary]);
    assert!(document.watermark.is_some());
    let mut clean = outcome.clone();
    clean.points.clear();
    clean.covered = true;
    let document = pack_of(&household, &clean, &[Part::Summary]);
    assert_eq!(document.watermark.as_deref(), Some("For planning: 2026 is not over"));

    let (mut household, _) = demo("us/vreeland-mbeki.json");
    household.pins.insert("us.deduction".into(), "standard".into());
    let held = outcome::reckon(&household, &every_law()).unwrap();
    let told = words(&pack_of(&household, &held, &[Part::Summary]), Part::Summary).join(" ");
    assert!(told.contains("this one is held by choice and costs $\u{a0}214 more"), "{told}");
    // What was not weighed is said where the lowest is.
    let mut part = outcome.clone();
    part.complete = false;
    let told = words(&pack_of(&household, &part, &[Part::Ways]), Part::Ways).join(" ");
    assert!(told.contains("not all could be weighed. This is the lowest of those that were."), "{told}");
}

#[test]
fn parts_stand_in_the_order_in_which_they_are_chosen_and_forms_without_worksheets() {
    let (household, outcome) = demo("us/winterbourne-adeyemi.json");
    let document = pack_of(&household, &outcome, &[Part::Forms, Part::Worksheets, Part::Summary]);
    let titles: Vec<_> = document.parts.iter().map(|part| part.title.as_str()).collect();
    assert_eq!(titles, ["Forms and schedules", "Worksheets", "Summary for the family"]);
    let (forms, kept) = (words(&document, Part::Forms), words(&document, Part::Worksheets));
    for form in outcome.schedules.iter().flat_map(|of| &of.forms).filter(|f| f.required && !f.rows.is_empty())
    {
        let heading = format!("{} · {}", form.name, form.title);
        assert_eq!((forms.contains(&heading), kept.contains(&heading)), (!form.kept, form.kept), "{heading}");
    }
}

/// For a look at the pages: `cargo test -p hembo-documents -- --ignored` writes one to the folder for temporary files.
#[test]
#[ignore = "for a look at the pages"]
fn a_pack_to_look_at() {
    let (household, outcome) = demo("us/vreeland-mbeki.json");
    let written = write(&pack_of(&household, &outcome, &Part::ALL)).unwrap();
    fs::write(std::env::temp_dir().join("hembo-pack.pdf"), written.bytes).unwrap();
}
