//! California's rules by hand from the law: the tax and its table, credits that are paid out, whole returns line by line.

use hembo_money::Money;
use hembo_testing::us::{Family, has_point, line_of};
use hembo_us::{
    california::{earned_income, tax},
    figures::Figures,
    filing_status::Status,
};
use serde_json::{Value, json};

fn lines<const N: usize>(family: &Family, ids: [&str; N]) -> [i64; N] {
    let outcome = family.outcome();
    ids.map(|id| line_of(&outcome, &format!("us.ca.{id}"), "return/0"))
}

fn wages(family: Family, who: &str, amount: i64, withheld: &str) -> Family {
    family.wages_with(who, amount, json!({ "15": "CA", "16": amount.to_string(), "17": withheld }))
}

/// The table's rows by their middle, above 100,000 the schedules: of one person, a couple, a head of household.
#[test]
fn the_tax_by_table_and_schedule() {
    let of = |year: i32, status: Status, taxable: i64| {
        let figures = Figures::of(year).unwrap();
        tax::on_taxable(figures.california_rates.as_ref().unwrap(), status, Money::whole(taxable)).cents()
            / 100
    };
    let rows: [(i64, [i64; 6]); 21] = [
        (0, [0, 0, 0, 0, 0, 0]),
        (50, [0, 0, 0, 0, 0, 0]),
        (51, [1, 1, 1, 1, 1, 1]),
        (150, [1, 1, 1, 1, 1, 1]),
        (151, [2, 2, 2, 2, 2, 2]),
        (9_950, [99, 99, 99, 99, 99, 99]),
        (10_756, [108, 108, 108, 108, 108, 108]),
        (21_550, [322, 215, 215, 319, 215, 215]),
        (40_000, [982, 585, 585, 964, 578, 578]),
        (54_460, [1_848, 945, 945, 1_805, 908, 908]),
        (66_000, [2_740, 1_405, 1_410, 2_664, 1_368, 1_368]),
        (75_025, [3_517, 1_765, 1_950, 3_414, 1_728, 1_873]),
        (96_150, [5_480, 2_921, 3_511, 5_376, 2_836, 3_385]),
        (99_950, [5_833, 3_149, 3_864, 5_729, 3_064, 3_701]),
        (99_951, [5_840, 3_154, 3_871, 5_736, 3_068, 3_708]),
        (100_000, [5_840, 3_154, 3_871, 5_736, 3_068, 3_708]),
        (100_001, [5_842, 3_155, 3_873, 5_739, 3_070, 3_710]),
        (250_000, [19_792, 16_335, 17_823, 19_689, 16_127, 17_660]),
        (500_000, [45_108, 39_585, 41_168, 44_766, 39_377, 40_910]),
        (1_000_001, [104_395, 90_216, 96_973, 103_837, 89_532, 96_296]),
        (1_500_000, [165_895, 147_290, 158_472, 165_337, 146_173, 157_692]),
    ];
    for (taxable, expected) in rows {
        let ways = [2024, 2025]
            .map(|year| [Status::Single, Status::Joint, Status::Head].map(|s| of(year, s, taxable)));
        assert_eq!(ways.concat(), expected, "{taxable}");
    }
    assert_eq!(of(2024, Status::Separate, 75_025), 3_517);
    assert_eq!(of(2025, Status::Surviving, 75_025), 1_728);
}

/// The fitted table of the earned income credit at incomes in its growth, its fall and its slow tail, by children.
#[test]
fn the_earned_income_credit_by_its_table() {
    let of = |year: i32, income: i64| {
        let figures = Figures::of(year).unwrap();
        let figures = figures.california_earned_income.as_ref().unwrap();
        [0, 1, 2, 3]
            .map(|children| earned_income::table(figures, children, Money::whole(income)).cents() / 100)
    };
    assert_eq!(of(2024, 5_000), [265, 1_438, 1_692, 1_903]);
    assert_eq!(of(2024, 12_000), [82, 466, 2_413, 2_715]);
    assert_eq!(of(2024, 20_000), [49, 156, 220, 221]);
    assert_eq!(of(2024, 28_000), [16, 52, 73, 73]);
    assert_eq!(of(2025, 5_000), [283, 1_438, 1_692, 1_903]);
    assert_eq!(of(2025, 12_000), [83, 584, 2_608, 2_934]);
    assert_eq!(of(2025, 20_000), [51, 163, 231, 232]);
    assert_eq!([of(2024, 31_950)[1], of(2024, 31_951)[1], of(2024, 0)[1]], [0, 0, 0]);
}

