//! The tax number (Steuernummer) by Land: how many digits it has in print and with the federal prefix.

/// How a Land's numbers look: the digits in print with those they begin with, and the federal prefix.
struct Shape {
    land: &'static str,
    printed: usize,
    begins: &'static str,
    federal: &'static str,
}

const fn shape(land: &'static str, printed: usize, begins: &'static str, federal: &'static str) -> Shape {
    Shape { land, printed, begins, federal }
}

/// In print and of the federation, by Land.
const SHAPES: &[Shape] = &[
    shape("BW", 10, "", "28"),
    shape("BY", 11, "", "9"),
    shape("BE", 10, "", "11"),
    shape("BB", 11, "0", "30"),
    shape("HB", 10, "", "24"),
    shape("HH", 10, "", "22"),
    shape("HE", 11, "0", "26"),
    shape("MV", 11, "0", "40"),
    shape("NI", 10, "", "23"),
    shape("NW", 11, "", "5"),
    shape("RP", 10, "", "27"),
    shape("SL", 10, "", "10"),
    shape("SN", 11, "2", "32"),
    shape("ST", 11, "1", "31"),
    shape("SH", 10, "", "21"),
    shape("TH", 11, "1", "41"),
];

/// Whether a number may be one of the Land: in print, or thirteen digits with the federal prefix and a zero after the office.
pub fn fits(number: &str, land: &str) -> bool {
    let digits = hembo_core::check::digits(number);
    let Some(shape) = SHAPES.iter().find(|shape| shape.land == land) else { return true };
    let printed = digits.len() == shape.printed && digits.starts_with(shape.begins);
    let federal = digits.len() == 13 && digits.starts_with(shape.federal) && digits.get(4..5) == Some("0");
    printed || federal
}

/// Whether an account number (IBAN) checks: letters count from ten on, the first four characters go to the end, modulo 97 leaves one.
pub fn is_iban(number: &str) -> bool {
    let plain: Vec<u32> =
        number.chars().filter(|c| !c.is_whitespace()).map_while(|c| c.to_digit(36)).collect();
    let letters = number.chars().filter(|c| !c.is_whitespace()).count();
    if plain.len() != letters || plain.len() < 15 || (number.starts_with("DE") && plain.len() != 22) {
        return false;
    }
    let (head, tail) = plain.split_at(4);
    let step = |rest: u32, value: &u32| (rest * if *value > 9 { 100 } else { 10 } + value) % 97;
    tail.iter().chain(head).fold(0, step) == 1
}
