//! A child's unearned income at the parents' rates, worked by hand from Form 8615.

use hembo_testing::us::{Family, has_point, line_of};
use serde_json::json;

/// A couple with taxable income of 180,000 and a child of fifteen.
fn family() -> Family {
    let family = Family::couple(2025).wages("ada", 211_500).child("kim", "2010-05-05");
    family.pin("us.child_income.kim", "own")
}

#[test]
fn a_child_at_the_parents_rates() {
    let outcome = family().interest(&["kim"], 7_000).wages("kim", 1_500).outcome();
    assert!(outcome.covered && !has_point(&outcome, "C-54"), "{:?}", outcome.points);
    for (line, amount) in [
        ("us.15", 6_550),
        ("us.8615.1", 7_000),
        ("us.8615.5", 4_300),
        // 30,374 on 184,300, less 29,428.
        ("us.8615.9", 30_374),
        ("us.8615.13", 946),
        ("us.8615.15", 226),
        ("us.16", 1_172),
    ] {
        assert_eq!(line_of(&outcome, line, "return/1"), amount, "{line}");
    }
    let alone = family().interest(&["kim"], 7_000).outcome();
    assert_eq!(line_of(&alone, "us.16", "return/1"), 1_082);
    let apart = family().interest(&["kim"], 7_000).pin("us.status", "separate").outcome();
    assert!(has_point(&apart, "C-54") && !has_point(&alone, "C-54"));
}

/// Form 8814: 4,300 of 7,000 with the parents, 946 more there, and 135; a dollar less than a return of the child's own.
#[test]
fn on_the_parents_return() {
    let child = |family: Family| family.child("lea", "2012-05-05").pin("us.status", "joint");
    let base = || child(Family::couple(2025).wages("ada", 211_500));
    let outcome = base().interest(&["lea"], 7_000).outcome();
    for (line, amount) in
        [("us.8814.12", 4_300), ("us.8814.15", 135), ("us.agi", 215_800), ("us.16", 30_374 + 135)]
    {
        assert_eq!(line_of(&outcome, line, "return/0"), amount, "{line}");
    }
    let own = base().interest(&["lea"], 7_000).pin("us.child_income.lea", "own").outcome();
    assert_eq!((own.total - outcome.total).cents(), 100);
    // Qualified dividends and distributions keep their kind, in proportion.
    let boxes = json!({ "1a": "4000", "1b": "3000", "2a": "2000" });
    let family = base().interest(&["lea"], 1_000).paper("1099-DIV", &["lea"], boxes, json!(null));
    let outcome = family.pin("us.child_income.lea", "parents").outcome();
    for (line, amount) in [
        ("us.8814.9", 1_843), // 4,300 × 3,000 ÷ 7,000
        ("us.8814.10", 1_229),
        ("us.8814.12", 1_228),
        ("us.3a", 1_843),
        ("us.3b", 1_843),
        ("us.sched_d.13", 1_229),
        ("us.7", 1_229),
    ] {
        assert_eq!(line_of(&outcome, line, "return/0"), amount, "{line}");
    }
    let chosen = |family: Family| {
        let outcome = family.outcome();
        outcome.decisions.iter().any(|d| d.id == "us.child_income.lea")
    };
    for (interest, offered) in [(1_350, false), (1_351, true), (13_499, true), (13_500, false)] {
        assert_eq!(chosen(base().interest(&["lea"], interest)), offered, "{interest}");
    }
    for (interest, tax) in [(1_355, 1), (2_000, 65), (2_694, 134), (2_695, 135), (2_700, 135), (9_000, 135)] {
        let family = base().interest(&["lea"], interest).pin("us.child_income.lea", "parents");
        assert_eq!(line_of(&family.outcome(), "us.8814.15", "return/0"), tax, "{interest}");
    }
    let withheld = base().paper("1099-INT", &["lea"], json!({ "1": "3000", "4": "1" }), json!(null));
    assert!(!chosen(withheld) && !chosen(base().interest(&["lea"], 3_000).wages("lea", 1)));
    let grown = |months: i64| {
        base().interest(&["lea"], 3_000).set("lea", "/born", json!("2006-12-31")).set(
            "lea",
            "/answers/student_months",
            json!(months),
        )
    };
    assert!(chosen(grown(5)) && !chosen(grown(4)));
}