/// 21.67 (2025: 21.72) less for each hundred above the start.
#[test]
fn the_young_child_credit_fades() {
    let young = |year: i32, pay: i64| {
        let family = wages(Family::single(year).in_california(), "ada", pay, "0").child("cy", "2022-05-05");
        lines(&family, ["540.76"])[0]
    };
    assert_eq!(
        [young(2024, 26_625), young(2024, 26_725), young(2024, 28_000), young(2024, 31_951)],
        [1_154, 1_132, 856, 0]
    );
    assert_eq!([young(2025, 27_525), young(2025, 29_000)], [1_167, 847]);
    let six = wages(Family::single(2024).in_california(), "ada", 20_000, "0").child("cy", "2018-12-31");
    assert_eq!(lines(&six, ["540.76"]), [0], "six on the last day");
    let almost = wages(Family::single(2024).in_california(), "ada", 20_000, "0").child("cy", "2019-01-01");
    assert_eq!(lines(&almost, ["540.76"]), [1_154]);
}

/// Steps of 2,500 (separate 1,250) take 6 of each unit, filers and dependents apart.
#[test]
fn exemption_credits_by_steps_of_income() {
    let of = |year: i32, couple: bool, pay: i64, children: usize| {
        let mut family =
            if couple { Family::couple(year).in_california() } else { Family::single(year).in_california() };
        for child in 0..children {
            family = family.child(&format!("c{child}"), "2015-05-05");
        }
        family = family.set("ada", "/answers/paid_home", json!(true));
        lines(&wages(family, "ada", pay, "0"), ["540.32"])[0]
    };
    assert_eq!([of(2024, false, 300_000, 0), of(2025, false, 300_000, 0)], [11, 33]);
    assert_eq!([of(2024, false, 400_000, 2), of(2025, false, 400_000, 2)], [819, 941], "head of household");
    assert_eq!([of(2024, true, 600_000, 2), of(2025, true, 600_000, 2)], [382, 482]);
    assert_eq!([of(2024, true, 562_219, 2), of(2024, true, 562_220, 2)], [574, 562]);
    assert_eq!([of(2024, false, 244_857, 0), of(2024, false, 244_858, 0)], [149, 143]);
}

/// The worked grids: a dash is a month without cover that is left to the rules.
/// Two adults and a child who turns 18 on 10 May: ten person-months; flat to the household's most, by income, to the bronze premium.
/// Wages 24,800 and interest 120: 138 of tax and 1,220 of exemptions, 129 and 1,154 paid out.
#[test]
fn a_renter_family_with_a_young_child() {
    let family = |pay: i64| {
        let family = Family::couple(2024)
            .in_california()
            .child("cy", "2021-03-03")
            .child("di", "2016-03-03")
            .interest(&["ada"], 120);
        let family =
            family.answer_for("ada", "ca_rented", json!(true)).answer_for("bo", "ca_rented", json!(true));
        wages(family, "ada", pay, "90")
    };
    let ids = ["540.19", "540.31", "540.32", "540.46", "540.48", "540.75", "540.76", "540.78", "540.115"];
    assert_eq!(lines(&family(24_800), ids), [13_840, 138, 1_220, 0, 0, 129, 1_154, 1_373, 1_373]);
    assert_eq!(lines(&family(29_400), ["540.75", "540.76"]), [45, 553]);
    assert_eq!(lines(&family(8_900), ["540.75", "540.76"]), [3_018, 1_154]);
}

/// Federally the standard deduction, in California 10,940: 484 less than with the standard deduction there.
#[test]
fn itemized_in_california_alone() {
    let family = || {
        let family = Family::single(2025)
            .in_california()
            .loan(&["ada"], 3_800, 300_000)
            .cash_gift(&["ada"], 900)
            .property_tax(&["ada"], 4_300);
        let boxes = json!({ "1": "400", "3": "600" });
        let family = family.paper("1099-INT", &["ada"], boxes, Value::Null);
        let hsa = json!({ "self": 12, "2": "1500" });
        let family = family.paper("HSA", &["ada"], hsa, Value::Null);
        let rows = json!([{ "kind": "miscellaneous", "amount": "3600" }, { "kind": "miscellaneous", "amount": "250" }]);
        let family = family.paper("Schedule CA", &["ada"], json!({}), rows);
        let more = json!({ "15": "CA", "16": "96000", "17": "4700", "14": "1152" });
        family.wages_with("ada", 96_000, more)
    };
    let outcome = family().outcome();
    assert_eq!(line_of(&outcome, "us.sched_a.17", "return/0"), 14_852);
    let ids = [
        "540.13", "540.14", "540.16", "540.17", "sca2.25", "sca2.28", "540.18", "540.19", "540.31", "540.48",
    ];
    assert_eq!(lines(&family(), ids), [95_500, 0, 900, 96_400, 1_940, 10_940, 10_940, 85_460, 4_390, 4_237]);
    assert_eq!(lines(&family().pin("us.ca.deduction", "standard"), ["540.19", "540.48"]), [90_694, 4_721]);
}

