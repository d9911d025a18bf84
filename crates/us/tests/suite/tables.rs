//! Tables of the law: the printed tax, the earned income credit, and the thresholds one unit below, at and above.

use hembo_money::Money;
use hembo_testing::us::{Family, assert_lines, has_point, line};
use hembo_us::{
    earned_income_credit, figures::Figures, filing_status::Status, id_number, tax::on_taxable_income,
};
use serde_json::json;

fn rows(text: &str) -> impl Iterator<Item = Vec<i64>> + '_ {
    text.lines().filter(|l| !l.starts_with('#')).map(|l| l.split(' ').map(|n| n.parse().unwrap()).collect())
}

#[test]
fn tax_on_ordinary_income() {
    for (year, text) in
        [(2024, include_str!("../tables/tax_2024.txt")), (2025, include_str!("../tables/tax_2025.txt"))]
    {
        let figures = Figures::of(year).unwrap();
        for row in rows(text) {
            let statuses = [Status::Single, Status::Joint, Status::Head, Status::Separate];
            for (status, expected) in statuses.into_iter().zip(&row[1..]) {
                let tax = on_taxable_income(figures, status, Money::whole(row[0]));
                assert_eq!(tax, Money::whole(*expected), "{year} {status:?} {}", row[0]);
            }
            let joint = on_taxable_income(figures, Status::Joint, Money::whole(row[0]));
            assert_eq!(on_taxable_income(figures, Status::Surviving, Money::whole(row[0])), joint);
        }
    }
}

#[test]
fn earned_income_credit() {
    let texts = [
        (2024, include_str!("../tables/earned_income_credit_2024.txt")),
        (2025, include_str!("../tables/earned_income_credit_2025.txt")),
    ];
    for (year, text) in texts {
        let figures = Figures::of(year).unwrap();
        for row in rows(text) {
            for (i, expected) in row[1..].iter().enumerate() {
                let status = if i % 2 == 0 { Status::Single } else { Status::Joint };
                let credit = earned_income_credit::table(figures, status, i / 2, Money::whole(row[0]));
                assert_eq!(
                    credit,
                    Money::whole(*expected),
                    "{year} {} children {status:?} {}",
                    i / 2,
                    row[0]
                );
            }
        }
    }
}

#[test]
fn cap_on_state_taxes() {
    let cases = [
        // income, cap
        (400_000, 40_000),
        (500_000, 40_000),
        (500_001, 40_000), // 30 cents round to nothing
        (500_005, 39_998),
        (505_000, 38_500),
        (599_999, 10_000),
        (600_000, 10_000),
        (700_000, 10_000),
    ];
    for (income, cap) in cases {
        let family = Family::single(2025).interest(&["ada"], income).property_tax(&["ada"], 50_000);
        assert_lines(&family.outcome(), &[("us.sched_a.5e", cap)]);
    }
    // Separate: every figure halved.
    for (income, cap) in [(250_000, 20_000), (275_000, 12_500), (300_000, 5_000), (300_001, 5_000)] {
        let family = Family::single(2025)
            .answer("marital", json!("married"))
            .answer("spouse_itemizes", json!(true))
            .interest(&["ada"], income)
            .property_tax(&["ada"], 50_000);
        assert_lines(&family.outcome(), &[("us.sched_a.5e", cap)]);
    }
    let before = Family::single(2024).interest(&["ada"], 600_000).property_tax(&["ada"], 50_000);
    assert_lines(&before.outcome(), &[("us.sched_a.5e", 10_000)]);
}

#[test]
fn child_credit_phase_out() {
    let cases = [
        // year, joint, children, others, income, line 12
        (2024, true, 1, 0, 400_000, 2_000),
        (2024, true, 1, 0, 400_001, 1_950),
        (2024, true, 1, 0, 438_999, 50),
        (2024, true, 1, 0, 439_000, 50),
        (2024, true, 1, 0, 439_001, 0),
        (2025, true, 2, 1, 423_500, 3_700),
        (2025, false, 1, 0, 200_000, 2_200),
        (2025, false, 1, 0, 242_000, 100),
        (2025, false, 1, 0, 243_000, 50),
        (2025, false, 1, 0, 243_001, 0),
        (2025, false, 3, 0, 251_200, 4_000),
    ];
    for (year, joint, children, others, income, expected) in cases {
        let mut family = if joint { Family::couple(year) } else { Family::single(year) };
        for i in 0..children {
            family = family.child(&format!("kid{i}"), "2015-01-01");
        }
        for i in 0..others {
            family = family.child(&format!("teen{i}"), "2007-06-01");
        }
        let family = family.interest(&["ada"], income).pin("us.status", "joint");
        assert_lines(&family.outcome(), &[("us.8812.12", expected)]);
    }
}

