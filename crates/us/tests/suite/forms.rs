//! Which official forms are filed with a return: one unit below, at and above what decides.

use hembo_core::outcome::FormOutcome;
use hembo_testing::us::Family;
use serde_json::json;

fn form(family: &Family, id: &str) -> FormOutcome {
    let outcome = family.outcome();
    outcome.schedules[0].forms.iter().find(|f| f.id == id).unwrap_or_else(|| panic!("no form {id}")).clone()
}

fn filed(family: &Family, id: &str) -> bool {
    form(family, id).required
}

#[test]
fn schedule_b_above_the_figure_or_for_a_premium_or_an_account_abroad() {
    let with = |interest| Family::single(2025).wages("ada", 60_000).interest(&["ada"], interest);
    assert!(!filed(&with(1_499), "schedule-b") && !filed(&with(1_500), "schedule-b"));
    assert!(filed(&with(1_501), "schedule-b"));
    assert_eq!(form(&with(1_500), "schedule-b").why_not, "neither interest nor dividends above 1,500");
    let premium =
        Family::single(2025).paper("1099-INT", &["ada"], json!({ "1": "900", "11": "50" }), json!(null));
    assert!(filed(&premium, "schedule-b"));
    assert!(filed(&with(900).answer("foreign_account", json!(true)), "schedule-b"));
}

#[test]
fn form_8959_above_the_threshold_or_for_what_was_withheld() {
    let with = |wages| Family::couple(2025).wages("ada", wages).wages("bo", 100_000);
    assert!(!filed(&with(149_999), "8959") && !filed(&with(150_000), "8959"));
    assert!(filed(&with(150_001), "8959"));
    // An employer withholds from 200,000 on, though the couple's threshold is 250,000.
    let withheld = Family::couple(2025).wages("ada", 210_000);
    assert!(filed(&withheld, "8959") && filed(&withheld, "1040"));
}

#[test]
fn form_8960_above_the_threshold_and_with_investment_income() {
    let with = |wages, interest| Family::single(2025).wages("ada", wages).interest(&["ada"], interest);
    assert_eq!(form(&with(199_000, 1_000), "8960").why_not, "income not above 200,000");
    assert!(filed(&with(199_001, 1_000), "8960"));
    assert_eq!(form(&Family::single(2025).wages("ada", 210_000), "8960").why_not, "no net investment income");
}

#[test]
fn form_8283_above_the_figure_where_the_return_itemizes() {
    let with = |goods: &str| {
        let family = Family::single(2025).wages("ada", 90_000).loan(&["ada"], 20_000, 300_000);
        family.paper("Gifts", &["ada"], json!({}), json!([{ "sort": "goods", "amount": goods }]))
    };
    assert!(!filed(&with("500"), "8283") && filed(&with("501"), "8283"));
    assert_eq!(form(&with("500"), "8283").why_not, "no more than 500 of goods or property deducted");
    assert!(!filed(&with("501").pin("us.deduction", "standard"), "8283"));
    let told = |family: Family| hembo_testing::us::has_point(&family.outcome(), "K-111");
    assert!(told(with("501")) && !told(with("501").pin("us.deduction", "standard")));
}

#[test]
fn schedules_follow_the_way_and_the_year() {
    let family = Family::couple(2025)
        .wages("ada", 120_000)
        .loan(&["ada", "bo"], 40_000, 500_000)
        .child("cy", "2015-05-05");
    for id in ["schedule-a", "schedule-8812", "loan-limit", "summary"] {
        assert!(filed(&family, id), "{id}");
    }
    let standard = family.clone().pin("us.deduction", "standard");
    assert_eq!(form(&standard, "schedule-a").why_not, "standard deduction taken");
    assert!(!filed(&standard, "loan-limit") && filed(&standard, "schedule-8812"));
    // Form 1040 line 11 of 2024 is line 11a of 2025; Schedule 1-A begins in 2025.
    let place = |year: i32| {
        let outcome = Family::single(year).wages("ada", 50_000).outcome();
        outcome.lines.iter().find(|l| l.id == "us.agi").unwrap().place.clone()
    };
    assert_eq!((place(2024), place(2025)), ("Form 1040, line 11".into(), "Form 1040, line 11a".into()));
    let ids = |year: i32| -> Vec<String> {
        Family::single(year).wages("ada", 1_000).outcome().schedules[0]
            .forms
            .iter()
            .map(|f| f.id.clone())
            .collect()
    };
    assert!(
        ids(2025).iter().any(|id| id == "schedule-1-a") && !ids(2024).iter().any(|id| id == "schedule-1-a")
    );
}

