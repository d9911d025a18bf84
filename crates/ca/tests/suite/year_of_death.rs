//! The return of someone who died in the year, by hand.

use hembo_core::Outcome;
use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::json;

fn late(province: &str, born: &str, died: &str) -> Family {
    Family::of(province, "widowed").person("ada", "filer", born).set("ada", "/died", json!(died))
}

/// Ada outlives Bo.
fn bo_died(died: &str) -> Family {
    couple("AB", died)
}

fn couple(province: &str, died: &str) -> Family {
    let family = Family::of(province, "widowed").person("ada", "filer", "1955-01-01");
    family.person("bo", "filer", "1950-01-01").set("bo", "/died", json!(died))
}

fn most_split(outcome: &Outcome) -> String {
    let amount = outcome.decisions.iter().find(|d| d.id == "ca.split.amount").and_then(|d| d.amount.clone());
    amount.map_or("0.00".into(), |amount| amount.most.to_string())
}

#[test]
fn amounts_are_whole_and_ages_are_those_at_death() {
    for (born, age) in [("1960-03-10", true), ("1960-03-11", false)] {
        let outcome = late("AB", born, "2025-03-10").interest("ada", "20000").outcome();
        assert_lines(&outcome, 0, &[("30000", "16129")]);
        assert_eq!(line(&outcome, 0, "30100") > money("0"), age, "{born}");
        assert!(outcome.covered && has_point(&outcome, "C-16-final") && has_point(&outcome, "C-16-returns"));
    }
}

#[test]
fn medical_receipts_of_24_months_with_the_day_of_death() {
    for (bills, claimed) in [
        (vec![("2023-03-11", "1000"), ("2025-03-10", "500")], "1500"),
        // No 24 months hold this one and the day of death.
        (vec![("2023-03-10", "1000"), ("2025-03-10", "500")], "500"),
        (vec![("2023-03-09", "1000"), ("2025-03-09", "500")], "500"),
        (vec![("2024-06-01", "1000"), ("2025-11-30", "500")], "1500"),
    ] {
        let outcome =
            late("AB", "1950-01-01", "2025-03-10").interest("ada", "90000").medical("ada", &bills).outcome();
        assert_lines(&outcome, 0, &[("33099", claimed)]);
    }
    // Who lives has twelve months.
    let living = Family::of("AB", "widowed").person("ada", "filer", "1950-01-01").interest("ada", "90000");
    let bills = [("2024-06-01", "1000"), ("2025-11-30", "500")];
    assert_lines(&living.medical("ada", &bills).outcome(), 0, &[("33099", "1000")]);
}

#[test]
fn gifts_losses_and_the_minimum_tax() {
    let giver = |family: Family| family.interest("ada", "300000").gifts("ada", "500000").outcome();
    // Three quarters of net income leave a tax that only more gifts take away.
    assert!(line(&giver(late("AB", "1950-01-01", "2025-03-10")), 0, "34000") > money("225000"));
    let living = Family::of("AB", "widowed").person("ada", "filer", "1950-01-01");
    assert_lines(&giver(living.clone()), 0, &[("34000", "225000")]);
    let losses = |family: Family| {
        let family =
            family.interest("ada", "30000").paper("Capital losses", "ada", json!({ "left": "5000" }));
        let sold = json!([{ "kind": "bonds", "proceeds": "1000", "cost": "3000" }]);
        family.shared("Schedule 3", &[("ada", "100")], json!({}), sold).outcome()
    };
    assert_lines(
        &losses(late("AB", "1950-01-01", "2025-03-10")),
        0,
        &[("25300", "6000"), ("26000", "24000")],
    );
    assert_lines(&losses(living.clone()), 0, &[("25300", "0"), ("26000", "30000")]);
    let rich = |family: Family| {
        let sold = json!([{ "kind": "bonds", "proceeds": "900000", "cost": "0" }]);
        family.shared("Schedule 3", &[("ada", "100")], json!({}), sold).outcome()
    };
    let tax = |outcome| line(&outcome, 0, "42000");
    assert!(tax(rich(late("AB", "1950-01-01", "2025-03-10"))) < tax(rich(living)));
}