#[test]
fn ages_count_by_their_own_rules() {
    // A child whose 17th birthday is the first day of the next year is under 17 (anniversary rule).
    for (born, credit) in [("2008-12-31", 500), ("2009-01-01", 2_200)] {
        let family = Family::single(2025).child("kim", born).wages("ada", 60_000);
        assert_lines(&family.outcome(), &[("us.8812.8", credit)]);
    }
    // 65 is reached the day before the birthday: born on 1 January 1961 counts for 2025.
    for (born, standard, senior) in [("1961-01-01", 17_750, 6_000), ("1961-01-02", 15_750, 0)] {
        let family = Family::of(2025).filer("ada", born).interest(&["ada"], 40_000);
        assert_lines(&family.outcome(), &[("us.standard", standard), ("us.13b", senior)]);
    }
    // One who died must have reached it by then.
    for (died, standard) in [("2025-03-01", 17_750), ("2025-02-28", 15_750)] {
        let family = Family::of(2025).filer("ada", "1960-03-02").set("ada", "/died", json!(died));
        assert_lines(&family.interest(&["ada"], 40_000).outcome(), &[("us.standard", standard)]);
    }
}

#[test]
fn standard_deduction_of_someone_who_can_be_claimed() {
    for (wages, standard) in [
        (0, 1_350),
        (899, 1_350),
        (900, 1_350),
        (901, 1_351),
        (15_299, 15_749),
        (15_300, 15_750),
        (15_301, 15_750),
    ] {
        let family =
            Family::of(2025).filer("ada", "2004-05-05").set("ada", "/answers/claimable", json!(true));
        let outcome = family.wages("ada", wages).outcome();
        assert_lines(&outcome, &[("us.standard", standard), ("us.27a", 0)]);
    }
}

#[test]
fn home_loan_limits() {
    let loan = |balance: &str, date: &str| json!({ "1": "10000", "average": balance, "3": date });
    let cases = [
        // balance, date, allowed of 10,000
        ("750000", "2021-05-01", 10_000),
        ("750001", "2021-05-01", 10_000), // 0.99999… is 1.000 to three places
        ("752000", "2021-05-01", 9_970),
        ("900000", "2021-05-01", 8_330),
        ("1000000", "2017-12-15", 10_000),
        ("1000000", "2017-12-16", 7_500),
        ("2000000", "2017-12-15", 5_000),
        ("2000000", "1987-10-13", 10_000),
    ];
    for (balance, date, allowed) in cases {
        let family = Family::single(2025).wages("ada", 90_000).paper(
            "1098",
            &["ada"],
            loan(balance, date),
            json!(null),
        );
        assert_lines(&family.outcome(), &[("us.sched_a.8e", allowed)]);
    }
    // An older and a newer loan: 600,000 + 400,000, the limit is 750,000 of 1,000,000.
    let both = Family::single(2025)
        .wages("ada", 90_000)
        .paper("1098", &["ada"], loan("600000", "2015-01-01"), json!(null))
        .paper("1098", &["ada"], loan("400000", "2020-01-01"), json!(null));
    assert_lines(&both.outcome(), &[("us.loan.limit", 750_000), ("us.sched_a.8e", 15_000)]);
    // Part of the loan bought a boat: 100,000 of 400,000 does not count.
    let mut mixed = loan("400000", "2020-01-01");
    mixed["other_use"] = json!("100000");
    let family = Family::single(2025).wages("ada", 90_000).paper("1098", &["ada"], mixed, json!(null));
    assert_lines(&family.outcome(), &[("us.sched_a.8e", 7_500)]);
    // First and last balance: (760,000 + 740,000) ÷ 2.
    let boxes = json!({ "1": "10000", "2": "760000", "year_end": "740000" });
    let family = Family::single(2025).wages("ada", 90_000).paper("1098", &["ada"], boxes, json!(null));
    assert_lines(&family.outcome(), &[("us.loan.balance", 750_000), ("us.sched_a.8e", 10_000)]);
}

