//! Amounts for people with an impairment and for relatives, at their thresholds.

use hembo_testing::ca::{Family, assert_lines, line, money};
use serde_json::json;

fn parent_of(province: &str, born: &str, net: &str) -> Family {
    let family = Family::single(province, "1980-01-01").interest("ada", "80000");
    let family = family.person("pa", "dependent", born).answer_for("pa", "relationship", json!("parent"));
    family.answer_for("pa", "net_income", json!(net)).answer_for("ada", "maintains_home", json!(false))
}

#[test]
fn the_amount_for_an_infirm_adult_shrinks_with_net_income() {
    for (net, federal, ontario, british_columbia) in [
        ("0", "8601", "6007", "5659"),
        ("19151", "8601", "6007", "5659"),
        ("19152", "8601", "6007", "5658"),
        ("20197", "8601", "6007", "4613"),
        ("20198", "8600", "6007", "4612"),
        ("20557", "8241", "6006", "4253"),
        ("28797", "1", "0", "0"),
        ("28798", "0", "0", "0"),
    ] {
        for (province, amount) in [("ON", ontario), ("BC", british_columbia)] {
            let outcome =
                parent_of(province, "1950-01-01", net).answer_for("pa", "infirm", json!(true)).outcome();
            assert_lines(&outcome, 0, &[("30450", federal), ("58400", amount), ("30400", "0")]);
        }
    }
    // Someone who is no relative counts for nothing, and nobody does without an infirmity.
    let stranger = parent_of("ON", "1950-01-01", "0").answer_for("pa", "relationship", json!("other"));
    assert_lines(&stranger.answer_for("pa", "infirm", json!(true)).outcome(), 0, &[("30450", "0")]);
    assert_lines(&parent_of("ON", "1950-01-01", "0").outcome(), 0, &[("30450", "0"), ("58400", "0")]);
}

#[test]
fn an_infirm_partner_adds_to_the_amount_or_has_one_of_its_own() {
    for (net, spouse, topped) in [
        ("0", "18816", "0"),
        ("10215", "8601", "0"),
        ("10216", "8600", "1"),
        ("18815", "1", "8600"),
        ("18816", "0", "8601"),
        ("20197", "0", "8601"),
        ("28797", "0", "1"),
    ] {
        let family = Family::couple("ON", ["1980-01-01", "1980-01-01"]).interest("ada", "80000");
        let family = family.interest("bo", net).answer_for("bo", "infirm", json!(true));
        assert_lines(&family.outcome(), 0, &[("30300", spouse), ("30425", topped)]);
    }
}

#[test]
fn the_eligible_dependant_is_the_one_that_costs_least() {
    // A child and an infirm parent: the child as eligible dependant leaves 8,601 for the parent.
    let family = parent_of("ON", "1950-01-01", "0").answer_for("pa", "infirm", json!(true));
    let family = family.child("cy", "2015-01-01").answer_for("ada", "maintains_home", json!(true));
    assert_lines(&family.clone().outcome(), 0, &[("30400", "16129"), ("30450", "8601"), ("30425", "0")]);
    let pinned = family.pin("ca.dependant", "pa").outcome();
    assert_lines(&pinned, 0, &[("30400", "18816"), ("30450", "0"), ("30425", "0")]);
    // An own infirm child under 18 has line 30500 beside line 30400; an infirm grandchild adds to it.
    for (relationship, dependant, children) in [("child", "16129", "2687"), ("grandchild", "18816", "0")] {
        let family =
            Family::of("ON", "divorced").person("ada", "filer", "1970-01-01").child("cy", "2015-01-01");
        let family = family.answer_for("cy", "relationship", json!(relationship)).interest("ada", "80000");
        let family =
            family.answer_for("cy", "infirm", json!(true)).answer_for("ada", "maintains_home", json!(true));
        assert_lines(&family.outcome(), 0, &[("30400", dependant), ("30500", children)]);
    }
}

#[test]
fn what_a_child_does_not_need_of_the_disability_amount_is_transferred() {
    // 10,138 and the supplement of 5,914 less care above 3,464; needed is what is above it and the basic amount of 16,129.
    let child = |net: &str, care: &str| {
        let family = Family::couple("ON", ["1980-01-01", "1980-01-01"])
            .interest("ada", "80000")
            .child("cy", "2015-01-01");
        let family =
            family.answer_for("cy", "disability", json!(true)).answer_for("cy", "attendant", json!(false));
        family
            .answer_for("cy", "net_income", json!(net))
            .answer_for("cy", "care_claimed", json!(care))
            .outcome()
    };
    for (net, care, amount) in [
        ("0", "0", "16052"),
        ("0", "3464", "16052"),
        ("0", "3465", "16051"),
        ("0", "9378", "10138"),
        ("0", "12000", "10138"),
        ("16129", "0", "16052"),
        ("16130", "0", "16051"),
        ("32181", "0", "0"),
    ] {
        assert_eq!(line(&child(net, care), 0, "31800"), money(amount), "{net} {care}");
    }
    // Ontario: 10,298 + 6,007, less care above 3,518.
    assert_lines(&child("0", "3519"), 0, &[("58480", "16304")]);
    // One's own, and what of it a partner does not need.
    let family =
        Family::couple("ON", ["1980-01-01", "1980-01-01"]).interest("ada", "80000").interest("bo", "20000");
    let outcome = family.answer_for("bo", "disability", json!(true)).outcome();
    assert_lines(&outcome, 1, &[("31600", "10138")]);
    // 10,138 less the 3,871 of income that the basic amount leaves.
    assert_lines(&outcome, 0, &[("32600", "6267")]);
    let cared = Family::single("ON", "1980-01-01").interest("ada", "80000").answer_for(
        "ada",
        "disability",
        json!(true),
    );
    assert_lines(&cared.answer_for("ada", "attendant", json!(true)).outcome(), 0, &[("31600", "0")]);
}

