//! What is due when: each return with its balance, and instalments where more than 3,000 is owing.

use hembo_ca::Canada;
use hembo_core::{Pack, dates::DueDate};
use hembo_money::Money;
use hembo_testing::ca::{Family, line, money};
use serde_json::json;

fn dates(family: &Family) -> Vec<DueDate> {
    Canada::COMMITTED.dates(&family.outcome())
}

fn pensioner(withheld: Money) -> Family {
    let boxes = json!({ "016": "60000.00", "022": withheld.to_string() });
    Family::single("ON", "1950-05-01").paper("T4A", "ada", boxes)
}

#[test]
fn instalments_begin_above_three_thousand_of_net_tax_owing() {
    let nothing = pensioner(Money::ZERO);
    let tax = line(&nothing.outcome(), 0, "net_tax");
    let at = dates(&pensioner(tax - money("3000")));
    assert_eq!(at.len(), 1);
    assert_eq!((at[0].day.to_string().as_str(), at[0].amount), ("2026-04-30", Some(money("3000"))));
    // One cent more: a quarter each, on the days of ITA 156(1); the fifteenth of March 2026 is a Sunday.
    let above = dates(&pensioner(tax - money("3000.01")));
    let instalments: Vec<_> = above.iter().filter(|due| due.what == "Instalment for 2026").collect();
    let days: Vec<String> = instalments.iter().map(|due| due.day.to_string()).collect();
    assert_eq!(days, ["2026-03-16", "2026-06-15", "2026-09-15", "2026-12-15"]);
    assert!(instalments.iter().all(|due| due.amount == Some(money("750.01"))));
    // More was withheld than is owing: nothing is to be paid.
    let back = dates(&pensioner(tax + money("1")));
    assert_eq!((back[0].what.as_str(), back[0].amount), ("Return", None));
}

/// ITA 150(1)(b), 248(1): a death from November on leaves six months; nobody asks the dead for instalments.
#[test]
fn after_a_late_death_there_are_six_months() {
    for (died, day) in
        [("2025-10-31", "2026-04-30"), ("2025-11-01", "2026-05-01"), ("2025-12-31", "2026-06-30")]
    {
        let family = pensioner(Money::ZERO).answer("marital", json!("widowed"));
        let due = dates(&family.set("ada", "/died", json!(died)));
        assert_eq!(due.iter().map(|due| due.day.to_string()).collect::<Vec<_>>(), [day], "{died}");
    }
    // Who outlived a partner pays in time, and by instalments.
    let couple = Family::couple("ON", ["1950-05-01"; 2]).set("bo", "/died", json!("2025-12-31"));
    let due = dates(&couple.pension("ada", "60000").pension("bo", "60000"));
    let of = |who: &str| {
        due.iter().filter(|due| due.whose.starts_with(who)).map(|due| due.day.to_string()).collect::<Vec<_>>()
    };
    assert_eq!(of("bo"), ["2026-06-30"]);
    assert_eq!((of("ada").len(), of("ada")[1].as_str()), (5, "2026-04-30"));
}
