//! How long the retired couple takes, as ratios within one run: reading its JSON, one silent way of both returns, the
//! whole search over a split and pooled gifts.
#![allow(missing_docs, clippy::float_arithmetic)]

use criterion::{Criterion, criterion_group, criterion_main};
use hembo_ca::Canada;
use hembo_core::{
    Household, Pack, Registry, file,
    search::{Stop, Weighable, Weighed, search, search_with_ends},
};
use hembo_testing::{ca::Family, median, total};
use serde_json::json;
use std::sync::{Arc, LazyLock};
use std::{collections::BTreeMap, hint::black_box};

/// The allocator of the program.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

static REGISTRY: LazyLock<Registry> = LazyLock::new(|| Registry::of([Arc::new(Canada::COMMITTED)]));

const RETIRED: &[u8] = include_bytes!("../../../demo/ca/marchbank-oyelaran.json");

fn household() -> Household {
    file::read(RETIRED, &REGISTRY).expect("the demo household is right")
}

fn searched(case: &dyn Weighable) -> Weighed {
    search(case, &BTreeMap::new(), 24, &Stop::default()).expect("nobody stops it")
}

fn benches(criterion: &mut Criterion) {
    let family = household();
    let case = Canada::COMMITTED.open(&family);
    let way = searched(&*case).ranking.remove(0).way;
    criterion.bench_function("parse the retired couple's JSON", |b| {
        b.iter(|| file::read(black_box(RETIRED), &REGISTRY))
    });
    criterion.bench_function("one silent way of both returns", |b| b.iter(|| total(&*case, black_box(&way))));
    criterion.bench_function("the whole search, a split and gifts", |b| b.iter(|| searched(&*case)));
    let parse = median(51, || drop(black_box(household())));
    let one = median(51, || {
        black_box(total(&*case, &way));
    });
    let all = median(51, || drop(black_box(searched(&*case))));
    println!("one silent way of both returns ÷ parse: {:.3}", one / parse);
    println!("whole search ÷ one silent way: {:.0}", all / one);
    println!("whole search ÷ parse: {:.1}", all / parse);
    println!("whole search: {:.2} ms", all * 1e3);
}

/// A couple with everything at once: a split, gifts, contributions of both, tuition, medical receipts and a child.
fn heavy(province: &str, gifts: &str) -> Family {
    Family::couple(province, ["1957-03-03", "1960-06-06"])
        .pension("ada", "64000")
        .benefits("ada", "12000", "8700")
        .employed("bo", "81000")
        .interest("bo", "2400")
        .gifts("ada", gifts)
        .contributions("ada", "9000", "6000")
        .contributions("bo", "14000", "12000")
        .tuition("bo", "3100")
        .medical("ada", &[("2025-02-01", "3400"), ("2025-09-01", "2100")])
        .child("cy", "2010-03-03")
}

/// Every province whose law the pack has.
const PROVINCES: [&str; 12] = ["AB", "BC", "MB", "NB", "NL", "NS", "NT", "NU", "ON", "PE", "SK", "YT"];

fn heavy_couples(_: &mut Criterion) {
    let gifts = ["24000", "74000"];
    for (province, gifts) in PROVINCES.iter().flat_map(|province| gifts.map(|gifts| (province, gifts))) {
        let family = heavy(province, gifts);
        told(&format!("{province}, gifts of {gifts}"), &family);
        let family = family.paper("T2125", "bo", json!({ "gross": "40000", "cca": "9000" }));
        told(&format!("{province}, gifts of {gifts}, a trade with capital cost"), &family);
    }
    for province in PROVINCES {
        told(&format!("{province}, little of everything"), &modest(province));
    }
}

/// A couple with little of everything: what a trade earns after its capital cost brings the workers benefit.
fn modest(province: &str) -> Family {
    Family::couple(province, ["1957-03-03", "1960-06-06"])
        .pension("ada", "14000")
        .benefits("ada", "9000", "8000")
        .employed("bo", "12000")
        .gifts("ada", "3000")
        .contributions("ada", "3000", "2000")
        .contributions("bo", "4000", "4000")
        .medical("ada", &[("2025-02-01", "3400"), ("2025-09-01", "2100")])
        .child("cy", "2010-03-03")
        .paper("T2125", "bo", json!({ "gross": "15000", "cca": "5000" }))
}

fn told(which: &str, family: &Family) {
    let household = family.household();
    let case = Canada::COMMITTED.open(&household);
    let complete = searched(&*case).complete;
    let all = || search_with_ends(&*case, &BTreeMap::new(), 24, &Stop::default()).expect("nobody stops it");
    let lowest = median(3, || drop(black_box(searched(&*case))));
    let prices = median(3, || drop(black_box(all())));
    println!(
        "heavy couple, {which}: {:.1} ms, with the ends of amounts {:.1} ms, complete: {complete}",
        lowest * 1e3,
        prices * 1e3
    );
}

criterion_group!(group, benches, heavy_couples);
criterion_main!(group);
