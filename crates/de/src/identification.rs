//! The identification number (§139b AO): eleven digits, the last by ISO/IEC 7064 MOD 11,10.

use hembo_core::check::digits;

/// Whether a number may be one; if not, why.
///
/// # Errors
/// What is wrong with it.
pub fn check(number: &str) -> Result<(), &'static str> {
    let digits = digits(number);
    match digits.len() {
        11 if is_number(&digits) => Ok(()),
        11 => Err("The last digit does not fit the others."),
        _ => Err("The number has eleven digits."),
    }
}

/// Whether a number is right: the first digit is not zero, one of the first ten stands twice or three times, the last checks them.
pub fn is_number(number: &str) -> bool {
    let all: Vec<u32> = digits(number).chars().filter_map(|c| c.to_digit(10)).collect();
    let [first_ten @ .., last] = all.as_slice() else { return false };
    if first_ten.len() != 10 || first_ten[0] == 0 {
        return false;
    }
    let often: Vec<usize> = (0..10).map(|digit| first_ten.iter().filter(|d| **d == digit).count()).collect();
    let repeated = often.iter().filter(|times| **times > 1).count();
    let thrice_in_a_row = first_ten.windows(3).any(|three| three[0] == three[1] && three[1] == three[2]);
    repeated == 1
        && often.iter().all(|times| *times <= 3)
        && !thrice_in_a_row
        && check_digit(first_ten) == *last
}

fn check_digit(ten: &[u32]) -> u32 {
    let product = ten.iter().fold(10, |product, digit| {
        let sum = match (digit + product) % 10 {
            0 => 10,
            sum => sum,
        };
        (sum * 2) % 11
    });
    (11 - product) % 10
}
