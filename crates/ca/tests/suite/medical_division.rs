//! Medical receipts divided between partners, each with months of one's own (ITA 118.2(1) B): by hand and against every pair of months.

use hembo_core::{Outcome, drawn::Drawn};
use hembo_money::Money;
use hembo_testing::ca::{Family, assert_lines, bar, has_point, line, money, taken};
use proptest::prelude::*;
use serde_json::json;
use time::{Date, Duration, macros::date};

const YOUNG: [&str; 2] = ["1980-01-01", "1981-01-01"];

/// Interest alone: nothing moves the net incomes, and there is no supplement.
fn couple(province: &str, interest: [&str; 2]) -> Family {
    Family::couple(province, YOUNG).interest("ada", interest[0]).interest("bo", interest[1])
}

fn drawn(outcome: &Outcome) -> &Drawn {
    outcome.papers.iter().find_map(|paper| paper.drawn.as_ref()).unwrap()
}

/// Both earn enough for the refundable supplement: each has one on a part of the receipts (ITA 118.2(1), 122.51).
#[test]
fn medical_receipts_are_divided_where_both_have_the_supplement() {
    let couple = |bills: &str| {
        let family = Family::couple("ON", YOUNG).employed("ada", "31000").employed("bo", "31000");
        family.medical("ada", &[("2025-03-03", bills)]).medical("bo", &[("2025-04-04", bills)])
    };
    let best = couple("9000").outcome();
    let alone = couple("9000").pin("ca.medical", "ada").outcome();
    assert_eq!(alone.total - best.total, money("806.87"));
    let claimed = [0, 1].map(|place| line(&best, place, "33099"));
    assert_eq!(claimed[0] + claimed[1], money("18000"));
    // No whole dollar is lower.
    for dollars in (0..=18_000).step_by(500) {
        let held = couple("9000").pin("ca.medical", "both").pin("ca.medical.amount", &dollars.to_string());
        assert!(held.outcome().total >= best.total, "{dollars}");
    }
    // Below two thresholds nothing can be divided: 3 % of 30,7xx each.
    assert!(bar(&couple("900").outcome(), "ca.medical", "both").is_some());
    assert!(bar(&couple("1000").outcome(), "ca.medical", "both").is_none());
}

/// Alberta 2025: bills of 5,000 and 6,000, twenty months apart. Bo alone is allowed 6,000 − 1,500 = 4,500; both 5,000 − 1,800 and 6,000 − 1,500,
/// or 6,000 − 1,800 and 5,000 − 1,500: 7,700. 3,200 more at 14.5 % and 8 % are 720.00.
#[test]
fn each_partner_claims_for_months_of_ones_own() {
    let bills = [("2024-03-01", "5000"), ("2025-11-01", "6000")];
    let family = couple("AB", ["60000", "50000"]).medical("ada", &bills);
    let [best, alone] = [family.outcome(), family.clone().pin("ca.medical", "bo").outcome()];
    assert!(best.covered && best.complete && !has_point(&best, "medical-divided"));
    assert_eq!(alone.total - best.total, money("720.00"));
    let allowed = [0, 1].map(|place| line(&best, place, "medical.above"));
    assert_eq!(allowed[0] + allowed[1], money("7700"));
    let claimed = [0, 1].map(|place| line(&best, place, "33099"));
    assert!([claimed, [claimed[1], claimed[0]]].contains(&[money("5000"), money("6000")]), "{claimed:?}");
    assert_ne!(taken(&best, "ca.medical.months.ada"), taken(&best, "ca.medical.months.bo"));
    // Beside it each way is told apart, by the months as well.
    let mut beside: Vec<_> = best.compared.ways.iter().map(|way| &way.but).collect();
    beside.sort();
    beside.dedup();
    assert_eq!(beside.len(), best.compared.ways.len(), "{beside:?}");
    // The same months of both: one bill between them. They hold no less elsewhere, and cannot be taken.
    let same = family.pin("ca.medical", "both").pin("ca.medical.months.ada", "2025-02-28");
    assert!(bar(&same.outcome(), "ca.medical.months.bo", "2025-02-28").is_some());
    // Both months are drawn, with what each claims.
    let drawn = drawn(&best);
    let spans: Vec<_> =
        drawn.picture.as_ref().unwrap().spans.iter().map(|span| (span.from, span.to)).collect();
    let years =
        [(date!(2024 - 02 - 29), date!(2025 - 02 - 28)), (date!(2024 - 11 - 02), date!(2025 - 11 - 01))];
    assert_eq!(spans, years);
    let amounts: Vec<_> = drawn.workings.iter().map(|working| working.amount).collect();
    assert_eq!(amounts, [money("5000"), money("6000")]);
}

