//! How near a date of birth is to one with another tax.
#![allow(missing_docs, clippy::unwrap_used)]

use hembo_core::{birthdays::birthdays, search::Stop};
use hembo_testing::ca::{Family, REGISTRY};

/// 65 by the end of 2025 are those born by 31 December 1960: a day decides on the age amount, and nothing else for a year.
#[test]
fn the_first_other_day_is_found_in_both_directions() {
    for (born, days, first) in [
        ("1960-12-31", 1, "1961-01-01"),
        ("1960-10-01", 92, "1961-01-01"),
        ("1961-01-01", -1, "1960-12-31"),
        ("1961-12-31", -365, "1960-12-31"),
    ] {
        let family = Family::single("AB", born).interest("ada", "30000");
        let found = birthdays(&family.household(), &REGISTRY, &Stop::default()).unwrap();
        let [one] = &found[..] else { panic!("{born}: {found:?}") };
        assert_eq!((one.person.as_str(), one.days, one.born.as_str()), ("ada", days, first), "{born}");
        assert_eq!(one.change.is_negative(), days < 0, "{born}");
    }
    let far = Family::single("AB", "1962-01-02").interest("ada", "30000").household();
    assert!(birthdays(&far, &REGISTRY, &Stop::default()).unwrap().is_empty());
    // Nobody waits for what was stopped.
    let stop = Stop::default();
    stop.stop();
    assert_eq!(birthdays(&far, &REGISTRY, &stop), None);
}
