//! Interest and discount: Forms 1099-INT and 1099-OID, and short notes sold early, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point};
use serde_json::{Value, json};

fn with(kind: &str, boxes: Value) -> Family {
    Family::single(2025).wages("ada", 50_000).paper(kind, &["ada"], boxes, json!(null))
}

#[test]
fn what_belongs_to_others_lowers_the_interest() {
    for (boxes, interest) in [
        (json!({ "1": "900", "accrued": "100", "nominee": "300" }), 500),
        (json!({ "1": "900", "accrued": "800", "nominee": "300" }), 0),
        (json!({ "1": "900", "3": "50", "10": "20", "11": "70", "12": "60" }), 850),
    ] {
        assert_lines(&with("1099-INT", boxes).outcome(), &[("us.2b", interest)]);
    }
}

#[test]
fn original_issue_discount() {
    let boxes = json!({ "1": "400", "2": "100", "3": "30", "5": "20", "6": "50", "8": "60", "10": "120", "11": "70" });
    // 400 + 100 + 20 + 60 − 50 − 100: the premium takes no more than box 2 has.
    assert_lines(&with("1099-OID", boxes).outcome(), &[("us.2b", 430), ("us.2a", 70), ("us.penalty", 30)]);
}

/// A bill of 10,000 bought at 9,700, 182 days before it matures, and sold after 91.
#[test]
fn a_note_sold_early_is_interest_up_to_its_days() {
    for (proceeds, interest, gain) in
        [("9850", 150, 0), ("9900", 150, 50), ("9650", 0, -50), ("9800", 100, 0)]
    {
        let outcome = with(
            "Discount note",
            json!({
                "face": "10000", "cost": "9700", "bought": "2025-01-02", "matures": "2025-07-03",
                "sold": "2025-04-03", "proceeds": proceeds,
            }),
        )
        .outcome();
        assert_lines(&outcome, &[("us.2b", interest), ("us.sched_d.7", gain)]);
        assert!(has_point(&outcome, "discount-note-yield"));
    }
    let kept = with("Discount note", json!({ "face": "10000", "cost": "9700" })).outcome();
    assert_lines(&kept, &[("us.2b", 300), ("us.7", 0)]);
    let undated = with(
        "Discount note",
        json!({ "face": "10000", "cost": "9700", "sold": "2025-04-03", "proceeds": "9800" }),
    );
    assert!(has_point(&undated.outcome(), "discount-note-days"));
}
