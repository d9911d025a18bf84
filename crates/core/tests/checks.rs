//! Bad input: each fault at its place, with what would be right; good input: none.
#![allow(missing_docs, clippy::unwrap_used, clippy::type_complexity)]

mod common;

use common::{REGISTRY, file};
use hembo_core::{check, command::Command, household::Household};
use serde_json::{Value, json};

fn faults(file: &Value) -> Vec<(String, String)> {
    let found = check::read(file.to_string().as_bytes(), &REGISTRY).err().unwrap_or_default();
    found.into_iter().map(|f| (f.at, f.message)).collect()
}

#[test]
fn each_fault_names_its_place_and_the_remedy() {
    let cases: &[(&str, Value, &str, &str)] = &[
        // where, what is put there, the place told, words of the message
        ("/hembo", json!(2), "/hembo", "reads format 1"),
        ("/country", json!("mars"), "/country", "known: atoll"),
        ("/year", json!(1999), "/year", "known years: 2025"),
        ("/name", json!("  "), "/name", "needs a name"),
        ("/people", json!([]), "/people", "one or two filers, not 0"),
        ("/people/0/role", json!("dependent"), "/people", "one or two filers, not 0"),
        ("/people/0/id", json!("a b"), "/people/0/id", "letters, digits"),
        ("/people/0/born", json!("2026-04-01"), "/people/0/born", "born after"),
        ("/people/0/born", json!("1850-01-01"), "/people/0/born", "over 130"),
        ("/people/0/died", json!("1980-01-01"), "/people/0/died", "before the date of birth"),
        ("/people/0/id_number", json!("12"), "/people/0/id_number", "three signs"),
        ("/people/0/lived_with", json!({ "bo": 3 }), "/people/0/lived_with/bo", "no person 'bo'"),
        ("/people/0/lived_with", json!({ "ada": 13 }), "/people/0/lived_with/ada", "at most 12"),
        ("/people/0/answers", json!({ "pirate": true }), "/people/0/answers/pirate", "no box or question"),
        ("/answers", json!({ "isle": "south" }), "/answers/isle", "one of north"),
        ("/papers/0/kind", json!("Shell"), "/papers/0/kind", "no kind of paper 'Shell'"),
        ("/papers/0/id", json!("gifts"), "/papers/1/id", "stands here twice"),
        ("/papers/0/owners/0/percent", json!("99.5"), "/papers/0/owners", "add up to 99.5 %, not to 100 %"),
        ("/papers/0/owners/0/person", json!("bo"), "/papers/0/owners", "no person 'bo'"),
        ("/papers/0/owners", json!([]), "/papers/0/owners", "exactly one person"),
        ("/papers/0/rows", json!([{}]), "/papers/0/rows", "boxes, not a list"),
        ("/papers/0/boxes/pay", json!("-1"), "/papers/0/boxes/pay", "negative amount is not possible"),
        ("/papers/0/boxes/pay", json!("1000000000000"), "/papers/0/boxes/pay", "may not exceed"),
        ("/papers/0/boxes/pay", json!("1,000"), "/papers/0/boxes/pay", "at most two decimals"),
        ("/papers/0/boxes/pay", json!(1000), "/papers/0/boxes/pay", "decimal text"),
        ("/papers/0/boxes/days", json!(367), "/papers/0/boxes/days", "from 0 to 366"),
        ("/papers/0/boxes/night", json!("yes"), "/papers/0/boxes/night", "yes or no"),
        ("/papers/0/boxes/note", json!("a note that is much too long"), "/papers/0/boxes/note", "at most 20"),
        ("/papers/0/boxes/from", json!("2025-02-30"), "/papers/0/boxes/from", "a day such as"),
        ("/papers/0/boxes/from", json!("1899-12-31"), "/papers/0/boxes/from", "between 1900 and 2028"),
        ("/papers/0/boxes/class", json!("c"), "/papers/0/boxes/class", "one of a, b"),
        ("/papers/0/boxes/for", json!("bo"), "/papers/0/boxes/for", "id of a person"),
        ("/papers/1/rows/0/amount", json!("x"), "/papers/1/rows/0/amount", "at most two decimals"),
    ];
    for (at, value, place, words) in cases {
        let mut bad = file();
        let (parent, key) = at.rsplit_once('/').unwrap();
        match bad.pointer_mut(parent).unwrap() {
            Value::Array(array) => array[key.parse::<usize>().unwrap()] = value.clone(),
            object => object[key] = value.clone(),
        }
        let found = faults(&bad);
        let told = found.iter().any(|(at, message)| at == place && message.contains(words));
        assert!(told, "{at} = {value}: {found:?}");
    }
    assert_eq!(faults(&file()), []);
}

#[test]
fn two_people_cannot_carry_one_number() {
    let mut bad = file();
    bad["people"][0]["id_number"] = json!("1-2");
    assert_eq!(faults(&bad), []);
    let second = json!({ "id": "bo", "name": "Bo", "role": "dependent", "id_number": "1.2" });
    bad["people"].as_array_mut().unwrap().push(second);
    assert_eq!(faults(&bad)[0].1, "Two people carry the same number.");
}

