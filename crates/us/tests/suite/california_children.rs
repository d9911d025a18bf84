//! Dependents' own returns of California, and FTB 3800: worked by hand from the law.

use hembo_core::Outcome;
use hembo_testing::us::{Family, has_point, line_of};
use serde_json::{Value, json};

/// A couple with taxable income of 120,000 in California, whose tax is 4,368, and a child of fifteen with a return of its own.
fn family() -> Family {
    let wages = json!({ "15": "CA", "16": "131412", "17": "1" });
    let family = Family::couple(2025).in_california().wages_with("ada", 131_412, wages);
    family.child("kim", "2010-05-05").pin("us.child_income.kim", "own")
}

fn assert_lines(outcome: &Outcome, place: usize, expected: &[(&str, i64)]) {
    for (line, amount) in expected {
        let ours = line_of(outcome, &format!("us.ca.{line}"), &format!("return/{place}"));
        assert_eq!(ours, *amount, "{line} of {place}");
    }
}

fn has_line(outcome: &Outcome, place: usize, line: &str) -> bool {
    let (id, scope) = (format!("us.ca.{line}"), format!("return/{place}"));
    outcome.lines.iter().any(|of| of.id == id && of.scope == scope)
}

/// 3,300 of 6,000 at the parents' eight per cent: 264; 1,350 at the child's one per cent: 13. At its own rates it would be 46.
#[test]
fn a_child_at_the_parents_rates() {
    let outcome = family().interest(&["kim"], 6_000).outcome();
    assert!(outcome.covered, "{:?}", outcome.points);
    assert_lines(&outcome, 0, &[("540.19", 120_000), ("540.31", 4_368)]);
    let expected = [
        ("540.13", 6_000),
        ("540.18", 1_350),
        ("540.19", 4_650),
        ("3800.1", 6_000),
        ("3800.5", 3_300),
        ("3800.9", 4_632),
        ("3800.13", 264),
        ("3800.15", 13),
        ("540.31", 277),
        ("540.32", 0),
        ("net_tax", 277),
    ];
    assert_lines(&outcome, 1, &expected);
    // Without anything above the limit there is no such form; with a dollar of it the own rates are more: 14 on 1,351.
    let outcome = family().interest(&["kim"], 2_700).outcome();
    assert_lines(&outcome, 1, &[("540.31", 13)]);
    assert!(!has_line(&outcome, 1, "3800.18"));
    let outcome = family().interest(&["kim"], 2_701).outcome();
    assert_lines(&outcome, 1, &[("3800.5", 1), ("3800.13", 0), ("3800.15", 13), ("540.31", 14)]);
}

/// Interest of the United States is not taxed here: 1,300 of 4,000 at the parents' rates, 104, and 13.
#[test]
fn by_the_amounts_of_california() {
    let boxes = json!({ "1": "4000", "3": "2000" });
    let outcome = family().paper("1099-INT", &["kim"], boxes, Value::Null).outcome();
    let expected =
        [("540.17", 4_000), ("3800.1", 4_000), ("3800.5", 1_300), ("3800.13", 104), ("540.31", 117)];
    assert_lines(&outcome, 1, &expected);
}

/// 3,300 and 2,000 add 424 to the parents' tax: 264 and 160.
#[test]
fn brothers_and_sisters_share() {
    let both = family().child("lea", "2012-05-05").pin("us.child_income.lea", "own");
    let outcome = both.interest(&["kim"], 6_000).interest(&["lea"], 4_700).outcome();
    assert_lines(&outcome, 1, &[("3800.9", 4_792), ("3800.13", 264)]);
    assert_lines(&outcome, 2, &[("3800.9", 4_792), ("3800.13", 160)]);
}

/// Form 540 of a dependent is due above the own standard deduction, or where tax was withheld.
#[test]
fn when_a_return_is_due() {
    let due = |family: Family| has_line(&family.outcome(), 1, "540.19");
    assert!(!due(family().interest(&["kim"], 1_350)) && due(family().interest(&["kim"], 1_351)));
    let paid = |amount: i64, withheld: &str| {
        family().wages_with("kim", amount, json!({ "15": "CA", "16": amount.to_string(), "17": withheld }))
    };
    assert!(!due(paid(3_000, "0")) && due(paid(3_000, "20")));
    assert_lines(&paid(3_000, "20").outcome(), 1, &[("540.18", 3_450), ("540.71", 20), ("540.115", 20)]);
    // Of earnings and 450 at most the deduction of the status; no credit for who is claimed.
    let outcome = paid(15_706, "0").outcome();
    assert_lines(&outcome, 1, &[("540.18", 5_706), ("540.19", 10_000), ("540.31", 100), ("540.32", 0)]);
    assert!(outcome.covered, "{:?}", outcome.points);
    // No form for a year in which somebody lived elsewhere.
    let moved = |amount| paid(amount, "1").answer("ca_all_year", json!(false)).outcome();
    assert!(has_point(&moved(5_707), "ca-dependent") && !has_point(&moved(5_706), "ca-dependent"));
}