#[test]
fn the_workers_benefit_is_for_who_lived_past_june() {
    for (died, given) in [("2025-06-30", false), ("2025-07-01", true)] {
        let outcome = late("ON", "1970-01-01", died).employed("ada", "14000").outcome();
        assert_eq!(line(&outcome, 0, "45300") > money("0"), given, "{died}");
    }
}

/// 118(1)B(a): net income of the whole year of who lives, and of the last return of who died.
#[test]
fn either_of_a_couple_has_the_amount_for_the_other() {
    for marital in ["widowed", "married"] {
        let family = bo_died("2025-05-05").answer("marital", json!(marital));
        let lives = family.clone().interest("ada", "60000").interest("bo", "4000").outcome();
        assert_lines(&lives, 0, &[("30300", "12129")]);
        // What is left of Bo's age amount, as the basic one covers the income.
        assert_lines(&lives, 0, &[("32600", "9028")]);
        assert_lines(&lives, 1, &[("30300", "0"), ("30100", "9028")]);
        let died = family.interest("bo", "60000").interest("ada", "4000").outcome();
        assert_lines(&died, 1, &[("30300", "12129"), ("32600", "9028")]);
        assert!(lives.covered && died.covered);
    }
}

/// 118(1)B(b): who is alone for a part of the year may claim a child in place of the partner. Alberta 2025: 16,129 for the child;
/// for Bo, who had 10,000, only 6,129.
#[test]
fn who_lives_may_claim_an_eligible_dependant_instead() {
    let family = bo_died("2025-05-05").employed("ada", "60000").interest("bo", "10000");
    let family = family.child("cy", "2012-01-01").answer_for("ada", "maintains_home", json!(true));
    let best = family.outcome();
    assert_lines(&best, 0, &[("30300", "0"), ("30400", "16129"), ("58120", "0"), ("58160", "22323")]);
    assert_lines(&best, 1, &[("30300", "0"), ("30400", "0")]);
    let partner = family.clone().pin("ca.dependant", "partner").outcome();
    assert_lines(&partner, 0, &[("30300", "6129"), ("30400", "0"), ("58120", "12323"), ("58160", "0")]);
    // 10,000 at 14.5 % and at 8 %.
    assert_eq!((partner.total - best.total).cents(), 145_000 + 80_000);
    // Never on the return of who died, and not where the home was not kept.
    let not_kept = family.clone().answer_for("ada", "maintains_home", json!(false)).outcome();
    assert_lines(&not_kept, 0, &[("30300", "6129"), ("30400", "0")]);
    let asked = bo_died("2025-05-05").child("cy", "2012-01-01").outcome();
    assert!(has_point(&asked, "C-50") && !has_point(&best, "C-50"));
}

/// 60.03(1): B of C months of the pensioner's year, which ends with a death: all of it for who died, five of twelve for who lives.
#[test]
fn pension_is_split_for_the_months_of_the_pensioners_year() {
    let of = |who: &str, died: &str| bo_died(died).pension(who, "40000").pin("ca.split", who);
    for (family, most) in [
        (of("bo", "2025-05-05"), "20000.00"),
        (of("ada", "2025-05-05"), "8333.33"),
        (of("ada", "2025-05-31"), "8333.33"),
        (of("ada", "2025-06-01"), "10000.00"),
        (of("ada", "2025-12-31"), "20000.00"),
        // Married in March: three of five, and of twelve.
        (of("bo", "2025-05-05").answer("months_together", json!(3)), "12000.00"),
        (of("ada", "2025-05-05").answer("months_together", json!(3)), "5000.00"),
        (of("ada", "2025-05-05").answer("months_together", json!(12)), "8333.33"),
    ] {
        assert_eq!(most_split(&family.outcome()), most, "{:?}", family.0["people"]);
    }
}

