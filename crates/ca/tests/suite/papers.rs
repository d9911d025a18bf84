//! Papers: to which line each box of a slip goes, and what is told not to be computed.

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
        (of_45("T4", json!({ "14": "51000", "43": "9000" })), "24400", "9000"),
        (of_45("T4", json!({ "14": "51000", "39": "8000" })), "24900", "8000"),
        (of_45("T4", json!({ "14": "51000", "66": "700", "67": "800" })), "13000", "1500"),
        (of_45("T4", json!({ "14": "51000", "77": "600" })), "22900", "600"),
        (of_45("T4A", json!({ "042": "800" })), "13000", "800"),
        (of_45("T4A", json!({ "105": "4000", "105.for": "full" })), "13010", "0"),
        (of_45("T4A", json!({ "105": "4000", "105.for": "part", "105.costs": "3000" })), "13010", "1000"),
        (of_45("T4A", json!({ "105": "4000", "105.for": "none" })), "13010", "3500"),
        (of_45("T4E", json!({ "14": "9000", "15": "9000", "7": 30 })), "11900", "9000"),
        (of_45("T4E", json!({ "14": "9000", "30": "400", "7": 0 })), "23200", "400"),
        (of_45("T4E", json!({ "14": "9000", "22": "800", "7": 0 })), "43700", "800"),
        (of_45("T5007", json!({ "10": "9000" })), "14400", "9000"),
        (of_45("T5007", json!({ "11": "7000" })), "25000", "7000"),
        // What comes out of savings before 65 is no pension: of a plan line 12900, of a fund line 13000.
        (of_45("T4RSP", json!({ "16": "3000", "22": "5000", "30": "900" })), "12900", "8000"),
        (of_45("T4RSP", json!({ "16": "3000", "22": "5000", "30": "900" })), "43700", "900"),
        (of_65("T4RSP", json!({ "16": "3000", "22": "5000" })), "11500", "3000"),
        (of_45("T4RSP", json!({ "16": "3000", "on_death": true })), "11500", "3000"),
        (of_45("T4RIF", json!({ "16": "6000", "28": "700" })), "13000", "6000"),
        (of_65("T4RIF", json!({ "16": "6000", "28": "700" })), "11500", "6000"),
        (of_65("T4RIF", json!({ "16": "6000", "28": "700" })), "43700", "700"),
        (of_45("T3", json!({ "49": "1000", "23": "100" })), "12000", "1495"),
        (of_45("T3", json!({ "25": "400" })), "12100", "400"),
        (of_45("T3", json!({ "26": "900", "31": "300" })), "13000", "600"),
        (of_45("T3", json!({ "26": "900", "31": "300" })), "11500", "300"),
        (of_45("T3", json!({ "21": "900" })), "12700", "450"),
        (of_45("T5", json!({ "18": "500" })), "12700", "250"),
        (of_45("T5", json!({ "17": "700" })), "12100", "700"),
        (of_45("T3", json!({ "21": "1000", "37": "400" })), "12700", "300"),
        (of_45("T3", json!({ "38": "60" })), "45600", "60"),
        (of_65("T4A(P)", json!({ "20": "10000", "18": "2500" })), "11400", "7500"),
        (of_65("T4A(P)", json!({ "20": "10000", "18": "2500" })), "13000", "2500"),
        (of_45("T4RSP", json!({ "20": "3000" })), "12900", "3000"),
        (of_45("T4RSP", json!({ "20": "3000" })), "23200", "0"),
        (of_45("T4RSP", json!({ "20": "3000", "t746": true })), "23200", "3000"),
        (of_45("T4RSP", json!({ "25": "3000", "27": "9000" })), "12900", "0"),
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
        ("T4", &["17", "55"][..]),
        ("T4A", &["040"]),
        ("T4E", &["17", "20", "33"]),
        ("T3", &["24", "30", "33", "40"]),
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

/// A couple with accounts abroad: each by the own share, at the thresholds of the statement and of its long form.
#[test]
fn foreign_property_has_its_statement() {
    let family = |most: &str, shares: [&str; 2]| {
        let rows = json!([
            { "category": "2", "what": "Fjord Salmon", "country": "Norway", "most": most, "end": "1", "income": "40" },
            { "category": "1", "what": "Bank", "country": "Peru", "most": "0.01", "end": "0.01", "income": "0" },
        ]);
        let family = Family::couple("ON", ["1980-01-01", "1980-01-01"]).interest("ada", "50000");
        let owners = [("ada", shares[0]), ("bo", shares[1])];
        let owners = if shares[1] == "0" { &owners[..1] } else { &owners[..] };
        family.answer("foreign_property", json!(true)).shared("T1135", owners, json!({}), rows)
    };
    let filed = |outcome: &hembo_core::Outcome, place: usize| {
        outcome.schedules[place].forms.iter().any(|form| form.id == "t1135" && form.required)
    };
    let at = family("99999.99", ["100", "0"]).outcome();
    assert!(!filed(&at, 0));
    let above = family("100000", ["100", "0"]).outcome();
    assert!(filed(&above, 0) && !filed(&above, 1) && has_point(&above, "T1135-A"));
    let message = &above.points.iter().find(|p| p.id.starts_with("T1135-A")).unwrap().message;
    assert!(message.contains("Norway, Peru"), "{message}");
    assert_eq!(line(&above, 0, "t1135.income"), money("40"));
    let half = family("190000", ["50", "50"]).outcome();
    assert!(!filed(&half, 0) && !filed(&half, 1));
    let long = family("249999.99", ["100", "0"]).outcome();
    assert!(has_point(&long, "T1135-B") && !has_point(&long, "T1135-A"));
    let no = family("100000", ["100", "0"]).answer("foreign_property", json!(false)).outcome();
    assert!(has_point(&no, "C-18-no"));
    let missing =
        Family::single("ON", "1980-01-01").answer("foreign_property", json!(true)).interest("ada", "9");
    assert!(has_point(&missing.outcome(), "C-18"));
}