#[test]
fn separate_returns_have_forms_of_their_own() {
    let family = Family::couple(2025)
        .wages("ada", 90_000)
        .wages("bo", 40_000)
        .loan(&["ada"], 20_000, 300_000)
        .pin("us.status", "separate");
    let outcome = family.outcome();
    let [ada, bo] = &outcome.schedules[..] else { panic!("two returns") };
    assert_eq!((ada.whose.as_str(), bo.whose.as_str()), ("ada · separate", "bo · separate"));
    let wages = |of: &hembo_core::outcome::ReturnSchedules| of.forms[0].rows[0].amount.unwrap().cents() / 100;
    assert_eq!((wages(ada), wages(bo)), (90_000, 40_000));
}

/// Lines 33, 34 and 37: 24 less 33 is the balance, with refundable credits among the payments.
#[test]
fn the_end_of_the_form_adds_up() {
    let family = Family::single(2025)
        .wages_with("ada", 30_000, json!({ "2": "1500" }))
        .child("cy", "2015-05-05")
        .set("ada", "/answers/paid_home", json!(true));
    let form = form(&family, "1040");
    let at =
        |number: &str| form.rows.iter().find(|r| r.number == number).unwrap().amount.unwrap().cents() / 100;
    assert!(at("27a") > 0 && at("28") > 0);
    assert_eq!(at("32"), at("27a") + at("28"));
    assert_eq!(at("33"), 1_500 + at("32"));
    assert_eq!((at("34"), at("37")), (at("33") - at("24"), 0));
    assert_eq!(family.outcome().balance.cents() / 100, at("24") - at("33"));
}

/// Form 8582 with any passive loss, even where all of it is allowed; not for a small loss of rental real estate with active participation.
#[test]
fn form_8582_with_a_passive_loss() {
    let house = |wages, spent: i64, more: serde_json::Value| {
        let mut boxes = json!({ "kind": "single", "days": 365, "3": "5000", "19": spent.to_string(), "18": "0", "active": true });
        boxes.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
        Family::single(2025).wages("ada", wages).paper("Schedule E", &["ada"], boxes, json!(null))
    };
    assert!(!filed(&house(90_000, 4_999, json!({})), "8582"));
    assert!(
        !filed(&house(100_000, 6_000, json!({})), "8582") && filed(&house(100_001, 6_000, json!({})), "8582")
    );
    // Passive income takes a loss of an earlier year with it.
    assert!(filed(&house(90_000, 1_000, json!({ "carried": "500" })), "8582"));
    assert_eq!(form(&house(90_000, 4_000, json!({})), "8582").why_not, "no passive loss");
}

/// Forms that one paper brings.
#[test]
fn forms_of_one_paper() {
    for (form, kind, boxes) in [
        ("172", "172", json!({ "since": "100" })),
        ("8801", "8801", json!({ "19": "100" })),
        ("8915-f", "8915-F", json!({ "14": "100" })),
        ("8919", "8919", json!({ "reason": "A", "6": "100" })),
    ] {
        let family = Family::single(2025).wages("ada", 60_000);
        assert!(!filed(&family, form), "{form}");
        assert!(filed(&family.paper(kind, &["ada"], boxes, json!(null)), form), "{form}");
    }
}