/// 118.2(1) B(d): 24 months for who died, whoever claims; twelve for who lives.
#[test]
fn receipts_for_who_died_count_for_24_months_on_either_return() {
    let family = bo_died("2025-05-05").pension("ada", "60000").interest("bo", "90000");
    let of_bo = [("2023-06-01", "1000"), ("2025-03-10", "500")];
    let of_ada = [("2024-06-01", "300"), ("2025-11-30", "200")];
    for who in ["ada", "bo"] {
        let both = family.clone().medical("bo", &of_bo).medical("ada", &of_ada).pin("ca.medical", who);
        let outcome = both.outcome();
        let [place, other] = if who == "ada" { [0, 1] } else { [1, 0] };
        assert_lines(&outcome, place, &[("33099", "1800")]);
        assert_lines(&outcome, other, &[("33099", "0")]);
        let of_window = |window: &str| both.clone().pin("ca.medical.window", window).outcome();
        assert_lines(&of_window("2025-11-30"), place, &[("33099", "1700")]);
    }
    // A day too early for who died, and for who lives.
    for (who, day, told) in [
        ("bo", "2023-05-06", false),
        ("bo", "2023-05-05", true),
        ("ada", "2024-01-02", false),
        ("ada", "2024-01-01", true),
    ] {
        let outcome = family.clone().medical(who, &[(day, "100")]).outcome();
        assert_eq!(has_point(&outcome, "C-57"), told, "{who} {day}");
    }
}

/// Children's receipts have twelve months on the last return as well.
#[test]
fn receipts_for_a_child_of_who_died_count_for_twelve_months() {
    let family = late("AB", "1980-01-01", "2025-03-10").interest("ada", "90000").child("cy", "2015-01-01");
    let outcome = family.medical("ada", &[("2023-06-01", "1000")]).medical("cy", &[("2023-06-01", "700")]);
    assert_lines(&outcome.outcome(), 0, &[("33099", "1000")]);
}

/// 118.1(1) 'total gifts' (a)(ii): all of net income for who died, three quarters for who lives.
#[test]
fn gifts_of_a_couple_have_each_ones_limit() {
    let giver = |who: &str| bo_died("2025-05-05").interest(who, "300000").gifts(who, "500000").outcome();
    assert!(line(&giver("bo"), 1, "34000") > money("225000"));
    assert_lines(&giver("ada"), 0, &[("34000", "225000")]);
}

/// CPP s. 17, 19: five twelfths of 3,500 are 1,458.33, so that 18,541.67 at 5.95 % are asked for.
#[test]
fn contributions_are_asked_for_the_months_to_a_death() {
    let t4 = json!({ "14": "20000", "16": "1200", "26": "20000" });
    for (died, back) in [("2025-05-31", "96.77"), ("2025-12-01", "218.25"), ("2026-01-01", "218.25")] {
        let outcome = late("AB", "1970-01-01", died).paper("T4", "ada", t4.clone()).outcome();
        assert_lines(&outcome, 0, &[("44800", back)]);
    }
}

/// What a family's income measures: who lives is alone at the end of the year (122.6, 122.7(1) 'eligible spouse').
#[test]
fn who_lives_is_alone_where_the_income_of_a_family_counts() {
    let lines = ["45300", "45200", "ontario.lift", "47900"];
    for province in ["ON", "BC"] {
        let alone = Family::of(province, "widowed").person("ada", "filer", "1955-01-01");
        let two = couple(province, "2025-06-30").interest("bo", "90000").pin("ca.medical", "ada");
        let [one, two] = [alone, two].map(|family| {
            let family = family.employed("ada", "16000").medical("ada", &[("2025-05-05", "3000")]);
            family.answer("rented_months", json!(12)).outcome()
        });
        for id in lines {
            assert_eq!(line(&one, 0, id), line(&two, 0, id), "{province} {id}");
        }
        assert!(line(&two, 0, "45300") > money("0") && line(&two, 0, "45200") > money("0"));
        assert_lines(&two, 1, &[("45300", "0"), ("47900", "0")]);
    }
}

