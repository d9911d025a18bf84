//! Claims between partners, benefits that are paid out, and what a fact leaves out: cases at the edges, by hand.

use hembo_core::{Outcome, outcome, search::Stop};
use hembo_money::{Money, Rounding};
use hembo_testing::ca::{Family, REGISTRY, assert_lines, bar, has_point, line, money};
use serde_json::json;

const YOUNG: [&str; 2] = ["1980-01-01", "1981-01-01"];

fn t4(family: Family, who: &str, boxes: &[(&str, &str)]) -> Family {
    family.paper("T4", who, boxes.iter().map(|(k, v)| ((*k).to_owned(), json!(v))).collect())
}

fn has_decision(outcome: &Outcome, id: &str) -> bool {
    outcome.decisions.iter().any(|d| d.id == id)
}

/// CPP Act 8(2): both contributions are compared together, so that too much in box 16 fills what lacks in box 16A.
#[test]
fn too_much_of_one_pension_contribution_fills_the_other() {
    // Two employers at 45,000: each took (45,000 − 3,500) × 5.95 % = 2,469.25; asked are 67,800 × 5.95 % + 9,900 × 4 %.
    let employer = [("14", "45000"), ("16", "2469.25"), ("18", "738")];
    let family = t4(t4(Family::single("ON", "1980-01-01"), "ada", &employer), "ada", &employer);
    let outcome = family.outcome();
    assert_lines(
        &outcome,
        0,
        &[("44800", "508.40"), ("22215", "1074.00"), ("30800", "3356.10"), ("43500", "17443.24")],
    );
    // Box 16 alone at 80,000: 4,034.10 and 348.00 are asked.
    for (first, second, back, enhanced) in [
        ("4034.10", "348", "0", "1026.00"),
        ("4134.10", "348", "100", "1026.00"),
        ("4134.10", "248", "0", "1026.00"),
        ("4134.10", "247.99", "0", "1025.99"),
        ("4034.10", "448", "100", "1026.00"),
        ("3934.10", "448", "0", "1109.19"),
    ] {
        let family =
            t4(Family::single("ON", "1980-01-01"), "ada", &[("14", "80000"), ("16", first), ("16A", second)]);
        assert_lines(&family.outcome(), 0, &[("44800", back), ("22215", enhanced)]);
    }
}

/// AB428 line 58400: 12,922 for a parent of 65 or over in the home, less net income above 20,545.
#[test]
fn alberta_has_an_amount_for_a_parent_who_lives_along() {
    let with = |born: &str, income: &str| {
        let family = Family::couple("AB", YOUNG).employed("ada", "90000").employed("bo", "50000");
        let family =
            family.person("may", "dependent", born).answer_for("may", "relationship", json!("parent"));
        family.answer_for("ada", "maintains_home", json!(true)).answer_for("may", "net_income", json!(income))
    };
    for (born, income, amount) in [
        ("1955-01-01", "12000", "12922"),
        ("1955-01-01", "20545", "12922"),
        ("1955-01-01", "20546", "12921"),
        ("1955-01-01", "33466", "1"),
        ("1955-01-01", "33467", "0"),
        ("1960-12-31", "12000", "12922"),
        ("1961-01-01", "12000", "0"),
    ] {
        assert_lines(&with(born, income).outcome(), 0, &[("58400", amount)]);
    }
    // Who keeps the home claims; both may, and then it is a decision.
    let outcome = with("1955-01-01", "0").outcome();
    assert!(has_point(&outcome, "C-50") && !has_decision(&outcome, "ca.caregiver.may"));
    let both = with("1955-01-01", "0").answer_for("bo", "maintains_home", json!(true));
    let outcome = both.clone().pin("ca.caregiver.may", "bo").outcome();
    assert_eq!((line(&outcome, 0, "58400"), line(&outcome, 1, "58400")), (Money::ZERO, money("12922")));
    assert!(both.outcome().total <= outcome.total);
    // Not in Ontario, and not beside the amount for an eligible dependant of the same person.
    let ontario = with("1955-01-01", "0").answer("province", json!("ON")).outcome();
    assert_eq!(line(&ontario, 0, "58400"), Money::ZERO);
    let single =
        Family::single("AB", "1980-01-01").employed("ada", "90000").person("may", "dependent", "1955-01-01");
    let single = single.answer_for("may", "relationship", json!("parent"));
    let outcome = single.answer_for("ada", "maintains_home", json!(true)).outcome();
    assert_lines(&outcome, 0, &[("58160", "22323"), ("58400", "0")]);
}

