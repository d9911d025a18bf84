//! How long the demo households take, as ratios within one run: reading the JSON, one silent way, the whole search.
#![allow(missing_docs)]

use hembo_testing::{bench::ratios, nz::REGISTRY};

fn main() {
    for name in ["penwarden", "kaveney-tuhoro", "harkness-leota"] {
        let path = format!("{}/../../demo/nz/{name}.json", env!("CARGO_MANIFEST_DIR"));
        ratios(name, &std::fs::read(path).expect("the demo household is there"), &REGISTRY);
    }
}
