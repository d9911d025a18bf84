//! Identification and tax numbers, and those of accounts.

use hembo_de::{
    identification::check,
    tax_number::{fits, is_iban},
};

#[test]
fn published_specimens_pass_and_their_neighbours_do_not() {
    for number in ["86095742719", "47036892816", "65929970489", "86 095 742 719"] {
        assert_eq!(check(number), Ok(()), "{number}");
    }
    for number in ["86095742718", "06095742719", "8609574271", "12345678901"] {
        assert!(check(number).is_err(), "{number}");
    }
}

#[test]
fn numbers_fit_their_land_in_print_and_with_the_federal_prefix() {
    for (number, land) in
        [("93815/08152", "BW"), ("181/815/08155", "BY"), ("5133081508159", "NW"), ("013 815 08153", "HE")]
    {
        assert!(fits(number, land), "{number} {land}");
    }
    for (number, land) in
        [("93815/0815", "BW"), ("93815/08152", "BY"), ("5133181508159", "NW"), ("113 815 08153", "HE")]
    {
        assert!(!fits(number, land), "{number} {land}");
    }
}

#[test]
fn accounts_check_by_their_digits() {
    assert!(is_iban("DE89 3704 0044 0532 0130 00"));
    for wrong in ["DE89 3704 0044 0532 0130 01", "DE89 3704", "", "DE89 3704 0044 0532 0130 0!"] {
        assert!(!is_iban(wrong), "{wrong}");
    }
}