/// ON479: 25 % of medical expenses up to 6,000, less 5 % of family income above 35,000, from 70 on.
#[test]
fn ontario_pays_for_the_care_of_seniors_at_home() {
    let with = |born: &str, pension: &str, bills: &str| {
        Family::single("ON", born).pension("ada", pension).medical("ada", &[("2025-05-05", bills)]).outcome()
    };
    for (born, pension, bills, credit) in [
        ("1950-01-01", "35000", "4000", "1000.00"),
        ("1950-01-01", "35001", "4000", "999.95"),
        ("1950-01-01", "40000", "6000", "1250.00"),
        ("1950-01-01", "40000", "6001", "1250.00"),
        ("1950-01-01", "55000", "4000", "0"),
        ("1955-12-31", "30000", "400", "100.00"),
        ("1956-01-01", "30000", "400", "0"),
    ] {
        assert_lines(&with(born, pension, bills), 0, &[("47900", credit)]);
    }
    // The partner's age is enough, the receipts of both count once, the net income of both shrinks it.
    let couple =
        Family::couple("ON", ["1960-01-01", "1950-01-01"]).pension("ada", "20000").pension("bo", "17000");
    let outcome = couple.medical("bo", &[("2025-05-05", "2000")]).outcome();
    assert_eq!(line(&outcome, 0, "47900") + line(&outcome, 1, "47900"), money("400"));
}

/// ITA 122.7: 27 % of working income above 3,000 up to a most, less 15 % of family income above a threshold.
#[test]
fn workers_benefit_below_at_and_above_its_edges() {
    let single = |wages: &str, interest: &str| {
        let family = t4(Family::single("ON", "1990-01-01"), "ada", &[("14", wages)]);
        if interest == "0" { family } else { family.interest("ada", interest) }
    };
    for (wages, interest, benefit) in [
        ("3000", "0", "0"),
        ("3001", "0", "0.27"),
        ("9000", "0", "1620.00"),
        ("9048.15", "0", "1633.00"),
        ("20000", "6855", "1633.00"),
        ("20000", "6856", "1632.85"),
        ("20000", "17741", "0.10"),
        ("20000", "17742", "0"),
    ] {
        assert_lines(&single(wages, interest).outcome(), 0, &[("45300", benefit)]);
    }
    // 19 on 31 December.
    for (born, benefit) in [("2006-12-31", "1633"), ("2007-01-01", "0")] {
        let family = t4(Family::single("ON", born), "ada", &[("14", "12000")]);
        assert_lines(&family.outcome(), 0, &[("45300", benefit)]);
    }
    // A student of over 13 weeks has none without a child, and is asked where the school's certificate tells of months.
    let student = single("12000", "0").tuition("ada", "2000");
    let outcome = student.outcome();
    assert!(has_point(&outcome, "C-87-student") && !outcome.covered);
    let no = student.clone().answer_for("ada", "full_time_student", json!(false)).outcome();
    let yes = student.answer_for("ada", "full_time_student", json!(true)).outcome();
    assert_eq!((line(&no, 0, "45300"), line(&yes, 0, "45300")), (money("1633"), Money::ZERO));
    assert!(no.covered && yes.covered);
}