/// Bills in the months of both stand on both returns; the paper brings each once.
#[test]
fn a_paper_brings_what_both_claim_of_once() {
    let bills = [("2024-03-01", "5000"), ("2025-01-10", "1000"), ("2025-11-01", "6000")];
    let outcome = couple("AB", ["60000", "50000"]).medical("ada", &bills).outcome();
    let feeds = outcome.papers.iter().flat_map(|paper| &paper.feeds);
    let claimed: Vec<_> = feeds.filter(|feed| feed.line == "ca.33099").collect();
    let told: Vec<_> = claimed.iter().map(|feed| (feed.amount, feed.scopes.len())).collect();
    assert_eq!(told, [(money("12000"), 2)]);
}

/// A second part brings something from its own threshold on: 3 % of 60,000 are 1,800, and where ada claims the 6,000, bo's are 1,500.
/// So the lesser bill brings nothing up to 1,800 (ada's 4,200 and bo's 300 are bo's 4,500 alone).
#[test]
fn a_second_part_counts_above_both_thresholds() {
    for (bill, allowed, by) in [("1799", "4500", "bo"), ("1800", "4500", "bo"), ("1801", "4501", "both")] {
        let bills = [("2024-03-01", bill), ("2025-11-01", "6000")];
        let outcome = couple("AB", ["60000", "50000"]).medical("ada", &bills).outcome();
        let sum: Money = [0, 1].map(|place| line(&outcome, place, "medical.above")).into_iter().sum();
        assert_eq!((sum, taken(&outcome, "ca.medical").as_deref()), (money(allowed), Some(by)), "{bill}");
    }
}

const BELOW: &str = "divided, a part would not be above its threshold";
const ENOUGH: &str = "both have tax enough for all of it: a second threshold would only take off";

/// All the receipts are no more than both thresholds: nothing can be divided. Nova Scotia's most of one is 1,637, less than Canada's. Above them a
/// second one takes off, as long as nobody has too little tax: a net income below 16,129 + 9,028 + 2,000 + 10,138 and the receipts may be.
#[test]
fn why_receipts_are_not_divided_is_told() {
    for (province, interest, bill, told) in [
        ("AB", ["60000", "50000"], "3300", Some(BELOW)),
        ("AB", ["60000", "50000"], "3300.01", Some(ENOUGH)),
        ("NS", ["90000", "90000"], "3274", Some(BELOW)),
        ("NS", ["90000", "90000"], "3274.01", Some(ENOUGH)),
        ("AB", ["60000", "42295"], "5000", Some(ENOUGH)),
        ("AB", ["60000", "42294.99"], "5000", None),
        // Above both thresholds, 1,800 each, at 14.5 % and 5.05 % with 56 % of surtax: 2,784.50 and 2,784.72; one claim without: 2,784.51 and 2,784.70.
        ("ON", ["60000", "60000"], "16043", Some(ENOUGH)),
        ("ON", ["60000", "60000"], "16044", None),
        ("AB", ["60000", "60000"], "16044", Some(ENOUGH)),
    ] {
        let outcome = couple(province, interest).medical("ada", &[("2025-03-01", bill)]).outcome();
        assert_eq!(bar(&outcome, "ca.medical", "both").as_deref(), told, "{interest:?} {bill}");
    }
    // What was not foreseen: tuition of both takes all their tax. It is told that a part was not weighed.
    let studied = |fees: &str| {
        let family = couple("AB", ["60000", "60000"]).medical("ada", &[("2025-03-01", "9000")]);
        family.tuition("ada", fees).tuition("bo", fees).outcome()
    };
    assert!(
        has_point(&studied("70000"), "medical-divided") && !has_point(&studied("1000"), "medical-divided")
    );
    // Minimum tax of earlier years takes what the claim would lower.
    let minimum = |paid: &str| {
        let family = couple("AB", ["60000", "60000"]).medical("ada", &[("2025-03-01", "9000")]);
        let rows = json!([{ "amount": paid }]);
        let both = ["ada", "bo"].into_iter().fold(family, |family, who| {
            family.shared("Minimum tax", &[(who, "100")], json!({}), rows.clone())
        });
        both.outcome()
    };
    assert!(has_point(&minimum("900"), "medical-divided") && !has_point(&minimum("0"), "medical-divided"));
}

