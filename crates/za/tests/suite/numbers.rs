//! Identity and tax reference numbers.

use hembo_za::id_number::{birth_days, check, is_tax_reference};

#[test]
fn published_shapes() {
    assert_eq!(check("8001015009087"), Ok(()));
    assert_eq!(check("800101 5009 087"), Ok(()));
    for (bad, why) in
        [("8001015009088", "last digit"), ("800101500908", "thirteen"), ("8013015009082", "day of birth")]
    {
        assert!(check(bad).unwrap_err().contains(why), "{bad}");
    }
    assert!(
        is_tax_reference("0001339050") && !is_tax_reference("0001339051") && !is_tax_reference("4001339050")
    );
    let days = birth_days("8001015009087");
    assert_eq!(days.iter().map(|day| day.year()).collect::<Vec<_>>(), [1980, 2080]);
}