/// Above the threshold of high incomes: exemptions 562, itemized 70,000 less 4,355, no minimum tax.
#[test]
fn a_couple_above_the_thresholds() {
    let family = Family::couple(2024).in_california().child("cy", "2015-03-03").child("di", "2016-03-03");
    let family = family
        .property_tax(&["ada", "bo"], 18_000)
        .loan(&["ada", "bo"], 38_000, 1_000_000)
        .cash_gift(&["ada", "bo"], 12_000);
    let family = family.paper("4952", &["ada"], json!({ "1": "2000" }), Value::Null);
    let family = wages(family.interest(&["ada"], 5_000), "ada", 557_300, "0");
    let ids = [
        "540.17", "540.32", "sca2.28", "sca2.cut", "540.18", "540.19", "540.31", "540.33", "p.21", "p.22",
        "p.24", "540.61",
    ];
    assert_eq!(
        lines(&family, ids),
        [562_300, 562, 70_000, 4_355, 65_645, 496_655, 39_274, 38_712, 510_300, 105_049, 28_368, 0]
    );
}

/// Above a million, out of an IRA before 59½: 1 % above a million, 2.5 % of what was withdrawn. Only 90 % of this year's tax protects, 108,034:
/// of the first instalment of 32,410 6,160 come 61 days late at 8 %, of the second of 43,214 3,124 for 14 days at 8 and 77 at 7 %, in all 138.
#[test]
fn services_tax_and_an_early_withdrawal() {
    let family = Family::single(2025).in_california();
    let boxes = json!({ "1": "40000", "2a": "40000", "7": "1", "7.ira": true });
    let family = wages(family.paper("1099-R", &["ada"], boxes, Value::Null), "ada", 1_080_000, "105000");
    let family =
        family.paper("540-ES", &["ada"], json!({}), json!([{ "date": "2025-06-15", "amount": "20000" }]));
    let ids = ["540.19", "540.31", "540.62", "540.63", "540.64", "540.71", "540.72", "540.97", "540.113"];
    assert_eq!(lines(&family, ids), [1_114_294, 117_895, 1_143, 1_000, 120_038, 105_000, 20_000, 4_962, 138]);
    assert_eq!(lines(&family, ["540.115"]), [4_824]);
}

/// One million is that of each return: of community income apart none is above it, together 750,000 are.
#[test]
fn separate_returns_each_have_their_million() {
    let family = || {
        let family = wages(Family::couple(2025).in_california(), "ada", 900_000, "0");
        wages(family, "bo", 861_412, "0")
    };
    let total = |how: &str| family().pin("us.status", how).outcome();
    let (joint, apart) = (total("joint"), total("separate"));
    assert_eq!(line_of(&joint, "us.ca.540.19", "return/0"), 1_750_000);
    assert_eq!(line_of(&joint, "us.ca.540.62", "return/0"), 7_500);
    let of = |scope: &str| line_of(&apart, "us.ca.540.62", scope);
    assert_eq!([of("return/0"), of("return/1")], [0, 0]);
    assert_eq!(line_of(&apart, "us.ca.540.31", "return/0"), 88_462);
}

/// Social security and interest of the United States are not taxed, bonds of other states are.
#[test]
fn what_california_treats_otherwise() {
    let family = Family::of(2025).filer("ada", "1955-03-03").filer("bo", "1957-04-04");
    let family = family.answer("marital", json!("married")).answer("apart", json!(false)).in_california();
    let family = family.paper("SSA-1099", &["ada"], json!({ "5": "30000" }), Value::Null);
    let family = family.paper("SSA-1099", &["bo"], json!({ "5": "14000" }), Value::Null);
    let family = family.paper(
        "1099-R",
        &["ada"],
        json!({ "1": "46000", "2a": "46000", "7": "7", "14": "500" }),
        Value::Null,
    );
    let boxes = json!({ "1": "1000", "3": "2000", "8": "2400", "8.elsewhere": "900" });
    let family = family.paper("1099-INT", &["ada"], boxes, Value::Null);
    let ids = [
        "540.13",
        "sca.6b",
        "540.14",
        "540.16",
        "540.17",
        "540.19",
        "540.31",
        "540.71",
        "3853.income",
        "540.115",
    ];
    assert_eq!(lines(&family, ids), [79_990, 30_990, 32_990, 900, 47_900, 36_488, 508, 500, 49_400, 500]);
}