#[test]
fn workers_benefit_of_families() {
    // 45,000 together: the lower working income, up to 16,386, is left out of the income that counts.
    let couple =
        |ada: &str, bo: &str| t4(t4(Family::couple("ON", YOUNG), "ada", &[("14", ada)]), "bo", &[("14", bo)]);
    for (ada, bo, benefit) in [
        ("15000", "10000", "2813"),
        ("30000", "0", "2813"),
        // 50,639 − 16,386 = 34,253, which is 3,614 above 30,639: 542.10 less.
        ("30639", "20000", "2270.90"),
    ] {
        let outcome = couple(ada, bo).outcome();
        assert_lines(&outcome, 0, &[("45300", benefit)]);
        assert_eq!(line(&outcome, 1, "45300"), Money::ZERO);
    }
    // A single parent has the amounts of a family, at any age.
    let parent = t4(Family::single("ON", "2007-06-01"), "ada", &[("14", "20000")]).child("cy", "2025-05-05");
    assert_lines(&parent.outcome(), 0, &[("45300", "2813")]);
    // A dependant of 20 with wages has the benefit of a single person.
    let with_son = couple("60000", "60000").child("cy", "2005-05-05");
    let outcome = t4(with_son, "cy", &[("14", "20000")]).outcome();
    assert_lines(&outcome, 2, &[("45300", "1633")]);
    assert_lines(&outcome, 0, &[("45300", "0")]);
    // One of a couple a student: not computed, and said; both: none; with a child: as any family.
    let student = |family: Family, who: &str| family.answer_for(who, "full_time_student", json!(true));
    let one = student(couple("15000", "5000"), "bo");
    assert!(!one.outcome().covered);
    assert_lines(&student(one.clone(), "ada").outcome(), 0, &[("45300", "0")]);
    assert_lines(&one.child("cy", "2020-05-05").outcome(), 0, &[("45300", "2813")]);
    // Alberta has a table of its own, which is not held.
    let outcome = couple("15000", "5000").answer("province", json!("AB")).outcome();
    assert!(has_point(&outcome, "C-87-province") && !outcome.covered);
}

/// 118.9(1): parents and grandparents take tuition over, brothers and sisters do not.
#[test]
fn tuition_goes_to_parents_and_grandparents_only() {
    for (relationship, goes) in [("child", true), ("grandchild", true), ("sibling", false), ("parent", false)]
    {
        let family = Family::single("ON", "1980-01-01").employed("ada", "90000").child("lee", "2004-05-05");
        let family = family.answer_for("lee", "relationship", json!(relationship)).tuition("lee", "6000");
        let outcome = family.outcome();
        assert_eq!(has_decision(&outcome, "ca.tuition.lee"), goes, "{relationship}");
        assert_eq!(line(&outcome, 0, "32400"), money(if goes { "5000" } else { "0" }), "{relationship}");
    }
}

/// More amounts than the search has a budget for: the result says so, and names what to hold.
#[test]
fn what_was_not_weighed_in_full_is_no_result() {
    let family = Family::couple("ON", YOUNG).employed("ada", "31000").employed("bo", "31000");
    let family = family.medical("ada", &[("2025-03-03", "9000")]).medical("bo", &[("2025-04-04", "9000")]);
    let within = |points| {
        outcome::reckon_until(
            &family.household(),
            &REGISTRY,
            outcome::Wanted::least(1),
            &Stop::with_budget(points),
        )
        .unwrap()
    };
    assert!(within(10_000).complete && within(10_000).covered);
    let few = within(3);
    assert!(!few.complete);
    let point = few.points.iter().find(|p| p.id.starts_with("too-many-ways")).unwrap();
    assert!(point.remedy.contains("Medical that ada claims"), "{point:?}");
}

