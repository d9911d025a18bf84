//! Numbers of who signs, and of accounts.

use hembo_us::{
    refund::{is_account, is_routing},
    signing::{is_pin, is_ptin},
};

#[test]
fn numbers_of_who_signs() {
    for (pin, fits) in [("12345", true), ("00001", true), ("00000", false), ("1234", false), ("1234a", false)]
    {
        assert_eq!(is_pin(pin), fits, "{pin}");
    }
    for (number, fits) in
        [("P01234567", true), ("P0123456", false), ("01234567", false), ("P0123456x", false)]
    {
        assert_eq!(is_ptin(number), fits, "{number}");
    }
}

#[test]
fn the_last_digit_checks_the_others() {
    // 3 × (0 + 0 + 0) + 7 × (2 + 0 + 2) + (1 + 0 + 1) = 30.
    assert!(is_routing("021000021"));
    for wrong in ["021000022", "02100002", "0210000210", "131000020", "abcdefghi", ""] {
        assert!(!is_routing(wrong), "{wrong}");
    }
}

#[test]
fn an_account_has_four_to_seventeen() {
    for (number, fits) in [("123", false), ("1234", true), ("5561-9034", true), ("12345678901234567", true)] {
        assert_eq!(is_account(number), fits, "{number}");
    }
    assert!(!is_account("123456789012345678") && !is_account("12#45"));
}