/// Alberta 2025, 24,000 each: federal tax 3,480.00 − 2,338.71 = 1,141.29, Alberta's 1,920.00 − 1,785.84 = 134.16. 12,000 of one day: alone they end one
/// tax, 1,275.45, and the rest is lost. Divided, 12,000 − 2 × 720 = 10,560: Canada's tax of both is (48,000 − 32,258 − 10,560) × 14.5 % = 751.39,
/// Alberta's is gone.
#[test]
fn partners_with_too_little_tax_divide_the_same_months() {
    let family = |bill| couple("AB", ["24000", "24000"]).medical("ada", &[("2025-03-01", bill)]);
    let alone = family("12000").pin("ca.medical", "ada").outcome();
    assert_eq!(alone.total, money("1275.45"));
    let best = family("12000").outcome();
    assert_eq!((best.total, taken(&best, "ca.medical").as_deref()), (money("751.39"), Some("both")));
    assert!(best.covered && best.complete && !has_point(&best, "medical-divided"));
    assert_eq!(family("20000").outcome().total, Money::ZERO);
    assert_eq!(drawn(&best).workings.len(), 1);
}

/// Ontario 2025, 75 and 74 years, 15,000 each: no tax, and a quarter of what both claim, above a threshold (450) or not. 400 and 300 twenty months apart
/// are 175.00; the larger alone is 100.00.
#[test]
fn what_counts_for_seniors_is_divided_below_the_thresholds() {
    let family = |interest: &str| {
        let family = Family::couple("ON", ["1950-01-01", "1951-01-01"]).interest("ada", interest);
        family.interest("bo", "15000").medical("ada", &[("2024-03-01", "400"), ("2025-11-01", "300")])
    };
    assert_eq!(family("15000").outcome().total, money("-175.00"));
    assert_eq!(family("15000").pin("ca.medical", "ada").outcome().total, money("-100.00"));
    // Nothing is left of it from 35,000 + 1,500 ÷ 5 % on.
    for (interest, told) in [("50000", true), ("49999.99", false)] {
        assert_eq!(bar(&family(interest).outcome(), "ca.medical", "both").is_some(), told, "{interest}");
    }
}

/// What is pinned below what only the partner's months leave out is lawful, and costs.
#[test]
fn less_than_the_own_months_hold_may_be_claimed() {
    let bills = [("2024-03-01", "5000"), ("2025-11-01", "6000")];
    let family = couple("AB", ["60000", "50000"]).medical("ada", &bills).pin("ca.medical", "both");
    let held = |amount: &str| {
        let pinned =
            family.clone().pin("ca.medical.months.ada", "2025-02-28").pin("ca.medical.amount", amount);
        pinned.outcome()
    };
    // Bo's months hold 6,000, and no more.
    assert_lines(&held("3000"), 0, &[("33099", "3000"), ("medical.above", "1200")]);
    assert_lines(&held("3000"), 1, &[("33099", "6000"), ("medical.above", "4500")]);
    assert_eq!(held("3000").total - held("5000").total, money("450.00"));
}