/// 82(3): all dividends on the other's return, where that makes or raises the amount for a partner.
#[test]
fn one_partner_may_report_the_dividends_of_the_other() {
    let couple = |income: &str| {
        let family =
            Family::couple("ON", YOUNG).interest("ada", "60000").paper("T5", "bo", json!({ "24": "1000" }));
        if income == "0" { family } else { family.interest("bo", income) }
    };
    let outcome = couple("0").outcome();
    let own = couple("0").pin("ca.dividends", "own").outcome();
    // On 1,380 at 20.5 + 9.15 %, less credits of 25.0198 %; 1,380 and 298 more of the amounts for a partner.
    let difference = own.total - outcome.total;
    assert!((difference - money("151.25")).cents().abs() <= 3, "{difference}");
    assert_lines(&outcome, 0, &[("12000", "1380"), ("30300", "16129")]);
    assert_lines(&outcome, 1, &[("12000", "0"), ("23600", "0"), ("dividends.eligible_given", "1380")]);
    assert_lines(&own, 0, &[("12000", "0"), ("30300", "14749")]);
    let why = "it would not raise the amount for a partner";
    assert_eq!(bar(&couple("16128.99").outcome(), "ca.dividends", "ada"), None);
    assert_eq!(bar(&couple("16129").outcome(), "ca.dividends", "ada").as_deref(), Some(why));
    assert_eq!(
        bar(&couple("0").outcome(), "ca.dividends", "bo").as_deref(),
        Some("no dividends of the partner")
    );
}

/// Where a split makes the election unlawful, there is no such way.
#[test]
fn a_split_may_make_an_election_unlawful() {
    let family = Family::couple("ON", ["1955-01-01", "1956-01-01"])
        .pension("ada", "60000")
        .paper("T5", "bo", json!({ "24": "2000" }))
        .interest("bo", "10000");
    let held = |amount: &str, election: &str| {
        let family = family.clone().pin("ca.split", "ada").pin("ca.split.amount", amount);
        family.pin("ca.dividends", election).outcome()
    };
    for (amount, lawful) in [("6128.99", true), ("6129", false), ("20000", false)] {
        let elected = held(amount, "ada");
        assert_eq!(elected.pins_hold, lawful, "{amount}");
        assert_eq!(line(&elected, 0, "12000") > Money::ZERO, lawful, "{amount}");
        assert!(held(amount, "own").pins_hold);
    }
    let outcome = family.outcome();
    let (mut best, mut own) = (Money::LARGEST, Money::LARGEST);
    for dollars in (0..=30_000).step_by(250) {
        own = own.min(held(&dollars.to_string(), "own").total);
        let elected = held(&dollars.to_string(), "ada");
        assert!(elected.lowest >= outcome.total);
        best = if elected.pins_hold { best.min(elected.total) } else { best };
    }
    assert!(own >= outcome.total && best >= outcome.total);
    // The price of the election is that of lawful ways alone.
    let decision = outcome.decisions.iter().find(|d| d.id == "ca.dividends").unwrap();
    let price = decision.options.iter().find(|o| o.id == "ada").unwrap().best.unwrap();
    assert!(price <= best && best - price < money("100"), "{price} {best}");
}

/// 146(5): nothing is deducted that came after the year of the 71st birthday of whose plan it is.
#[test]
fn late_contributions_are_left_out() {
    let with = |born: [&str; 2], date: &str, plan: &str| {
        let row = json!({ "date": date, "plan": plan, "amount": "3000" });
        let family = Family::couple("ON", born).pension("ada", "60000");
        family.shared("RRSP", &[("ada", "100")], json!({ "limit": "9000" }), json!([row])).outcome()
    };
    for (born, date, plan, late) in [
        (["1953-12-31", "1960-01-01"], "2025-11-03", "own", true),
        (["1954-01-01", "1960-01-01"], "2025-12-31", "own", false),
        (["1954-01-01", "1960-01-01"], "2026-01-01", "own", true),
        (["1950-01-01", "1960-01-01"], "2025-11-03", "spouse", false),
        (["1960-01-01", "1953-12-31"], "2025-11-03", "spouse", true),
    ] {
        let outcome = with(born, date, plan);
        assert_eq!(
            line(&outcome, 0, "20800"),
            money(if late { "0" } else { "3000" }),
            "{born:?} {date} {plan}"
        );
        assert_eq!(has_point(&outcome, "C-42"), late, "{born:?} {date} {plan}");
    }
}

