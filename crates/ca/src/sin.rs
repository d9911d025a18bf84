//! The social insurance number (ITA 237): nine digits, the last of which checks the others.

use hembo_core::check::{digits, luhn};

/// Whether a number has the form of a SIN, an ITN or a TTN.
///
/// # Errors
/// What the number should look like.
pub fn check(number: &str) -> Result<(), &'static str> {
    let plain = digits(number);
    let same = plain.bytes().all(|b| Some(b) == plain.bytes().next());
    if plain.len() != 9 || number.len() > 11 || same || plain.starts_with('8') {
        return Err("A number has nine digits, such as 046 454 286, and does not begin with an 8.");
    }
    if !luhn(&plain) {
        return Err("The last digit does not fit the others: one of them was mistyped.");
    }
    Ok(())
}
