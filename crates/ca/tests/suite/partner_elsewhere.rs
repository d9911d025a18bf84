//! A partner whose return is not prepared here: a few facts stand for it, and the filer's return is the one that both together
//! would have made.

use hembo_core::Outcome;
use hembo_money::Money;
use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use proptest::prelude::*;
use serde_json::json;

fn alone(province: &str, net: &str) -> Family {
    Family::of(province, "married")
        .person("ada", "filer", "1980-01-01")
        .person("bo", "dependent", "1982-02-02")
        .answer_for("bo", "relationship", json!("partner"))
        .answer_for("bo", "net_income", json!(net))
}

fn both(province: &str, net: &str) -> Family {
    Family::couple(province, ["1980-01-01", "1982-02-02"]).interest("bo", net)
}

const LINES: &[&str] = &["23600", "30300", "45300", "42000", "42800", "47900", "48500", "21400"];

fn of_first(outcome: &Outcome) -> Vec<Money> {
    LINES.iter().map(|id| line(outcome, 0, id)).collect()
}

#[test]
fn the_amount_for_a_partner_is_reduced_by_what_is_told() {
    // 16,129 in 2025.
    for (net, amount) in
        [("0", "16129"), ("6000", "10129"), ("16128.99", "0.01"), ("16129", "0"), ("90000", "0")]
    {
        let outcome = alone("AB", net).employed("ada", "60000").outcome();
        assert_lines(&outcome, 0, &[("30300", amount)]);
        assert!(outcome.covered, "{net}");
    }
}

#[test]
fn facts_of_the_partner_count_as_on_the_partners_return() {
    // Schedule 2 of the partner.
    let handed = alone("AB", "0").employed("ada", "60000").answer_for("bo", "handed_federal", json!("2000"));
    let handed = handed.answer_for("bo", "handed_provincial", json!("1500")).outcome();
    assert_lines(&handed, 0, &[("32600", "2000"), ("58640", "1500")]);
    // An infirm partner raises the amount, wherever the higher net income is.
    let infirm = alone("AB", "70000").employed("ada", "60000").answer_for("bo", "infirm", json!(true));
    assert!(infirm.outcome().total <= alone("AB", "70000").employed("ada", "60000").outcome().total);
    // The benefit counts the partner's working income, and is on one return only.
    let working =
        alone("ON", "9000").employed("ada", "12000").answer_for("bo", "working_income", json!("9000"));
    assert!(line(&working.outcome(), 0, "45300") > money("0"));
    let there = working.answer_for("bo", "benefit_elsewhere", json!(true)).outcome();
    assert_lines(&there, 0, &[("45300", "0")]);
}

#[test]
fn child_care_is_with_the_lower_income_wherever_it_is() {
    let family = |net: &str| {
        let care = json!([{ "child": "cy", "kind": "day", "amount": "6000" }]);
        alone("AB", net).child("cy", "2021-05-05").employed("ada", "60000").shared(
            "T778",
            &[("ada", "100")],
            json!({}),
            care,
        )
    };
    assert_lines(&family("80000").outcome(), 0, &[("21400", "6000")]);
    assert_lines(&family("20000").outcome(), 0, &[("21400", "0")]);
    // Four weeks of the partner at school: 200 each.
    let school = family("20000").answer_for("bo", "care_weeks", json!(4)).outcome();
    assert_lines(&school, 0, &[("21400", "800")]);
    // What the partner with the higher income claims is not claimed a second time.
    let there = family("80000").answer_for("bo", "care_elsewhere", json!("800")).outcome();
    assert_lines(&there, 0, &[("21400", "5200")]);
}

#[test]
fn what_is_missing_and_what_is_not_weighed_is_told() {
    let whole = alone("AB", "1000").employed("ada", "60000");
    assert!(has_point(&whole.outcome(), "C-8") && !has_point(&whole.outcome(), "C-7"));
    let no_income = Family::of("AB", "married").person("ada", "filer", "1980-01-01");
    assert!(has_point(&no_income.outcome(), "C-7"));
    let no_income =
        no_income.person("bo", "dependent", "1982-02-02").answer_for("bo", "relationship", json!("partner"));
    assert!(has_point(&no_income.outcome(), "C-8-income") && !has_point(&whole.outcome(), "C-8-income"));
    let split = whole.clone().answer_for("bo", "split_elsewhere", json!(true)).outcome();
    assert!(has_point(&split, "C-8-split"));
    assert!(has_point(&whole.clone().interest("bo", "5").outcome(), "C-8-paper"));
    let single = whole.clone().answer("marital", json!("single")).outcome();
    assert!(has_point(&single, "C-8-one") && !has_point(&whole.outcome(), "C-8-one"));
    let two = Family::couple("AB", ["1980-01-01"; 2]).person("cy", "dependent", "1982-02-02");
    assert!(has_point(&two.answer_for("cy", "relationship", json!("partner")).outcome(), "C-8-one"));
}