/// 204.1, 204.2(1.1): above the limit and 2,000; what is paid in the next year's first days has that year's room too.
#[test]
fn contributions_over_the_limit() {
    let with = |rows: serde_json::Value, adjustment: &str| {
        let family = t4(Family::single("ON", "1980-01-01"), "ada", &[("14", "60000"), ("52", adjustment)]);
        family.shared("RRSP", &[("ada", "100")], json!({ "limit": "1000" }), rows).outcome()
    };
    let paid = |date: &str, amount: &str| json!({ "date": date, "plan": "own", "amount": amount });
    for (rows, adjustment, over) in [
        (json!([paid("2025-11-03", "3000")]), "0", None),
        (json!([paid("2025-11-03", "3000.50")]), "0", Some("0.50")),
        (json!([paid("2026-01-15", "13800")]), "0", None),
        (json!([paid("2026-01-15", "13801")]), "0", Some("1")),
        (json!([paid("2026-01-15", "5000")]), "9000", Some("200")),
        (json!([paid("2025-11-03", "4000"), paid("2026-01-15", "9000")]), "0", Some("1,000")),
    ] {
        let outcome = with(rows.clone(), adjustment);
        let told = outcome.points.iter().find(|p| p.id.starts_with("C-40:")).map(|p| p.message.clone());
        assert_eq!(told.is_some(), over.is_some(), "{rows}: {told:?}");
        if let (Some(told), Some(over)) = (told, over) {
            assert!(told.starts_with(&format!("{over} over the limit")), "{told}");
        }
    }
}

#[test]
fn a_gift_that_was_claimed_for_the_year_before_is_left_out() {
    let with = |used: bool| {
        let row =
            json!({ "date": "2025-02-10", "number": "10684 1234 RR0001", "amount": "500", "used": used });
        let family = Family::single("ON", "1980-01-01").interest("ada", "60000");
        family.shared("Gifts", &[("ada", "100")], json!({}), json!([row])).outcome()
    };
    assert_eq!(line(&with(false), 0, "34000"), money("500"));
    assert_eq!(line(&with(true), 0, "34000"), Money::ZERO);
}

/// Interest of 1,000 with 250 of tax from one country, 400 with 40 from another: of the first 15 % are credited and 100 deducted, or
/// all 290 are deducted.
#[test]
fn foreign_tax_is_credited_by_country_or_deducted() {
    let rows = json!([
        { "country": "Peru", "income": "1000", "tax": "250" },
        { "country": "Fiji", "income": "400", "tax": "40" },
    ]);
    let family = Family::single("ON", "1980-01-01").employed("ada", "90000").shared(
        "Foreign income",
        &[("ada", "100")],
        json!({}),
        rows,
    );
    let credited = family.clone().pin("ca.foreign.ada", "credit").outcome();
    // 90,000 − 1,074 of enhanced contributions + 1,400 − 100; the federal tax on it is less than 15 %.
    let (taxable, basic) = (line(&credited, 0, "26000"), line(&credited, 0, "42900"));
    assert_eq!(taxable, money("90226"));
    let of = |income: &str| basic.in_proportion(money(income), taxable, Money::CENT, Rounding::HalfUp);
    let expected = of("900") + money("40").min(of("400"));
    assert_eq!(line(&credited, 0, "40500"), expected);
    assert_eq!(line(&credited, 0, "foreign.deducted"), money("100"));
    // Ontario takes what is left of the first country's 150, and nothing of the second's.
    assert_eq!(line(&credited, 0, "428.foreign"), money("150") - of("900"));
    let deducted = family.clone().pin("ca.foreign.ada", "deduct").outcome();
    assert_lines(&deducted, 0, &[("foreign.deducted", "290.00"), ("40500", "0.00"), ("428.foreign", "0.00")]);
    assert!(family.outcome().total == credited.total && credited.total < deducted.total);
}

