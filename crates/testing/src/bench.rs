//! Ratios of one run for benches that need no statistics: reading a file, one silent way, the whole search.
#![allow(clippy::float_arithmetic)]

use crate::{median, total};
use hembo_core::{
    Registry, file,
    search::{Stop, search},
};
use std::{collections::BTreeMap, hint::black_box};

/// How often each is measured.
const TIMES: usize = 51;

/// Prints how the parts of reckoning a household file stand to one another.
pub fn ratios(name: &str, bytes: &[u8], registry: &Registry) {
    let read = || file::read(black_box(bytes), registry).unwrap();
    let household = read();
    let case = registry.pack(&household.country).unwrap().open(&household);
    let searched = || search(&*case, &BTreeMap::new(), 24, &Stop::default()).unwrap();
    let way = searched().ranking.remove(0).way;
    let parse = median(TIMES, || drop(black_box(read())));
    let one = median(TIMES, || {
        black_box(total(&*case, &way));
    });
    let all = median(TIMES, || drop(black_box(searched())));
    println!(
        "{name}: a silent way {:.1} µs, {:.3} of reading the file; the search {:.2} ms, {:.0} ways",
        one * 1e6,
        one / parse,
        all * 1e3,
        all / one
    );
}