/// ITA 146(8.3), 146.3(5.1): what the partner contributed in this year and the two before is the partner's, of a fund only out of what is
/// above the minimum.
#[test]
fn what_comes_out_of_spousal_plans() {
    let couple = || Family::couple("AB", ["1952-01-01", "1954-01-01"]);
    for (contributed, kept, moved) in
        [("0", "10000", "0"), ("6000", "4000", "6000"), ("10000", "0", "10000"), ("12000", "0", "10000")]
    {
        let slip = json!({ "22": "10000", "24": true, "contributed": contributed });
        let outcome = couple().paper("T4RSP", "ada", slip).outcome();
        assert_eq!(
            [0, 1].map(|place| line(&outcome, place, "12900")),
            [kept, moved].map(money),
            "{contributed}"
        );
        assert!(!has_point(&outcome, "spousal-plan"));
    }
    let fund = json!({ "16": "20000", "24": "8000", "26": true, "contributed": "9000" });
    let outcome = couple().paper("T4RIF", "ada", fund).pin("ca.split.from", "none").outcome();
    assert_eq!((line(&outcome, 0, "11500"), line(&outcome, 1, "13000")), (money("12000"), money("8000")));
    let unsaid = couple().paper("T4RSP", "ada", json!({ "22": "10000", "24": true })).outcome();
    assert!(has_point(&unsaid, "spousal-plan"));
    let alone = of_45("T4RSP", json!({ "22": "10000", "24": true, "contributed": "5" })).outcome();
    assert!(has_point(&alone, "spousal-plan-partner"));
    assert_eq!(line(&alone, 0, "12900"), money("10000"));
}

#[test]
fn fees_on_slips_stand_in_accounts() {
    for (gross, told) in [(None, true), (Some("4999.99"), true), (Some("5000"), false)] {
        let mut family = of_45("T4A", json!({ "048": "3000", "020": "2000" }));
        if let Some(gross) = gross {
            family = family.paper("T2125", "ada", json!({ "gross": gross }));
        }
        assert_eq!(has_point(&family.outcome(), "t4a-business"), told, "{gross:?}");
    }
    let child = json!({ "20": "3000", "17": "3000" });
    assert!(has_point(&of_45("T4A(P)", child.clone()).outcome(), "child-benefit-slip"));
    let own =
        of_45("T5", json!({ "13": "1" })).child("cy", "2012-01-01").paper("T4A(P)", "cy", child).outcome();
    assert!(!has_point(&own, "child-benefit-slip"));
}

/// 56(1)(u): of a couple with whom has more net income, where no way changes which.
#[test]
fn assistance_of_a_couple() {
    let couple = |ada: &str, bo: &str| {
        let family =
            Family::couple("AB", ["1980-01-01", "1981-01-01"]).interest("ada", ada).interest("bo", bo);
        family.paper("T5007", "bo", json!({ "11": "8000" }))
    };
    for (ada, bo, of_ada, of_bo) in [
        ("30000", "29999.99", "8000", "0"),
        ("30000", "30000", "0", "8000"),
        ("30000", "30000.01", "0", "8000"),
        ("0", "0", "0", "8000"),
    ] {
        let outcome = couple(ada, bo).outcome();
        for (place, amount) in [(0, of_ada), (1, of_bo)] {
            assert_eq!(line(&outcome, place, "14500"), money(amount), "{ada} {bo}");
            assert_eq!(line(&outcome, place, "25000"), money(amount), "{ada} {bo}");
        }
        assert!(!has_point(&outcome, "assistance-couple"));
    }
    let open = couple("30000", "15000").contributions("ada", "20000", "20000").outcome();
    assert!(has_point(&open, "assistance-couple") && !open.covered);
}

/// Lump sums for earlier years are taxed in full here; that the authority may tax them as of those years is told as not weighed.
#[test]
fn lump_sums_for_earlier_years_are_compared_by_the_authority() {
    let family = Family::single("AB", "1980-01-01").employed("ada", "60000");
    let told = family.clone().answer("lump_sums", json!(true)).outcome();
    let point = told.points.iter().find(|point| point.code() == "C-36").unwrap();
    assert!(point.unweighed && !point.not_covered);
    assert_eq!(told.total, family.outcome().total);
    assert!(!has_point(&family.answer("lump_sums", json!(false)).outcome(), "C-36"));
}
