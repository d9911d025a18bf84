//! How long the retired couple takes, as ratios within one run: reading its JSON, one silent way of both returns, the
//! whole search over a split and pooled gifts.
#![allow(missing_docs, clippy::float_arithmetic)]

use criterion::{Criterion, criterion_group, criterion_main};
use hembo_ca::Canada;
use hembo_core::{
    Household, Pack, Registry, Way, file,
    search::{Weighable, search},
};
use std::{collections::BTreeMap, hint::black_box, time::Instant};

static REGISTRY: Registry = Registry(&[&Canada]);

const RETIRED: &[u8] = include_bytes!("../../../demo/ca/marchbank-oyelaran.json");

fn household() -> Household {
    file::read(RETIRED, &REGISTRY).expect("the demo household is right")
}

fn silent(case: &dyn Weighable, way: &Way) -> i64 {
    hembo_testing::total(case, way).cents()
}

fn benches(criterion: &mut Criterion) {
    let family = household();
    let case = Canada.open(&family);
    let way = search(&*case, &BTreeMap::new(), 1).ranking.remove(0).way;
    criterion.bench_function("parse the retired couple's JSON", |b| {
        b.iter(|| file::read(black_box(RETIRED), &REGISTRY))
    });
    criterion
        .bench_function("one silent way of both returns", |b| b.iter(|| silent(&*case, black_box(&way))));
    criterion.bench_function("the whole search, a split and gifts", |b| {
        b.iter(|| search(&*case, &BTreeMap::new(), 24))
    });
    let parse = median(|| drop(black_box(household())));
    let one = median(|| {
        black_box(silent(&*case, &way));
    });
    let all = median(|| drop(black_box(search(&*case, &BTreeMap::new(), 24))));
    println!("one silent way of both returns ÷ parse: {:.3}", one / parse);
    println!("whole search ÷ one silent way: {:.0}", all / one);
    println!("whole search ÷ parse: {:.1}", all / parse);
    println!("whole search: {:.2} ms", all * 1e3);
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