/// Up to 2,700 nothing, then the part above; never less than at the child's own rates.
#[test]
fn from_the_limit_on() {
    for (interest, taxed) in [(2_699, None), (2_700, None), (2_701, Some(1)), (2_800, Some(100))] {
        let outcome = family().interest(&["kim"], interest).outcome();
        let found = outcome.lines.iter().find(|l| l.id == "us.8615.5").map(|l| l.amount.cents() / 100);
        assert_eq!(found, taxed, "{interest}");
    }
    // Parents without taxable income: the child's own rates give more.
    let poor = Family::couple(2025)
        .wages("ada", 20_000)
        .child("kim", "2010-05-05")
        .interest(&["kim"], 30_000)
        .outcome();
    // 28,650: 1,192.50 + 12 % × 16,750 (middle of the band 28,675), 3,202.50, so 3,203.
    assert_eq!(line_of(&poor, "us.16", "return/1"), 3_203);
}

/// Brothers and sisters share the tax that they add.
#[test]
fn brothers_and_sisters_share_the_tax() {
    let outcome = family()
        .child("lou", "2012-05-05")
        .pin("us.child_income.lou", "own")
        .interest(&["kim"], 7_000)
        .interest(&["lou"], 3_700)
        .outcome();
    // 180,000 + 4,300 + 1,000: 30,594 less 29,428 is 1,166: 946 and 220.
    assert_eq!(line_of(&outcome, "us.8615.13", "return/1"), 946);
    assert_eq!(line_of(&outcome, "us.8615.13", "return/2"), 220);
}

/// Gains keep their rates: of the child's dividends the part above the limit is taxed with the parents' gains.
#[test]
fn dividends_at_the_parents_rates() {
    let outcome = family().dividends(&["kim"], 7_000, 7_000).outcome();
    // Taxable 5,650; 4,300 at 15 % with the parents (above 96,700): 645; the rest, 1,350, at 0 %.
    assert_eq!(line_of(&outcome, "us.8615.13", "return/1"), 645);
    assert_eq!(line_of(&outcome, "us.16", "return/1"), 645);
}

/// 18 with earnings of over half of the support, 24, a joint return, no parent alive: no.
#[test]
fn whose_income_it_is_not() {
    let eighteen =
        family().set("kim", "/born", json!("2007-05-05")).wages("kim", 9_000).interest(&["kim"], 9_000);
    assert!(has_point(&eighteen.clone().outcome(), "K-151-ask"));
    let taxed = |family: Family| family.outcome().lines.iter().any(|l| l.id == "us.8615.18");
    assert!(taxed(eighteen.clone().set("kim", "/answers/earned_over_half", json!(false))));
    assert!(!taxed(eighteen.set("kim", "/answers/earned_over_half", json!(true))));
    assert!(!taxed(family().interest(&["kim"], 9_000).set("kim", "/answers/parent_alive", json!(false))));
    // Of a filer whose parents are not here it is told.
    let filer = Family::of(2025).filer("ada", "2010-05-05").interest(&["ada"], 9_000);
    assert!(!filer.set("ada", "/answers/parent_alive", json!(true)).outcome().covered);
}

/// Of parents who file apart the one with more taxable income counts, where they lived apart the one with whom the child lived.
#[test]
fn of_two_parents_the_one_with_more() {
    let couple = Family::couple(2025)
        .wages("ada", 60_000)
        .wages("bo", 300_000)
        .child("kim", "2010-05-05")
        .interest(&["kim"], 7_000)
        .pin("us.status", "separate");
    // At 35 % with Bo: 1,505; 135 on the rest (1,350 by the table: 136).
    assert_eq!(line_of(&couple.clone().outcome(), "us.8615.13", "return/2"), 1_505);
    let apart = couple.answer("apart", json!(true)).set("kim", "/lived_with", json!({ "ada": 12, "bo": 0 }));
    // Ada has 44,250: 4,300 more cross the end of the 12 % bracket at 48,475.
    let own = line_of(&apart.outcome(), "us.8615.13", "return/2");
    assert!((510..=530).contains(&own), "{own}");
}