/// Pensioners of 70: 40,000 a year of an annuity with 6,000 withheld; 12,000 of it split, with 1,800 of the tax.
fn split_with(from: &str, ada_born: &str) -> Family {
    let family = Family::of("ON", "married").person("ada", "filer", ada_born);
    let family = family.person("bo", "dependent", "1955-02-02");
    let family = family.answer_for("bo", "relationship", json!("partner")).answer_for(
        "bo",
        "split_elsewhere",
        json!(true),
    );
    let net = if from == "ada" { "22000" } else { "28000" };
    let family = family.answer_for("bo", "net_income", json!(net));
    // What goes to the partner follows from what was withheld here.
    if from == "ada" { family } else { family.answer_for("bo", "split_withheld", json!("1800")) }
}

/// Both returns together with the same split held: the filer's is the same.
#[test]
fn a_split_with_a_return_that_is_not_here_is_as_on_both() {
    let pension =
        |family: Family, who: &str| family.paper("T4A", who, json!({ "016": "40000", "022": "6000" }));
    let lines =
        ["11500", "11600", "21000", "23600", "30100", "30300", "31400", "42800", "43700", "48400", "48500"];
    for (from, to, own, ada_born) in [
        ("ada", "bo", "10000", "1955-01-01"),
        ("bo", "ada", "9000", "1955-01-01"),
        ("bo", "ada", "9000", "1970-01-01"),
    ] {
        let both = Family::couple("ON", [ada_born, "1955-02-02"]).interest(to, own);
        let both = pension(both, from).pin("ca.split", from).pin("ca.split.amount", "12000").outcome();
        let told = if from == "ada" { "split_given" } else { "split_received" };
        let handed = |id: &str| json!(line(&both, 0, id).to_string());
        let here = split_with(from, ada_born)
            .answer_for("bo", told, json!("12000"))
            .answer_for("bo", "handed_federal", handed("32600"))
            .answer_for("bo", "handed_provincial", handed("58640"));
        let here = if from == "ada" {
            pension(here, "ada")
        } else {
            here.answer_for("bo", "split_annuity", json!("12000")).interest("ada", own)
        };
        let here = here.outcome();
        for id in lines {
            assert_eq!(line(&here, 0, id), line(&both, 0, id), "{id}, from {from}, {ada_born}");
        }
        assert!(here.covered, "{:?}", here.points);
    }
}

/// A child's own return has no part of it.
#[test]
fn a_split_with_a_return_that_is_not_here_is_the_filers_alone() {
    let family = split_with("ada", "1955-01-01").answer_for("bo", "split_given", json!("12000"));
    let family = family.paper("T4A", "ada", json!({ "016": "40000", "022": "6000" }));
    let outcome = family.child("cy", "2009-05-05").interest("cy", "500").outcome();
    assert_lines(&outcome, 0, &[("21000", "12000"), ("43700", "4200")]);
    assert_lines(&outcome, 1, &[("21000", "0"), ("23600", "500"), ("43700", "0")]);
}

#[test]
fn a_split_with_a_return_that_is_not_here_has_the_laws_limits() {
    let family = |given: &str, withheld: &str| {
        let family =
            split_with("ada", "1955-01-01").paper("T4A", "ada", json!({ "016": "40000", "022": "6000" }));
        family.answer_for("bo", "split_given", json!(given)).answer_for(
            "bo",
            "split_withheld",
            json!(withheld),
        )
    };
    for (given, withheld, received, annuity, points) in [
        ("20000", "0", "0", "0", &[][..]),
        ("20000.01", "0", "0", "0", &["C-8-split-most"]),
        ("20000", "0.01", "0", "0", &["C-8-split-parts"]),
        ("0", "0", "0", "0", &["C-8-split"]),
        ("1", "0", "1", "0", &["C-8-split"]),
        ("0", "15", "100", "100", &[]),
        ("0", "0", "100", "100.01", &["C-8-split-parts"]),
    ] {
        let family = family(given, withheld).answer_for("bo", "split_received", json!(received));
        let outcome = family.answer_for("bo", "split_annuity", json!(annuity)).outcome();
        for code in ["C-8-split", "C-8-split-most", "C-8-split-parts"] {
            assert_eq!(
                has_point(&outcome, code),
                points.contains(&code),
                "{code} {given} {withheld} {received}"
            );
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    /// A partner with interest alone has nothing to hand over and nothing to weigh: the filer's return is the same with
    /// the partner's beside it, but for what a couple decides.
    #[test]
    fn the_filers_return_is_that_of_the_couple(
        province in prop::sample::select(vec!["ON", "AB", "MB", "NS", "PE", "NB", "YT"]),
        own in 0_i64..120_000,
        net in 30_000_i64..120_000,
        child in any::<bool>(),
    ) {
        let (own, net) = (own.to_string(), net.to_string());
        let with_child = |family: Family| {
            let family = family.employed("ada", &own);
            if !child { return family; }
            let care = json!([{ "child": "cy", "kind": "day", "amount": "4000" }]);
            family.child("cy", "2021-05-05").shared("T778", &[("ada", "100")], json!({}), care)
        };
        let here = with_child(alone(province, &net)).outcome();
        let beside = with_child(both(province, &net)).outcome();
        prop_assert_eq!(of_first(&here), of_first(&beside));
    }
}
