//! The IRD number: eight or nine digits, the last of which checks the others.

use hembo_core::check::digits;

const WEIGHTS: [u32; 8] = [3, 2, 7, 6, 5, 4, 3, 2];
/// Where the first weights give ten.
const OTHER_WEIGHTS: [u32; 8] = [7, 4, 3, 2, 5, 2, 7, 6];
const FIRST: u32 = 10_000_000;
const LAST: u32 = 150_000_000;

/// Whether a number has the form of an IRD number.
///
/// # Errors
/// What the number should look like.
pub fn check(number: &str) -> Result<(), &'static str> {
    let plain = digits(number);
    let value: Option<u32> =
        plain.parse().ok().filter(|_| (8..=9).contains(&plain.len()) && number.len() <= 11);
    let Some(value) = value.filter(|value| (FIRST..=LAST).contains(value)) else {
        return Err(
            "An IRD number has eight or nine digits, such as 49-091-850, from 10-000-000 to 150-000-000.",
        );
    };
    let wanted = check_digit(value / 10, &WEIGHTS).or_else(|| check_digit(value / 10, &OTHER_WEIGHTS));
    if wanted != Some(value % 10) {
        return Err("The last digit does not fit the others: one of them was mistyped.");
    }
    Ok(())
}

/// The digit that checks the others; none where the weights give ten.
fn check_digit(base: u32, weights: &[u32; 8]) -> Option<u32> {
    let places = weights.iter().rev().scan(base, |rest, weight| {
        let digit = *rest % 10;
        *rest /= 10;
        Some(digit * weight)
    });
    match places.sum::<u32>() % 11 {
        0 => Some(0),
        1 => None,
        left => Some(11 - left),
    }
}