/// What a student takes of a scholarship as income counts, as earned: the deduction of the status is the most, 5,706.
#[test]
fn a_scholarship_makes_a_return_due() {
    let due = |wages: i64| {
        let boxes =
            json!({ "f": "36-4410927", "8": true, "years": 0, "1": "5000", "5": "4500", "living": "4500" });
        let family = family().set("kim", "/born", json!("2005-05-05"));
        let family = family.answer_for("kim", "student_months", json!(9)).wages("kim", wages);
        let family = family.paper("1098-T", &["kim"], boxes, Value::Null);
        has_line(&family.pin("us.scholarship.kim", "150000").outcome(), 1, "540.19")
    };
    assert!(!due(4_206) && due(4_207));
}

/// A household without cover in one month: a dependent's scholarship that is taken as income counts once a return is due.
#[test]
fn a_scholarship_counts_for_the_penalty() {
    let income = |wages: i64| {
        let boxes =
            json!({ "f": "36-4410927", "8": true, "years": 0, "1": "5000", "5": "4500", "living": "4500" });
        let family = family().set("kim", "/born", json!("2005-05-05"));
        let family = family.answer_for("kim", "student_months", json!(9)).wages("kim", wages);
        let family = family.paper("1098-T", &["kim"], boxes, Value::Null).pin("us.scholarship.kim", "150000");
        line_of(&family.outcome(), "us.ca.3853.income", "return/0")
    };
    assert_eq!((income(4_206), income(4_207)), (131_412, 131_412 + 5_707));
}

/// Where the child's income stands, federally and in California.
fn elected(year: i32, federal: &str, here: &str, boxes: Value) -> Outcome {
    let wages = json!({ "15": "CA", "16": "131412", "17": "1" });
    let family = Family::couple(year).in_california().wages_with("ada", 131_412, wages);
    let family = family.child("kim", "2010-05-05").pin("us.child_income.kim", federal);
    let family = family.pin("us.ca.child_income.kim", here).pin("us.status", "joint");
    let outcome = family.paper("1099-INT", &["kim"], boxes, Value::Null).outcome();
    assert!(outcome.covered, "{:?}", outcome.points);
    outcome
}

/// FTB 3803 beside Form 8814 and apart from it: 3,300 of 6,000 are the parents', 264, and 14 of what is spared.
#[test]
fn on_the_parents_return() {
    let of = |federal, here| elected(2025, federal, here, json!({ "1": "6000" }));
    let both = of("parents", "parents");
    let expected = [
        ("540.13", 134_712),
        ("540.14", 0),
        ("540.16", 0),
        ("3803.6", 3_300),
        ("3803.9", 14),
        ("540.19", 123_300),
        ("540.31", 4_646),
    ];
    assert_lines(&both, 0, &expected);
    assert_eq!(line_of(&both, "us.ca.3803.4", "person/kim"), 6_000);
    assert!(!has_line(&both, 1, "540.19"));
    let federally = of("parents", "own");
    let expected = [
        ("540.13", 134_712),
        ("sca.8z.b", 3_300),
        ("540.14", 3_300),
        ("540.17", 131_412),
        ("540.19", 120_000),
        ("540.31", 4_368),
    ];
    assert_lines(&federally, 0, &expected);
    assert_lines(&federally, 1, &[("540.13", 6_000), ("3800.5", 3_300), ("540.31", 277), ("net_tax", 277)]);
    let here = of("own", "parents");
    let expected =
        [("540.13", 131_412), ("sca.8z.c", 3_300), ("540.16", 3_300), ("540.17", 134_712), ("540.31", 4_646)];
    assert_lines(&here, 0, &expected);
    assert!(!has_line(&here, 1, "540.19"));
    assert_eq!(line_of(&here, "us.8615.5", "return/1"), 3_300);
    // The return of the state alone has no federal form and no federal tax.
    let total = |outcome: &Outcome| outcome.total.cents() / 100;
    assert_eq!(total(&federally), total(&both) - 1);
    assert!(!federally.lines.iter().any(|line| line.id == "us.net_tax" && line.scope == "return/1"));
    let filed =
        |name: &str| federally.schedules[1].forms.iter().any(|form| form.name == name && form.required);
    assert!(filed("Form 540") && !filed("Form 1040") && !filed("Schedule B"));
    assert!(!federally.points.iter().any(|point| point.message.contains("Schedule B")));
}

