//! Notes bought at a discount: interest by the days held, the rest a gain or loss.

use hembo_ca::Canada;
use hembo_core::{outcome::next_year, search::Stop};
use hembo_testing::ca::{Family, assert_lines, has_point};
use serde_json::{Value, json};

fn note(bought: &str, matures: &str, paid: &str, face: &str, sold: Option<(&str, &str)>) -> Value {
    let mut note = json!({ "bought": bought, "matures": matures, "paid": paid, "face": face });
    if let Some((day, proceeds)) = sold {
        note["sold"] = json!(day);
        note["proceeds"] = json!(proceeds);
    }
    note
}

fn single(note: Value) -> Family {
    Family::single("AB", "1980-01-01").paper("Note", "ada", note)
}

#[test]
fn the_discount_is_interest_by_the_days_held() {
    let bill = |sold| note("2025-03-10", "2025-09-08", "98750", "100000", sold);
    for (year, paper, interest, gain, taxable) in [
        (2025, bill(Some(("2025-06-18", "99480"))), "686.81", "43.19", "21.60"),
        (2025, bill(Some(("2025-06-18", "99300"))), "686.81", "-136.81", "0"),
        (2025, bill(Some(("2025-09-08", "100000"))), "1250", "0", "0"),
        (2025, bill(Some(("2025-03-10", "98750"))), "0", "0", "0"),
        (2025, bill(Some(("2025-03-11", "98760"))), "6.87", "3.13", "1.57"),
        (2025, bill(None), "1250", "0", "0"),
        // A leap year needs no other days.
        (
            2024,
            note("2024-02-01", "2024-05-02", "49400", "50000", Some(("2024-03-12", "49660"))),
            "263.74",
            "-3.74",
            "0",
        ),
        // Held over the end of the year: all of it in the year in which it ends.
        (2024, note("2024-11-01", "2025-01-30", "990", "1000", None), "0", "0", "0"),
        (2025, note("2024-11-01", "2025-01-30", "990", "1000", None), "10", "0", "0"),
    ] {
        let outcome = single(paper.clone()).in_year(year).outcome();
        assert_lines(&outcome, 0, &[("12100", interest), ("19700", gain), ("12700", taxable)]);
    }
    let mut with_outlays = bill(Some(("2025-06-18", "99480")));
    with_outlays["outlays"] = json!("3.19");
    assert_lines(&single(with_outlays).outcome(), 0, &[("12100", "686.81"), ("19700", "40")]);
}

#[test]
fn each_owner_has_a_part_of_a_note() {
    let family = Family::couple("AB", ["1980-01-01"; 2]);
    let bill = note("2025-03-10", "2025-09-08", "98750", "100000", Some(("2025-06-18", "99480")));
    let outcome = family.shared("Note", &[("ada", "25"), ("bo", "75")], bill, Value::Null).outcome();
    assert_lines(&outcome, 0, &[("12100", "171.71"), ("19700", "10.80")]);
    assert_lines(&outcome, 1, &[("12100", "515.10"), ("19700", "32.39")]);
}

#[test]
fn what_cannot_be_reckoned_is_told() {
    let whole = note("2025-03-10", "2025-09-08", "98750", "100000", Some(("2025-06-18", "99480")));
    assert!(!has_point(&single(whole.clone()).outcome(), "C-79"));
    for field in ["bought", "matures", "paid", "face", "sold", "proceeds"] {
        let mut lacking = whole.clone();
        lacking.as_object_mut().unwrap().remove(field);
        assert!(has_point(&single(lacking).outcome(), "C-79"), "{field}");
    }
    let told = |bought: &str, matures: &str, sold: &str, code: &str| {
        has_point(&single(note(bought, matures, "98750", "100000", Some((sold, "99480")))).outcome(), code)
    };
    for (bought, matures, sold, wrong) in [
        ("2025-03-10", "2025-09-08", "2025-09-08", false),
        ("2025-03-10", "2025-09-08", "2025-09-09", true),
        ("2025-03-10", "2025-09-08", "2025-03-09", true),
        ("2025-03-10", "2025-03-10", "2025-03-10", true),
    ] {
        assert_eq!(told(bought, matures, sold, "C-79-days"), wrong, "{sold}");
    }
    assert!(told("2024-01-10", "2024-06-08", "2024-06-01", "C-79-year"));
    assert!(!told("2024-03-10", "2025-03-10", "2025-02-01", "C-79-long"));
    assert!(told("2024-03-10", "2025-03-11", "2025-02-01", "C-79-long"));
}

#[test]
fn only_a_note_that_is_still_held_comes_again() {
    for (matures, comes) in [("2024-12-31", 0), ("2025-01-01", 1)] {
        let family = single(note("2024-11-01", matures, "990", "1000", None)).in_year(2024);
        let next = next_year(&family.household(), &Canada::COMMITTED, &Stop::default()).unwrap();
        assert_eq!(next.papers.iter().filter(|paper| paper.kind == "Note").count(), comes, "{matures}");
    }
}