/// Two children in care, an employer's health savings, a teacher.
#[test]
fn a_couple_with_care_and_savings() {
    let family = Family::couple(2025).in_california().child("cy", "2017-03-03").child("di", "2020-03-03");
    let more = json!({ "15": "CA", "16": "40100", "17": "900", "12a": "W", "12a.amount": "600" });
    let family = wages(family, "ada", 58_000, "1900").wages_with("bo", 39_500, more);
    let family = family.paper("Educator", &["ada"], json!({}), json!([{ "amount": "300" }]));
    let family = family.paper("HSA", &["bo"], json!({ "family": 12, "2": "2000" }), Value::Null);
    let rows = json!([{ "person": "cy", "date": "2025-05-05", "amount": "4000" }, { "person": "di", "date": "2025-05-05", "amount": "5000" }]);
    let family = family.paper("Care", &["ada"], json!({ "number": "36-4410999" }), rows);
    let ids =
        ["540.13", "540.16", "540.17", "540.19", "540.31", "540.32", "540.40", "540.48", "540.71", "540.115"];
    assert_eq!(lines(&family, ids), [95_200, 2_900, 98_100, 86_688, 2_272, 1_256, 408, 608, 2_800, 2_192]);
}

/// 60 each, or 120 to one where the other has no tax to take it from.
#[test]
fn one_renters_credit_of_two_separate_returns() {
    let family = || {
        let family = Family::couple(2024).in_california().answer("community_all_year", json!(true));
        let family =
            family.answer_for("ada", "ca_rented", json!(true)).answer_for("bo", "ca_rented", json!(true));
        let family = wages(wages(family, "ada", 70_000, "2400"), "bo", 30_000, "600");
        family.pin("us.status", "separate")
    };
    let of = |family: &Family| {
        let outcome = family.outcome();
        ["return/0", "return/1"].map(|scope| line_of(&outcome, "us.ca.540.48", scope))
    };
    assert_eq!(of(&family()), [1_039, 1_039]);
    assert_eq!(of(&family().pin("us.ca.renter", "ada")), [979, 1_099]);
    let joint = family().pin("us.status", "joint");
    assert_eq!(lines(&joint, ["540.31", "540.46", "540.48"]), [2_489, 120, 2_071]);
}

/// What is asked before the state's return counts as covered.
#[test]
fn what_is_unsettled_about_california() {
    let family = || {
        wages(Family::single(2025).in_california(), "ada", 50_000, "0").answer_for(
            "ada",
            "ca_rented",
            json!(false),
        )
    };
    let clean = family().outcome();
    for code in [
        "ca-return",
        "ca-all-year",
        "ca-540nr-days",
        "ca-540nr-state",
        "ca-other",
        "ca-other-rules",
        "ca-cover",
        "ca-use-tax",
        "ca-renter",
        "ca-other-state",
    ] {
        assert!(!has_point(&clean, code), "{code}");
    }
    let finds = |question: &str, answer: bool, code: &str| {
        assert!(has_point(&family().answer(question, json!(answer)).outcome(), code), "{code}");
    };
    finds("ca_all_year", false, "ca-540nr-days");
    finds("ca_other", true, "ca-other-rules");
    finds("ca_covered", false, "ca-cover-months");
    let unsaid = |question: &str, code: &str| {
        let mut family = family();
        family.0["answers"].as_object_mut().unwrap().remove(question);
        assert!(has_point(&family.outcome(), code), "{code}");
    };
    unsaid("california", "ca-return");
    unsaid("ca_all_year", "ca-all-year");
    unsaid("ca_other", "ca-other");
    unsaid("ca_covered", "ca-cover");
    unsaid("ca_use_tax", "ca-use-tax");
    let rented = wages(Family::single(2025).in_california(), "ada", 50_000, "0").outcome();
    assert!(has_point(&rented, "ca-renter"));
    let oregon =
        family().wages_with("ada", 9_000, json!({ "15": "OR", "16": "9000", "17": "300" })).outcome();
    assert!(has_point(&oregon, "ca-other-return"), "Oregon credits it");
    let bonds = family().paper("1099-INT", &["ada"], json!({ "8": "90" }), Value::Null);
    assert!(has_point(&bonds.outcome(), "ca-bond-state"));
    let told = family().paper("1099-INT", &["ada"], json!({ "8": "90", "8.elsewhere": "0" }), Value::Null);
    assert!(!has_point(&told.outcome(), "ca-bond-state"));
    let insured = |amount: &str, tax: &str| {
        let more = json!({ "15": "CA", "16": "50000", "17": tax, "14": amount });
        Family::single(2025).in_california().wages_with("ada", 50_000, more).outcome()
    };
    assert!(has_point(&insured("601.01", "1"), "ca-w2-14") && !has_point(&insured("601", "1"), "ca-w2-14"));
    assert!(has_point(&insured("1", "0"), "ca-w2-17") && !has_point(&insured("1", "1"), "ca-w2-17"));
    let near = |pay: i64| {
        wages(Family::single(2025).in_california(), "ada", pay, "1")
            .answer_for("ada", "ca_rented", json!(true))
            .outcome()
    };
    let at = [53_994, 53_995, 54_494, 54_495].map(|pay| has_point(&near(pay), "ca-cliff"));
    assert_eq!(at, [false, true, true, false]);
    let owed = wages(Family::single(2025).in_california(), "ada", 50_000, "0");
    assert!(has_point(&owed.outcome(), "ca-5805"));
    let planned = Family::single(2026).in_california().wages("ada", 50_000).outcome();
    assert!(has_point(&planned, "ca-year"));
}

