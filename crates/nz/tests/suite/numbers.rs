//! IRD numbers.

use hembo_nz::ird_number::check;

#[test]
fn published_specimens() {
    for good in ["49091850", "35901981", "49098576", "136410132", "49-091-850", "049 091 850"] {
        assert_eq!(check(good), Ok(()), "{good}");
    }
    for (bad, why) in [
        ("136410133", "last digit"),
        ("9125568", "eight or nine"),
        ("150000001", "eight or nine"),
        ("49091851", "last digit"),
        ("4909185", "eight or nine"),
        ("", "eight or nine"),
        ("46454286000", "eight or nine"),
    ] {
        assert!(check(bad).unwrap_err().contains(why), "{bad}");
    }
}
