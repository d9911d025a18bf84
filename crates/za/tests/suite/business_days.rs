//! Business days, and the recess of disputes.

use hembo_core::dates::after_business_days;
use hembo_za::calendar::{is_free, is_recess};
use time::macros::date;

#[test]
fn holidays_on_a_sunday_move_to_the_monday() {
    // 9 August 2026 is a Sunday, 16 June 2026 a Tuesday; Good Friday 2026 is 3 April, Family Day 6 April.
    for day in [date!(2026 - 08 - 10), date!(2026 - 06 - 16), date!(2026 - 04 - 03), date!(2026 - 04 - 06)] {
        assert!(is_free(day, &[]), "{day}");
    }
    for day in [date!(2026 - 08 - 11), date!(2026 - 06 - 15), date!(2026 - 04 - 02), date!(2026 - 04 - 07)] {
        assert!(!is_free(day, &[]), "{day}");
    }
    assert!(is_free(date!(2024 - 05 - 29), &[date!(2024 - 05 - 29)]));
}

#[test]
fn business_days_are_counted_without_the_day_itself() {
    let after = |from, days| after_business_days(from, days, |day| is_free(day, &[]));
    // Monday 7 September 2026; Heritage Day, Thursday 24 September, is left out.
    assert_eq!(after(date!(2026 - 09 - 07), 1), date!(2026 - 09 - 08));
    assert_eq!(after(date!(2026 - 09 - 07), 12), date!(2026 - 09 - 23));
    assert_eq!(after(date!(2026 - 09 - 07), 13), date!(2026 - 09 - 25));
    assert_eq!(after(date!(2026 - 09 - 07), 21), date!(2026 - 10 - 07));
    // A request on a Sunday counts from the Monday.
    assert_eq!(after(date!(2026 - 09 - 06), 1), date!(2026 - 09 - 07));
    // Disputes leave the recess out: from 15 December the next is 16 January, a Saturday in 2027, so Monday the 18th.
    let dispute = |from, days| after_business_days(from, days, |day| is_free(day, &[]) || is_recess(day));
    assert_eq!(dispute(date!(2026 - 12 - 15), 1), date!(2027 - 01 - 18));
}
