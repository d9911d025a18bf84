use crate::{Money, ParseMoneyError, Rate, Rounding};
use proptest::prelude::*;

fn money(text: &str) -> Money {
    text.parse().unwrap()
}

#[test]
fn amounts_are_read_and_written_exactly() {
    for (text, cents) in
        [("0", 0), ("12", 1_200), ("12.3", 1_230), ("12.34", 1_234), ("-0.05", -5), ("0007.00", 700)]
    {
        assert_eq!(money(text).cents(), cents, "{text}");
    }
    assert_eq!(Money::from_cents(-5).to_string(), "-0.05");
    assert_eq!(money("999999999999.99"), Money::LARGEST);
    assert_eq!(
        format!("{:#} {:#} {:#}", money("1240"), money("-1234567.05"), money("7")),
        "1,240 -1,234,567.05 7"
    );
}

#[test]
fn what_is_not_an_amount_is_refused() {
    for text in ["", "-", ".", "1.", ".5", "1.234", "1,000", "1e3", "+1", " 1", "٣", "--1", "1.-1"] {
        assert_eq!(text.parse::<Money>(), Err(ParseMoneyError::Form), "{text:?}");
    }
    for text in ["1000000000000", "-9999999999999", "99999999999999999999999"] {
        assert_eq!(text.parse::<Money>(), Err(ParseMoneyError::TooLarge), "{text:?}");
    }
}

#[test]
fn rates_are_read_and_written_exactly() {
    for (text, billionths) in
        [("0.075", 75_000_000), ("1", 1_000_000_000), ("999999999", 999_999_999_000_000_000)]
    {
        let rate: Rate = text.parse().unwrap();
        assert_eq!((rate.billionths(), rate.to_string().as_str()), (billionths, text));
    }
    for text in ["", "-0.1", "0.0000000001", "7.5%", "1000000000"] {
        assert!(text.parse::<Rate>().is_err(), "{text:?}");
    }
}

#[test]
fn rounding_rules_at_below_and_above_the_half() {
    let cases = [
        // amount, half up, down, up (to whole units)
        ("1.49", "1", "1", "2"),
        ("1.50", "2", "1", "2"),
        ("1.51", "2", "1", "2"),
        ("2.00", "2", "2", "2"),
        ("-1.49", "-1", "-1", "-2"),
        ("-1.50", "-2", "-1", "-2"),
    ];
    for (amount, half_up, down, up) in cases {
        let to = |rule| money(amount).rounded(Money::WHOLE, rule);
        assert_eq!(to(Rounding::HalfUp), money(half_up), "{amount} half up");
        assert_eq!(to(Rounding::Down), money(down), "{amount} down");
        assert_eq!(to(Rounding::Up), money(up), "{amount} up");
    }
}

#[test]
fn a_product_is_rounded_once() {
    // 6.2 % of 76,240.00 is 4,726.88 exactly; 7.5 % of 139,158 is 10,436.85.
    let rate = |text: &str| text.parse::<Rate>().unwrap();
    assert_eq!(money("76240").times(rate("0.062"), Money::CENT, Rounding::HalfUp), money("4726.88"));
    assert_eq!(money("139158").times(rate("0.075"), Money::WHOLE, Rounding::HalfUp), money("10437"));
    // Rounding to the cent first would raise 0.495 to 0.50 and then to 1.
    assert_eq!(money("0.99").times(rate("0.5"), Money::WHOLE, Rounding::HalfUp), Money::ZERO);
}

#[test]
fn ratios_have_the_places_asked_for() {
    let ratio = |a: &str, b: &str| money(a).ratio_to(money(b), 3, Rounding::HalfUp).to_string();
    assert_eq!(ratio("750000", "900000"), "0.833");
    assert_eq!(ratio("2", "3"), "0.667");
    assert_eq!(ratio("1", "0"), "0");
}

#[test]
fn steps_count_fractions_as_the_rule_says() {
    let thousand = Money::whole(1_000);
    for (excess, up, down) in
        [("0", 0, 0), ("0.01", 1, 0), ("999.99", 1, 0), ("1000", 1, 1), ("1000.01", 2, 1)]
    {
        assert_eq!(money(excess).steps_of(thousand, Rounding::Up), up, "{excess}");
        assert_eq!(money(excess).steps_of(thousand, Rounding::Down), down, "{excess}");
    }
}

proptest! {
    #[test]
    fn text_round_trips(cents in -99_999_999_999_999_i64..=99_999_999_999_999) {
        let amount = Money::from_cents(cents);
        prop_assert_eq!(amount.to_string().parse::<Money>(), Ok(amount));
    }

    #[test]
    fn a_split_adds_up(cents in -1_000_000_000_i64..1_000_000_000, weights in prop::collection::vec(0_i64..1_000, 1..6)) {
        let parts = Money::from_cents(cents).split(&weights);
        let expected = if weights.iter().all(|&w| w == 0) { 0 } else { cents };
        prop_assert_eq!(parts.iter().copied().sum::<Money>().cents(), expected);
        for (part, weight) in parts.iter().zip(&weights) {
            prop_assert!(*weight > 0 || part.is_zero());
        }
    }

    #[test]
    fn rounding_moves_less_than_a_unit(cents in -1_000_000_i64..1_000_000) {
        let amount = Money::from_cents(cents);
        for rule in [Rounding::HalfUp, Rounding::Down, Rounding::Up] {
            let rounded = amount.rounded(Money::WHOLE, rule);
            prop_assert!((rounded - amount).cents().abs() < 100);
            prop_assert_eq!(rounded.cents() % 100, 0);
            prop_assert_eq!((-amount).rounded(Money::WHOLE, rule), -rounded);
        }
    }
}