#[test]
fn what_a_family_has_once_is_told() {
    let told = |family: Family, id: &str| has_point(&family.outcome(), id);
    // The workers benefit of who died in the second half of the year, where there would be one.
    let works = |died: &str| couple("ON", died).employed("bo", "14000");
    assert!(told(works("2025-07-01"), "C-87") && !told(works("2025-06-30"), "C-87"));
    assert!(!told(couple("ON", "2025-07-01").employed("bo", "90000"), "C-87"));
    for (province, always) in
        [("NB", true), ("NS", true), ("PE", true), ("MB", true), ("AB", false), ("SK", false)]
    {
        assert_eq!(told(couple(province, "2025-05-05"), "C-16-family"), always, "{province}");
    }
    // British Columbia 2025: 150 less 2 % of what is above 18,000 is nil from 25,500 on.
    let sales = |net: &str| told(couple("BC", "2025-05-05").interest("bo", net), "C-16-family");
    assert!(sales("25499.99") && !sales("25500"));
    let child =
        |family: Family| family.child("cy", "2012-01-01").answer_for("ada", "maintains_home", json!(false));
    // Ontario: children, as long as the tax of who died is not nil and below twice the amounts.
    let of_children = |net: &str| told(child(couple("ON", "2025-05-05").interest("bo", net)), "C-16-family");
    assert!(!of_children("5000") && of_children("45000") && !of_children("90000"));
    let cared = |net: &str| {
        let family = couple("ON", "2025-05-05").interest("ada", net).interest("bo", "90000");
        told(family.medical("ada", &[("2025-05-05", "3000")]), "C-16-family")
    };
    assert!(cared("40000") && !cared("90000"));
    let paid = json!([{ "child": "cy", "number": "9", "kind": "day", "amount": "1000" }]);
    let care = child(bo_died("2025-05-05")).shared("T778", &[("ada", "100")], json!({}), paid);
    assert!(told(care, "C-16-care"));
}

#[test]
fn who_else_died_is_told() {
    let both = bo_died("2025-05-05").set("ada", "/died", json!("2025-05-05")).outcome();
    assert!(has_point(&both, "C-16") && !both.covered);
    let one = bo_died("2025-05-05").outcome();
    assert!(!has_point(&one, "C-16") && has_point(&one, "C-16-partner") && one.covered);
    let single = Family::single("AB", "1980-01-01");
    for (died, told) in [("2024-12-31", true), ("2025-01-01", false)] {
        assert_eq!(
            has_point(&bo_died(died).answer("marital", json!("married")).outcome(), "C-16-before"),
            told
        );
        let child = single.clone().child("cy", "2012-01-01").set("cy", "/died", json!(died)).outcome();
        assert_eq!(has_point(&child, "C-16-before"), told);
    }
    let child =
        |born: &str| single.clone().child("cy", born).set("cy", "/died", json!("2025-05-05")).outcome();
    assert!(has_point(&child("2006-05-06"), "C-16-child") && !has_point(&child("2006-05-05"), "C-16-child"));
    let next_year = Family::single("AB", "1980-01-01").set("ada", "/died", json!("2026-01-01")).outcome();
    assert!(!has_point(&next_year, "C-16-final"));
}

#[test]
fn a_separation_of_the_year_leaves_a_choice() {
    let apart = Family::of("AB", "separated").person("ada", "filer", "1980-01-01");
    assert!(has_point(&apart.outcome(), "C-13-day"));
    for (day, told) in [("2024-12-31", false), ("2025-01-01", true)] {
        let outcome = apart.clone().answer("separated_on", json!(day)).outcome();
        assert_eq!((has_point(&outcome, "C-13"), has_point(&outcome, "C-13-day")), (told, false), "{day}");
    }
}
