//! `hembo reckon` as a script would use it.

use serde_json::Value;
use std::{
    io::Write,
    process::{Command, Output, Stdio},
};

fn demo(name: &str) -> String {
    format!("{}/../../demo/us/{name}.json", env!("CARGO_MANIFEST_DIR"))
}

fn of_partners(name: &str) -> String {
    demo(name).replace("/us/", "/ca/")
}

fn hembo(arguments: &[&str], input: Option<&[u8]>) -> Output {
    let mut command = Command::new(env!("CARGO_BIN_EXE_hembo"));
    command.args(arguments).stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::piped());
    let mut child = command.spawn().unwrap();
    let mut stdin = child.stdin.take().unwrap();
    // The program may stop reading before the end: then the pipe is closed, which is right.
    let _ = stdin.write_all(input.unwrap_or_default());
    drop(stdin);
    child.wait_with_output().unwrap()
}

fn outcomes(output: &Output) -> Vec<Value> {
    serde_json::Deserializer::from_slice(&output.stdout).into_iter().map(|v| v.unwrap()).collect()
}

fn message(output: &Output) -> String {
    String::from_utf8_lossy(&output.stderr).into_owned()
}

#[test]
fn each_file_gives_an_outcome() {
    let files = [demo("vreeland-mbeki"), demo("okonjo-farrell"), demo("fennimore"), demo("halvorsen-achebe")];
    let output = hembo(&["reckon", &files[0], &files[1], &files[2], &files[3]], None);
    assert_eq!(output.status.code(), Some(0), "{}", message(&output));
    let totals: Vec<_> = outcomes(&output).iter().map(|o| o["total"].as_str().unwrap().to_owned()).collect();
    assert_eq!(totals, ["11141.00", "14406.00", "-9690.00", "2658.00"]);
    let first = &outcomes(&output)[0];
    assert!(first["lines"].as_array().unwrap().iter().all(|l| l.get("inputs").is_none()));
    assert_eq!(first["ways"][0]["options"]["us.deduction"], "itemized");
}

#[test]
fn partners_who_file_alone_are_reckoned_together() {
    let files = ["marchbank-oyelaran", "kettering-adebayo", "pell-achterberg"].map(of_partners);
    let output = hembo(&["reckon", &files[0], &files[1], &files[2]], None);
    assert_eq!(output.status.code(), Some(0), "{}", message(&output));
    let found = outcomes(&output);
    let totals: Vec<_> =
        found.iter().map(|o| (o["currency"].as_str().unwrap(), o["total"].as_str().unwrap())).collect();
    assert_eq!(totals, [("CAD", "39171.84"), ("CAD", "8315.96"), ("CAD", "18234.33")]);
    assert_eq!(found[0]["ways"][0]["options"]["ca.split.amount"], "69494.00");
    assert_eq!(found[2]["ways"][0]["options"]["ca.medical.window"], "2025-11-12");
    // An amount is held like an option: without a split the couple pays what a hand computation gives.
    let pinned = hembo(&["reckon", "--pin", "ca.split.amount=0", &files[0]], None);
    assert_eq!(outcomes(&pinned)[0]["total"], "53138.58");
    let beyond = hembo(&["reckon", "--pin", "ca.split.amount=70501", &files[0]], None);
    assert_eq!(beyond.status.code(), Some(1));
    assert!(message(&beyond).contains("an amount from 0 to 70,500 can"), "{}", message(&beyond));
    // A province that is not covered: no tax, and the exit code says so.
    let text = std::fs::read_to_string(&files[1]).unwrap().replace("\"AB\"", "\"QC\"");
    let quebec = hembo(&["reckon", "-"], Some(text.as_bytes()));
    assert_eq!((quebec.status.code(), &outcomes(&quebec)[0]["covered"]), (Some(3), &false.into()));
}

/// A certificate agrees with what is reckoned again; a changed one does not, and what is none is refused.
#[test]
fn certificates_are_verified() {
    let sealed = hembo(&["certify", &demo("vreeland-mbeki"), &of_partners("pell-achterberg")], None);
    assert_eq!(sealed.status.code(), Some(0), "{}", message(&sealed));
    let all = outcomes(&sealed);
    assert_eq!(all.len(), 2);
    for one in &all {
        let agrees = hembo(&["verify", "-"], Some(one.to_string().as_bytes()));
        assert_eq!(agrees.status.code(), Some(0), "{}", message(&agrees));
    }
    let mut changed = all[0].clone();
    changed["certified"]["result"]["total"] = "11140.00".into();
    let told = hembo(&["verify", "-"], Some(changed.to_string().as_bytes()));
    assert_eq!(told.status.code(), Some(3));
    assert!(message(&told).contains("digest is another") && message(&told).contains("then tax 11140.00"));
    let other_rules = all[0].to_string().replacen("\"rules\":\"", "\"rules\":\"old-", 1);
    let told = hembo(&["verify", "-"], Some(other_rules.as_bytes()));
    assert!(message(&told).contains("The rules are others: then old-"), "{}", message(&told));
    let none = hembo(&["verify", &demo("vreeland-mbeki")], None);
    assert_eq!(none.status.code(), Some(1));
    assert!(message(&none).contains("It is no certificate"));
}

