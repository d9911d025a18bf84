//! Social security and other taxpayer numbers: the forms the authority gives out.

use hembo_core::check::digits;

/// Whether nine digits have the form of an individual taxpayer number (ITIN).
pub fn is_itin(plain: &str) -> bool {
    let group = plain.get(3..5).and_then(|group| group.parse::<u32>().ok());
    plain.starts_with('9') && matches!(group, Some(50..=65 | 70..=88 | 90..=92 | 94..=99))
}

/// Whether a number has the form of an SSN, an ITIN or an ATIN.
///
/// # Errors
/// What the number should look like.
pub fn check(number: &str) -> Result<(), &'static str> {
    const WRONG: &str = "A number has nine digits in the form of an SSN, ITIN or ATIN, such as 412-55-0137.";
    let plain = digits(number);
    if plain.len() != 9 || !plain.bytes().all(|b| b.is_ascii_digit()) || number.len() > 11 {
        return Err(WRONG);
    }
    let part = |from: usize, to: usize| plain[from..to].parse::<u32>().unwrap_or(0);
    let (area, group, serial) = (part(0, 3), part(3, 5), part(5, 9));
    let atin = area >= 900 && group == 93;
    let ssn = !matches!(area, 0 | 666 | 900..) && group != 0 && serial != 0;
    if ssn || is_itin(&plain) || atin { Ok(()) } else { Err(WRONG) }
}