/// A grown dependant without income: nothing is taken off, and each of two who may claim ends a tax of one's own. Alberta 2025, 24,000 each and
/// bills of 12,000: Canada's tax of both is (48,000 − 32,258 − 12,000) × 14.5 % = 542.59, Alberta's is gone; alone one tax of 1,275.45 is left.
#[test]
fn bills_of_another_dependant_are_divided_where_one_has_too_little_tax() {
    let family = |net: &str, bill: &str| {
        let family = couple("AB", ["24000", "24000"]).child("kim", "1999-01-01");
        family.answer_for("kim", "net_income", json!(net)).medical("kim", &[("2025-03-01", bill)])
    };
    let of_kim = |outcome: &Outcome| taken(outcome, "ca.medical.of.kim");
    let best = family("0", "12000").outcome();
    assert_eq!((best.total, of_kim(&best).as_deref()), (money("542.59"), Some("both")));
    assert!(best.complete && !has_point(&best, "medical-supporters"));
    assert_eq!(family("0", "12000").pin("ca.medical.of.kim", "bo").outcome().total, money("1275.45"));
    let claimed = [0, 1].map(|place| line(&best, place, "33199"));
    assert_eq!(claimed[0] + claimed[1], money("12000"));
    // With a net income of 5,000 each takes off 150.
    let net = family("5000", "12000").outcome();
    assert_eq!(net.total - best.total, money("43.50"));
    for (bill, told) in [("300", true), ("300.01", false)] {
        assert_eq!(
            bar(&family("5000", bill).outcome(), "ca.medical.of.kim", "both").is_some(),
            told,
            "{bill}"
        );
    }
    // Kim's own return may claim as well: of three who may, two are weighed together.
    let files = family("0", "40000").interest("kim", "17000").outcome();
    assert!(has_point(&files, "medical-supporters"));
}

/// More windows than are offered, each of which may be one of two: what is not weighed is told.
#[test]
fn months_beyond_those_that_are_offered_are_told() {
    let days: Vec<(String, String)> = (0..250_i64)
        .flat_map(|i| {
            let day = |first: Date| (first + Duration::days(i)).to_string();
            [(day(date!(2024 - 02 - 01)), "10".to_owned()), (day(date!(2025 - 02 - 01)), "11".to_owned())]
        })
        .collect();
    let bills: Vec<_> = days.iter().map(|(day, amount)| (day.as_str(), amount.as_str())).collect();
    assert!(has_point(&couple("AB", ["60000", "50000"]).medical("ada", &bills).outcome(), "medical-divided"));
    // Who died: receipts beyond the 24 months that are claimed could be the partner's.
    let died = couple("AB", ["60000", "50000"]).set("bo", "/died", json!("2025-06-30"));
    for (first, told) in [("2024-06-01", false), ("2023-07-01", true)] {
        let outcome = died.clone().medical("bo", &[(first, "5000"), ("2025-12-01", "5000")]).outcome();
        assert_eq!(has_point(&outcome, "medical-divided"), told, "{first}");
    }
}

/// The most that is allowed of bills in Alberta at 60,000 and 50,000: alone or divided, of every pair of twelve months that end in the year, where each
/// claims all of the own months or all that the other leaves.
fn naive(bills: &[(Date, i64)]) -> i64 {
    let [ada, bo] = [1_800, 1_500];
    let ends: Vec<Date> = (0..365).map(|day| date!(2025 - 01 - 01) + Duration::days(day)).collect();
    let held = |holds: &dyn Fn(Date) -> bool| bills.iter().filter(|b| holds(b.0)).map(|b| b.1).sum::<i64>();
    let within = |day: Date, end: Date| day <= end && day > end.replace_year(end.year() - 1).unwrap();
    let mut best = 0;
    for &one in &ends {
        for &other in &ends {
            let all = held(&|day| within(day, one) || within(day, other));
            let [of_one, of_other] = [one, other].map(|end| held(&|day| within(day, end)));
            for (x, y) in [(of_one, all - of_one), (all - of_other, of_other)] {
                best = best.max((x - ada).max(0) + (y - bo).max(0));
            }
        }
    }
    best
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    #[test]
    fn no_pair_of_months_allows_more(bills in prop::collection::vec((0_i64..720, 1_i64..6_000), 1..6)) {
        let bills: Vec<_> = bills.into_iter().map(|(ago, amount)| (date!(2025 - 12 - 31) - Duration::days(ago), amount)).collect();
        let written: Vec<_> = bills.iter().map(|(day, amount)| (day.to_string(), amount.to_string())).collect();
        let written: Vec<_> = written.iter().map(|(day, amount)| (day.as_str(), amount.as_str())).collect();
        let outcome = couple("AB", ["60000", "50000"]).medical("ada", &written).outcome();
        let allowed: Money = [0, 1].map(|place| line(&outcome, place, "medical.above")).into_iter().sum();
        prop_assert_eq!(allowed, Money::whole(naive(&bills)));
        prop_assert!(outcome.complete);
    }
}