#[test]
fn what_is_no_household_file_is_told_by_line_and_column() {
    let read = |bytes: &[u8]| check::read(bytes, &REGISTRY).unwrap_err().remove(0);
    assert_eq!(read(b"").at, "line 1 column 0");
    assert_eq!(read(b"{\n  \"hembo\": 1,\n  oops").at, "line 3 column 3");
    assert!(read(b"[1, 2]").message.starts_with("This is not a household file"));
    let unknown = file().to_string().replacen("\"name\"", "\"colour\":\"red\",\"name\"", 1);
    assert!(read(unknown.as_bytes()).message.contains("unknown field `colour`"));
    assert!(read(&vec![b' '; check::LARGEST_FILE + 1]).message.contains("at most 4194304"));
    assert!(read(&[0xff, 0xfe]).message.starts_with("This is not a household file"));
}

fn edited(commands: &[Value]) -> Result<Household, String> {
    let mut household = check::read(file().to_string().as_bytes(), &REGISTRY).unwrap();
    for command in commands {
        let command: Command = serde_json::from_value(command.clone()).unwrap();
        command.apply(&mut household).map_err(|fault| fault.message)?;
    }
    Ok(household)
}

#[test]
fn commands_change_what_they_name() {
    let person = json!({ "id": "kit", "name": "Kit", "role": "dependent" });
    let paper = json!({ "id": "extra", "kind": "Pay", "owners": [{ "person": "ada", "percent": "100" }] });
    let changed = edited(&[
        json!({ "do": "rename", "name": "Shoal" }),
        json!({ "do": "answer", "field": "isle", "value": "north" }),
        json!({ "do": "add_person", "person": person }),
        json!({ "do": "set_person", "person": "kit", "name": "Kit Reef", "born": "2019-09-09", "id_number": "k42" }),
        json!({ "do": "set_person", "person": "ada", "born": "" }),
        json!({ "do": "answer_for", "person": "ada", "field": "sailor", "value": true }),
        json!({ "do": "set_lived_with", "person": "kit", "with": "ada", "months": 7 }),
        json!({ "do": "add_paper", "paper": paper }),
        json!({ "do": "set_paper", "paper": "extra", "title": "Second boat", "checked": true }),
        json!({ "do": "set_box", "paper": "pay", "field": "pay", "value": "1200.50" }),
        json!({ "do": "add_row", "paper": "gifts", "row": { "amount": "5" } }),
        json!({ "do": "set_cell", "paper": "gifts", "row": 0, "field": "amount", "value": null }),
        json!({ "do": "remove_row", "paper": "gifts", "row": 1 }),
        json!({ "do": "pin", "decision": "at.bonus", "option": "waive" }),
        json!({ "do": "dismiss", "point": "look:isle", "reason": "known" }),
    ])
    .unwrap();
    assert_eq!(changed.name, "Shoal");
    let kit = changed.person("kit").unwrap();
    assert_eq!((kit.name.as_str(), kit.born.unwrap().year(), kit.lived_with["ada"]), ("Kit Reef", 2019, 7));
    assert!(changed.people[0].born.is_none() && changed.people[0].answers["sailor"].flag() == Some(true));
    assert_eq!(changed.paper("extra").unwrap().title, "Second boat");
    assert_eq!(changed.paper("pay").unwrap().amount("pay").to_string(), "1200.50");
    let rows = &changed.paper("gifts").unwrap().rows;
    assert_eq!((rows.len(), rows[0].is_empty(), rows[1]["amount"].text()), (2, true, Some("5")));
    assert_eq!(
        (changed.pins["at.bonus"].as_str(), changed.dismissed["look:isle"].as_str()),
        ("waive", "known")
    );
    assert_eq!(check::faults(&changed, &REGISTRY), []);

    let undone = edited(&[
        json!({ "do": "pin", "decision": "at.bonus", "option": "waive" }),
        json!({ "do": "pin", "decision": "at.bonus", "option": null }),
        json!({ "do": "set_box", "paper": "pay", "field": "pay", "value": null }),
        json!({ "do": "remove_paper", "paper": "gifts" }),
        json!({ "do": "remove_paper", "paper": "pay" }),
        json!({ "do": "remove_person", "person": "ada" }),
    ])
    .unwrap();
    assert!(undone.pins.is_empty() && undone.papers.is_empty() && undone.people.is_empty());
}

#[test]
fn commands_that_point_nowhere_say_so() {
    let cases = [
        (json!({ "do": "set_box", "paper": "x", "field": "pay", "value": "1" }), "There is no paper 'x'."),
        (json!({ "do": "set_person", "person": "x", "name": "X" }), "There is no person 'x'."),
        (
            json!({ "do": "set_person", "person": "ada", "born": "yesterday" }),
            "'yesterday' is not a day; a day is written 2025-03-31.",
        ),
        (json!({ "do": "remove_row", "paper": "gifts", "row": 2 }), "There is no line 2 on that paper."),
        (
            json!({ "do": "remove_person", "person": "ada" }),
            "Ada Reef still owns 2 papers: remove them or give them to another owner first.",
        ),
    ];
    for (command, message) in cases {
        assert_eq!(edited(std::slice::from_ref(&command)).unwrap_err(), message, "{command}");
    }
    for command in [json!({ "do": "explode" }), json!({ "do": "rename", "name": "x", "loudly": true })] {
        assert!(serde_json::from_value::<Command>(command.clone()).is_err(), "{command}");
    }
}
