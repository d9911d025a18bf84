//! Bad input: each fault at its place, with what would be right; good input: none.

use crate::common::{REGISTRY, file};
use hembo_core::{
    check,
    command::{Command, conflicts},
    field::Years,
    file,
    household::Household,
    reckon, secret,
};
use serde_json::{Value, json};

fn faults(file: &Value) -> Vec<(String, String)> {
    let found = file::read(file.to_string().as_bytes(), &REGISTRY).err().unwrap_or_default();
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
        ("/papers/0/boxes/pay", json!("10000000000"), "/papers/0/boxes/pay", "at most 9,999,999,999.99"),
        ("/papers/0/boxes/note", json!("a\u{0}b"), "/papers/0/boxes/note", "cannot be seen"),
        ("/papers/0/title", json!("a\u{7}b"), "/papers/0/title", "U+0007"),
        ("/name", json!("a\u{0}b"), "/name", "U+0000"),
        ("/name", json!("\u{200b}\u{2060}"), "/name", "a name that can be read"),
        ("/people/0/name", json!("\u{200e}"), "/people/0/name", "a name that can be read"),
        ("/pins", json!({ "a\u{0}": "b" }), "/pins/a\\u{0}", "cannot be seen"),
        ("/dismissed", json!({ "a": { "reason": "b\u{1}" } }), "/dismissed/a", "cannot be seen"),
        ("/papers/1/rows/0/id", json!("a b"), "/papers/1/rows/0/id", "letters, digits"),
        ("/papers/1/rows", json!([{ "id": "x" }, { "id": "x" }]), "/papers/1/rows/1/id", "stands here twice"),
        ("/papers/0/boxes/pay", json!("1,000"), "/papers/0/boxes/pay", "at most two decimals"),
        (
            "/papers/0/boxes/pay",
            json!("12,50"),
            "/papers/0/boxes/pay",
            "12.50 or 1,250? Decimals follow a point",
        ),
        ("/papers/0/boxes/pay", json!("12 5"), "/papers/0/boxes/pay", "12.50 or 125?"),
        ("/papers/0/boxes/pay", json!("1,000,50"), "/papers/0/boxes/pay", "1000.50 or 100,050?"),
        ("/papers/0/boxes/pay", json!("12,50.5"), "/papers/0/boxes/pay", "at most two decimals"),
        ("/papers/0/boxes/pay", json!(1000), "/papers/0/boxes/pay", "decimal text"),
        ("/papers/0/boxes/days", json!(367), "/papers/0/boxes/days", "from 0 to 366"),
        ("/papers/0/boxes/night", json!("yes"), "/papers/0/boxes/night", "yes or no"),
        ("/papers/0/boxes/note", json!("a note that is much too long"), "/papers/0/boxes/note", "at most 20"),
        ("/papers/0/boxes/from", json!("2025-02-30"), "/papers/0/boxes/from", "a day such as"),
        ("/papers/0/boxes/from", json!("1899-12-31"), "/papers/0/boxes/from", "between 1900 and 2028"),
        ("/papers/0/boxes/class", json!("c"), "/papers/0/boxes/class", "one of a, b"),
        ("/papers/0/boxes/for", json!("bo"), "/papers/0/boxes/for", "id of a person"),
        (
            "/papers/0/boxes/tide",
            json!("1"),
            "/papers/0/boxes/tide",
            "Tide bonus: this is for 2026 and later only",
        ),
        ("/papers/0/kind", json!("Shells"), "/papers/0/kind", "A Shells is for 2020 to 2024 only"),
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
fn years_hold_their_ends() {
    let both = Years { since: Some(2020), until: Some(2024) };
    let held = |years: Years| [2019, 2020, 2024, 2025].map(|year| years.hold(year));
    assert_eq!(held(both), [false, true, true, false]);
    assert_eq!(held(Years { until: None, ..both }), [false, true, true, true]);
    assert_eq!(held(Years { since: None, ..both }), [true, true, true, false]);
    assert_eq!(held(Years::ALL), [true; 4]);
    // An answer to what is not asked for the year is kept.
    let mut kept = file();
    kept["people"][0]["answers"] = json!({ "diver": true });
    assert_eq!(faults(&kept), []);
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
fn what_is_no_household_file_is_told_in_plain_words() {
    let read = |bytes: &[u8]| file::read(bytes, &REGISTRY).unwrap_err().remove(0);
    let with = |at: &str, value: Value| {
        let mut bad = file();
        let (parent, key) = at.rsplit_once('/').unwrap();
        match bad.pointer_mut(parent).unwrap() {
            Value::Array(array) => array[key.parse::<usize>().unwrap()] = value,
            object => object[key] = value,
        }
        read(bad.to_string().as_bytes())
    };
    assert_eq!(read(b"{\n  \"hembo\": 1,\n  oops").at, "line 3 column 3");
    for (bytes, words) in [
        (&b""[..], "The file is empty"),
        (&[0xff, 0xfe, 0x7b, 0x00], "UTF-16"),
        (&[0xef, 0xbb, 0xbf, 0x7b, 0x7d], "byte order mark"),
        (&[0x7b, 0x80], "This is not JSON"),
        (b"{\"hembo\": 1, \"people\": [", "The file is cut off"),
        (&b"[1, 2]"[..], "Expected an object, not a list."),
        (&b"{}"[..], "The field 'hembo' is missing."),
        (&vec![b' '; check::LARGEST_FILE + 1], "has 4194305 bytes; a household file has at most 4194304."),
    ] {
        let fault = read(bytes);
        assert!(fault.message.contains(words), "{fault:?}");
    }
    for (at, value, place, words) in [
        ("/colour", json!("red"), "/colour", "There is no field 'colour' here; there are 'hembo', "),
        ("/year", json!("2025"), "/year", "Expected a whole number, not the text \"2025\"."),
        ("/year", json!(2025.5), "/year", "Expected a whole number, not the number 2025.5."),
        ("/name", json!(null), "/name", "Expected text, not nothing (null)."),
        ("/people", json!({}), "/people", "Expected a list, not an object."),
        (
            "/people/0/role",
            json!("captain"),
            "/people/0/role",
            "'captain' is not possible here; possible are 'filer' or 'dependent'.",
        ),
        (
            "/people/0/lived_with",
            json!({ "ada": -1 }),
            "/people/0/lived_with/ada",
            "Expected a whole number from zero up",
        ),
        ("/people/0/born", json!("soon"), "/people/0/born", "Expected a day such as"),
        (
            "/papers/0/checked",
            json!("yes"),
            "/papers/0/checked",
            "Expected true or false, not the text \"yes\".",
        ),
        (
            "/papers/0/boxes/pay",
            json!([1]),
            "/papers/0/boxes/pay",
            "Expected text, a whole number, or true or false",
        ),
        ("/papers/0/owners/0/percent", json!(50), "/papers/0/owners/0/percent", "not the number 50"),
        ("/dismissed", json!({ "a": 5 }), "/dismissed/a", "Expected a reason as text"),
    ] {
        let fault = with(at, value);
        assert_eq!(fault.at, place, "{fault:?}");
        assert!(fault.message.contains(words), "{fault:?}");
        for word in ["struct", "u32", "i32", "u8", "enum", "untagged", "invalid type"] {
            assert!(!fault.message.contains(word), "{fault:?}");
        }
    }
}

/// Boxes and questions that had other names in files of earlier versions, and lists without ids of their lines.
#[test]
fn an_old_file_is_brought_up_to_date() {
    let mut old = file();
    let boxes = old["papers"][0]["boxes"].as_object_mut().unwrap();
    let pay = boxes.remove("pay").unwrap();
    boxes.insert("wage".into(), pay);
    old["answers"] = json!({ "island": "north" });
    old["dismissed"] = json!({ "look:isle": "asked" });
    let household = file::read(old.to_string().as_bytes(), &REGISTRY).unwrap();
    let mut new = file();
    new["answers"] = json!({ "isle": "north" });
    new["dismissed"] = json!({ "look:isle": { "reason": "asked" } });
    assert_eq!(household.papers, file::read(new.to_string().as_bytes(), &REGISTRY).unwrap().papers);
    assert_eq!(household.answers["isle"].text(), Some("north"));
    let ids: Vec<_> = household.papers[1].rows.iter().map(|r| r.id.as_str()).collect();
    assert_eq!(ids, ["r1", "r2"]);
    assert_eq!(household.dismissed["look:isle"].reason, "asked");
    // Both names at once: that of today stands.
    let mut both = file();
    both["papers"][0]["boxes"]["wage"] = json!("1");
    let household = file::read(both.to_string().as_bytes(), &REGISTRY).unwrap();
    assert_eq!(
        household.papers[0].boxes["pay"],
        file::read(file().to_string().as_bytes(), &REGISTRY).unwrap().papers[0].boxes["pay"]
    );
}

#[test]
fn an_id_is_never_used_again() {
    let add = |id: &str| {
        let paper = json!({ "id": id, "kind": "Pay", "owners": [{ "person": "ada", "percent": "100" }] });
        json!({ "do": "add_paper", "paper": paper })
    };
    let removed = [add("extra"), json!({ "do": "remove_paper", "paper": "extra" })];
    let again = [&removed[..], &[add("extra")]].concat();
    assert!(edited(&again).unwrap_err().contains("belonged to a paper that was removed"));
    assert!(edited(&[&removed[..], &[add("extra-2")]].concat()).is_ok());
    let row = |amount: &str| json!({ "do": "add_row", "paper": "gifts", "row": { "amount": amount } });
    let remove = |row: &str| json!({ "do": "remove_row", "paper": "gifts", "row": row });
    let changed =
        edited(&[row("5"), remove("r3"), remove("r2"), row("6"), remove("r1"), remove("r4"), row("7")])
            .unwrap();
    let rows: Vec<_> = changed.papers[1].rows.iter().map(|r| r.id.as_str()).collect();
    assert_eq!(rows, ["r5"]);
    // A stored file remembers.
    let text = serde_json::to_string(&changed).unwrap();
    let mut read = file::read(text.as_bytes(), &REGISTRY).unwrap();
    read.papers[1].rows.clear();
    read.papers[1].add_row(None, Default::default());
    assert_eq!(read.papers[1].rows[0].id, "r6");
}

#[test]
fn an_edit_meets_what_was_changed_meanwhile() {
    let base = edited(&[]).unwrap();
    let command = |value: Value| serde_json::from_value::<Command>(value).unwrap();
    let set =
        |field: &str, value: &str| json!({ "do": "set_box", "paper": "pay", "field": field, "value": value });
    let newest = |commands: &[Value]| edited(commands).unwrap();
    let found = |mine: Value, theirs: &[Value]| conflicts(&[command(mine)], &base, &newest(theirs));
    let cell = |row: &str, value: &str| json!({ "do": "set_cell", "paper": "gifts", "row": row, "field": "amount", "value": value });
    let cases: Vec<(Value, Vec<Value>, bool)> = vec![
        (set("pay", "5"), vec![set("note", "x")], false),
        (set("pay", "5"), vec![set("pay", "6")], true),
        // The same thing done twice is no conflict, nor is one that was taken back.
        (set("pay", "5"), vec![set("pay", "5")], false),
        (set("pay", "5"), vec![json!({ "do": "remove_paper", "paper": "pay" })], true),
        (cell("r1", "5"), vec![cell("r2", "6")], false),
        (cell("r2", "5"), vec![json!({ "do": "remove_row", "paper": "gifts", "row": "r1" })], false),
        (cell("r1", "5"), vec![json!({ "do": "remove_row", "paper": "gifts", "row": "r1" })], true),
        (json!({ "do": "remove_row", "paper": "gifts", "row": "r1" }), vec![cell("r1", "6")], true),
        (json!({ "do": "remove_paper", "paper": "pay" }), vec![set("pay", "6")], true),
        (
            json!({ "do": "remove_paper", "paper": "pay" }),
            vec![json!({ "do": "remove_paper", "paper": "pay" })],
            false,
        ),
        (json!({ "do": "add_row", "paper": "gifts", "row": {} }), vec![cell("r1", "6")], false),
        (json!({ "do": "rename", "name": "A" }), vec![json!({ "do": "rename", "name": "B" })], true),
        (
            json!({ "do": "pin", "decision": "at.bonus", "option": "keep" }),
            vec![json!({ "do": "rename", "name": "B" })],
            false,
        ),
        (
            json!({ "do": "pin", "decision": "at.bonus", "option": "keep" }),
            vec![json!({ "do": "pin", "decision": "at.bonus", "option": "waive" })],
            true,
        ),
        (
            json!({ "do": "set_person", "person": "ada", "name": "A" }),
            vec![json!({ "do": "set_person", "person": "ada", "born": "" })],
            false,
        ),
        (
            json!({ "do": "set_person", "person": "ada", "born": "" }),
            vec![json!({ "do": "set_person", "person": "ada", "born": "1990-01-01" })],
            true,
        ),
        (
            json!({ "do": "answer", "field": "isle", "value": "north" }),
            vec![json!({ "do": "answer_for", "person": "ada", "field": "sailor", "value": true })],
            false,
        ),
    ];
    for (mine, theirs, conflict) in cases {
        let conflicts = found(mine.clone(), &theirs);
        assert_eq!(!conflicts.is_empty(), conflict, "{mine} after {theirs:?}: {conflicts:?}");
    }
    let both = found(set("pay", "5"), &[set("pay", "6")]).remove(0);
    assert_eq!(
        (both.theirs, both.mine, both.place.field.as_deref()),
        (Some(json!("6")), Some(json!("5")), Some("pay"))
    );
}

#[test]
fn edits_are_told_in_words_without_secrets() {
    let before = edited(&[]).unwrap();
    let pack = REGISTRY.pack("atoll").unwrap();
    let cases = [
        (json!({ "do": "rename", "name": "Shoal" }), "Name of the household: Reef → Shoal"),
        (
            json!({ "do": "set_box", "paper": "pay", "field": "pay", "value": "96800" }),
            "Box 1 of Pay Lagoon Boats: 1,000 → 96,800",
        ),
        (
            json!({ "do": "set_box", "paper": "pay", "field": "night", "value": true }),
            "Box 3 of Pay Lagoon Boats: yes",
        ),
        (
            json!({ "do": "set_box", "paper": "pay", "field": "account", "value": "77-1" }),
            "Box 8 of Pay Lagoon Boats: •",
        ),
        (
            json!({ "do": "set_cell", "paper": "gifts", "row": "r2", "field": "amount", "value": null }),
            "Amount in line 2 of Gifts: emptied, was 80",
        ),
        (
            json!({ "do": "add_row", "paper": "gifts", "row": { "date": "2025-05-05", "amount": "1200" } }),
            "Added a line to Gifts: 5 May 2025, 1,200",
        ),
        (json!({ "do": "set_person", "person": "ada", "id_number": "a-1" }), "Shell number of Ada Reef: set"),
        (
            json!({ "do": "answer_for", "person": "ada", "field": "sailor", "value": true }),
            "Sailor? of Ada Reef: yes",
        ),
        (json!({ "do": "answer", "field": "isle", "value": "north" }), "Isle: North"),
        (json!({ "do": "remove_paper", "paper": "pay" }), "Removed Pay Lagoon Boats"),
        (json!({ "do": "pin", "decision": "at.bonus", "option": "waive" }), "Held The bonus: Waive it"),
        (json!({ "do": "pin", "decision": "at.bonus", "option": null }), "Let go of The bonus"),
        (
            json!({ "do": "set_lived_with", "person": "ada", "with": "ada", "months": 7 }),
            "Months of Ada Reef with Ada Reef: 7",
        ),
    ];
    let after = reckon(&before, &REGISTRY).unwrap();
    for (command, words) in cases {
        let command: Command = serde_json::from_value(command).unwrap();
        assert_eq!(command.words(&before, pack, &after), words);
        let hidden = serde_json::to_string(&secret::hidden(command, &before, pack)).unwrap();
        assert!(!hidden.contains("77-1") && !hidden.contains("a-1"), "{hidden}");
    }
}

fn edited(commands: &[Value]) -> Result<Household, String> {
    let mut household = file::read(file().to_string().as_bytes(), &REGISTRY).unwrap();
    for command in commands {
        let command: Command = serde_json::from_value(command.clone()).unwrap();
        command.apply(&mut household).map_err(|fault| fault.message)?;
    }
    Ok(household)
}

/// A checked paper that changes counts as unchecked, until it is checked again.
#[test]
fn a_checked_paper_tells_what_changed_since() {
    let check = |checked: bool| json!({ "do": "set_paper", "paper": "pay", "checked": checked });
    let pay = |value: &str| json!({ "do": "set_box", "paper": "pay", "field": "pay", "value": value });
    let changed = |commands: &[Value]| {
        let pay = edited(commands).unwrap().paper("pay").unwrap().clone();
        (pay.is_checked(), pay.changed.into_iter().collect::<Vec<_>>())
    };
    let same = edited(&[]).unwrap().paper("pay").unwrap().text("pay").unwrap().to_owned();
    assert_eq!(changed(&[pay("7")]), (false, vec![]));
    assert_eq!(changed(&[check(true)]), (true, vec![]));
    assert_eq!(changed(&[check(true), pay(&same)]), (true, vec![]));
    assert_eq!(changed(&[check(true), pay("7")]), (false, vec!["pay".to_owned()]));
    assert_eq!(changed(&[check(true), pay("7"), check(true)]), (true, vec![]));
    let row = json!({ "do": "remove_row", "paper": "gifts", "row": "r1" });
    let checked = json!({ "do": "set_paper", "paper": "gifts", "checked": true });
    let gifts = edited(&[checked, row]).unwrap().paper("gifts").unwrap().clone();
    assert!(!gifts.is_checked() && gifts.changed.contains("rows"));
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
        json!({ "do": "set_cell", "paper": "gifts", "row": "r1", "field": "amount", "value": null }),
        json!({ "do": "remove_row", "paper": "gifts", "row": "r2" }),
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
        (changed.pins["at.bonus"].as_str(), changed.dismissed["look:isle"].reason.as_str()),
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
        (
            json!({ "do": "remove_row", "paper": "gifts", "row": "r9" }),
            "There is no line 'r9' on that paper.",
        ),
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