/// Cells that cannot be, and gaps that are entered otherwise than they are.
/// The balance with the return; 30, 40, 0 and 30 per cent of this year's tax for the year after, of a high income a tenth more, of a million
/// only nine tenths of that year's.
#[test]
fn what_is_due_to_california() {
    use hembo_core::{Pack, dates::DueDate};
    let dates = |pay: i64| -> Vec<(String, i64)> {
        let outcome = wages(Family::single(2025).in_california(), "ada", pay, "0").outcome();
        let all = hembo_us::UnitedStates::COMMITTED.dates(&outcome);
        let here = all.into_iter().filter(|due: &DueDate| due.what.contains("California"));
        here.map(|due| (due.day.to_string(), due.amount.map_or(0, |amount| amount.cents() / 100))).collect()
    };
    // Wages 60,000: taxable 54,294, tax 1,793 less 153.
    let plain: Vec<(String, i64)> =
        [("2026-04-15", 1_640), ("2026-04-15", 492), ("2026-06-15", 656), ("2027-01-15", 492)]
            .map(|(day, amount)| (day.into(), amount))
            .into();
    let mut told = dates(60_000);
    told.sort_by_key(|(day, amount)| (day.clone(), -amount));
    assert_eq!(told, plain);
    assert_eq!(dates(20_000).len(), 1, "less than 500 of tax");
    let first = |pay: i64| dates(pay)[1].1;
    // 160,000: taxable 154,294, tax 10,788 less 153: 10,635, a tenth more is 11,699 (half up), of it 30 per cent.
    assert_eq!(first(160_000), 3_510);
}

/// A statement fills the months of its person; the line of the paper goes before it, and is told where both differ.
/// Against 7.97 % (2025: 7.28 %) of household income: 72,000 give 5,738.40 and 5,241.60 a year.
/// Two own plans of 300 a month are affordable each, and not together against 5,738.40; the plan for the family decides with them.
/// No job offers cover: the bronze plan less what the premium tax credit could be by the second lowest silver plan.
/// The state's return is signed for itself; a policy of the Marketplace says nothing of who was covered.
#[test]
fn signatures_and_policies() {
    let signed = |boxes: Value| {
        let family = wages(Family::single(2025).in_california(), "ada", 50_000, "900");
        family.paper("8879", &["ada"], boxes, Value::Null).outcome()
    };
    assert!(has_point(&signed(json!({ "how": "preparer" })), "ca-8879"));
    assert!(has_point(&signed(json!({ "how": "preparer", "signed.state": "2025-12-31" })), "ca-8879"));
    assert!(!has_point(&signed(json!({ "how": "preparer", "signed.state": "2026-01-01" })), "ca-8879"));
    assert!(!has_point(&signed(json!({ "how": "paper" })), "ca-8879"));
    let policy = |covered: bool| {
        let family = wages(Family::single(2025).in_california(), "ada", 50_000, "900");
        let family = family.answer("ca_covered", json!(covered));
        family.paper("1095-A", &["ada"], json!({ "33A": "1200", "33B": "1300" }), Value::Null)
    };
    assert!(has_point(&policy(false).outcome(), "ca-cover-1095a"));
    assert!(!has_point(&policy(true).outcome(), "ca-cover-1095a"));
    let stated = policy(false).paper("1095-B", &["ada"], json!({}), json!([{ "person": "ada" }]));
    assert!(!has_point(&stated.outcome(), "ca-cover-1095a"));
}
