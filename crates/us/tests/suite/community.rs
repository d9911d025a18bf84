//! Separate returns in community property states (§66; Form 8958), worked by hand.

use hembo_testing::us::{Family, has_point, line, line_of};
use serde_json::{Value, json};

fn couple(state: &str) -> Family {
    let family = Family::couple(2025).answer("state", json!(state)).answer("community_all_year", json!(true));
    family.pin("us.status", "separate").pin("us.deduction", "standard")
}

/// Both returns, ada's first.
fn both(family: &Family, id: &str) -> (i64, i64) {
    let outcome = family.outcome();
    (line_of(&outcome, id, "return/0"), line_of(&outcome, id, "return/1"))
}

/// Wages and what was withheld from them by half; payroll taxes stay with the one who earned them.
#[test]
fn wages_by_half() {
    let family = couple("CA").wages_with("ada", 260_000, json!({ "2": "50000" })).wages("bo", 20_000);
    assert_eq!(both(&family, "us.1a"), (140_000, 140_000));
    assert_eq!(both(&family, "us.25a"), (25_000, 25_000));
    assert_eq!(both(&family, "us.8958.1"), (280_000, 280_000));
    assert_eq!(both(&family, "us.8958.12"), (50_000, 50_000));
    assert_eq!(both(&family, "us.8959.1"), (260_000, 20_000));
    // .9 % of 135,000, all of it ada's.
    assert_eq!(both(&family, "us.8959.18"), (1_215, 0));
    assert!(family.outcome().covered && has_point(&family.outcome(), "K-033"));
    // Where the state does not divide, neither does the return.
    let elsewhere = couple("OH").wages("ada", 260_000).wages("bo", 20_000);
    assert_eq!(both(&elsewhere, "us.1a"), (260_000, 20_000));
    // The joint return is what it is anywhere.
    let joint = |state: &str| {
        line(&couple(state).wages("ada", 90_000).pin("us.status", "joint").outcome(), "us.net_tax")
    };
    assert_eq!(joint("CA"), joint("OH"));
}

/// What property brings: of both unless it is of one alone, and in Texas of both even then; a gain on it is not.
#[test]
fn property_by_owner_or_by_half() {
    let with = |state: &str, separate: bool| {
        couple(state)
            .paper("1099-INT", &["ada"], json!({ "1": "1000", "separate": separate }), json!(null))
            .paper(
                "1099-DIV",
                &["ada"],
                json!({ "1a": "2000", "1b": "1000", "separate": separate }),
                json!(null),
            )
            .paper(
                "1099-B",
                &["ada"],
                json!({ "separate": separate }),
                json!([{ "term": "long", "proceeds": "900", "basis": "100" }]),
            )
    };
    for (state, separate, interest, dividends, gain) in [
        ("CA", false, (500, 500), (1_000, 1_000), (400, 400)),
        ("CA", true, (1_000, 0), (2_000, 0), (800, 0)),
        ("TX", false, (500, 500), (1_000, 1_000), (400, 400)),
        ("TX", true, (500, 500), (1_000, 1_000), (800, 0)),
        ("OH", false, (1_000, 0), (2_000, 0), (800, 0)),
    ] {
        let family = with(state, separate);
        assert_eq!(both(&family, "us.2b"), interest, "{state} {separate}");
        assert_eq!(both(&family, "us.3b"), dividends, "{state} {separate}");
        assert_eq!(both(&family, "us.7"), gain, "{state} {separate}");
    }
}

/// Half of the profit each; the self-employment tax is of the one who runs the business, and so is what belongs to it.
#[test]
fn a_business_by_half() {
    let business = json!({ "1": "60000", "participates": true, "service": false });
    let family = couple("CA").paper("Schedule C", &["ada"], business, json!(null));
    assert_eq!(both(&family, "us.sched_1.3"), (30_000, 30_000));
    // 60,000 × .9235 = 55,410: 6,871 and 1,607.
    assert_eq!(both(&family, "us.sched_2.4"), (8_478, 0));
    assert_eq!(both(&family, "us.agi"), (25_761, 30_000));
    assert_eq!(both(&family, "us.8995.2"), (25_761, 30_000));
    assert_eq!(both(&family, "us.13a"), (2_002, 2_850));
    let two = couple("CA")
        .paper("Schedule C", &["ada"], json!({ "1": "60000", "feet": 100, "office": "900" }), json!(null))
        .paper("Schedule C", &["bo"], json!({ "1": "10001", "participates": true }), json!(null));
    assert_eq!(both(&two, "us.sched_1.3"), (34_551, 34_551)); // 29,550 and 5,000.50 each
    assert!(!has_point(&two.outcome(), "business-two"));
}