#[test]
fn employment_insurance_is_repaid_above_the_threshold() {
    // 30 % of the lesser of regular benefits and income above 82,125.
    let insured = |other: &str, rate: i64| {
        let family = Family::single("ON", "1980-01-01").paper("T4A", "ada", json!({ "028": other }));
        family.paper("T4E", "ada", json!({ "14": "10000", "15": "10000", "7": rate })).outcome()
    };
    for (other, rate, repaid) in [
        ("72125", 30, "0.00"),
        ("72126", 30, "0.30"),
        ("82125", 30, "3000.00"),
        ("95000", 30, "3000.00"),
        ("95000", 0, "0.00"),
    ] {
        assert_lines(&insured(other, rate), 0, &[("23500", repaid), ("42200", repaid)]);
    }
}

#[test]
fn the_disability_supplement_of_the_workers_benefit() {
    // 27 % of 10,850 is more than 843; the basic benefit is at its most of 1,633.
    let worker = |pay: &str| {
        let family = Family::single("ON", "1980-01-01").paper("T4", "ada", json!({ "14": pay }));
        family.answer_for("ada", "disability", json!(true)).outcome()
    };
    assert_lines(&worker("12000"), 0, &[("45300", "2476.00")]);
    for (pay, supplement) in
        [("1150", "0.00"), ("1160", "2.70"), ("37740", "843.00"), ("37840", "828.00"), ("43360", "0.00")]
    {
        assert_lines(&worker(pay), 0, &[("workers.disability", supplement)]);
    }
}

#[test]
fn a_fund_a_trade_and_a_house_by_their_papers() {
    let trade = json!([
        { "what": "Line", "kind": "full", "amount": "2000" },
        { "what": "Meals", "kind": "meals", "amount": "500" },
        { "what": "Room", "kind": "home", "amount": "9000" },
    ]);
    // 12,000 − 3,000 − 2,000 − 250 leaves 6,750 for the room; 2,250 of it are kept.
    let family = Family::single("ON", "1980-01-01").interest("ada", "60000");
    let outcome = family
        .clone()
        .shared("T2125", &[("ada", "100")], json!({ "gross": "12000", "goods": "3000" }), trade)
        .outcome();
    assert_lines(&outcome, 0, &[("13500", "0"), ("t2125.home", "2250"), ("42100", "0")]);
    // Capital cost makes no loss of rents; each owner has a half.
    let couple = Family::couple("ON", ["1980-01-01", "1980-01-01"]).interest("ada", "60000");
    let spent = json!([{ "what": "Repairs", "amount": "8000" }]);
    let house = couple.shared(
        "T776",
        &[("ada", "50"), ("bo", "50")],
        json!({ "gross": "10000", "cca": "5000" }),
        spent,
    );
    assert_lines(&house.outcome(), 0, &[("12600", "0")]);
    // A gift to a party of 1,275 brings 650, of 1,276 no more.
    for (given, credit) in [("400", "300"), ("750", "475"), ("1275", "650"), ("1276", "650")] {
        let outcome = family.clone().paper("Other credits", "ada", json!({ "parties": given })).outcome();
        assert_lines(&outcome, 0, &[("41000", credit)]);
    }
    // 15 % of at most 5,000 of a labour-sponsored fund; nothing is left of it where there is less tax.
    for (cost, credit) in [("4999", "749.85"), ("5000", "750"), ("5001", "750")] {
        let outcome = family.clone().paper("Other credits", "ada", json!({ "labour": cost })).outcome();
        assert_lines(&outcome, 0, &[("41400", credit)]);
        assert!(outcome.points.iter().all(|point| point.code() != "sums-apart"));
    }
    let little = Family::single("ON", "1980-01-01").interest("ada", "17000");
    let little = little.paper("Other credits", "ada", json!({ "parties": "40", "labour": "5000" })).outcome();
    let left = line(&little, 0, "40600") - line(&little, 0, "41000");
    assert!(left > money("90") && line(&little, 0, "41400") == left && line(&little, 0, "41700").is_zero());
    let bought =
        family.clone().paper("Home credits", "ada", json!({ "home": true, "access": "20001" })).outcome();
    assert_lines(&bought, 0, &[("31270", "10000"), ("31285", "20000"), ("home.claimed", "30000")]);
    let teacher =
        family.paper("Other credits", "ada", json!({ "supplies": "1001", "work": "50001" })).outcome();
    assert_lines(&teacher, 0, &[("46900", "250"), ("45355", "7250")]);
}
