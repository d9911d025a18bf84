//! The made-up data of the stand-in fits the laws, and so does what packs declare of papers that are held.

use hembo_authority::data::Data;
use hembo_core::{check, field::FieldKind};
use hembo_testing::laws::every_law;
use std::{collections::BTreeSet, path::Path};

#[test]
fn every_slip_is_a_paper_of_its_law_and_year_that_is_held_there() {
    let registry = every_law();
    let data = Data::read(&Path::new(env!("CARGO_MANIFEST_DIR")).join("data")).unwrap();
    let household: hembo_core::Household =
        serde_json::from_str(include_str!("../../../../demo/us/fennimore.json")).unwrap();
    let mut ids = BTreeSet::new();
    for (law, known) in data.everyone() {
        let pack = registry.pack(law).unwrap();
        for slip in &known.slips {
            assert!(ids.insert(&slip.id), "{} stands twice", slip.id);
            assert!(pack.held_kinds().contains(&slip.kind.as_str()), "{} is not held", slip.kind);
            let kind = pack.paper_kinds().iter().find(|kind| kind.id == slip.kind).unwrap();
            let boxes = slip.boxes.iter().chain(slip.corrected.iter().flat_map(|corrected| &corrected.boxes));
            for (id, entry) in boxes {
                let fields = kind.told_fields();
                let field = fields.iter().find(|field| field.id == *id);
                let field = field.unwrap_or_else(|| panic!("{}: there is no box {id}", slip.id));
                assert!(!field.secret && field.years.hold(slip.year), "{}: box {id}", slip.id);
                check::entry(field, entry, &household, pack)
                    .unwrap_or_else(|why| panic!("{}, {id}: {why}", slip.id));
            }
            assert!(slip.rows.is_empty() || kind.codes().is_none(), "{}: codes are boxes", slip.id);
            for (id, entry) in slip.rows.iter().flatten() {
                let column = kind.columns.iter().find(|column| column.id == *id);
                let column = column.unwrap_or_else(|| panic!("{}: there is no column {id}", slip.id));
                check::entry(column, entry, &household, pack)
                    .unwrap_or_else(|why| panic!("{}, {id}: {why}", slip.id));
            }
        }
    }
    assert!(ids.len() > 40);
}

#[test]
fn what_is_held_and_what_is_withheld_are_papers_and_boxes_of_the_pack() {
    for pack in every_law().packs() {
        let kind = |id: &str| pack.paper_kinds().iter().find(|kind| kind.id == id);
        for held in pack.held_kinds() {
            assert!(kind(held).is_some(), "{held}");
        }
        for kind in pack.paper_kinds() {
            let Some(id) = pack.withheld_box(kind.id) else { continue };
            let field = kind.field(id).unwrap_or_else(|| panic!("{} has no box {id}", kind.id));
            assert!(matches!(field.kind, FieldKind::Amount { .. }), "{} {id}", kind.id);
            let words = field.label.to_lowercase();
            assert!(
                words.contains("tax") && (words.contains("withheld") || words.contains("deducted")),
                "{words}"
            );
        }
    }
}
