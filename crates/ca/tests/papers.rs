//! Papers: to which line each box of a slip goes, and what is told not to be computed.
#![allow(missing_docs, clippy::unwrap_used)]

use hembo_testing::ca::{Family, has_point, line, money};
use serde_json::{Value, json};

fn of_65(kind: &str, boxes: Value) -> Family {
    Family::single("ON", "1955-01-01").paper(kind, "ada", boxes)
}

fn of_45(kind: &str, boxes: Value) -> Family {
    Family::single("ON", "1980-01-01").paper(kind, "ada", boxes)
}

#[test]
fn where_the_boxes_of_each_slip_go() {
    let cases: Vec<(Family, &str, &str)> = vec![
        // family, line, amount
        (of_45("T4", json!({ "14": "51000" })), "10100", "51000"),
        (of_45("T4", json!({ "14": "51000", "20": "2100" })), "20700", "2100"),
        (of_45("T4", json!({ "14": "51000", "44": "640" })), "21200", "640"),
        (of_45("T4", json!({ "14": "51000", "22": "7000" })), "43700", "7000"),
        (of_45("T4", json!({ "14": "51000", "46": "300" })), "34000", "300"),
        (of_45("T4A", json!({ "016": "9000" })), "11500", "9000"),
        (of_45("T4A", json!({ "018": "900" })), "13000", "900"),
        (of_45("T4A", json!({ "028": "800" })), "13000", "800"),
        (of_45("T4A", json!({ "032": "700", "016": "9000" })), "20700", "700"),
        // Annuities before 65 stand beside interest, the others with other income; from 65 on all are pensions.
        (of_45("T4A", json!({ "024": "3000" })), "12100", "3000"),
        (of_45("T4A", json!({ "133": "3000" })), "13000", "3000"),
        (of_65("T4A", json!({ "024": "3000" })), "11500", "3000"),
        (of_65("T4A", json!({ "194": "3000" })), "11500", "3000"),
        (of_45("T4A", json!({ "024": "3000", "on_death": true })), "11500", "3000"),
        (of_65("T4A(OAS)", json!({ "18": "8500" })), "11300", "8500"),
        (of_65("T4A(OAS)", json!({ "18": "8500", "21": "1200" })), "14600", "1200"),
        (of_65("T4A(OAS)", json!({ "18": "8500", "20": "400" })), "23200", "400"),
        (of_65("T4A(P)", json!({ "20": "9900" })), "11400", "9900"),
        (of_45("T5", json!({ "13": "100", "14": "20", "15": "3", "19": "0.50" })), "12100", "123.50"),
        // Dividends are grossed up where the slip has no taxable amount: 38 % and 15 %.
        (of_45("T5", json!({ "24": "1000" })), "12000", "1380"),
        (of_45("T5", json!({ "24": "1000", "25": "1381" })), "12000", "1381"),
        (of_45("T5", json!({ "10": "1000" })), "12010", "1150"),
        (of_45("T5", json!({ "10": "1000", "24": "1000" })), "12000", "2530"),
        // Fees of a school count from over 100 on.
        (of_45("T2202", json!({ "26": "100" })).interest("ada", "40000"), "32300", "0"),
        (of_45("T2202", json!({ "26": "101" })).interest("ada", "40000"), "32300", "101"),
        (of_45("Tuition carried", json!({ "federal": "900" })).interest("ada", "40000"), "32300", "900"),
        (of_45("Tuition carried", json!({ "provincial": "800" })).interest("ada", "40000"), "58560", "800"),
    ];
    for (family, id, amount) in cases {
        let outcome = family.outcome();
        assert_eq!(line(&outcome, 0, id), money(amount), "line {id} of {}", family.0["papers"]);
    }
}

#[test]
fn boxes_that_are_not_computed_are_told_each_at_its_place() {
    let cases = [
        ("T4", &["17", "39", "43", "55", "66", "67", "77", "87"][..]),
        ("T4A", &["020", "040", "042", "048", "105"]),
        ("T4A(P)", &["17", "18"]),
        ("T5", &["16", "17", "18"]),
    ];
    for (kind, fields) in cases {
        for field in fields {
            let mut boxes = json!({});
            boxes[*field] = json!("120");
            let outcome = of_45(kind, boxes).outcome();
            let point = outcome.points.iter().find(|p| p.id.starts_with("not-covered-box:"));
            let place = point.unwrap_or_else(|| panic!("{kind} {field}")).place.field.clone();
            assert_eq!(place.as_deref(), Some(*field), "{kind}");
            assert!(!outcome.covered, "{kind} {field}");
        }
    }
}

#[test]
fn rows_count_by_their_day() {
    let gift = |date: &str, used: Value| {
        let row = json!({ "date": date, "number": "10684 1234 RR0001", "amount": "500", "used": used });
        Family::single("ON", "1980-01-01")
            .interest("ada", "60000")
            .shared("Gifts", &[("ada", "100")], json!({}), json!([row]))
            .outcome()
    };
    let claimed = |date, used| line(&gift(date, json!(used)), 0, "34000");
    assert_eq!(claimed("2025-03-01", false), money("500"));
    assert_eq!(claimed("2025-02-28", false), money("500"));
    // One of the first two months that was claimed for the year before is left out.
    assert_eq!(claimed("2025-02-28", true), money("0"));
    assert!(has_point(&gift("2026-01-01", json!(false)), "C-63"));
    let paid = |date: &str| {
        let rows = json!([{ "date": date, "plan": "own", "amount": "2000" }]);
        let family = Family::single("ON", "1980-01-01").interest("ada", "60000");
        family.shared("RRSP", &[("ada", "100")], json!({ "limit": "9000" }), rows).outcome()
    };
    // Contributions from the 61st day of the year to the 60th of the next.
    let days = [("2025-03-03", "0"), ("2025-03-04", "2000"), ("2026-03-02", "2000"), ("2026-03-03", "0")];
    for (date, expected) in days {
        assert_eq!(line(&paid(date), 0, "20800"), money(expected), "{date}");
    }
}