/// Pensions are of both, IRAs and social security of their owner (§408(g)).
#[test]
fn pensions_and_accounts() {
    let family = couple("WA")
        .paper("1099-R", &["ada"], json!({ "1": "10000", "2a": "8000", "7": "7", "4": "900" }), json!(null))
        .paper("1099-R", &["bo"], json!({ "1": "6000", "2a": "6000", "7": "7", "7.ira": true }), json!(null))
        .paper("SSA-1099", &["bo"], json!({ "5": "12000" }), json!(null));
    assert_eq!(both(&family, "us.5b"), (4_000, 4_000));
    assert_eq!(both(&family, "us.25b"), (450, 450));
    assert_eq!(both(&family, "us.4b"), (0, 6_000));
    assert_eq!(both(&family, "us.6a"), (0, 12_000));
}

/// What was earned counts for the child's credit with the one who earned it (§24(d)).
#[test]
fn earned_income_is_the_own() {
    let family = |claimer: &str| {
        couple("CA").wages("ada", 20_000).child("kim", "2015-05-05").pin("us.claim.kim", claimer)
    };
    // 15 % of what 20,000 is above 2,500 allows the 1,700 of a child.
    assert_eq!(both(&family("ada"), "us.28"), (1_700, 0));
    assert_eq!(both(&family("bo"), "us.28"), (0, 0));
}

/// Deductions paid out of what belongs to both: by half (Pub. 555).
#[test]
fn deductions_by_half() {
    let family = couple("AZ")
        .pin("us.deduction", "itemized")
        .wages("ada", 200_000)
        .loan(&["ada"], 12_000, 300_000)
        .property_tax(&["bo"], 7_001)
        .cash_gift(&["ada"], 3_000);
    assert_eq!(both(&family, "us.sched_a.8e"), (6_000, 6_000));
    assert_eq!(both(&family, "us.sched_a.5b"), (3_501, 3_501)); // 3,500.50
    assert_eq!(both(&family, "us.sched_a.14"), (1_500, 1_500));
}

/// Spouses who lived apart all year and passed nothing on report their own earnings (§66(a)).
#[test]
fn apart_all_year() {
    let base = couple("CA").answer("apart", json!(true)).answer("apart_all_year", json!(true));
    let with = |family: Family| family.wages("ada", 90_000).wages("bo", 10_000).interest(&["ada"], 1_000);
    let own = with(base.clone().answer("earnings_transferred", json!(false)));
    assert_eq!(both(&own, "us.1a"), (90_000, 10_000));
    assert_eq!(both(&own, "us.2b"), (500, 500));
    let passed_on = with(base.clone().answer("earnings_transferred", json!(true)));
    assert_eq!(both(&passed_on, "us.1a"), (50_000, 50_000));
    assert!(
        !has_point(&own.outcome(), "K-030-transferred")
            && has_point(&with(base).outcome(), "K-030-transferred")
    );
    let half = with(couple("CA").answer("apart", json!(true)));
    assert!(has_point(&half.outcome(), "K-030-apart") && !half.outcome().covered);
}

#[test]
fn what_decides_is_asked() {
    let unsaid = |answer: Value| {
        Family::couple(2025)
            .answer("state", json!("NM"))
            .answer("community_all_year", answer)
            .wages("ada", 90_000)
    };
    for family in
        [unsaid(json!(false)), Family::couple(2025).answer("state", json!("NM")).wages("ada", 90_000)]
    {
        let outcome = family.outcome();
        assert!(has_point(&outcome, "K-030") && !outcome.covered);
    }
    assert!(unsaid(json!(true)).outcome().covered);
    let pair = |partners: Value| {
        let family = Family::couple(2025).answer("marital", json!("single")).answer("state", json!("NV"));
        family.answer("registered_partners", partners).wages("ada", 90_000).wages("bo", 9_000).outcome()
    };
    assert!(pair(json!(false)).covered && !pair(json!(true)).covered);
    // What is not divided yet blocks: excess deferrals.
    let excess =
        couple("CA").wages_with("ada", 90_000, json!({ "12a": "D", "12a.amount": "24000" })).outcome();
    assert!(has_point(&excess, "K-030-wages") && !excess.covered);
}
