//! The rarer adjustments of Schedule 1, and the other income that they go with, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

fn adjusted(family: Family, who: &str, rows: Value) -> Family {
    family.paper("Other adjustments", &[who], json!({}), rows)
}

fn income(family: Family, sort: &str, amount: &str) -> Family {
    family.paper("Other income", &["ada"], json!({}), json!([{ "sort": sort, "amount": amount }]))
}

#[test]
fn each_stands_on_its_line() {
    for (sort, id) in [
        ("official", "us.sched_1.12"),
        ("personal_property", "us.sched_1.24b"),
        ("reforestation", "us.sched_1.24d"),
        ("unemployment", "us.sched_1.24e"),
        ("chaplain", "us.sched_1.24g"),
        ("discrimination", "us.sched_1.24h"),
        ("whistleblower", "us.sched_1.24i"),
        ("trust", "us.sched_1.24k"),
    ] {
        let rows = json!([
            { "sort": sort, "amount": "700.40", "award": "700.40" },
            { "sort": sort, "amount": "300.40", "award": "9000" },
        ]);
        let outcome = adjusted(Family::single(2025).wages("ada", 60_000), "ada", rows).outcome();
        assert_lines(&outcome, &[(id, 1_001), ("us.agi", 58_999)]);
        assert!(outcome.covered);
    }
    for (sort, most) in [("discrimination", 700), ("whistleblower", 700), ("trust", 900)] {
        let rows = json!([{ "sort": sort, "amount": "900", "award": "700" }]);
        let outcome = adjusted(Family::single(2025).wages("ada", 60_000), "ada", rows).outcome();
        assert_eq!(line(&outcome, "us.agi"), 60_000 - most, "{sort}");
        let rows = json!([{ "sort": sort, "amount": "900" }]);
        let outcome = adjusted(Family::single(2025).wages("ada", 60_000), "ada", rows).outcome();
        assert_eq!(has_point(&outcome, "adjustment-award"), sort != "trust");
    }
    let artist =
        adjusted(Family::single(2025), "ada", json!([{ "sort": "artist", "amount": "1" }])).outcome();
    assert!(has_point(&artist, "2106-artist") && !artist.covered);
    assert!(has_point(
        &adjusted(Family::single(2025), "ada", json!([{ "amount": "1" }])).outcome(),
        "adjustment-sort"
    ));
    // On a joint return each spouse's part is told.
    let pair = Family::couple(2025).wages("ada", 60_000);
    let outcome = adjusted(pair, "bo", json!([{ "sort": "trust", "amount": "900" }])).outcome();
    assert_eq!(
        (line(&outcome, "us.agi"), line_of(&outcome, "us.other_adjustments.of", "person/bo")),
        (59_100, 900)
    );
}

/// Rent of personal property less its expenses is net investment income, and counts against the earned income credit.
#[test]
fn rent_of_personal_property() {
    let family = income(Family::single(2025).wages("ada", 210_000), "personal_property", "9000");
    let outcome =
        adjusted(family, "ada", json!([{ "sort": "personal_property", "amount": "4000" }])).outcome();
    // 215,000 − 200,000 is more than 5,000: 3.8 % of these.
    assert_lines(&outcome, &[("us.sched_1.8l", 9_000), ("us.agi", 215_000), ("us.8960.17", 190)]);
    let poor = |rent: &str| {
        let family = Family::single(2025).wages("ada", 9_000).child("kim", "2015-05-05");
        let family = income(family, "personal_property", rent);
        adjusted(family, "ada", json!([{ "sort": "personal_property", "amount": "50" }])).outcome()
    };
    assert!(line(&poor("12000"), "us.27a") > 0); // 11,950
    assert_eq!(line(&poor("12001"), "us.27a"), 0);
}

/// Pay earned in prison is no earned income.
#[test]
fn pay_earned_in_prison() {
    let family =
        income(Family::single(2025).wages("ada", 5_000).child("kim", "2015-05-05"), "prison", "2000");
    // Earnings of 5,000, not of 7,000: 34 % of 5,025 is 1,708.50, and 15 % of 2,500.
    assert_lines(
        &family.outcome(),
        &[("us.sched_1.8u", 2_000), ("us.agi", 7_000), ("us.27a", 1_709), ("us.28", 375)],
    );
}
