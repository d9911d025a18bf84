//! How long a household takes, as ratios within one run: reading its JSON, one silent way, the whole search, the
//! outcome, long lists.
#![allow(missing_docs, clippy::float_arithmetic)]

use criterion::{Criterion, criterion_group, criterion_main};
use hembo_core::{
    Household, Pack, Registry, Way,
    check::MOST_ROWS,
    file, reckon,
    search::{Stop, Weighable, Weighed, search},
};
use hembo_testing::{median, total};
use hembo_us::UnitedStates;
use serde_json::{Value, json};
use std::sync::{Arc, LazyLock};
use std::{collections::BTreeMap, hint::black_box};

static REGISTRY: LazyLock<Registry> = LazyLock::new(|| Registry::of([Arc::new(UnitedStates::COMMITTED)]));

const FERRY: &[u8] = include_bytes!("../../../demo/us/vreeland-mbeki.json");

/// The ferry pilots' household with more children, each of whom somebody may claim or not.
fn with_children(more: usize) -> Household {
    let mut file: Value = serde_json::from_slice(FERRY).expect("the demo household is JSON");
    for i in 0..more {
        let child = json!({
            "id": format!("kid{i}"), "name": format!("Kid {i}"), "role": "dependent", "born": "2015-05-05",
            "lived_with": { "tamsin": 12, "osric": 12 }, "answers": { "relationship": "child" },
        });
        file["people"].as_array_mut().expect("people are a list").push(child);
    }
    household(file.to_string().as_bytes())
}

/// The file of the household with lists of so many gifts together.
fn with_gifts(gifts: usize) -> Vec<u8> {
    let mut file: Value = serde_json::from_slice(FERRY).expect("the demo household is JSON");
    let papers = file["papers"].as_array_mut().expect("papers are a list");
    for (list, begin) in (0..gifts).step_by(MOST_ROWS).enumerate() {
        let gift = json!({ "date": "2025-03-21", "what": "Lifeboats", "sort": "cash", "amount": "1.00" });
        let owners = json!([{ "person": "tamsin", "percent": "50" }, { "person": "osric", "percent": "50" }]);
        let rows = vec![gift; MOST_ROWS.min(gifts - begin)];
        papers.push(json!({ "id": format!("list{list}"), "kind": "Gifts", "owners": owners, "rows": rows }));
    }
    file.to_string().into_bytes()
}

fn household(bytes: &[u8]) -> Household {
    file::read(bytes, &REGISTRY).expect("the demo household is right")
}

fn searched(case: &dyn Weighable) -> Weighed {
    search(case, &BTreeMap::new(), 24, &Stop::default()).expect("nobody stops it")
}

fn benches(criterion: &mut Criterion) {
    let family = household(FERRY);
    let case = UnitedStates::COMMITTED.open(&family);
    let way = searched(&*case).ranking.remove(0).way;
    let many = with_children(10);
    let many_case = UnitedStates::COMMITTED.open(&many);
    criterion.bench_function("parse the household's JSON", |b| b.iter(|| household(black_box(FERRY))));
    criterion.bench_function("read its facts", |b| {
        b.iter(|| UnitedStates::COMMITTED.open(black_box(&family)).decisions().len())
    });
    criterion.bench_function("one silent way", |b| b.iter(|| total(&*case, black_box(&way))));
    criterion.bench_function("the whole search, two children", |b| b.iter(|| searched(&*case)));
    criterion.bench_function("the whole search, twelve children", |b| b.iter(|| searched(&*many_case)));
    criterion.bench_function("the outcome", |b| b.iter(|| reckon(black_box(&family), &REGISTRY)));
    ratios(&*case, &way);
    demo();
    lists();
}

/// The searches as ratios, from medians of one run.
fn ratios(case: &dyn Weighable, way: &Way) {
    let parse = median(51, || drop(black_box(household(FERRY))));
    let one = median(51, || {
        black_box(total(case, way));
    });
    println!("one silent way ÷ parse: {:.3}", one / parse);
    for more in [0, 10, 13, 16] {
        let family = with_children(more);
        let case = UnitedStates::COMMITTED.open(&family);
        let ways = searched(&*case).lawful;
        let all = median(11, || drop(black_box(searched(&*case))));
        println!("search, {ways} ways: {:.3} ms, {:.0} silent ways", all * 1e3, all / one);
    }
}

/// Every demo household: one silent way against reading its file, and its search.
fn demo() {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/us");
    let files = std::fs::read_dir(folder).expect("the demo households are there");
    let mut paths: Vec<_> = files.map(|file| file.expect("a file has a name").path()).collect();
    paths.sort();
    for path in paths {
        let bytes = std::fs::read(&path).expect("a demo household can be read");
        let family = household(&bytes);
        let case = UnitedStates::COMMITTED.open(&family);
        let found = searched(&*case);
        let way = &found.ranking[0].way;
        let parse = median(51, || drop(black_box(household(&bytes))));
        let one = median(51, || {
            black_box(total(&*case, way));
        });
        let all = median(11, || drop(black_box(searched(&*case))));
        let name = path.file_stem().unwrap_or_default().to_string_lossy().into_owned();
        println!(
            "{name}: {} papers, one silent way {:.1} µs, {:.3} of reading its file; search of {} ways {:.2} ms",
            family.papers.len(),
            one * 1e6,
            one / parse,
            found.lawful,
            all * 1e3
        );
    }
}

/// Long lists: reading the file, and its outcome.
fn lists() {
    for gifts in [100, 1_000, 10_000, 40_000] {
        let bytes = with_gifts(gifts);
        let parse = median(5, || drop(black_box(household(&bytes))));
        let family = household(&bytes);
        let outcome = median(5, || drop(black_box(reckon(&family, &REGISTRY))));
        println!("{gifts} gifts: parse {:.2} ms, outcome {:.2} ms", parse * 1e3, outcome * 1e3);
    }
}

criterion_group!(group, benches);
criterion_main!(group);