#[test]
fn the_trail_and_pins_are_asked_for() {
    let file = demo("vreeland-mbeki");
    let trail = hembo(&["reckon", "--trail", &file], None);
    let lines = outcomes(&trail).remove(0)["lines"].clone();
    let taxable = lines.as_array().unwrap().iter().find(|l| l["id"] == "us.15").unwrap().clone();
    assert_eq!((&taxable["amount"], &taxable["inputs"][0]["id"]), (&"116877.00".into(), &"us.agi".into()));
    let pinned = hembo(&["reckon", "--pin", "us.deduction=standard", &file], None);
    assert_eq!(outcomes(&pinned)[0]["total"], "11355.00");
    let way = hembo(&["reckon", "--way", "us.status=separate,us.deduction=standard", &file], None);
    assert_eq!(outcomes(&way)[0]["together"], "Separate · standard · Wren with Tamsin · Teasel with Tamsin");
    let piped = hembo(&["reckon", "-"], Some(&std::fs::read(&file).unwrap()));
    assert_eq!(outcomes(&piped)[0]["total"], "11141.00");
}

#[test]
fn what_goes_wrong_has_a_code_and_names_its_place() {
    let file = demo("fennimore");
    let text = std::fs::read_to_string(&file).unwrap();
    let cases: &[(&[&str], Option<Vec<u8>>, i32, &str)] = &[
        (&["reckon"], None, 2, "required"),
        (&["reckon", "/no/such/file"], None, 1, "/no/such/file: The file cannot be opened"),
        (&["reckon", "--pin", "us.deduction", &file], None, 2, "is not DECISION=OPTION"),
        (
            &["reckon", "--pin", "us.deduction=standard", "--way", "us.deduction=itemized", &file],
            None,
            2,
            "us.deduction is held at 'standard' and at 'itemized': leave one of them out",
        ),
        (&["reckon", "--pin", "us.deduction=standard", "--pin", "us.deduction=standard", &file], None, 0, ""),
        (
            &["reckon", "--pin", "us.colour=red", &file],
            None,
            1,
            "There is no decision 'us.colour'; there are us.status",
        ),
        (
            &["reckon", "--pin", "us.deduction=both", &file],
            None,
            1,
            "has no option 'both'; it has standard, itemized",
        ),
        (&["reckon", "--pin", "us.status=surviving", &file], None, 1, "is not lawful here: not widowed"),
        (
            &["reckon", "-"],
            Some(b"not json".to_vec()),
            1,
            "line 1 column 2: This is not JSON: expected ident.",
        ),
        (&["reckon", "-"], Some(vec![b' '; 100_000_000]), 1, "a household file has at most 4194304"),
        (&["reckon", "-"], Some(Vec::new()), 1, "-: file: The file is empty"),
        (&["reckon", "-"], Some(vec![0xff, 0xfe, b'{', 0]), 1, "The file is written in UTF-16"),
        (&["reckon", "-"], Some([&[0xef, 0xbb, 0xbf], text.as_bytes()].concat()), 1, "byte order mark"),
        (
            &["reckon", "-"],
            Some(text.replace("\"year\": 2025", "\"year\": \"2025\"").into_bytes()),
            1,
            "-: /year: Expected a whole number, not the text \"2025\".",
        ),
        (
            &["reckon", "-"],
            Some(text.replace("\"19420.00\"", "\"-1\"").into_bytes()),
            1,
            "/papers/0/boxes/1: Wages, tips, other pay: a negative",
        ),
        (
            &["reckon", "-"],
            Some(text.replace("\"other_credits\": false", "\"other_credits\": true").into_bytes()),
            3,
            "",
        ),
    ];
    for (arguments, input, code, words) in cases {
        let output = hembo(arguments, input.as_deref());
        assert_eq!(output.status.code(), Some(*code), "{arguments:?}: {}", message(&output));
        assert!(message(&output).contains(words), "{arguments:?}: {}", message(&output));
    }
    // A large file is told by its real size, without being read.
    let large = std::env::temp_dir().join(format!("hembo-large-{}.json", std::process::id()));
    std::fs::File::create(&large).unwrap().set_len(50_000_000).unwrap();
    let output = hembo(&["reckon", large.to_str().unwrap()], None);
    std::fs::remove_file(large).unwrap();
    assert!(message(&output).contains("has 50000000 bytes"), "{}", message(&output));
    // A bad file does not keep the good one from being computed.
    let output = hembo(&["reckon", "/no/such/file", &file], None);
    assert_eq!((output.status.code(), outcomes(&output).len()), (Some(1), 1));
}

