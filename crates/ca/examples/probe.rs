#![allow(missing_docs, clippy::unwrap_used)]
use hembo_core::{Pack, Registry, check, search::search};
use std::time::Instant;
static REGISTRY: Registry = Registry(&[&hembo_ca::Canada]);
fn main() {
    for f in std::env::args().skip(1) {
        let h = check::read(&std::fs::read(&f).unwrap(), &REGISTRY).unwrap();
        let case = hembo_ca::Canada.open(&h);
        let t = Instant::now();
        let w = search(&*case, &Default::default(), 24);
        println!("{f}: {} points, {:?}", w.lawful, t.elapsed());
        let way = &w.ranking[0].way;
        let t = Instant::now();
        for _ in 0..100000 {
            std::hint::black_box(case.total(0, way));
        }
        println!("  one silent way {:?}", t.elapsed() / 100000);
        println!("  {:?}", w.ranking[0]);
    }
}