/// Of what is spared one per cent of what is above a first amount: 13 at most in 2024, in 2025 half a dollar rounds up.
#[test]
fn the_tax_on_what_is_spared() {
    let spared = |year, interest: i64| {
        let outcome = elected(year, "parents", "parents", json!({ "1": interest.to_string() }));
        line_of(&outcome, "us.ca.3803.9", "return/0")
    };
    for (interest, tax) in [(1_399, 0), (1_400, 1), (2_699, 13), (2_700, 14), (9_000, 14)] {
        assert_eq!(spared(2025, interest), tax, "{interest}");
    }
    assert_eq!([1_301, 1_350, 2_600, 9_000].map(|interest| spared(2024, interest)), [0, 1, 13, 13]);
}

/// Interest of the United States is the parents' federally alone: 3,300 there, 1,300 here.
#[test]
fn what_differs_of_a_childs_income() {
    let outcome = elected(2025, "parents", "parents", json!({ "1": "4000", "3": "2000" }));
    let expected = [
        ("540.13", 134_712),
        ("3803.6", 1_300),
        ("sca.8z.b", 2_000),
        ("sca.8z.c", 0),
        ("540.17", 132_712),
        ("540.31", 4_368 + 104 + 14),
    ];
    assert_lines(&outcome, 0, &expected);
}

/// Between two amounts of California, of a child with nothing paid to the state.
#[test]
fn whose_income_may_go_there() {
    let offered = |family: Family| {
        let outcome = family.outcome();
        outcome.decisions.iter().any(|decision| decision.id == "us.ca.child_income.kim")
    };
    for (interest, may) in [(1_350, false), (1_351, true), (13_499, true), (13_500, false)] {
        assert_eq!(offered(family().interest(&["kim"], interest)), may, "{interest}");
    }
    let treasury = |amount: &str| json!({ "1": amount, "3": "500" });
    let with = |amount| family().paper("1099-INT", &["kim"], treasury(amount), Value::Null);
    assert!(!offered(with("1350")) && offered(with("1351")));
    let paid = json!([{ "date": "2025-06-15", "amount": "1" }]);
    assert!(!offered(family().interest(&["kim"], 3_000).paper("540-ES", &["kim"], json!({}), paid)));
    let other = json!([{ "kind": "add", "what": "Other", "amount": "1" }]);
    assert!(!offered(family().interest(&["kim"], 3_000).paper("Schedule CA", &["kim"], json!({}), other)));
    // Federally nothing may have been withheld; here that does not matter.
    let withheld = json!({ "1": "3000", "4": "1" });
    assert!(offered(family().paper("1099-INT", &["kim"], withheld, Value::Null)));
    // In a year of Form 540NR it is told, not computed.
    let moved = family().interest(&["kim"], 3_000).answer("ca_all_year", json!(false));
    assert!(!offered(moved.clone()));
    assert!(has_point(&moved.pin("us.child_income.kim", "parents").outcome(), "ca-3803"));
}

/// Parents with interest of 10,000 alone, whose deduction and credits the child's income uses up: nothing, against 46 on a return of its own.
#[test]
fn where_the_parents_return_is_better() {
    let base = || {
        let family = Family::couple(2025).in_california().interest(&["ada"], 10_000);
        family.child("kim", "2010-05-05").interest(&["kim"], 6_000)
    };
    let total = |family: Family| family.outcome().total.cents() / 100;
    assert_eq!(total(base().pin("us.ca.child_income.kim", "own")) - total(base()), 46);
    assert_eq!(total(base()), total(base().pin("us.ca.child_income.kim", "parents")));
}

/// Income of investments above 4,814 ends the earned income credit of California: 5,300 of a child's 8,000 count where they are on the
/// parents' return of the state, wherever the federal return has them.
#[test]
fn a_childs_income_counts_for_the_earned_income_credit_where_it_is() {
    let credit = |federal: &str, here: &str| {
        let wages = json!({ "15": "CA", "16": "10000", "17": "1" });
        let family = Family::couple(2025).in_california().wages_with("ada", 10_000, wages);
        let family = family.child("kim", "2010-05-05").interest(&["kim"], 8_000);
        let family = family.pin("us.status", "joint").pin("us.child_income.kim", federal);
        line_of(&family.pin("us.ca.child_income.kim", here).outcome(), "us.ca.540.75", "return/0")
    };
    for federal in ["own", "parents"] {
        assert!(credit(federal, "own") > 0 && credit(federal, "parents") == 0, "{federal}");
    }
}