#[test]
fn the_committed_coverage_is_that_of_the_code() {
    let committed =
        std::fs::read_to_string(concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/coverage.md")).unwrap();
    let output = hembo(&["coverage"], None);
    assert_eq!(committed.trim(), String::from_utf8_lossy(&output.stdout).trim(), "run cargo xtask api");
    for part in
        ["### Papers that are read", "- 1099-R · ", "### Not computed", "### Told, not weighed", "- `C-80` ("]
    {
        assert!(committed.contains(part), "{part}");
    }
}

#[test]
fn the_committed_schema_is_that_of_the_code() {
    let committed =
        std::fs::read_to_string(concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/household.schema.json"))
            .unwrap();
    let output = hembo(&["schema"], None);
    assert_eq!(committed.trim(), String::from_utf8_lossy(&output.stdout).trim(), "run cargo xtask api");
    // The demo files fit it: every property they use is described there.
    let schema: Value = serde_json::from_str(&committed).unwrap();
    let validator = jsonschema::validator_for(&schema).unwrap();
    let american = [
        "vreeland-mbeki",
        "okonjo-farrell",
        "fennimore",
        "halvorsen-achebe",
        "quillfeather-nakano",
        "lindqvist-amadi",
    ]
    .map(demo);
    let canadian = [
        "marchbank-oyelaran",
        "kettering-adebayo",
        "pell-achterberg",
        "lumley-okafor",
        "fairweather-ito",
        "wren-daigle",
        "tolliver",
        "crake-abernethy",
        "obiora-leclerc",
        "tuck-aaltonen",
    ]
    .map(of_partners);
    let of_new_zealand =
        ["penwarden", "kaveney-tuhoro", "harkness-leota"].map(|name| demo(name).replace("/us/", "/nz/"));
    let of_south_africa =
        ["nortjie-dube", "mokoena-vlok", "abrahamse"].map(|name| demo(name).replace("/us/", "/za/"));
    for path in american.iter().chain(&canadian).chain(&of_new_zealand).chain(&of_south_africa) {
        let file: Value = serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap();
        let errors: Vec<_> = validator.iter_errors(&file).map(|e| e.to_string()).collect();
        assert!(errors.is_empty(), "{path}: {errors:?}");
        let mut bad = file.clone();
        bad["papers"][0]["boxes"]["colour"] = "red".into();
        assert!(!validator.is_valid(&bad));
    }
}

/// A reader that goes away ends the work quietly.
#[test]
fn a_closed_pipe_is_no_failure() {
    let file = demo("vreeland-mbeki");
    let mut command = Command::new(env!("CARGO_BIN_EXE_hembo"));
    command
        .args(["reckon", "--trail", &file, &file, &file, &file])
        .stdout(Stdio::piped())
        .stderr(Stdio::piped());
    let mut child = command.spawn().unwrap();
    drop(child.stdout.take());
    let output = child.wait_with_output().unwrap();
    assert_eq!((output.status.code(), message(&output)), (Some(0), String::new()));
}

/// An option held in the file that is not there any more is told; the figures stand.
#[test]
fn a_pin_in_the_file_that_is_gone_is_told() {
    let text = std::fs::read_to_string(demo("fennimore")).unwrap();
    let with = |pin: &str| text.replacen('{', &format!("{{\"pins\": {{{pin}}},"), 1).into_bytes();
    for (pin, told) in [
        ("\"us.colour\": \"red\"", "An option is held that is not there: us.colour = red."),
        ("\"us.deduction\": \"both\"", "An option is held that is not there: us.deduction = both."),
    ] {
        let outcome = outcomes(&hembo(&["reckon", "-"], Some(&with(pin)))).remove(0);
        let points = outcome["points"].as_array().unwrap();
        assert!(
            points.iter().any(|p| p["message"] == told && p["place"]["decision"].is_string()),
            "{points:?}"
        );
        assert_eq!(outcome["total"], "-9690.00");
    }
    let good = outcomes(&hembo(&["reckon", "-"], Some(&with("\"us.deduction\": \"standard\"")))).remove(0);
    assert!(!good["points"].to_string().contains("is not there"));
}

/// What is not covered exits with 3 always: a couple in a community-property state has no separate returns weighed.
#[test]
fn a_couple_in_a_community_property_state_is_not_covered() {
    let text = std::fs::read_to_string(demo("okonjo-farrell")).unwrap().replace("\"IL\"", "\"TX\"");
    assert_eq!(hembo(&["reckon", "-"], Some(text.as_bytes())).status.code(), Some(3));
}

/// The pack and the letter of a file, without a server: written, and without its numbers.
#[test]
fn a_pack_and_a_letter_are_written_of_a_file() {
    let file = demo("vreeland-mbeki");
    let pack = hembo(&["pack", &file, "--parts", "summary,forms", "--practice", "Quay Street"], None);
    assert!(pack.status.success(), "{}", message(&pack));
    assert!(pack.stdout.starts_with(b"%PDF-"));
    let wrong = hembo(&["pack", &file, "--parts", "summary,everything"], None);
    assert_eq!(wrong.status.code(), Some(2));
    assert!(message(&wrong).contains("there is no part 'everything'"), "{}", message(&wrong));

    let folder = std::env::temp_dir().join(format!("hembo-hand-{}", std::process::id()));
    std::fs::create_dir_all(&folder).unwrap();
    let (template, out) = (folder.join("letter.txt"), folder.join("letter.docx"));
    let (template, out) = (template.to_str().unwrap(), out.to_str().unwrap());
    std::fs::write(template, "Dear {{ first_names }},\n\n{{ balance }}").unwrap();
    let letter = hembo(&["letter", &file, "--template", template, "--out", out], None);
    assert!(letter.status.success() && letter.stdout.is_empty(), "{}", message(&letter));
    assert!(std::fs::read(out).unwrap().starts_with(b"PK"));
    std::fs::write(template, "Dear\n{{ nobody }}").unwrap();
    let wrong = hembo(&["letter", &file, "--template", template], None);
    assert_eq!(wrong.status.code(), Some(1));
    assert!(
        message(&wrong).contains("letter.txt: line 2: There is no field 'nobody'."),
        "{}",
        message(&wrong)
    );
    std::fs::remove_dir_all(folder).unwrap();
    assert_eq!(hembo(&["pack", "-"], Some(b"{}")).status.code(), Some(1));
}

/// What is carried forward is a household file that reckons, as often as there are figures; what has none is refused at its place.
#[test]
fn households_are_carried_forward() {
    let names =
        ["pellerin", "abernathy-solis", "winterbourne-adeyemi", "vreeland-mbeki", "marrowby-castellanos"];
    for name in names {
        let file = demo(name);
        let next = hembo(&["forward", &file], None);
        assert_eq!(next.status.code(), Some(0), "{name}: {}", message(&next));
        let reckoned = hembo(&["reckon", "-"], Some(&next.stdout));
        assert!(matches!(reckoned.status.code(), Some(0 | 3)), "{name}: {}", message(&reckoned));
        let (before, after) =
            (&outcomes(&hembo(&["reckon", &file], None))[0]["year"], &outcomes(&reckoned)[0]["year"]);
        assert_eq!(after.as_i64(), before.as_i64().map(|year| year + 1));
    }
    let refused = hembo(&["forward", &of_partners("marchbank-oyelaran")], None);
    assert_eq!(refused.status.code(), Some(1));
    assert!(
        message(&refused).contains("/year: The figures of 2026 are not here yet"),
        "{}",
        message(&refused)
    );
}

/// Every demo household of two is divided into two files that reckon; one of one is refused at its place.
#[test]
fn households_of_two_are_split() {
    for file in [demo("vreeland-mbeki"), demo("marrowby-castellanos"), of_partners("marchbank-oyelaran")] {
        let split = hembo(&["split", &file], None);
        assert_eq!(split.status.code(), Some(0), "{file}: {}", message(&split));
        assert!(message(&split).contains("its owner"), "{}", message(&split));
        let halves: Vec<Value> =
            serde_json::Deserializer::from_slice(&split.stdout).into_iter().map(Result::unwrap).collect();
        assert_eq!(halves.len(), 2, "{file}");
        for half in halves {
            let reckoned = hembo(&["reckon", "-"], Some(half.to_string().as_bytes()));
            assert!(matches!(reckoned.status.code(), Some(0 | 3)), "{file}: {}", message(&reckoned));
        }
    }
    let refused = hembo(&["split", &demo("fennimore")], None);
    assert_eq!(refused.status.code(), Some(1));
    assert!(
        message(&refused).contains("/people: Only a household in which two people file"),
        "{}",
        message(&refused)
    );
}