#[test]
fn medical_floor_and_long_term_care() {
    // 7.5 % of 40,000 is 3,000.
    for (bills, allowed) in [(2_999, 0), (3_000, 0), (3_001, 1)] {
        let family = Family::single(2025).wages("ada", 40_000).medical(&["ada"], "ada", bills);
        assert_lines(&family.outcome(), &[("us.sched_a.4", allowed)]);
    }
    for (born, most) in
        [("1985-12-31", 480), ("1984-12-31", 900), ("1964-01-01", 4_810), ("1954-06-01", 6_020)]
    {
        let rows =
            json!([{ "sort": "long_term_care", "amount": "9000" }, { "sort": "travel", "miles": 100 }]);
        let family = Family::of(2025).filer("ada", born).wages("ada", 1_000).paper(
            "Medical",
            &["ada"],
            json!({}),
            rows,
        );
        assert_lines(&family.outcome(), &[("us.sched_a.1", most + 21)]);
    }
}

#[test]
fn refundable_child_credit_grows_with_earnings() {
    let head = |year| Family::single(year).set("ada", "/answers/paid_home", json!(true));
    for (wages, paid) in
        [(2_500, 0), (2_503, 0), (2_504, 1), (10_000, 1_125), (13_833, 1_700), (13_834, 1_700)]
    {
        let family = head(2025).child("kim", "2015-01-01").wages("ada", wages);
        assert_lines(&family.outcome(), &[("us.28", paid)]);
    }
    // Three children, wages 30,000: 15 % × 27,500 = 4,125 is more than payroll taxes 2,295 less the earned income
    // credit, so it stands.
    let mut family = head(2025).wages("ada", 30_000);
    for i in 0..3 {
        family = family.child(&format!("kid{i}"), "2015-01-01");
    }
    assert_lines(&family.outcome(), &[("us.28", 4_125), ("us.27a", 6_640)]);
}

#[test]
fn payroll_matters() {
    // Two employers, social security tax 7,000 + 5,000: 1,081.80 above 10,918.20.
    let tax = |amount: &str| json!({ "4": amount });
    let two = |number: &str| {
        let second = json!({ "4": "5000", "b": number });
        Family::single(2025).wages_with("ada", 110_000, tax("7000")).wages_with("ada", 80_000, second)
    };
    assert_lines(&two("36-4410928").outcome(), &[("us.excess_social_security", 1_082)]);
    // Two papers of one employer are one employer.
    assert_lines(&two("364410927").outcome(), &[("us.excess_social_security", 0)]);
    // Each spouse alone: what two spouses pay together is not too much.
    let spouses = Family::couple(2025)
        .wages_with("ada", 110_000, tax("7000"))
        .wages_with("bo", 80_000, json!({ "4": "5000", "b": "36-4410928" }))
        .pin("us.status", "joint");
    assert_lines(&spouses.outcome(), &[("us.excess_social_security", 0)]);
    // One employer who took too much pays it back.
    let one = Family::single(2025).wages_with("ada", 200_000, tax("12000")).outcome();
    assert_lines(&one, &[("us.excess_social_security", 0)]);
    assert!(has_point(&one, "K-044"));
    // Additional Medicare tax: one dollar above the threshold rounds to nothing, 56 dollars make 50 cents and one.
    for (wages, more) in [(200_000, 0), (200_055, 0), (200_056, 1), (300_000, 900)] {
        assert_lines(&Family::single(2025).wages("ada", wages).outcome(), &[("us.8959.18", more)]);
    }
    // Uncollected tax is due.
    let boxes = json!({ "12a": "M", "12a.amount": "31.40" });
    let family = Family::single(2025).wages_with("ada", 20_000, boxes);
    assert_eq!(line(&family.outcome(), "us.sched_2.13"), 31);
}

#[test]
fn numbers_have_the_forms_that_are_given_out() {
    for number in ["811-34-2207", "811342207", "912-70-1234", "912-88-1234", "912-93-1234", "001-01-0001"] {
        assert!(id_number::check(number).is_ok(), "{number}");
    }
    for number in [
        "",
        "811-34-220",
        "000-34-2207",
        "666-34-2207",
        "811-00-2207",
        "811-34-0000",
        "912-66-1234",
        "912-89-1234",
        "81134220A",
        "8113422071",
    ] {
        assert!(id_number::check(number).is_err(), "{number}");
    }
}

#[test]
fn minimum_tax_meets_large_exempt_interest() {
    // 200,000 of private activity bond interest, wages 100,000, single: 84,250 taxable, income tax 13,449 at most;
    // minimum taxable income 300,000, less 88,100: 26 % × 211,900 = 55,094.
    let boxes = json!({ "8": "200000", "9": "200000" });
    let family = Family::single(2025).wages("ada", 100_000).paper("1099-INT", &["ada"], boxes, json!(null));
    let outcome = family.outcome();
    assert_lines(&outcome, &[("us.6251.4", 300_000), ("us.6251.9", 55_094)]);
    assert_eq!(line(&outcome, "us.amt"), 55_094 - line(&outcome, "us.16"));
}
