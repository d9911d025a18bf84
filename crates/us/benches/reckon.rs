//! How long a household takes, as ratios within one run: reading its JSON, one silent way, the whole search.
#![allow(missing_docs, clippy::float_arithmetic)]

use criterion::{Criterion, criterion_group, criterion_main};
use hembo_core::{
    Household, Pack, Registry, Way, file,
    search::{Weighable, search},
};
use hembo_us::UnitedStates;
use serde_json::{Value, json};
use std::{collections::BTreeMap, hint::black_box, time::Instant};

static REGISTRY: Registry = Registry(&[&UnitedStates]);

const FERRY: &[u8] = include_bytes!("../../../demo/us/vreeland-mbeki.json");

/// The ferry pilots' household with more children and sales-tax receipts, so that over 20,000 ways are lawful.
fn large() -> Vec<u8> {
    let mut file: Value = serde_json::from_slice(FERRY).expect("the demo household is JSON");
    for i in 0..10 {
        let child = json!({
            "id": format!("kid{i}"), "name": format!("Kid {i}"), "role": "dependent", "born": "2015-05-05",
            "lived_with": { "tamsin": 12, "osric": 12 }, "answers": { "relationship": "child" },
        });
        file["people"].as_array_mut().expect("people are a list").push(child);
    }
    file.to_string().into_bytes()
}

fn household(bytes: &[u8]) -> Household {
    file::read(bytes, &REGISTRY).expect("the demo household is right")
}

fn first_way(case: &dyn Weighable) -> Way {
    let found = search(case, &BTreeMap::new(), 24);
    found.ranking.into_iter().next().map(|r| r.way).unwrap_or_default()
}

fn silent(case: &dyn Weighable, way: &Way) -> i64 {
    hembo_testing::total(case, way).cents()
}

fn benches(criterion: &mut Criterion) {
    let large = large();
    let family = household(FERRY);
    let case = UnitedStates.open(&family);
    let way = first_way(&*case);
    let many = household(&large);
    let many_case = UnitedStates.open(&many);
    criterion.bench_function("parse the household's JSON", |b| b.iter(|| household(black_box(FERRY))));
    criterion.bench_function("read its facts", |b| {
        b.iter(|| UnitedStates.open(black_box(&family)).decisions().len())
    });
    criterion.bench_function("one silent way", |b| b.iter(|| silent(&*case, black_box(&way))));
    criterion
        .bench_function("the whole search, 23 ways", |b| b.iter(|| search(&*case, &BTreeMap::new(), 24)));
    criterion.bench_function("the whole search, 12 children", |b| {
        b.iter(|| search(&*many_case, &BTreeMap::new(), 24))
    });
    ratios(&family, &many);
}

/// The same as ratios, from medians of one run.
fn ratios(family: &Household, many: &Household) {
    let case = UnitedStates.open(family);
    let way = first_way(&*case);
    let many_case = UnitedStates.open(many);
    let parse = median(|| drop(black_box(household(FERRY))));
    let one = median(|| {
        black_box(silent(&*case, &way));
    });
    let all = median(|| drop(black_box(search(&*case, &BTreeMap::new(), 24))));
    let large = median(|| drop(black_box(search(&*many_case, &BTreeMap::new(), 24))));
    let ways = search(&*many_case, &BTreeMap::new(), 24).lawful;
    println!("one silent way ÷ parse: {:.3}", one / parse);
    println!("whole search (23 ways) ÷ one silent way: {:.1}", all / one);
    println!("whole search (23 ways): {:.3} ms", all * 1e3);
    println!("whole search ({ways} ways): {:.1} ms", large * 1e3);
}

fn median(mut work: impl FnMut()) -> f64 {
    let mut times: Vec<f64> = (0..51)
        .map(|_| {
            let begun = Instant::now();
            work();
            begun.elapsed().as_secs_f64()
        })
        .collect();
    times.sort_by(f64::total_cmp);
    times[25]
}

criterion_group!(group, benches);
criterion_main!(group);
