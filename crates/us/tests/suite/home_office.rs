//! Offices in the home by their actual cost (§280A(c); Form 8829), worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

/// A tenth of the home: 1,200 of interest, 600 of tax, 500 + 300 to run it, and 30,000 × 24/936 = 769 of depreciation.
fn office(gross: i64, more: Value) -> Family {
    let mut boxes = json!({
        "1": 200, "2": 2_000, "10": "12000", "11": "6000", "18": "1500", "20": "500", "21": "3000", "direct": "300",
        "37": "400000", "38": "100000", "since": "2020-05-01",
    });
    for (key, value) in more.as_object().unwrap() {
        boxes[key] = value.clone();
    }
    boxes.as_object_mut().unwrap().retain(|_, value| !value.is_null());
    let business = json!({ "1": gross.to_string(), "participates": true, "service": false });
    let family = Family::single(2025).loan(&["ada"], 12_000, 300_000).property_tax(&["ada"], 6_000);
    family.paper("Schedule C", &["ada"], business, json!(null)).paper("8829", &["ada"], boxes, json!(null))
}

fn of_ada(family: &Family, id: &str) -> i64 {
    line_of(&family.outcome(), id, "person/ada")
}

/// With the standard deduction interest and tax are among the running expenses.
#[test]
fn with_the_standard_deduction() {
    for (gross, running, depreciated, allowed, carried, carried_depreciation) in [
        (60_000, 2_600, 769, 3_369, 0, 0),
        (3_369, 2_600, 769, 3_369, 0, 0),
        (3_368, 2_600, 768, 3_368, 0, 1),
        (2_600, 2_600, 0, 2_600, 0, 769),
        (2_000, 2_000, 0, 2_000, 600, 769),
    ] {
        let family = office(gross, json!({})).pin("us.deduction", "standard");
        let lines = [
            ("us.8829.14", 0),
            ("us.8829.27", running),
            ("us.8829.33", depreciated),
            ("us.8829.36", allowed),
            ("us.8829.43", carried),
            ("us.8829.44", carried_depreciation),
        ];
        for (id, amount) in lines {
            assert_eq!(of_ada(&family, id), amount, "{gross} {id}");
        }
        assert_eq!(line(&family.outcome(), "us.sched_1.3"), gross - allowed);
        assert!(family.outcome().covered);
    }
}

/// Where the return itemizes they come first, whatever the business earns, and are taken off Schedule A.
#[test]
fn where_the_return_itemizes() {
    for (gross, running, depreciated, profit, carried) in [
        (60_000, 800, 769, 56_631, 0),
        (2_700, 800, 100, 0, 0),
        (2_000, 200, 0, 0, 600),
        (1_500, 0, 0, -300, 800),
    ] {
        let family = office(gross, json!({})).pin("us.deduction", "itemized");
        let outcome = family.outcome();
        assert_lines(
            &outcome,
            &[("us.sched_a.8a", 10_800), ("us.sched_a.5b", 5_400), ("us.sched_1.3", profit)],
        );
        for (id, amount) in [
            ("us.8829.14", 1_800),
            ("us.8829.27", running),
            ("us.8829.33", depreciated),
            ("us.8829.43", carried),
            ("us.8829.44", 769 - depreciated),
        ] {
            assert_eq!(line_of(&outcome, id, "person/ada"), amount, "{gross} {id}");
        }
        assert_eq!(has_point(&outcome, "8829-17"), depreciated < 769);
    }
}

/// The simplified method leaves Schedule A whole; both are weighed.
#[test]
fn both_methods_are_weighed() {
    let mut family = office(60_000, json!({})).pin("us.deduction", "itemized");
    family.0["papers"][2]["boxes"]["feet"] = json!(200);
    let outcome = family.outcome();
    assert_eq!(line(&outcome, "us.sched_1.3"), 56_631);
    let decision = outcome.decisions.iter().find(|d| d.id.starts_with("us.home_office")).unwrap();
    let simple = family.clone().pin(&decision.id, "simple").outcome();
    assert_lines(&simple, &[("us.sched_1.3", 59_000), ("us.sched_a.8a", 12_000), ("us.sched_a.5b", 6_000)]);
    let filed = |outcome: &hembo_core::Outcome| {
        outcome.schedules[0].forms.iter().any(|form| form.id == "8829" && form.required)
    };
    assert!(filed(&outcome) && !filed(&simple));
}

/// The first year counts from the middle of its month; what was carried here is added.
#[test]
fn the_first_year_and_what_was_carried() {
    let family = |more: Value| office(60_000, more).pin("us.deduction", "standard");
    for (since, written_off) in
        [("2025-12-15", 32), ("2025-01-01", 737), ("2024-12-31", 769), ("1985-06-01", 0)]
    {
        assert_eq!(of_ada(&family(json!({ "since": since })), "us.8829.33"), written_off, "{since}");
    }
    let carried = family(json!({ "25": "400", "31": "100" }));
    assert_eq!((of_ada(&carried, "us.8829.27"), of_ada(&carried, "us.8829.33")), (3_000, 869));
}

#[test]
fn what_the_form_must_tell() {
    let raises = |family: Family, code: &str| has_point(&family.outcome(), code);
    // 12,000 of interest on Form 1098; the office's tenth of more than 120,000 is more.
    let interest = |amount: &str| office(60_000, json!({ "10": amount })).pin("us.deduction", "itemized");
    assert!(!raises(interest("120000"), "8829-10") && raises(interest("120010"), "8829-10"));
    assert!(raises(office(60_000, json!({ "2": null })), "8829-area"));
    assert!(raises(office(60_000, json!({ "1": 2_001 })), "8829-area"));
    assert!(raises(office(60_000, json!({ "37": null })), "8829-37"));
    assert!(!raises(office(60_000, json!({ "37": null, "19": "9000" })), "8829-37"));
    assert!(raises(
        Family::single(2025).paper("8829", &["ada"], json!({ "1": 1, "2": 2 }), json!(null)),
        "8829-business"
    ));
    let boxes = json!({ "1": "900", "participates": true, "service": false });
    let two = office(60_000, json!({})).paper("Schedule C", &["ada"], boxes, json!(null)).outcome();
    assert!(has_point(&two, "8829-several") && !two.covered);
}