/// Fees of 3,000 and a limit of 1,000: the credit is a half of the fees at most, within the limit, and takes from tuition.
#[test]
fn the_training_credit_takes_from_tuition() {
    let student = |born: &str, limit: &str| {
        let family = Family::single("BC", born).employed("ada", "60000").tuition("ada", "3000");
        family.paper("Tuition carried", "ada", json!({ "training": limit })).outcome()
    };
    for (born, limit, credit, used) in [
        ("1980-01-01", "1000", "1000", "2000"),
        ("1980-01-01", "1500", "1500", "1500"),
        ("1980-01-01", "1500.01", "1500", "1500"),
        ("1999-12-31", "1000", "1000", "2000"),
        ("2000-01-01", "1000", "0", "3000"),
        ("1959-12-31", "1000", "0", "3000"),
        ("1960-01-01", "1000", "1000", "2000"),
    ] {
        assert_lines(&student(born, limit), 0, &[("45350", credit), ("32300", used), ("58560", used)]);
    }
    let open = Family::single("BC", "1980-01-01").employed("ada", "60000").tuition("ada", "3000").outcome();
    assert!(has_point(&open, "training-credit") && !open.covered);
}

/// 595 too much withheld from pay of 40,000 covers 10,000 of a business: the rest of 20,000 is asked for, and nothing comes back.
#[test]
fn contributions_that_were_overpaid_count_for_a_business() {
    let of = |withheld: &str, net: &str| {
        let family = Family::single("ON", "1980-01-01");
        let family = family.paper("T4", "ada", json!({ "14": "40000", "16": withheld, "18": "656" }));
        family.paper("T2125", "ada", json!({ "gross": net })).outcome()
    };
    // 5.95 % of 36,500 is 2,171.75.
    assert_lines(&of("2766.75", "0"), 0, &[("44800", "595"), ("42100", "0")]);
    // 11.9 % of 20,000 less 10,000.
    assert_lines(
        &of("2766.75", "20000"),
        0,
        &[("44800", "0"), ("42100", "1190"), ("31000", "495"), ("22200", "695")],
    );
    assert_lines(&of("2766.75", "5000"), 0, &[("44800", "297.50"), ("42100", "0")]);
    assert_lines(&of("2171.75", "20000"), 0, &[("44800", "0"), ("42100", "2380"), ("31000", "990")]);
}

#[test]
fn what_was_paid_in_advance_comes_back_as_far_as_there_is_a_benefit() {
    let family = |advance: &str| {
        let family = Family::single("ON", "1980-01-01")
            .employed("ada", "14000")
            .answer("advance_benefit", json!(true));
        family.paper("RC210", "ada", json!({ "10": advance })).outcome()
    };
    // 27 % of 11,000, at most 1,633.
    for (advance, back) in [("0.01", "0.01"), ("800", "800"), ("1633", "1633"), ("1633.01", "1633")] {
        let outcome = family(advance);
        assert_lines(&outcome, 0, &[("45300", "1633"), ("41500", back)]);
        assert!(!has_point(&outcome, "C-88") && !has_point(&outcome, "C-88-asked"));
    }
    // Of a couple the benefit of both is on the first return, and so is what the second had in advance.
    let couple = Family::couple("ON", ["1980-01-01"; 2]).employed("ada", "9000").employed("bo", "9000");
    let couple =
        couple.paper("RC210", "bo", json!({ "10": "700" })).answer("advance_benefit", json!(true)).outcome();
    assert_lines(&couple, 0, &[("41500", "700")]);
    assert_lines(&couple, 1, &[("41500", "0")]);
    let said =
        Family::single("ON", "1980-01-01").employed("ada", "14000").answer("advance_benefit", json!(true));
    assert!(has_point(&said.outcome(), "C-88"));
    let mut silent = Family::single("ON", "1980-01-01").employed("ada", "14000");
    silent.0["answers"].as_object_mut().unwrap().remove("advance_benefit");
    assert!(has_point(&silent.outcome(), "C-88-asked"));
}
