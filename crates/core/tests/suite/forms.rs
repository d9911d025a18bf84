//! Official forms as data: what a later year changes of them, and results made again from their lines.

use hembo_core::forms::Forms;
use hembo_money::Money;

const FIRST: &str = r#"
year = 2024

[[form]]
id = "return"
name = "Return"
title = "All of it"
lines = [
    { number = "1", title = "Pay", line = "at.pay" },
    { number = "2", title = "Gifts", line = "at.gifts" },
    { number = "3", title = "Left", line = "at.left", result = true },
]

[[sum]]
line = "at.left"
adds = ["at.pay"]
less = ["at.gifts"]
or_zero = true

[[sum]]
line = "at.tax"
form = "return"
adds = ["at.left"]
"#;

fn next(changes: &str) -> Result<Forms, String> {
    Forms::like(FIRST, &format!("year = 2025\n{changes}")).map_err(|error| error.to_string())
}

const ADDED: &str = r#"
[[added]]
form = "return"
after = "at.pay"
line = { number = "1a", title = "Tips", line = "at.tips" }
"#;

#[test]
fn a_later_year_adds_lines_and_ends_others() {
    let ended = format!("{ADDED}\n[[ended]]\nform = \"return\"\nline = \"at.gifts\"\n");
    let forms = next(&ended).unwrap();
    let lines: Vec<_> = forms.forms[0].lines.iter().map(|line| line.line.as_str()).collect();
    assert_eq!((forms.year, lines), (2025, vec!["at.pay", "at.tips", "at.left"]));
    assert!(forms.home("at.gifts", |_| true).is_none());
    for (wrong, says) in [
        (ADDED.replace("at.pay", "at.nothing"), "return has no line at.nothing"),
        (ADDED.replace("form = \"return\"", "form = \"sheet\""), "sheet has no line at.pay"),
        (
            format!("{ADDED}\n[[ended]]\nform = \"return\"\nline = \"at.nothing\"\n"),
            "return has no line at.nothing",
        ),
    ] {
        assert!(next(&wrong).unwrap_err().contains(says), "{says}");
    }
}

#[test]
fn results_are_made_again_from_the_lines_alone() {
    let forms: Forms = toml::from_str(FIRST).unwrap();
    let again = |pay: i64, gifts: i64, left: i64, tax: i64, filed: bool| -> Vec<(String, bool)> {
        let stands = |line: &str| {
            let all = [("at.pay", pay), ("at.gifts", gifts), ("at.left", left), ("at.tax", tax)];
            all.into_iter().find(|(id, _)| *id == line).map(|(_, amount)| Money::whole(amount))
        };
        let made = forms.again(stands, |form| filed && form == "return");
        made.into_iter().map(|(line, there, again)| (line.to_owned(), there == again)).collect()
    };
    let left = |same: bool| ("at.left".to_owned(), same);
    let tax = |same: bool| ("at.tax".to_owned(), same);
    assert_eq!(again(500, 200, 300, 300, true), [left(true), tax(true)]);
    assert_eq!(again(200, 500, 0, 0, true), [left(true), tax(true)]);
    // A wrong result is found, and what is made of it is not taken from it.
    assert_eq!(again(500, 200, 301, 300, true), [left(false), tax(true)]);
    assert_eq!(again(500, 200, 301, 301, true), [left(false), tax(false)]);
    // A sum of a form that is not filed is not made.
    assert_eq!(again(500, 200, 300, 7, false), [left(true)]);
    // A return without the line has no such result.
    assert!(forms.again(|_| None, |_| true).is_empty());
}
