//! The year of a separation: the amount for the former partner, or support paid.

use hembo_core::Outcome;
use hembo_testing::ca::{Family, assert_lines, has_point};
use serde_json::json;

fn separated(since: &str, former: Option<&str>) -> Family {
    let family = Family::of("AB", "separated").person("ada", "filer", "1980-01-01").interest("ada", "80000");
    let family = family.paper("Support", "ada", json!({ "paid": "5000", "agreement": true }));
    let family = family.answer("separated_on", json!(since));
    former.map_or(family.clone(), |net| family.answer("former_net", json!(net)))
}

fn claims(outcome: &Outcome, support: &str, partner: &str, provincial: &str) {
    assert_lines(outcome, 0, &[("22000", support), ("30300", partner), ("58120", provincial)]);
}

/// Worked by hand, Alberta 2025: 5,000 at 30.5 % is 1,525.00. The amount: 16,129 and 22,323 less the net income of until then, at 14.5 %
/// and 8 %; with 6,000 it is 2,774.54, with 16,000 only 524.54.
#[test]
fn the_better_of_both() {
    claims(&separated("2025-06-01", Some("6000")).outcome(), "0", "10129", "16323");
    claims(&separated("2025-06-01", Some("16000")).outcome(), "5000", "0", "0");
    let held = separated("2025-06-01", Some("6000")).pin("ca.separation", "support").outcome();
    claims(&held, "5000", "0", "0");
    assert_eq!((held.total - held.lowest).cents(), 277_454 - 152_500);
}

#[test]
fn only_in_its_year_and_with_a_net_income() {
    for (since, former, asked, support) in [
        ("2025-01-01", Some("6000"), false, "0"),
        ("2024-12-31", Some("6000"), false, "5000"),
        ("2025-01-01", None, true, "5000"),
        ("2024-12-31", None, false, "5000"),
    ] {
        let outcome = separated(since, former).outcome();
        assert_eq!(has_point(&outcome, "C-13"), asked, "{since} {former:?}");
        assert_lines(&outcome, 0, &[("22000", support)]);
    }
}

/// The amount for the former partner leaves none for a child.
#[test]
fn not_beside_an_eligible_dependant() {
    let family = separated("2025-06-01", Some("0")).child("cy", "2015-01-01").answer_for(
        "ada",
        "maintains_home",
        json!(true),
    );
    let child = family.clone().pin("ca.separation", "support").outcome();
    assert_lines(&child, 0, &[("30300", "0"), ("30400", "16129"), ("22000", "5000")]);
    let partner = family.clone().pin("ca.separation", "partner").outcome();
    assert_lines(&partner, 0, &[("30300", "16129"), ("30400", "0"), ("22000", "0")]);
    assert_eq!(family.outcome().total, child.total);
}
